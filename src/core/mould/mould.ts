import type { Box, DistanceField } from '../form';
import type { Piece } from '../piece';
import { failure, success, type Range, type Result } from '../quantity';
import { castKinds, type CastId, type CastKind } from './cast';
import { mouldKinds, mouldMaterials, type MouldKind, type MouldKindId, type MouldMaterialId } from './kind';
import { blockAbout, volumesWithin } from './offset-volumes';
import { leftOf } from './shrinkage';

/** A tenth of what is mixed stays in the bowl and on the brush. */
export const leftInTheBowl = 0.1;

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
  /** kg of a cast, dry or set. */
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

/** What of the piece a mould is laid over: its distance, its box, and the height of the board it stands on. */
export interface Master {
  readonly field: DistanceField;
  readonly box: Box;
  readonly board: number | null;
}

/** Where a mould ends below: a piece that stands is left open where it stands, over its board or on a post; others are closed. */
export function boardOf({ build, extent }: Piece): number | null {
  return build.armature.mount.kind === 'stands' ? extent.low[2] : null;
}

const thickest = 0.3;

/** Fails on a kind or cast there is none of, one that does not go in the other, and thicknesses that are no thickness. */
export function mouldFigures(master: Master, asked: MouldAsked): Result<MouldFigures> {
  const kind = mouldKinds.find((k) => k.id === asked.kind);
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
  const made: MouldKind<MouldKindId> = kind;
  const skin = made.skin && (asked.skin ?? made.skin.thickness),
    shell = made.shell && (asked.shell ?? made.shell.thickness),
    margin = made.block && (asked.margin ?? made.block.margin);
  const wall = cast.wall as Range | null;
  const toSkin = skin ?? 0,
    toShell = toSkin + (shell ?? 0);
  const walls = wall ? [-wall.low, -wall.nominal, -wall.high] : [];
  const thin = Math.min(...[skin, shell, wall?.low].filter((t) => t !== null && t !== undefined), thickest);
  const [piece = 0, skinned = 0, shelled = 0, ...within] = volumesWithin({ ...master, finest: thin / 2 }, [
    0,
    toSkin,
    toShell,
    ...walls,
  ]);
  if (!(piece > 0)) return failure('nothing-there', 'form', 'there is nothing to take a mould of');
  const left: Range = {
    low: leftOf([kind.shrinkage.high, cast.shrinkage.high]),
    nominal: leftOf([kind.shrinkage.nominal, cast.shrinkage.nominal]),
    high: leftOf([kind.shrinkage.low, cast.shrinkage.low]),
  };
  const massOf = (end: keyof Range, at: number): number =>
    wall ? (piece - within[at]!) * left[end] ** 2 * cast.density[end] : piece * left[end] ** 3 * cast.density[end];
  return success({
    kind,
    cast,
    piece,
    left,
    skin: made.skin && partOf(made.skin.material, skin!, made.skin.coats, skinned - piece),
    shell: made.shell && partOf(made.shell.material, shell!, made.shell.coats, shelled - skinned),
    block: made.block && partOf(made.block.material, margin!, 1, blockAbout(master.box, master.board, margin!, piece)),
    castMass: { low: massOf('low', 0), nominal: massOf('nominal', 1), high: massOf('high', 2) },
  });
}

function partOf(material: MouldMaterialId, thickness: number, coats: number, volume: number): MouldPart {
  const { density, bought } = mouldMaterials[material];
  const mass = volume * density;
  return { material, thickness, coats, volume, mass, toBuy: volume * bought * (1 + leftInTheBowl) };
}
