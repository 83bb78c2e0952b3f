import { formatLength } from '../quantity';
import { regionName, type Piece, type StayingPut } from '../piece';
import { finding, type Rule } from './finding';
import { oneMoreCoat } from './staying-put';

function thickestOf(all: readonly StayingPut[]): StayingPut | null {
  return all.reduce<StayingPut | null>((m, s) => (m === null || s.coat > m.coat ? s : m), null);
}

const tooThick = (piece: Piece, coat: number) => !piece.face.solid && coat > piece.clay.usualThickness[1];

/** One coat is no thicker than this clay is usually laid. */
export const thickCoat: Rule = {
  id: 'thick-coat',
  judge: ({ piece, report, units }) => {
    const most = piece.clay.usualThickness[1];
    const thickest = thickestOf(report.staying);
    if (!thickest || !tooThick(piece, thickest.coat)) return [];
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
  measure: ({ piece, report }) => {
    const coat = thickestOf(report.staying)?.coat ?? 0;
    return { status: tooThick(piece, coat) ? 'watch' : 'sound', measured: coat };
  },
};
