import { strandMoment } from '../armature';
import { bendingStrengthOf, stockList } from '../catalogue';
import { isBare, stickingOut, type CutAcross, type SurfaceMesh } from '../form';
import { distance, dot, failure, subtract, success, type Range, type Result, type Vec3 } from '../quantity';
import type { Piece } from './piece';
import { boardOf } from './mould-master';
import { surfaceWith } from './piece-surface';
import type { Status } from './status';

/**
 * A knock against the end of each thing that sticks out: which breaks at its root, and what runs in it that keeps it on.
 * The finished clay is taken as a beam, hollow where there is a core; the push is aside, the way it is weakest. Left out:
 * what the core bears, cracks that are there already, how far the wire goes into what it stands on.
 */
export interface Knock {
  /** N. */
  readonly force: number;
  /** Pa: what the finished clay bears as it is bent. */
  readonly strength: Range;
  readonly parts: readonly KnockedPart[];
  /** Metres: what is thinner is not told. */
  readonly finest: number;
}

export interface KnockedPart {
  /** Of the mass at its end. */
  readonly name: string;
  readonly tip: Vec3;
  /** Metres from where it breaks first to its end, and how thick it is there, the way it is thinner. */
  readonly arm: number;
  readonly across: number;
  readonly breaksAt: Vec3;
  /** Of what the clay bears there; above 1 it cracks. By the low and the high strength too. */
  readonly asked: Range;
  /** What runs through it there, and what is asked of that; null where nothing does. */
  readonly wire: { readonly name: string; readonly asked: number } | null;
  readonly status: Status;
  /** Metres: as thick as it would have to be there to hold for sure, in clay alone; null where it does. */
  readonly thicker: number | null;
  /** A soft steel wire that would hold it by itself; null where it holds, and where none is thick enough. */
  readonly wants: string | null;
}

/** N: a hand that slips, a sleeve, a door. Ours. */
export const usualKnock = 50;
/** N: less and more is no knock anybody has in mind. */
export const knockLimits = [5, 500] as const;

/** Triangles: thin things want as many. */
const fewest = 24_000;
const wireToAdd = 'steel-galvanised';

/** Fails where the clay's strength is not known, and for a force that is none. */
export function knockOf(piece: Piece, force = usualKnock): Result<Knock> {
  const [least, most] = knockLimits;
  if (!(force >= least && force <= most))
    return failure('bad-force', 'the knock', `it is between ${least} and ${most} N`);
  const strength = bendingStrengthOf(piece.clay);
  if (!strength)
    return failure(
      'no-strength',
      piece.clay.name,
      piece.clay.setting === 'never' || piece.clay.setting === 'damp'
        ? 'it stays soft: a knock dents it, and what runs in it bends'
        : 'what it bears as it is bent is not known',
    );
  const surface = surfaceWith(piece, fewest);
  const { finest, ends } = stickingOut(surface, groundOf(piece, surface));
  const parts = ends
    .filter(({ corner }) => !isBare(piece.form.masses[surface.owners[corner]!]))
    .flatMap(({ tip, corner, cuts }) => {
      const name = piece.form.masses[surface.owners[corner]!]?.name ?? 'form';
      const worst = worstOf(piece, surface, cuts, force, strength);
      return worst ? [{ name, tip, ...worst }] : [];
    });
  return success({ force, strength, parts: parts.sort((a, b) => b.asked.nominal - a.asked.nominal), finest });
}

/** Corners it stands on; none where it does not stand. */
function groundOf(piece: Piece, { positions }: SurfaceMesh): number[] {
  const board = boardOf(piece);
  if (board === null) return [];
  const { low, high } = piece.extent;
  const near = board + 0.02 * (high[2] - low[2]);
  const out: number[] = [];
  for (let i = 0; i < positions.length / 3; i++) if (positions[3 * i + 2]! <= near) out.push(i);
  return out;
}

interface Tried {
  readonly cut: CutAcross;
  readonly moment: number;
  /** m3, of the clay alone. */
  readonly modulus: number;
  readonly clay: number;
  readonly wire: { readonly name: string; readonly asked: number } | null;
}

