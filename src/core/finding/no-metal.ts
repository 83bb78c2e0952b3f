import { finding, type Rule } from './finding';
import { stronger } from './stronger';
import { placesInWords } from './words';

/** Every bone has wire, pipe or timber along it: soft fillings lose what they carry over a night. */
export const noMetal: Rule = {
  id: 'no-metal',
  judge: ({ piece }) => {
    const { bones, members } = piece.armature;
    const served = new Set(members.flatMap((m) => m.bones));
    const empty = bones.filter((b) => !served.has(b.id));
    if (empty.length === 0)
      return [
        finding(
          'armature',
          'makeable',
          'sound',
          'armature',
          `${members.length} ${members.length === 1 ? 'member' : 'members'} on ${bones.length} ${bones.length === 1 ? 'bone' : 'bones'}, each with something to carry it.`,
          'Every bone has wire, pipe or timber along it.',
          { measured: 0, limit: 0, unit: 'count' },
        ),
      ];
    const place = placesInWords(empty.map((b) => b.name));
    return [
      finding(
        'armature',
        `no-metal/${empty[0]!.id}`,
        'watch',
        place,
        `Nothing but bulk and clay runs along the ${place}.`,
        'Soft fillings carry little and lose it over a night; a wire costs grams.',
        {
          measured: empty.length,
          limit: 0,
          unit: 'count',
          parts: empty.map((b) => ({ id: `no-metal/${b.id}`, name: b.name, status: 'watch', measured: 1 })),
        },
      ),
    ];
  },
  propose: (on, found) =>
    stronger(
      on,
      found.parts.map((p) => p.id.slice('no-metal/'.length)),
    ),
};
