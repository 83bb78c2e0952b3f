import { formatForce, sensible } from '../quantity';
import { finding, type Rule } from './finding';

/** Driven standing up it does not go over when the driver brakes, or it is lashed (EN 12195-1). */
export const roadStance: Rule = {
  id: 'road-stance',
  judge: ({ piece, report, units }) => {
    const { road } = report.handling;
    if (!road) return [];
    const over = road.asked / Math.max(1e-3, road.standsTo);
    const { lashed } = piece.build.brief.travel;
    const holds = `${formatForce(road.hold, units)} level, at the height of its centre of gravity`;
    return [
      finding(
        'move',
        'road-stance',
        over <= 1 || lashed ? 'sound' : 'watch',
        'whole piece',
        over <= 1
          ? 'On the road it does not tip, whichever way it is shaken.'
          : lashed
            ? `Lashed, it stands on the road: the straps hold ${holds}.`
            : `Not lashed, it goes over on the road: ${road.cause} is enough.`,
        `It stands ${sensible(road.standsTo, 2)} of its weight pushing level; the road asks ${sensible(road.asked, 2)} of it (${road.cause}).${road.hold > 0 && over > 1 && !lashed ? ` What keeps it from tipping and sliding: ${holds}.` : ''}${over <= 1 && road.hold > 0 ? ' It slides before it tips: chock it, or stand it on rubber.' : ''}`,
        { measured: Math.min(99, over), limit: 1, unit: 'ratio', cause: road.cause },
      ),
    ];
  },
  propose: () => [
    {
      id: 'lash',
      edit: { label: 'Lash it down on the way', changes: [{ path: ['brief', 'travel', 'lashed'], value: true }] },
      note: 'straps over the board or the armature, never over the clay',
    },
  ],
};
