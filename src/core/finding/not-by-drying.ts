import { bakingTemperature } from '../heat';
import { formatTemperature, sensible } from '../quantity';
import { finding, type Rule } from './finding';

/** Clay that hardens otherwise than by drying, or is not to harden: what that means. */
export const notByDrying: Rule = {
  id: 'not-by-drying',
  judge: ({ piece, report, units }) => {
    const said = (id: string, sentence: string, reason: string) => [
      finding('drying', id, 'sound', 'whole piece', sentence, reason, { measured: 0, limit: 1, unit: 'ratio' }),
    ];
    switch (piece.clay.setting) {
      case 'dries':
        return [];
      case 'sets':
        return said(
          'sets',
          `It sets, and does not dry: hard about ${sensible(report.cure?.cureHours ?? 24, 2)} h after the last batch.`,
          'Setting takes up its own volume: next to no shrinkage, so nothing pulls on the core.',
        );
      case 'damp': {
        const days = report.workableDays ?? 0;
        return [
          finding(
            'drying',
            'workable',
            days < 2 ? 'watch' : 'sound',
            'whole piece',
            `Left like this it stays workable for about ${sensible(days, 2)} days.`,
            'This clay is kept damp. A closed bag and a wet cloth buy weeks; never let it dry on the armature.',
            { measured: days, limit: 2, unit: 'days', smallerIsWorse: true },
          ),
        ];
      }
      case 'bakes':
        return said(
          'never-dries',
          'It hardens in the oven, not in the air.',
          `Everything inside must stand ${formatTemperature(bakingTemperature, units)}.`,
        );
      case 'never':
        return said(
          'never-dries',
          'It never dries: it can be worked for years.',
          'To keep the piece, mould and cast it.',
        );
    }
  },
};
