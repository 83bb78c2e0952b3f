import { formatLength } from '../quantity';
import { cutsToFree } from '../piece';
import { finding, type Rule } from './finding';

/** Clay kept damp comes off its armature before it is fired or cast: whole, or cut where it must be. */
export const offTheArmature: Rule = {
  id: 'off',
  judge: ({ piece, units }) => {
    if (piece.clay.setting !== 'damp') return [];
    const cuts = cutsToFree(piece);
    const list = cuts
      .map(
        (c, i) =>
          `${i + 1}. the ${c.place} at ${formatLength(c.level, units)} over the board, to free the ${c.members.join(' and the ')}`,
      )
      .join('; ');
    return [
      finding(
        'armature',
        'off',
        cuts.length === 0 ? 'sound' : 'watch',
        'whole piece',
        cuts.length === 0
          ? 'It lifts off its armature whole.'
          : `To come off its armature it is cut in ${cuts.length + 1} pieces.`,
        cuts.length === 0
          ? 'Nothing inside is wider than what it leaves through. Loosen it while the clay is leathery.'
          : `In this order: ${list}. Hollow it, score and slip the cuts together again while it is leathery; or mould it where it stands and leave it whole.`,
        { measured: cuts.length, limit: 0, unit: 'count' },
      ),
    ];
  },
};
