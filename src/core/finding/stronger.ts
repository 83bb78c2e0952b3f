import { runsOf, pathThrough, sectionAcross, strandMoment, type Bone, type Member } from '../armature';
import type { BuildEdit, Change } from '../document';
import { whenHardWords, harderStock, sizesLike, type Stock } from '../catalogue';
import { formatLength } from '../quantity';
import type { Piece, PieceReport } from '../piece';
import { limbOfRun } from '../school';
import { memberChanges, parameter, thinnerEverywhere } from './edits';
import type { Judging, Proposal } from './finding';
import { placesInWords } from './words';

/**
 * What an old hand does about a limb that gives: a wire through it where there is none; then double it, splint it, take the
 * next size or a harder wire, set the join; prop it until it has set; cut the load.
 */
export function stronger(on: Judging, boneIds: readonly string[]): Proposal[] {
  const { piece, report } = on;
  const bones = boneIds
    .map((id) => piece.armature.bones.find((b) => b.id === id))
    .filter((b): b is Bone => b !== undefined);
  if (bones.length === 0) return [];
  const wanted = new Set(bones.map((b) => b.id));
  const along = piece.armature.members.filter((m) => m.bones.some((b) => wanted.has(b)));
  const served = new Set(piece.armature.members.flatMap((m) => m.bones));
  // Through all of a limb that has nothing in it, not the part alone that gives.
  const bare = runsOf(
    piece.armature,
    piece.armature.bones.filter((b) => !b.tie && !served.has(b.id)),
  ).filter((run) => run.some((b) => wanted.has(b.id)));
  return [
    ...(bare.length > 0 && bare.flat().length <= mostBare ? wireThrough(on, bare) : []),
    ...moreMetal(piece, along, placesInWords(bones.map((b) => b.name)), widerBy(report, wanted)),
    ...firmerJoin(bones),
    ...prop(piece, bones),
    ...lessToCarry(piece),
  ];
}

const mostBare = 60;

/** Soft wire that is bent in the hand, one strand or two; steel where there is no room for so much of it. */
const wires: readonly { readonly stock: string; readonly sizes: readonly string[]; readonly strands: number }[] = [
  { stock: 'aluminium-annealed', sizes: ['1.5mm', '2mm', '3mm', '4mm'], strands: 1 },
  { stock: 'aluminium-annealed', sizes: ['2mm', '3mm', '4mm'], strands: 2 },
  { stock: 'steel-galvanised', sizes: ['1.5mm', '2mm', '3mm', '4mm'], strands: 1 },
];
/** Of what it can bear: so far a wire is used. */
const usedTo = 0.6;

interface Wire {
  readonly stock: Stock;
  readonly size: string;
  readonly strands: number;
  readonly across: number;
  readonly bears: number;
}

function wiresThereAre(piece: Piece): Wire[] {
  return wires.flatMap(({ stock: id, sizes, strands }) => {
    const stock = piece.stockOf(id);
    if (!stock) return [];
    return sizes.flatMap((size): Wire[] => {
      const section = stock.sizes.find((s) => s.id === size)?.section;
      if (!section) return [];
      const bears = strands * strandMoment(stock, section);
      return [{ stock, size, strands, across: sectionAcross(section) * strands, bears }];
    });
  });
}

/** A wire through every run of bones that have nothing but filling: the first that bears what they are asked and has room. */
function wireThrough({ piece, report, units }: Judging, runs: readonly (readonly Bone[])[]): Proposal[] {
  const there = wiresThereAre(piece);
  if (there.length === 0) return [];
  const chosen = runs.map((run) => ({ run, wire: wireFor(piece, report, there, run) }));
  const sizes = [...new Set(chosen.map((c) => wireWords(c.wire, units)))];
  const place = placesInWords(runs.flatMap((r) => limbOfRun(r)));
  const first = piece.build.armature.added.members.length;
  return [
    {
      id: 'wire-through',
      edit: {
        label:
          sizes.length === 1
            ? `Put ${sizes[0]!} through the ${place}`
            : `Put wires through the ${place}: ${sizes.slice(0, 3).join('; ')}`,
        changes: chosen.flatMap(({ run, wire }, i): Change[] => [
          {
            path: ['armature', 'added', 'members', first + i],
            value: {
              id: `wire-through-${run[0]!.id.replaceAll('/', '-')}`.slice(0, 80),
              name: `wire in the ${limbOfRun(run)[0]!}`.slice(0, 80),
              stock: wire.stock.id,
              size: wire.size,
              strands: wire.strands,
              bonded: false,
              path: pathThrough(piece.armature, run).map((p) => [...p]),
              bones: run.map((b) => b.id),
              allowances: [{ what: 'bound along the other wire', length: 12 * wire.across }],
            },
          },
          ...boundOn(piece, run[0]!),
        ]),
      },
      note: 'bound and glued where it begins',
    },
  ];
}

