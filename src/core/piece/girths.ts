import { DistanceField } from '../form';
import type { Vec3 } from '../quantity';
import type { Piece } from './piece';

/** A girth of the life form that a mask or a helmet is built out over, and how thick the clay is round it; metres. */
export interface GirthOfForm {
  readonly id: string;
  readonly name: string;
  /** Round the form there. */
  readonly girth: number;
  /** Of the clay, seen square to the form's middle line: where it is thinnest, and on average. Its rims are left out. */
  readonly thinnest: number;
  readonly mean: number;
}

/** Ways looked in from round it. */
const ways = 96;
/** To either side of a way: some twenty degrees of rim. */
const rim = [-6, -5, -4, -3, -2, -1, 1, 2, 3, 4, 5, 6];
/** Less than this is no clay: a hole of the mask, or the bare back of the head. */
const bare = 0.001;

type Shaped = Pick<Piece, 'form' | 'field' | 'extent'>;

/** Out from the form's middle line at a level, each way: to the form itself, and through the clay that lies there. */
type Round = readonly { readonly out: Vec3; readonly inner: number; readonly clay: number }[];

/** Looks round the life form at any level; null where no life form carries the clay. */
function lookingRound({ form, field, extent }: Shaped): ((level: number) => Round) | null {
  const own = form.masses.filter((m) => m.id.startsWith('form-')).map((m) => ({ ...m, role: 'bare' as const }));
  const skull = own.find((m) => m.id === 'form-cranium');
  if (!skull) return null;
  const alone = new DistanceField(own);
  const far = Math.hypot(...extent.high.map((v, k) => v - extent.low[k]!));
  return (level) =>
    Array.from({ length: ways }, (_, i) => {
      const a = (2 * Math.PI * i) / ways;
      const out: Vec3 = [Math.cos(a), Math.sin(a), 0];
      const middle: Vec3 = [skull.at[0], skull.at[1], level];
      const inner = met(alone, middle, out, far);
      return { out, inner, clay: met(field, middle, out, far) - inner };
    });
}

const isClad = ({ inner, clay }: Round[number]): boolean => inner > 0 && clay > bare;

/** Metres round what ends so far out each way. */
function roundOf(round: Round, end: (r: Round[number]) => number): number {
  let girth = 0;
  for (const [i, here] of round.entries()) {
    const next = round[(i + 1) % ways]!;
    const [a, b] = [end(here), end(next)];
    girth += Math.hypot(here.out[0] * a - next.out[0] * b, here.out[1] * a - next.out[1] * b);
  }
  return girth;
}

/** At every level the form names, from the top down; none where no life form carries the clay. */
export function girthsOf(piece: Shaped): GirthOfForm[] {
  const look = lookingRound(piece);
  if (!look) return [];
  const rows = piece.form.landmarks.flatMap(({ id, name, ends }): (GirthOfForm & { level: number })[] => {
    const round = look(ends[0][2]);
    const bears = round.map(isClad);
    // At its rim, and at the rim of a hole, it runs out to nothing: that is no thin place.
    const isRim = (i: number) => rim.some((k) => !bears[(i + k + ways) % ways]);
    const clad = round.flatMap((r, i) => (bears[i] && !isRim(i) ? [r.clay] : []));
    if (clad.length < ways / 16) return [];
    const mean = clad.reduce((s, v) => s + v, 0) / clad.length;
    const girth = roundOf(round, (r) => r.inner);
    return [{ id, name, girth, thinnest: Math.min(...clad), mean, level: ends[0][2] }];
  });
  return rows.sort((a, b) => b.level - a.level).map(({ level: _, ...row }) => row);
}

/** Where clay that goes right round the head is narrowest below its widest: metres round it outside, and its level. */
export interface Narrowest {
  readonly outside: number;
  readonly level: number;
}

/** Clay for so much of the way round lets no head in from the side: a slit for the eyes is no way in. */
const closedRound = 0.8;
/** Levels that are looked at. */
const levels = 80;

/** Null where the clay goes round nowhere below the widest, as a mask's does not. */
export function narrowestRound(piece: Shaped): Narrowest | null {
  const look = lookingRound(piece);
  if (!look) return null;
  const { low, high } = piece.extent;
  const rings = Array.from({ length: levels }, (_, i) => {
    const level = high[2] - ((i + 0.5) / levels) * (high[2] - low[2]);
    const round = look(level);
    const clad = round.filter(isClad);
    const mean = clad.reduce((s, r) => s + r.inner + r.clay, 0) / Math.max(1, clad.length);
    return {
      level,
      form: roundOf(round, (r) => r.inner),
      closed: clad.length >= closedRound * ways,
      outside: roundOf(round, (r) => (isClad(r) ? r.inner + r.clay : mean)),
    };
  });
  const widest = rings.reduce((best, r, i) => (r.form > rings[best]!.form ? i : best), 0);
  const below = rings.slice(widest).filter((r) => r.closed);
  if (below.length === 0) return null;
  const { outside, level } = below.reduce((least, r) => (r.outside < least.outside ? r : least));
  return { outside, level };
}

/** Metres from the middle to the outermost face that way, come at from outside; nought where there is none. */
function met(field: DistanceField, from: Vec3, way: Vec3, far: number): number {
  const all = field.all();
  for (let r = far; r > 0;) {
    const d = field.at(from[0] + r * way[0], from[1] + r * way[1], from[2] + r * way[2], all);
    if (d < 1e-5) return r;
    r -= Math.max(1e-4, d);
  }
  return 0;
}
