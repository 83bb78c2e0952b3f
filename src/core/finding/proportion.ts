import { compared, formatLength } from '../quantity';
import { outsideEnvelopes } from '../piece';
import { finding, type Rule } from './finding';
import { alike } from './group';
import { pairKey, placesInWords, several } from './words';

/** Masses and wires that leave the bounds of proportion: a loop wider than the skull, a jaw below the chin. */
export const proportion: Rule = {
  id: 'proportion',
  judge: ({ piece, units }) => {
    const parts = outsideEnvelopes(piece).map((o) => ({
      id: `proportion/${o.envelope}/${o.id}`,
      name: o.name,
      status: 'watch' as const,
      measured: o.by,
      o,
    }));
    return alike(
      parts,
      (p) => `${p.o.envelope}:${p.o.member}:${pairKey(p.name)}`,
      (a, b) => compared(a.measured) - compared(b.measured),
    ).map((lot) => {
      const { o } = lot[0]!;
      const place = placesInWords(lot.map((p) => p.name));
      const many = several(lot.map((p) => p.name));
      return finding(
        o.member ? 'armature' : 'form',
        lot[0]!.id,
        'watch',
        place,
        o.member
          ? `The ${place} ${many ? 'are' : 'is'} wider than the ${o.envelopeName}.`
          : `The ${place} ${many ? 'stand' : 'stands'} outside the ${o.envelopeName}.`,
        `By ${formatLength(o.by, units)} at the most, measured against the proportions of the form. Leave it if it is meant.`,
        {
          measured: o.by,
          limit: 0,
          unit: 'metres',
          parts: lot.map(({ id, name, status, measured }) => ({ id, name, status, measured })),
        },
      );
    });
  },
};