/** What begins on another wire is bound to it; what begins in the base or alone is not. */
function boundOn(piece: Piece, first: Bone): Change[] {
  const { nodes, bones, members } = piece.armature;
  const held = nodes.find((n) => n.id === first.from)?.held ?? false;
  const others = bones
    .filter((b) => b.id !== first.id && (b.from === first.from || b.to === first.from))
    .map((b) => b.id);
  const onAnother = members.some((m) => m.bones.some((b) => others.includes(b)));
  return held || !onAnother ? [] : [{ path: ['armature', 'edits', first.id, 'joinFrom'], value: 'bound-glued' }];
}

function wireWords({ stock, size, strands }: Wire, units: Judging['units']): string {
  const across = formatLength(Number.parseFloat(size) / 1000, units);
  const what = stock.name.split(/,| wire/)[0]!;
  return strands > 1 ? `a doubled ${across} ${what} wire` : `a ${across} ${what} wire`;
}

function wireFor(piece: Piece, report: PieceReport, there: readonly Wire[], run: readonly Bone[]): Wire {
  const asked = run.reduce((most, b) => {
    const m = report.members.find((x) => x.id === b.id);
    return m ? Math.max(most, Math.max(m.utilisation, m.buckling) * m.capacity, m.demand * leastSafety) : most;
  }, 0);
  const room = run.reduce((least, b) => Math.min(least, roomIn(piece, b)), Infinity);
  const fits = there.filter((w) => w.across <= room);
  const enough = fits.find((w) => w.bears * usedTo >= asked);
  return enough ?? fits.reduce((a, b) => (b.bears > a.bears ? b : a), there[0]!);
}
const leastSafety = 1.5;

/** The thickest wire that keeps its cover between two joints of the form; no limit where the bone is none of its stretches. */
function roomIn(piece: Piece, bone: Bone): number {
  const joint = (node: string) => node.slice(node.indexOf('/') + 1);
  const own = piece.limbs().find((l) => l.to === joint(bone.to) && l.from === joint(bone.from));
  return own && own.wire > 0 ? own.wire : Infinity;
}

/** How much wider a wire would be that bears what these bones are asked and keeps their pose: by its cube, and by its fourth power. */
function widerBy(report: PieceReport, bones: ReadonlySet<string>): number {
  const own = report.members.filter((m) => bones.has(m.id));
  const asked = own.reduce((w, m) => Math.max(w, m.utilisation), 0),
    gives = own.reduce((w, m) => Math.max(w, m.sagShare), 0);
  return Math.max(1.05, Math.cbrt(asked / usedTo), (gives / sagWanted) ** 0.25);
}
const sagWanted = 0.015;

