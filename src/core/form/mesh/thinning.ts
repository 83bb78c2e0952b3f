import type { Lattice } from './lattice';

/**
 * Thinning: takes places away from the face inward as long as what is left hangs together as before, its holes and its
 * loops kept, down to lines one place wide between the places that are to stay.
 * Simple points after Bertrand and Malandain (1994), *A new characterization of three-dimensional simple points*.
 */
const offsets: readonly (readonly [number, number, number])[] = Array.from(
  { length: 27 },
  (_, c) => [(c % 3) - 1, (Math.floor(c / 3) % 3) - 1, Math.floor(c / 9) - 1] as const,
);
const middle = 13;
const sideways = offsets.map(([x, y, z]) => Math.abs(x) + Math.abs(y) + Math.abs(z));
/** Of each of the 27 places about one: those that touch it at all, and those that share a face with it. */
const touching = offsets.map((a) =>
  offsets.flatMap((b, j) =>
    j !== middle && b !== a && Math.max(...a.map((v, k) => Math.abs(v - b[k as 0]!))) === 1 ? [j] : [],
  ),
);
const facing = offsets.map((a) =>
  offsets.flatMap((b, j) => (j !== middle && a.reduce((s, v, k) => s + Math.abs(v - b[k as 0]!), 0) === 1 ? [j] : [])),
);

/** `here`: the 27 places about one, 1 where something is. Whether it can go and nothing is cut, joined or opened by it. */
function isSimple(here: Uint8Array, seen: Uint8Array, stack: Int32Array): boolean {
  // What is there hangs together without it, and is something.
  seen.fill(0);
  let lots = 0;
  for (let s = 0; s < 27; s++) {
    if (s === middle || !here[s] || seen[s]) continue;
    if (++lots > 1) return false;
    let top = 0;
    stack[top++] = s;
    seen[s] = 1;
    while (top > 0)
      for (const j of touching[stack[--top]!]!) {
        if (!here[j] || seen[j]) continue;
        seen[j] = 1;
        stack[top++] = j;
      }
  }
  if (lots !== 1) return false;
  // The air that shares a face with it hangs together near it.
  seen.fill(0);
  lots = 0;
  for (let s = 0; s < 27; s++) {
    if (sideways[s] !== 1 || here[s] || seen[s]) continue;
    if (++lots > 1) return false;
    let top = 0;
    stack[top++] = s;
    seen[s] = 1;
    while (top > 0)
      for (const j of facing[stack[--top]!]!) {
        if (sideways[j]! > 2 || here[j] || seen[j]) continue;
        seen[j] = 1;
        stack[top++] = j;
      }
  }
  return lots === 1;
}

/** Thins in place. `depth`: shallow places go first, in steps; `stay`: places that are kept. The border of the lattice is empty. */
export function thin(inside: Uint8Array, depth: Float32Array, stay: ReadonlySet<number>, lattice: Lattice): void {
  const [nx, ny] = lattice.cells;
  const step = offsets.map(([x, y, z]) => x + nx * (y + ny * z));
  const here = new Uint8Array(27),
    seen = new Uint8Array(27),
    stack = new Int32Array(27);
  // By depth in twelfths of a step; a place whose neighbour has gone is looked at again.
  const shells: number[][] = [];
  const queued = new Uint8Array(inside.length);
  const queue = (i: number) => {
    if (queued[i]) return;
    queued[i] = 1;
    (shells[Math.round(depth[i]! * 12)] ??= []).push(i);
  };
  for (let i = 0; i < inside.length; i++) if (inside[i]) queue(i);
  for (let s = 0; s < shells.length; s++) {
    const shell = shells[s];
    if (!shell) continue;
    let back = s;
    for (let n = 0; n < shell.length; n++) {
      const i = shell[n]!;
      queued[i] = 0;
      if (!inside[i] || stay.has(i)) continue;
      for (let k = 0; k < 27; k++) here[k] = inside[i + step[k]!]!;
      if (!isSimple(here, seen, stack)) continue;
      inside[i] = 0;
      for (let k = 0; k < 27; k++) {
        const j = i + step[k]!;
        if (!inside[j]) continue;
        queue(j);
        back = Math.min(back, Math.round(depth[j]! * 12));
      }
    }
    shells[s] = [];
    if (back < s) s = back - 1;
  }
}
