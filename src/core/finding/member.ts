import type { Bone } from '../armature';
import type { BuildEdit, Change } from '../document';
import { compared, formatLength, formatMass, formatMoment, sensible, type UnitSystem } from '../quantity';
import { statusOf, type MemberReport, type Piece } from '../piece';
import { parameter, thinnerEverywhere } from './edits';
import { finding, type Part, type Proposal, type Rule } from './finding';
import { alike } from './group';
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
  propose: ({ piece }, found) =>
    stronger(
      piece,
      found.parts.map((p) => p.id.slice('member/'.length)),
    ),
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

/** Ways to make bones stronger, all of them at once. */
export function stronger(piece: Piece, boneIds: readonly string[]): Proposal[] {
  const bones = boneIds
    .map((id) => piece.armature.bones.find((b) => b.id === id))
    .filter((b): b is Bone => b !== undefined);
  if (bones.length === 0) return [];
  const place = placesInWords(bones.map((b) => b.name));
  const along = piece.armature.members.filter((m) => m.bones.some((b) => bones.some((x) => x.id === b)));
  const out: Proposal[] = [];
  const edit = (label: string, values: Readonly<Record<string, unknown>>): BuildEdit => ({
    label,
    changes: along.flatMap((m) =>
      Object.entries(values).map(([k, value]): Change => ({ path: ['armature', 'edits', m.id, k], value })),
    ),
  });
  const bare = bones.filter((b) => !along.some((m) => m.bones.includes(b.id)));
  if (bare.length > 0 && bare.length <= 60) out.push(wireAlong(piece, bare));
  const first = along[0];
  const stock = first && piece.stockOf(first.stock);
  if (first && stock) {
    if (first.strands < 6)
      out.push({
        id: 'strand',
        edit: edit(`One more strand in the ${place}`, { strands: first.strands + 1 }),
        note: `${first.strands + 1} instead of ${first.strands}`,
      });
    const across = (id: string) => {
      const s = stock.sizes.find((x) => x.id === id)?.section;
      return s ? ('diameter' in s ? s.diameter : s.width) : 0;
    };
    const now = across(first.size);
    const next = stock.sizes.filter((s) => across(s.id) > now * 1.05).sort((a, b) => across(a.id) - across(b.id))[0];
    if (next)
      out.push({
        id: 'thicker',
        edit: edit(`Go up to ${next.label}`, { size: next.id }),
        note: across(next.id) > 0.0055 && across(next.id) < 0.012 ? 'hard to bend by hand' : 'the next size made',
      });
  }
  const weak = bones.filter((b) => !['welded', 'threaded', 'epoxied'].includes(b.joinFrom));
  if (weak.length > 0)
    out.push({
      id: 'join',
      edit: {
        label: `Set the ${weak.length > 1 ? 'joins' : 'join'} of the ${placesInWords(weak.map((b) => b.name))} in epoxy putty`,
        changes: weak.map((b): Change => ({ path: ['armature', 'edits', b.id, 'joinFrom'], value: 'epoxied' })),
      },
      note: 'a day to set; it cannot be moved after',
    });
  const { props } = piece.build.armature;
  const free = bones.filter(
    (b, i) => !props.some((p) => p.node === b.to) && bones.findIndex((x) => x.to === b.to) === i,
  );
  if (free.length > 0 && free.length <= 6)
    out.push({
      id: 'prop',
      note: 'a stick or a block under it, padded',
      edit: {
        label: `Prop the end of the ${placesInWords(free.map((b) => b.name))} until it is dry`,
        changes: free.map((b, i): Change => ({
          path: ['armature', 'props', props.length + i],
          value: {
            id: `prop-${b.to.replaceAll('/', '-')}`,
            name: `prop under the ${b.name}`.slice(0, 80),
            node: b.to,
            until: 'through-dry',
          },
        })),
      },
    });
  if (piece.bulk.id === 'paper-loose')
    out.push({
      id: 'firmer-bulk',
      edit: parameter('Pack the paper firm', { bulk: 'paper-firm' }),
      note: 'heavier, holds the clay back more',
    });
  if (piece.face.solid)
    out.push({
      id: 'bulk',
      edit: parameter('Fill it with firm paper', { bulk: 'paper-firm' }),
      note: 'far less clay to carry',
    });
  else out.push(thinnerEverywhere(piece));
  return out;
}

/** A soft wire along bones that have nothing but filling. */
function wireAlong(piece: Piece, bones: readonly Bone[]): Proposal {
  const at = new Map(piece.armature.nodes.map((n) => [n.id, n.at]));
  const there = piece.build.armature.added.members.length;
  return {
    id: 'wire-along',
    edit: {
      label: `Run a 3 mm annealed wire along the ${placesInWords(bones.map((b) => b.name))}`,
      changes: bones.map((b, i): Change => ({
        path: ['armature', 'added', 'members', there + i],
        value: {
          id: `wire-along-${b.id.replaceAll('/', '-')}`.slice(0, 80),
          name: `wire along the ${b.name}`.slice(0, 80),
          stock: 'aluminium-annealed',
          size: '3mm',
          strands: 1,
          bonded: false,
          path: [at.get(b.from) ?? [0, 0, 0], at.get(b.to) ?? [0, 0, 0]],
          bones: [b.id],
          allowances: [],
        },
      })),
    },
    note: 'twisted on where it begins',
  };
}

/** The bone of a part that names one, or the bone a finding is placed on. */
export function boneNamed(piece: Piece, name: string): string[] {
  const bone = piece.armature.bones.find((b) => b.name === name);
  return bone ? [bone.id] : [];
}
