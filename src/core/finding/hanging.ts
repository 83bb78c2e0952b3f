import { formatForce, sensible } from '../quantity';
import { finding, type Rule } from './finding';

/** Hung, it hangs as it was made, and no line goes slack. */
export const hanging: Rule = {
  id: 'hanging',
  judge: ({ report, units }) => {
    const { mount } = report;
    if (mount.kind !== 'hangs') return [];
    const most = Math.max(...mount.pulls);
    return [
      finding(
        'move',
        'hanging',
        mount.slack ? 'fails' : mount.tilt > 5 ? 'watch' : 'sound',
        'hanging points',
        mount.slack
          ? 'One of its lines would go slack: it turns over.'
          : mount.tilt > 0.5
            ? `It hangs turned by ${sensible(mount.tilt, 2)}° from how it was made.`
            : 'It hangs as it was made.',
        `The hardest-pulled point takes ${formatForce(most, units)} at rest. For anything above people a rigger or engineer decides; count ten times that on the line, and a second line.`,
        {
          measured: mount.tilt,
          limit: 5,
          unit: 'degrees',
          cause: 'its centre of gravity out of line with what holds it',
        },
      ),
    ];
  },
};
