import { sagLimit, sagWatched } from '../load';
import { compared, formatLength, sensible } from '../quantity';
import { finding, type Part, type Rule } from './finding';
import { alike } from './group';
import { boneNamed } from './member';
import { stronger } from './stronger';
import { pairKey, placesInWords } from './words';

/** A limb keeps its pose when the clay goes on: its end moves by no more than a fiftieth of its way from the base. */
export const sag: Rule = {
  id: 'sag',
  judge: ({ piece, report, units }) => {
    const most = new Map<string, { share: number; metres: number; stage: string }>();
    for (const m of report.lifeStages)
      if (m.stage.startsWith('clay'))
        for (const b of m.bones)
          if (b.sagShare > (most.get(b.bone)?.share ?? 0))
            most.set(b.bone, { share: b.sagShare, metres: b.sag, stage: m.name });
    const worst = [...most].sort((a, b) => compared(b[1].share) - compared(a[1].share))[0];
    if (!worst || worst[1].share <= sagWatched) return [];
    const nameOf = new Map(piece.armature.bones.map((b) => [b.id, b.name]));
    const parts = [...most]
      .filter(
        ([id, s]) =>
          s.share > sagWatched &&
          (id === worst[0] || pairKey(nameOf.get(id) ?? id) === pairKey(nameOf.get(worst[0]) ?? worst[0])),
      )
      .map(([id, s]): Part => ({
        id: `sag/${id}`,
        name: nameOf.get(id) ?? id,
        status: s.share > sagLimit ? 'fails' : 'watch',
        measured: s.share,
      }));
    const lot = alike(
      parts,
      () => '',
      (a, b) => compared(a.measured) - compared(b.measured),
    )[0]!;
    const s = most.get(lot[0]!.id.slice('sag/'.length))!;
    const place = placesInWords(lot.map((p) => p.name));
    const fails = s.share > sagLimit;
    return [
      finding(
        'load',
        'sag',
        fails ? 'fails' : 'watch',
        place,
        `The ${place} ${fails ? 'will sag' : lot.length > 1 ? 'give' : 'gives'} ${formatLength(s.metres, units)} when the clay goes on.`,
        `That is ${sensible(s.share * 100, 2)} % of its way from the base; past ${sensible(sagLimit * 100)} % the pose is lost.`,
        {
          measured: s.share,
          limit: sagLimit,
          unit: 'share',
          stage: s.stage,
          cause: 'the weight of the wet clay',
          // Sag is judged for the piece as a whole: the worst place is the finding.
          parts: [{ id: 'sag', name: place, status: fails ? 'fails' : 'watch', measured: s.share }],
        },
      ),
    ];
  },
  propose: (on, found) => {
    const { piece, report } = on;
    const bones = report.lifeStages
      .filter((m) => m.stage.startsWith('clay'))
      .flatMap((m) => m.bones)
      .filter((b) => b.sagShare >= found.measured * 0.98)
      .map((b) => b.bone);
    return stronger(on, bones.length > 0 ? [...new Set(bones)] : boneNamed(piece, found.place));
  },
  measure: ({ report }) => {
    const share = Math.max(
      0,
      ...report.lifeStages.filter((m) => m.stage.startsWith('clay')).flatMap((m) => m.bones.map((b) => b.sagShare)),
    );
    return { measured: share, status: share > sagLimit ? 'fails' : share > sagWatched ? 'watch' : 'sound' };
  },
};