/** Where it comes off, or else where it cracks first. */
function worstOf(
  piece: Piece,
  surface: SurfaceMesh,
  cuts: readonly CutAcross[],
  force: number,
  strength: Range,
): Omit<KnockedPart, 'name' | 'tip'> | null {
  const tried = cuts.flatMap((cut): Tried[] => {
    const moment = force * cut.arm;
    const modulus = cut.modulus * clayShare(cut, piece.coreDepths[ownerAt(surface, cut.at)] ?? Infinity);
    const clay = moment / (strength.nominal * modulus);
    return modulus > 0 ? [{ cut, moment, modulus, clay, wire: wireAcross(piece, cut, moment) }] : [];
  });
  // Of what bears no clay nothing is asked.
  if (tried.length === 0) return null;
  const comesOff = tried.filter((t) => t.clay > 1 && !(t.wire && t.wire.asked <= 1));
  const { cut, moment, modulus, clay, wire } = (comesOff.length > 0 ? comesOff : tried).reduce((worst, t) =>
    t.clay > worst.clay ? t : worst,
  );
  const asked = { low: moment / (strength.high * modulus), nominal: clay, high: moment / (strength.low * modulus) };
  const status = comesOff.length > 0 ? 'fails' : asked.high > 1 ? 'watch' : 'sound';
  return {
    arm: cut.arm,
    across: cut.across,
    breaksAt: cut.at,
    asked,
    wire,
    status,
    thicker: status === 'sound' ? null : cut.across * Math.cbrt(moment / (strength.low * cut.modulus)),
    wants: status === 'sound' ? null : wireFor(moment),
  };
}

/** Of a full section, what is left where the core begins so deep: sides as thick all round, radius by area over half the round. */
function clayShare({ area, round }: CutAcross, depth: number): number {
  const radius = (2 * area) / round;
  return 1 - Math.max(0, 1 - depth / radius) ** 4;
}

function ownerAt({ positions, owners }: SurfaceMesh, [x, y, z]: Vec3): number {
  let best = 0,
    least = Infinity;
  for (let i = 0; i < owners.length; i++) {
    const d = (positions[3 * i]! - x) ** 2 + (positions[3 * i + 1]! - y) ** 2 + (positions[3 * i + 2]! - z) ** 2;
    if (d < least) [least, best] = [d, i];
  }
  return owners[best]!;
}

/** What runs through a cut, all of it together. */
function wireAcross(piece: Piece, { at, along, area, across }: CutAcross, moment: number): Tried['wire'] {
  const within = Math.max(across, Math.sqrt((4 * area) / Math.PI)) / 2;
  let bears = 0;
  const names: string[] = [];
  for (const member of piece.armature.members) {
    const stock = piece.stockOf(member.stock);
    const size = stock?.sizes.find((s) => s.id === member.size);
    if (!stock || !size || member.bare) continue;
    let times = 0;
    for (let i = 1; i < member.path.length; i++)
      if (crosses(member.path[i - 1]!, member.path[i]!, at, along, within)) times++;
    if (times === 0) continue;
    bears += times * member.strands * strandMoment(stock, size.section);
    names.push(member.name);
  }
  return names.length === 0 ? null : { name: names.join(', '), asked: moment / bears };
}

function crosses(from: Vec3, to: Vec3, at: Vec3, along: Vec3, within: number): boolean {
  const [a, b] = [dot(subtract(from, at), along), dot(subtract(to, at), along)];
  if (a > 0 === b > 0) return false;
  const t = a / (a - b);
  const meets: Vec3 = [0, 1, 2].map((k) => from[k as 0] + t * (to[k as 0] - from[k as 0])) as unknown as Vec3;
  return distance(meets, at) <= within;
}

function wireFor(moment: number): string | null {
  const stock = stockList.find((s) => s.id === wireToAdd)!;
  const size = stock.sizes.find((s) => strandMoment(stock, s.section) >= moment);
  return size ? `${stock.name}, ${size.label}` : null;
}
