import type { Box, DistanceField } from '../form';
import { failure, success, type Range, type Result } from '../quantity';
import { castKinds, type CastId, type CastKind } from './cast';
import {
  leftInTheBowl,
  mouldKinds,
  mouldMaterials,
  type MouldKind,
  type MouldKindId,
  type MouldMaterialId,
} from './kind';
import { blockAbout, volumesWithin } from './offset-volumes';
import type { MouldWalls } from './chosen';
import { leftAfter } from './fit';

/** Part of a mould as it is laid up: m3, kg as it weighs then, kg to buy. */
export interface MouldPart {
  readonly material: MouldMaterialId;
  /** Metres; of a block, about the piece. */
  readonly thickness: number;
  readonly coats: number;
  readonly volume: number;
  readonly mass: number;
  readonly toBuy: number;
}

export interface MouldFigures {
  readonly kind: MouldKind<MouldKindId>;
  readonly cast: CastKind<CastId>;
  readonly skin: MouldPart | null;
  readonly shell: MouldPart | null;
  readonly block: MouldPart | null;
  /** Of a length, what a cast has of it. */
  readonly left: Range;
  /** kg of a cast, dry or set: its wall, or all of it where it is poured full; what is behind that; both. */
  readonly wall: Range;
  readonly backing: Range | null;
  readonly castMass: Range;
  /** m3 of the piece. */
  readonly piece: number;
}

export interface MouldAsked {
  readonly kind: string;
  /** The first that is cast in it, where nothing is said. */
  readonly cast?: string;
  /** In place of the usual ones, metres. */
  readonly skin?: number;
  readonly shell?: number;
  readonly margin?: number;
}

/** Walls as they are asked for: those there are. */
export function saidWalls(walls: MouldWalls): Pick<MouldAsked, 'skin' | 'shell' | 'margin'> {
  return Object.fromEntries(Object.entries(walls).filter(([, v]) => v !== null)) as Pick<
    MouldAsked,
    'skin' | 'shell' | 'margin'
  >;
}

/** What of the piece a mould is laid over: its distance, its box, and the height of the board it stands on. */
export interface Master {
  readonly field: DistanceField;
  readonly box: Box;
  readonly board: number | null;
  /** Of its face, what bears clay: skins, shells and walls are of that only. */
  readonly clad?: number;
  /** Of that, what a mould that is open behind lies over. */
  readonly front?: () => number;
}

const thickest = 0.3;

/** What was asked, looked up: the kind, the cast, walls in metres. */
interface Laid {
  readonly kind: MouldKind<MouldKindId>;
  readonly cast: CastKind<CastId>;
  readonly skin: number | null;
  readonly shell: number | null;
  readonly margin: number | null;
}

function lookedUp(asked: MouldAsked): Result<Laid> {
  const kind: MouldKind<MouldKindId> | undefined = mouldKinds.find((k) => k.id === asked.kind);
  if (!kind) return failure('no-such-kind', 'kind', `the kinds of mould are ${mouldKinds.map((k) => k.id).join(', ')}`);
  const takes: readonly CastId[] = kind.takes;
  const castId = asked.cast ?? takes[0]!;
  const cast = castKinds.find((c) => c.id === castId);
  if (!cast) return failure('no-such-cast', 'cast', `the casts are ${castKinds.map((c) => c.id).join(', ')}`);
  if (!takes.includes(cast.id))
    return failure('does-not-go-in', 'cast', `${cast.name} is not cast in ${kind.name}: ${takes.join(', ')} are`);
  for (const [path, said] of Object.entries({ skin: asked.skin, shell: asked.shell, margin: asked.margin }))
    if (said !== undefined && !(said > 0 && said <= thickest))
      return failure('bad-thickness', path, `it is above 0 and at most ${thickest} m`);
  return success({
    kind,
    cast,
    skin: kind.skin && (asked.skin ?? kind.skin.thickness),
    shell: kind.shell && (asked.shell ?? kind.shell.thickness),
    margin: kind.block && (asked.margin ?? kind.block.margin),
  });
}

/** Distances from the face within which it is counted, below zero within the piece. */
function offsetsOf({ cast, skin, shell }: Laid): number[] {
  const wall = cast.wall as Range | null;
  const walls = wall ? [-wall.low, -wall.nominal, -wall.high] : [];
  return [0, skin ?? 0, (skin ?? 0) + (shell ?? 0), ...walls];
}

/** Fails on a kind or cast there is none of, one that does not go in the other, and thicknesses that are no thickness. */
export function mouldFigures(master: Master, asked: MouldAsked): Result<MouldFigures> {
  const all = mouldFiguresOf(master, [asked]);
  return all.ok ? success(all.value[0]!) : all;
}

/** Several moulds of one master, its cells counted once. */
export function mouldFiguresOf(master: Master, asked: readonly MouldAsked[]): Result<MouldFigures[]> {
  const laid: Laid[] = [];
  for (const one of asked) {
    const found = lookedUp(one);
    if (!found.ok) return found;
    laid.push(found.value);
  }
  const offsets = [...new Set(laid.flatMap(offsetsOf))];
  const thin = Math.min(...offsets.map(Math.abs).filter((t) => t > 0), thickest);
  const counted = volumesWithin({ ...master, finest: thin / 2 }, offsets);
  const within = (offset: number): number => counted[offsets.indexOf(offset)]!;
  if (!(within(0) > 0)) return failure('nothing-there', 'form', 'there is nothing to take a mould of');
  return success(laid.map((one) => figuresOf(one, master, within)));
}

function figuresOf(laid: Laid, master: Master, within: (offset: number) => number): MouldFigures {
  const { kind, cast, skin, shell, margin } = laid;
  const wall = cast.wall as Range | null;
  const [, toSkin = 0, toShell = 0] = offsetsOf(laid);
  const piece = within(0);
  const clad = (master.clad ?? 1) * (kind.open ? (master.front?.() ?? 1) : 1);
  const left = leftAfter(kind, cast);
  const wallOf = (end: keyof Range): number =>
    wall
      ? clad * (piece - within(-wall[end])) * left[end] ** 2 * cast.density[end]
      : piece * left[end] ** 3 * cast.density[end];
  const { backing: behind }: CastKind = cast;
  const face = wall ? (clad * (piece - within(-wall.nominal))) / wall.nominal : 0;
  const behindOf = (end: keyof Range): number =>
    behind ? face * behind.thick[end] * left[end] ** 2 * behind.density[end] : 0;
  const walls = ends(wallOf);
  const backing = behind ? ends(behindOf) : null;
  return {
    kind,
    cast,
    piece,
    left,
    skin: kind.skin && partOf(kind.skin.material, skin!, kind.skin.coats, clad * (within(toSkin) - piece)),
    shell:
      kind.shell && partOf(kind.shell.material, shell!, kind.shell.coats, clad * (within(toShell) - within(toSkin))),
    block: kind.block && partOf(kind.block.material, margin!, 1, blockAbout(master.box, master.board, margin!, piece)),
    wall: walls,
    backing,
    castMass: ends((end) => walls[end] + (backing?.[end] ?? 0)),
  };
}

/** A range, end by end. */
export function ends(of: (end: keyof Range) => number): Range {
  return { low: of('low'), nominal: of('nominal'), high: of('high') };
}

function partOf(material: MouldMaterialId, thickness: number, coats: number, volume: number): MouldPart {
  const { density, bought } = mouldMaterials[material];
  const mass = volume * density;
  return { material, thickness, coats, volume, mass, toBuy: volume * bought * (1 + leftInTheBowl) };
}
