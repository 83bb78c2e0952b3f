import type { MixId } from '../cure';
import type { Need, StepKind } from '../document';
import {
  leftInTheBowl,
  mouldKinds,
  mouldMaterials,
  swells,
  type MouldKind,
  type MouldKindId,
  type MouldLayer,
  type MouldMaterialId,
} from '../mould';
import type { MouldFacts } from './step';

/** A step of what a piece goes through once it is made: hours to wait after it, and its share of the hours its kind takes. */
export interface ProcessStep {
  readonly id: string;
  readonly name: string;
  readonly kind: StepKind;
  readonly wait: number;
  readonly share: number;
  readonly needs?: readonly Need[];
  /** In one sitting: what sets is not gone on with another day. */
  readonly whole?: boolean;
  /** What is waited for after it. */
  readonly until?: string;
  /** What it uses up, kg to a m2 of face, and what that is mixed as. */
  readonly takes?: ProcessTakes;
}

export interface ProcessTakes {
  readonly what: string;
  /** kg to a m2 of face; of what is poured round a piece, its share of the block's kg. */
  readonly perArea: number;
  readonly ofBlock?: number;
  readonly mix?: MixId;
}

/** Moulds as they are laid up over a piece: usual walls, and what goes into them. */
const parting: ProcessStep = {
  id: 'part',
  name: 'Set out the parting and shims, release',
  kind: 'moulding',
  wait: 1,
  share: 0.8,
  until: 'the release is dry',
};
const opened: ProcessStep = { id: 'open', name: 'Open the mould and clean it', kind: 'moulding', wait: 0, share: 0.5 };

/** A layer as it lies on a face: so much more of it than on a flat one. */
interface LaidLayer extends MouldLayer {
  readonly swells: number;
}

/** kg bought to a m2 of face of a layer, and what is left in the bowl. */
function bought({ material, thickness, swells: more }: LaidLayer): number {
  return mouldMaterials[material].bought * thickness * more * (1 + leftInTheBowl);
}

/** Coats one over the other, each a step of its own: hours until the next may go on, and after the last. */
function coatsOf(
  many: number,
  name: (coat: number) => string,
  { between, after, until }: { readonly between: number; readonly after: number; readonly until: string },
  takes: ProcessTakes,
): ProcessStep[] {
  return Array.from({ length: many }, (_, i): ProcessStep => {
    const last = i === many - 1;
    return {
      id: i === 0 ? 'coat' : `coat-${i + 1}`,
      name: name(i + 1),
      kind: 'moulding',
      wait: last ? after : between,
      share: 0.2,
      whole: true,
      until: last ? until : 'the coat before is ready for the next',
      takes: { ...takes, perArea: takes.perArea / many },
    };
  });
}

const shell = (name: string, takes: ProcessTakes): ProcessStep => ({
  id: 'shell',
  name,
  kind: 'moulding',
  wait: 24,
  share: 0.8,
  until: 'the shell is hard',
  takes,
});

const mixed: Readonly<Partial<Record<MouldMaterialId, MixId>>> = {
  silicone: 'silicone',
  plaster: 'plaster',
  gauze: 'plaster-gauze',
};

function takenBy(layer: LaidLayer, what: string, share = 1): ProcessTakes {
  const mix = mixed[layer.material];
  return { what, perArea: bought(layer) * share, ...(mix ? { mix } : {}) };
}

/** Latex comes as it is brushed on: nothing is mixed, but each coat is dry before the next. Rubber sets onto what has begun to. */
function skinCoats(skin: LaidLayer): ProcessStep[] {
  const { name } = mouldMaterials[skin.material];
  const waits =
    skin.material === 'latex'
      ? { between: 3, after: 24, until: 'the latex is dry through' }
      : { between: 1.5, after: 24, until: `the ${name} has set` };
  const called = (k: number) =>
    skin.coats === 1 ? `Pour on the ${name}` : `Brush on the ${name}, coat ${k} of ${skin.coats}`;
  return coatsOf(skin.coats, called, waits, takenBy(skin, name));
}

