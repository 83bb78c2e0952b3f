import { formatForce, formatLength } from '../quantity';
import { statusOf } from '../piece';
import { finding, type Rule } from './finding';

/** On a wall plate: its screws hold three times what it asks of them. */
export const wall: Rule = {
  id: 'wall',
  judge: ({ report, units }) => {
    const { mount } = report;
    if (mount.kind !== 'wall') return [];
    const share = (3 * Math.hypot(mount.tension, mount.shear)) / mount.pull;
    return [
      finding(
        'move',
        'wall',
        statusOf(share),
        'wall plate',
        share > 1 ? 'The wall plate’s screws are too weak.' : 'The wall plate holds.',
        `${mount.ofCast ? 'This is for a cast of it. ' : ''}It stands ${formatLength(mount.standsOut, units)} out; each upper screw is pulled with ${formatForce(mount.tension, units)} and each carries ${formatForce(mount.shear, units)}; three times that against ${formatForce(mount.pull, units)}.`,
        { measured: share, limit: 1, unit: 'ratio', cause: 'its weight standing out from the wall' },
      ),
    ];
  },
};
