import { formatMass } from '../quantity';
import { finding, type Rule } from './finding';

/** What is to be driven is judged for the road, not for a bench. */
export const notForTheRoad: Rule = {
  id: 'not-for-the-road',
  judge: ({ piece, report, units }) => {
    if (report.handling.vehicleName === null || piece.build.brief.situation !== 'bench') return [];
    return [
      finding(
        'move',
        'not-for-the-road',
        'watch',
        'whole piece',
        'It is to be driven, but judged as though it stood on a bench.',
        `Braking, bends and bumps ask for more: say under Brief that it is carried and driven, and the armature is judged for ${formatMass(report.finished.mass, units)} on the road.`,
        { measured: 1, limit: 0, unit: 'count' },
      ),
    ];
  },
  propose: () => [
    {
      id: 'judge-for-the-road',
      edit: {
        label: 'Say that it is carried and driven',
        changes: [{ path: ['brief', 'situation'], value: 'moved' }],
      },
      note: 'the armature is judged under braking, bends and bumps',
    },
  ],
};