function shellOver(layer: LaidLayer): ProcessStep {
  return layer.material === 'gauze'
    ? shell('Make the shell over it of plaster gauze', takenBy(layer, 'plaster gauze'))
    : shell('Make the shell over it', takenBy(layer, 'plaster for the shell'));
}

/** Walls of plaster without a skin: both halves one after the other, at once against a shim, or one alone. */
function plasterWalls(kind: MouldKind<MouldKindId>, layer: LaidLayer): ProcessStep[] {
  const half = { kind: 'moulding' as const, share: 1, whole: true };
  const all = { ...half, id: 'shell', wait: 24, until: 'the plaster is hard', takes: takenBy(layer, 'plaster') };
  if (kind.parts === 'one') return [{ ...all, name: 'Lay up the plaster' }];
  if (kind.id === 'shim-halves') return [{ ...all, share: 1.5, name: 'Lay up the plaster on both sides of the shim' }];
  const takes = takenBy(layer, 'plaster', 1 / 2);
  return [
    {
      ...half,
      id: 'coat',
      name: 'Lay up the plaster on the first half',
      wait: 1,
      until: 'the first half has set',
      takes,
    },
    {
      ...half,
      id: 'shell',
      name: 'Take out the shims, release the seam, lay up the other half',
      wait: 24,
      until: 'the plaster is hard',
      takes,
    },
  ];
}

/** Rubber poured into a box about the piece, at once or half by half. */
function pours(kind: MouldKind<MouldKindId>): ProcessStep[] {
  const pour = (id: string, name: string, share: number): ProcessStep => ({
    id,
    name,
    kind: 'moulding',
    wait: 24,
    share: 0.4,
    whole: true,
    until: 'the silicone has set',
    takes: { what: 'silicone', perArea: 0, ofBlock: share, mix: 'silicone' },
  });
  if (kind.parts === 'one') return [pour('coat', 'Mix the silicone and pour it', 1)];
  return [
    pour('coat', 'Mix the silicone and pour the first half', 1 / 2),
    {
      id: 'turn-over',
      name: 'Turn it over, take off the clay bed, release the rubber',
      kind: 'moulding',
      wait: 0.5,
      share: 0.5,
      until: 'the release is dry',
    },
    pour('coat-2', 'Mix the silicone and pour the other half', 1 / 2),
  ];
}

const setUp: Readonly<Partial<Record<MouldKindId, string>>> = {
  'rubber-block': 'Build a box round it, seal its edges, release',
  'rubber-in-two': 'Bed it in clay to its parting line with keys, build a box round it, release',
  'rubber-press': 'Build a low wall round it, release',
  'plaster-open': 'Lay it on its back, build a wall round it, release',
  'shim-halves': 'Press in the shim along the parting line, release',
};

/** What a mould of this kind asks for, in order; of what it lies on as though that were flat, where its volume is not known. */
export function mouldSteps({
  kind: id,
  ...own
}: Pick<MouldFacts, 'kind' | 'skin' | 'shell' | 'area' | 'volume'>): ProcessStep[] {
  const kind: MouldKind<MouldKindId> = mouldKinds.find((k) => k.id === id)!;
  const on = { area: own.area ?? 0, volume: own.volume ?? 0 };
  const as = (layer: MouldLayer | null, said: number | null | undefined, under: number): LaidLayer | null => {
    if (!layer) return null;
    const thickness = said ?? layer.thickness;
    return { ...layer, thickness, swells: swells(on, thickness, under) };
  };
  const skin = as(kind.skin, own.skin, 0),
    over = as(kind.shell, own.shell, skin?.thickness ?? 0);
  const { block } = kind;
  const first = setUp[id];
  return [
    first === undefined ? parting : { ...parting, name: first },
    ...(skin ? skinCoats(skin) : []),
    ...(block ? pours(kind) : []),
    ...(over ? (skin ? [shellOver(over)] : plasterWalls(kind, over)) : []),
    opened,
  ];
}
