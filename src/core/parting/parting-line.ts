import type { Vec3 } from '../quantity';
import type { MasterFace } from './face';

/** A line on the face along which two pieces of the mould meet: places in order, metres; a loop ends where it began. */
export interface PartingLine {
  readonly points: readonly Vec3[];
  readonly closed: boolean;
  readonly length: number;
}

const passes = 10;

/**
 * The edges between labels, chained and eased: along edges a line zigzags and is a tenth to two fifths too long. Ten
 * passes bring each point half way to the middle of its neighbours, along the face, no further than an edge from where it
 * was. Where three pieces meet, and at the board, it stays.
 */
export function partingLines(face: MasterFace, labels: Uint8Array): PartingLine[] {
  const { seams } = face;
  const cut: number[] = [];
  for (let e = 0; e < seams.count; e++) if (labels[seams.one[e]!] !== labels[seams.other[e]!]) cut.push(e);
  const eased = easedPoints(face, cut);
  return chains(face, cut).map((chain) => {
    const closed = chain.length > 2 && chain[0] === chain[chain.length - 1];
    const points = chain.map((p) => eased.get(p)!);
    let length = 0;
    for (let i = 1; i < points.length; i++)
      length += Math.hypot(...[0, 1, 2].map((k) => points[i]![k as 0] - points[i - 1]![k as 0]));
    return { points, closed, length };
  });
}

function endsOf({ seams }: MasterFace, cut: readonly number[]): Map<number, number[]> {
  const at = new Map<number, number[]>();
  const meet = (a: number, b: number) => {
    const held = at.get(a);
    if (held) held.push(b);
    else at.set(a, [b]);
  };
  for (const e of cut) {
    meet(seams.from[e]!, seams.to[e]!);
    meet(seams.to[e]!, seams.from[e]!);
  }
  return at;
}

function chains(face: MasterFace, cut: readonly number[]): number[][] {
  const at = endsOf(face, cut);
  const points = face.positions.length / 3;
  const gone = new Set<number>();
  const key = (a: number, b: number) => Math.min(a, b) * points + Math.max(a, b);
  const walk = (start: number, second: number): number[] => {
    const chain = [start];
    let before = start,
      here = second;
    for (;;) {
      gone.add(key(before, here));
      chain.push(here);
      const onward = at.get(here)!;
      if (onward.length !== 2 || here === start) return chain;
      const next = onward[0] === before ? onward[1]! : onward[0]!;
      if (gone.has(key(here, next))) return chain;
      before = here;
      here = next;
    }
  };
  const out: number[][] = [];
  // From where lines meet or end first; what is left are loops.
  for (const loops of [false, true])
    for (const [p, onward] of at)
      if (loops || onward.length !== 2) for (const q of onward) if (!gone.has(key(p, q))) out.push(walk(p, q));
  return out;
}

function easedPoints(face: MasterFace, cut: readonly number[]): Map<number, Vec3> {
  const at = endsOf(face, cut);
  const { positions: p } = face;
  const first = new Map<number, Vec3>();
  for (const i of at.keys()) first.set(i, [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]);
  const outward = pointNormals(face, at);
  let now = new Map(first);
  for (let pass = 0; pass < passes; pass++) {
    const then = new Map(now);
    for (const [i, onward] of at) {
      if (onward.length !== 2) continue;
      const here = now.get(i)!,
        a = now.get(onward[0]!)!,
        b = now.get(onward[1]!)!,
        n = outward.get(i)!,
        was = first.get(i)!;
      const step = [0, 1, 2].map((k) => ((a[k as 0] + b[k as 0]) / 2 - here[k as 0]) / 2);
      const off = step[0]! * n[0] + step[1]! * n[1] + step[2]! * n[2];
      const moved = [0, 1, 2].map((k) => here[k as 0] + step[k]! - off * n[k as 0]);
      const far = Math.hypot(...moved.map((v, k) => v - was[k as 0]));
      const share = far > face.medianEdge ? face.medianEdge / far : 1;
      then.set(i, moved.map((v, k) => was[k as 0] + share * (v - was[k as 0])) as never);
    }
    now = then;
  }
  return now;
}

function pointNormals(
  { triangles, normals, areas, count }: MasterFace,
  wanted: Map<number, unknown>,
): Map<number, Vec3> {
  const sums = new Map<number, [number, number, number]>();
  for (let t = 0; t < count; t++)
    for (let c = 0; c < 3; c++) {
      const i = triangles[3 * t + c]!;
      if (!wanted.has(i)) continue;
      const sum = sums.get(i) ?? [0, 0, 0];
      for (let k = 0; k < 3; k++) sum[k as 0] += normals[3 * t + k]! * areas[t]!;
      sums.set(i, sum);
    }
  return new Map(
    [...sums].map(([i, s]) => {
      const l = Math.hypot(...s) || 1;
      return [i, [s[0] / l, s[1] / l, s[2] / l] as Vec3];
    }),
  );
}
