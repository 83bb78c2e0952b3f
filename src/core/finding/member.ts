import { compared, formatLength, formatMass, formatMoment, sensible, type UnitSystem } from '../quantity';
import { statusOf, type MemberReport, type Piece } from '../piece';
import { finding, type Part, type Rule } from './finding';
import { alike } from './group';
import { stronger } from './stronger';
import { underMouldRemedies } from './under-mould';
import { lifeStagePhrase, pairKey, placesInWords, several } from './words';

/** Each bone carries what is asked of it at its worst, with its safety: utilisation under one. */
interface MemberPart extends Part {
  readonly report: MemberReport;
}

export const member: Rule = {
  id: 'member',
  judge: ({ piece, report, units }) => {
    const worst = [...report.members].sort((a, b) => compared(b.utilisation) - compared(a.utilisation));
    const parts = worst
      .filter((x, i) => i === 0 || x.status !== 'sound')
      .map((m): MemberPart => ({
        id: `member/${m.id}`,
        name: m.name,
        status: m.status,
        measured: m.utilisation,
        report: m,
      }));
    return alike(
      parts,
      (p) => madeAlike(piece, p.report.id),
      (a, b) => compared(a.measured) - compared(b.measured),
    ).map((lot) => {
      const m = lot[0]!.report;
      const place = placesInWords(lot.map((p) => p.name));
      return finding('load', lot[0]!.id, m.status, place, sentenceOf(m, lot, place), reasonOf(m, units), {
        measured: m.utilisation,
        limit: 1,
        unit: 'ratio',
        range: m.utilisationRange,
        stage: m.stage,
        cause: m.cause,
        parts: lot.map(({ id, name, status, measured }) => ({ id, name, status, measured })),
      });
    });
  },
  propose: (on, found) => [
    ...underMouldRemedies(on, found.stage),
    ...stronger(
      on,
      found.parts.map((p) => p.id.slice('member/'.length)),
    ),
  ],
  measure: ({ report }, part) => {
    const own = report.members.find((m) => `member/${m.id}` === part);
    return { measured: own?.utilisation ?? 0, status: own ? statusOf(own.utilisation) : 'sound' };
  },
};

/** Bones made of the same: a left and a right, or all that have nothing along them. */
function madeAlike(piece: Piece, bone: string): string {
  const along = piece.armature.members.filter((m) => m.bones.includes(bone));
  if (along.length === 0) return 'nothing along them';
  const name = piece.armature.bones.find((b) => b.id === bone)?.name ?? bone;
  return `${pairKey(name)}:${along.map((m) => `${m.stock}/${m.size}/${m.strands}`).join()}`;
}

function sentenceOf(m: MemberReport, lot: readonly Part[], place: string): string {
  const ratio = sensible(m.utilisation, 2);
  const many = several(lot.map((p) => p.name));
  const who = `The ${place}`;
  const most = many ? ', at the worst of them' : '';
  if (m.status === 'fails')
    return `${who} ${many ? 'give' : 'gives'} way: ${many ? 'they are' : 'it is'} asked for ${ratio} times what ${many ? 'they' : 'it'} can safely bear${most}.`;
  if (m.status === 'watch')
    return `${who} ${many ? 'hold' : 'holds'}, with little to spare: ${ratio} of what ${many ? 'they' : 'it'} can safely bear${most}.`;
  return `${who} ${many ? 'hold' : 'holds'} easily, at ${ratio} of what ${many ? 'they' : 'it'} can safely bear.`;
}

function reasonOf(m: MemberReport, units: UnitSystem): string {
  const parts = [
    ['metal, timber and hard skin', m.metalShare],
    ['bulk', m.bulkShare],
    ['the clay itself', m.clayShare],
  ] as const;
  const main = parts
    .filter(([, v]) => v > 0)
    .map(([k, v]) => `${k} ${sensible(v, 2)}`)
    .join(', ');
  const sag = m.sag > 0.0005 ? ` Its outer joint moves ${formatLength(m.sag, units)}.` : '';
  const set =
    m.set > 0
      ? m.set >= 99
        ? ' The wire folds.'
        : ` A soft wire would keep ${sensible(m.set * 100, 2)} % of that bend.`
      : '';
  const bows =
    m.buckling >= m.utilisation && m.buckling > 0.3
      ? ' It is slender: it would bow out sideways under the weight.'
      : '';
  return `Worst ${lifeStagePhrase(m.stage)}: it bends with ${formatMoment(m.demand, units)}, ${formatMass(m.carries, units)} of it right on this bone; it resists with ${formatMoment(m.capacity, units)} (${main || 'nothing'})${m.pushShare >= 0.02 ? `, and what pushes or pulls along it takes ${sensible(m.pushShare, 2)} of what it may` : ''}.${sag}${set}${bows}`;
}

/** The bone of a part that names one, or the bone a finding is placed on. */
export function boneNamed(piece: Piece, name: string): string[] {
  const bone = piece.armature.bones.find((b) => b.name === name);
  return bone ? [bone.id] : [];
}
