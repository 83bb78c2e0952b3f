import type { CastKind } from '../mould';
import { failure, scale, success, type Result } from '../quantity';
import { handled, type Handled } from '../shell';
import type { MasterFace } from './face';
import { roughFace } from './rough-face';
import type { Working } from './search';

/** A hard cast with a wall, taken in hand: what each case does to it, and whether it bears that. */
export interface CastInHand {
  /** kg, of what was tried: the largest where there are several. */
  readonly mass: number;
  readonly cases: readonly (Handled & { readonly status: 'sound' | 'watch' | 'fails' })[];
}

/** Triangles: some 7 mm a side on a head. */
const fine = 5_000;
/** Of resin, plaster and glass alike, near enough. */
const poisson = 0.3;

/**
 * `left` of a length of the master is the cast's; places come back on the master. The wall is the usual one all over,
 * bedded on the face that was cast. Fails for a cast that gives or is poured full, and where there is no shell.
 */
export function* castInHand(
  face: MasterFace,
  { name, wall, density, bears }: CastKind,
  left: number,
): Working<Result<CastInHand>> {
  if (!wall || !bears) return failure('no-shell', 'cast', `${name} is no hard wall: it gives, or is full`);
  const { positions, triangles } = largestLump(roughFace(face, fine), left);
  if (triangles.length === 0) return failure('nothing-there', 'the face', 'there is nothing to cast');
  const { youngs, strength } = bears;
  const found = yield* handled({
    positions,
    triangles,
    thickness: wall.nominal,
    material: { youngs, poisson },
    density: density.nominal,
  });
  if (!found.ok) return found;
  return success({
    mass: found.value.mass,
    cases: found.value.cases.map((c) => ({
      ...c,
      at: scale(c.at, 1 / left),
      cracksAt: scale(c.cracksAt, 1 / left),
      status: c.stress > strength.nominal ? 'fails' : c.stress > strength.low ? 'watch' : 'sound',
    })),
  });
}

/** What of the face is cast, its points numbered anew and as large as the cast; of several, that of the largest face. */
function largestLump(face: MasterFace, left: number): { positions: Float64Array; triangles: Uint32Array } {
  const { positions, triangles, count, stands, areas, seams } = face;
  // By edges: what hangs at a corner alone would swing there.
  const head = new Int32Array(count).map((_, t) => t);
  const find = (t: number): number => {
    while (head[t] !== t) t = head[t] = head[head[t]!]!;
    return t;
  };
  for (let e = 0; e < seams.count; e++) head[find(seams.one[e]!)] = find(seams.other[e]!);
  const size = new Map<number, number>();
  for (let t = 0; t < count; t++) if (!stands[t]) size.set(find(t), (size.get(find(t)) ?? 0) + areas[t]!);
  const [largest] = [...size].sort((a, b) => b[1] - a[1])[0] ?? [-1];
  const place = new Map<number, number>();
  const points: number[] = [],
    corners: number[] = [];
  for (let t = 0; t < count; t++) {
    if (stands[t] || find(t) !== largest) continue;
    for (let c = 0; c < 3; c++) {
      const i = triangles[3 * t + c]!;
      if (!place.has(i)) {
        place.set(i, points.length / 3);
        points.push(left * positions[3 * i]!, left * positions[3 * i + 1]!, left * positions[3 * i + 2]!);
      }
      corners.push(place.get(i)!);
    }
  }
  return { positions: Float64Array.from(points), triangles: Uint32Array.from(corners) };
}