function moreMetal(piece: Piece, along: readonly Member[], place: string, wider: number): Proposal[] {
  const first = along[0];
  const stock = first && piece.stockOf(first.stock);
  if (!first || !stock) return [];
  const edit = (label: string, values: Readonly<Record<string, unknown>>): BuildEdit => ({
    label,
    changes: memberChanges(along, values),
  });
  const out: Proposal[] = [];
  const now = acrossOf(stock, first.size);
  if (first.strands < mostStrands)
    out.push({
      id: 'strand',
      edit: edit(first.strands === 1 ? `Double the ${place}` : `One more strand in the ${place}`, {
        strands: first.strands + 1,
      }),
      note: `${first.strands + 1} instead of ${first.strands}`,
    });
  if (first.strands > 1 && !first.bonded && !stock.brittle)
    out.push({
      id: 'splint',
      edit: edit(`Splint the strands in the ${place} together`, { bonded: true }),
      note: 'bound and glued: they work as one, and are not bent again',
    });
  const larger = sizesLike(stock, first.size)
    .filter((s) => sectionAcross(s.section) > now * 1.04)
    .sort((a, b) => sectionAcross(a.section) - sectionAcross(b.section));
  const next = larger.find((s) => sectionAcross(s.section) > now * wider * 0.999) ?? larger.at(-1);
  if (next) {
    const across = sectionAcross(next.section);
    out.push({
      id: 'thicker',
      edit: edit(`Go up to ${next.label}`, { size: next.id }),
      note:
        across > 0.0055 && across < 0.012
          ? 'hard to bend by hand'
          : next === larger[0]
            ? 'the next size made'
            : 'the size that bears it with something to spare',
    });
  }
  // Only wire that is bent by hand: of rod and timber there is a thicker one.
  const harder = first.stock.endsWith('-annealed') ? harderStock[first.stock]?.[0] : undefined;
  const steel = harder ? piece.stockOf(harder) : undefined;
  const like = steel?.sizes.find((s) => s.id.endsWith('mm') && Math.abs(sectionAcross(s.section) - now) < 0.0006);
  if (steel && like)
    out.push({
      id: 'harder',
      edit: edit(`${like.label} ${steel.name.split(',')[0]!} instead`, { stock: steel.id, size: like.id }),
      note: 'wants pliers, and springs back',
    });
  return out;
}

const mostStrands = 6;
function acrossOf(stock: Stock, size: string): number {
  const section = stock.sizes.find((s) => s.id === size)?.section;
  return section ? sectionAcross(section) : 0;
}

function firmerJoin(bones: readonly Bone[]): Proposal[] {
  const weak = bones.filter((b) => !['welded', 'threaded', 'epoxied'].includes(b.joinFrom));
  if (weak.length === 0) return [];
  return [
    {
      id: 'join',
      edit: {
        label: `Set the ${weak.length > 1 ? 'joins' : 'join'} of the ${placesInWords(weak.map((b) => b.name))} in epoxy putty`,
        changes: weak.map((b): Change => ({ path: ['armature', 'edits', b.id, 'joinFrom'], value: 'epoxied' })),
      },
      note: 'a day to set; it cannot be moved after',
    },
  ];
}

/** Until the clay carries itself: dry, set, baked; clay that never does is propped for good. */
function prop(piece: Piece, bones: readonly Bone[]): Proposal[] {
  const { props } = piece.build.armature;
  const free = bones.filter(
    (b, i) => !props.some((p) => p.node === b.to) && bones.findIndex((x) => x.to === b.to) === i,
  );
  if (free.length === 0 || free.length > mostProps) return [];
  const hard = whenHardWords(piece.clay.setting);
  const until = hard && `until ${hard}`;
  return [
    {
      id: 'prop',
      note: until
        ? 'a stick or a block under it, padded'
        : 'a stick or a block under it, padded; this clay never carries itself',
      edit: {
        label: `Prop the end of the ${placesInWords(free.map((b) => b.name))} ${until ?? 'for good'}`,
        changes: free.map((b, i): Change => ({
          path: ['armature', 'props', props.length + i],
          value: {
            id: `prop-${b.to.replaceAll('/', '-')}`,
            name: `prop under the ${b.name}`.slice(0, 80),
            node: b.to,
            until: until ? 'through-dry' : 'always',
          },
        })),
      },
    },
  ];
}
const mostProps = 6;

function lessToCarry(piece: Piece): Proposal[] {
  const out: Proposal[] = [];
  if (piece.bulk.id === 'paper-loose')
    out.push({
      id: 'firmer-bulk',
      edit: parameter('Pack the paper firm', { bulk: 'paper-firm' }),
      note: 'heavier, holds the clay back more',
    });
  if (piece.face.solid)
    out.push({
      id: 'bulk',
      edit: parameter('Cut the load: fill it with firm paper', { bulk: 'paper-firm' }),
      note: 'far less clay to carry',
    });
  else {
    const thinner = thinnerEverywhere(piece);
    out.push({ ...thinner, edit: { ...thinner.edit, label: 'Cut the load: thinner clay everywhere' } });
  }
  return out;
}
