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

/** At every level the form names, from the top down; none where no life form carries the clay. */
export function girthsOf(piece: Pick<Piece, 'form' | 'field' | 'extent'>): GirthOfForm[] {
  const { form, field, extent } = piece;
  const own = form.masses.filter((m) => m.id.startsWith('form-')).map((m) => ({ ...m, role: 'bare' as const }));
  const skull = own.find((m) => m.id === 'form-cranium');
  if (!skull) return [];
  const alone = new DistanceField(own);
  const far = Math.hypot(...extent.high.map((v, k) => v - extent.low[k]!));
  const rows = form.landmarks.flatMap(({ id, name, ends }): (GirthOfForm & { level: number })[] => {
    const middle: Vec3 = [skull.at[0], skull.at[1], ends[0][2]];
    const round = Array.from({ length: ways }, (_, i) => {
      const a = (2 * Math.PI * i) / ways;
      const out: Vec3 = [Math.cos(a), Math.sin(a), 0];
      const inner = met(alone, middle, out, far);
      return { out, inner, clay: met(field, middle, out, far) - inner };
    });
    const isClad = round.map((r) => r.inner > 0 && r.clay > bare);
    // At its rim, and at the rim of a hole, it runs out to nothing: that is no thin place.
    const isRim = (i: number) => rim.some((k) => !isClad[(i + k + ways) % ways]);
    const clad = round.flatMap((r, i) => (isClad[i] && !isRim(i) ? [r.clay] : []));
    if (clad.length < ways / 16) return [];
    let girth = 0;
    for (const [i, { out, inner }] of round.entries()) {
      const next = round[(i + 1) % ways]!;
      girth += Math.hypot(out[0] * inner - next.out[0] * next.inner, out[1] * inner - next.out[1] * next.inner);
    }
    const mean = clad.reduce((s, v) => s + v, 0) / clad.length;
    return [{ id, name, girth, thinnest: Math.min(...clad), mean, level: ends[0][2] }];
  });
  return rows.sort((a, b) => b.level - a.level).map(({ level: _, ...row }) => row);
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
