import { latticeSize, type Lattice } from './lattice';

/**
 * How far each place inside is from the nearest place outside, in steps; nought outside. Exact.
 * Felzenszwalb and Huttenlocher (2012), *Distance transforms of sampled functions*.
 */
export function depthInSolid(inside: Uint8Array, { cells }: Pick<Lattice, 'cells'>): Float32Array {
  const [nx, ny, nz] = cells;
  const square = Float64Array.from(inside, (v) => (v ? far : 0));
  const longest = Math.max(nx, ny, nz);
  const line = new Float64Array(longest),
    out = new Float64Array(longest),
    at = new Int32Array(longest),
    until = new Float64Array(longest + 1);
  const along = (start: number, step: number, count: number) => {
    for (let i = 0; i < count; i++) line[i] = square[start + i * step]!;
    lowerEnvelope(line, count, out, at, until);
    for (let i = 0; i < count; i++) square[start + i * step] = out[i]!;
  };
  for (let z = 0; z < nz; z++) for (let y = 0; y < ny; y++) along(nx * (y + ny * z), 1, nx);
  for (let z = 0; z < nz; z++) for (let x = 0; x < nx; x++) along(x + nx * ny * z, nx, ny);
  for (let y = 0; y < ny; y++) for (let x = 0; x < nx; x++) along(x + nx * y, nx * ny, nz);
  const depth = new Float32Array(latticeSize({ cells }));
  for (let i = 0; i < depth.length; i++) depth[i] = Math.sqrt(square[i]!);
  return depth;
}

/** More than any square of a distance there is. */
const far = 1e9;

/** Of the parabolas that stand on a line of figures, the lowest at each place. */
function lowerEnvelope(f: Float64Array, n: number, out: Float64Array, at: Int32Array, until: Float64Array): void {
  let k = 0;
  at[0] = 0;
  until[0] = -Infinity;
  until[1] = Infinity;
  for (let q = 1; q < n; q++) {
    let meet: number;
    for (;;) {
      const p = at[k]!;
      meet = (f[q]! + q * q - (f[p]! + p * p)) / (2 * (q - p));
      if (meet > until[k]!) break;
      k--;
    }
    k++;
    at[k] = q;
    until[k] = meet;
    until[k + 1] = Infinity;
  }
  k = 0;
  for (let q = 0; q < n; q++) {
    while (until[k + 1]! < q) k++;
    const p = at[k]!;
    out[q] = (q - p) ** 2 + f[p]!;
  }
}
