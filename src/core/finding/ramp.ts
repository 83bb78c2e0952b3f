import { pushEach } from '../load';
import { formatForce, sensible } from '../quantity';
import { finding, type Rule } from './finding';

/** Up a ramp on its casters: it does not tip, and there are hands enough to push it. */
export const ramp: Rule = {
  id: 'ramp',
  judge: ({ piece, report, units }) => {
    const { ramp: slope } = piece.build.brief.travel;
    if (slope <= 0) return [];
    const { rampPush } = report.handling;
    const rolls = piece.armature.base.standing === 'casters';
    const people = Math.ceil(rampPush / pushEach);
    const tips = report.stance.tipAngle - slope < 5;
    return [
      finding(
        'move',
        'ramp',
        tips || !rolls || people > 3 ? 'fails' : people > 1 ? 'watch' : 'sound',
        'base',
        tips
          ? `On a ramp of ${sensible(slope)}° it is within ${sensible(Math.max(0, report.stance.tipAngle - slope), 2)}° of tipping.`
          : rolls
            ? `Up the ramp it takes ${people === 1 ? 'one person' : `${people} people`} to push it.`
            : 'It has no casters for the ramp: it is carried.',
        `It pushes back with ${formatForce(rampPush, units)} on ${sensible(slope)}°; count ${formatForce(pushEach, units)} for each pair of hands, and someone below it never.`,
        { measured: rampPush, limit: pushEach, unit: 'ratio' },
      ),
    ];
  },
};
