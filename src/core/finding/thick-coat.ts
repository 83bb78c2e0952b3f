import { formatLength } from '../quantity';
import { regionName, type StayingPut } from '../piece';
import { finding, type Rule } from './finding';
import { oneMoreCoat } from './staying-put';

function thickestOf(all: readonly StayingPut[]): StayingPut | null {
  return all.reduce<StayingPut | null>((m, s) => (m === null || s.coat > m.coat ? s : m), null);
}

/** One coat is no thicker than this clay is usually laid. */
export const thickCoat: Rule = {
  id: 'thick-coat',
  judge: ({ piece, report, units }) => {
    const most = piece.clay.usualThickness[1];
    const thickest = thickestOf(report.staying);
    if (piece.face.solid || !thickest || thickest.coat <= most) return [];
    return [
      finding(
        'clay',
        'thick-coat',
        'watch',
        regionName(thickest.region),
        `${formatLength(thickest.coat, units)} in one coat is thicker than ${piece.clay.name} is usually laid.`,
        `Makers stay under ${formatLength(most, units)} a coat.`,
        { measured: thickest.coat, limit: most, unit: 'metres' },
      ),
    ];
  },
  propose: ({ piece }) => oneMoreCoat(piece),
  measure: ({ report }) => ({ status: 'sound', measured: thickestOf(report.staying)?.coat ?? 0 }),
};
