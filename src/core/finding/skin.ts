import { sensible } from '../quantity';
import { statusOf, type Piece, type PieceReport } from '../piece';
import { finding, type Rule } from './finding';
import { boneNamed } from './member';
import { stronger } from './stronger';

/** Fresh clay stretches with what it lies on: bent further than it takes, it tears. */
export const skin: Rule = {
  id: 'skin',
  judge: ({ piece, report }) => {
    const { share, strain, bone } = strained(piece, report);
    if (share < 0.6) return [];
    const name = piece.armature.bones.find((b) => b.id === bone)?.name ?? bone;
    return [
      finding(
        'load',
        'skin',
        statusOf(share),
        name,
        share > 1
          ? `The fresh clay on the ${name} tears as it bends.`
          : `The fresh clay on the ${name} is stretched to ${sensible(share, 2)} of what it takes.`,
        `Bending stretches its skin by ${sensible(strain * 100, 2)} %; fresh, it takes ${sensible(takes(piece) * 100, 2)} %.`,
        { measured: share, limit: 1, unit: 'ratio' },
      ),
    ];
  },
  propose: (on, found) => stronger(on, boneNamed(on.piece, found.place)),
  measure: ({ piece, report }) => {
    const { share } = strained(piece, report);
    return { measured: share, status: statusOf(share) };
  },
};

const takes = (piece: Piece) => piece.mixed.drying?.capacityWet ?? 0.1;

function strained(piece: Piece, report: PieceReport): { share: number; strain: number; bone: string } {
  let worst = { strain: 0, bone: '' };
  for (const m of report.lifeStages)
    if (m.stage.startsWith('clay'))
      for (const b of m.bones) if (b.skinStrain > worst.strain) worst = { strain: b.skinStrain, bone: b.bone };
  return { ...worst, share: worst.strain / takes(piece) };
}
