import type { ClayCells } from './clay-cells';

const { max, min } = Math;

/**
 * What cutting clay into cells gets wrong where the clay is thin or sharp, and how it is kept out of the answer: slivers
 * that no face reaches, and cells cut at odd angles that keep water real clay would not.
 */

/**
 * By cell less `pad`: 1 where no way leads from it over other clay to a face, outer or inner. Slivers a cell or two across
 * are left so where thin clay is cut; their water could never leave, and they would be the last to dry for ever.
 */
export function shutOffCells(cells: ClayCells): Uint8Array {
  const { size } = cells.lattice;
  const [nx, ny, nz] = size;
  const out = new Uint8Array(cells.count).fill(1);
  const reach: number[] = [];
  const reached = (c: number): boolean => {
    if (c < 0 || out[c - cells.pad] === 0) return false;
    out[c - cells.pad] = 0;
    return true;
  };
  // A cell may be several of the lattice joined: all of them lead on.
  const partsOf = new Map<number, number[]>();
  cells.parts.cell.forEach((c, k) => {
    const list = partsOf.get(c);
    if (list) list.push(cells.parts.lattice[k]!);
    else partsOf.set(c, [cells.parts.lattice[k]!]);
  });
  for (const faces of [cells.outerFaces, cells.innerFaces])
    for (let f = 0; f < faces.count; f++) if (reached(faces.cell[f]!)) reach.push(faces.cell[f]!);
  while (reach.length > 0) {
    const c = reach.pop()!;
    for (const i of partsOf.get(c) ?? [cells.latticeOf[c - cells.pad]!]) {
      const x = i % nx,
        y = Math.floor(i / nx) % ny,
        z = Math.floor(i / (nx * ny));
      if (x > 0) go(i - 1);
      if (x < nx - 1) go(i + 1);
      if (y > 0) go(i - nx);
      if (y < ny - 1) go(i + nx);
      if (z > 0) go(i - nx * ny);
      if (z < nz - 1) go(i + nx * ny);
    }
  }
  return out;
  function go(i: number): void {
    const c = cells.cellOf[i]!;
    if (reached(c)) reach.push(c);
  }
}

/**
 * Share of a region's clay that cutting into cells of `step` may misplace, m: none where three cells or more go across
 * the coat, three thousandths where one does. `before`: where no coat came, what it was.
 */
export function miscutShare(step: number, coat: number, before: number): number {
  if (coat <= 0) return before;
  return 0.003 * min(1, max(0, (step / coat - 1 / 3) * 1.5));
}

/**
 * By region, the moisture that all of its clay but a share lies below; Infinity where the share is none. `dry` and `wet`
 * are the ends of what is told apart, in 2048 steps.
 */
export function wettestButShare(
  cells: Pick<ClayCells, 'count' | 'pad' | 'region' | 'inverse'>,
  moisture: Float64Array,
  leftOut: Uint8Array,
  shares: readonly number[],
  dry: number,
  wet: number,
): number[] {
  const bins = 2048;
  const width = (wet - dry) / bins || 1;
  const volume = shares.map(() => new Float64Array(bins));
  for (let c = 0; c < cells.count; c++) {
    if (leftOut[c] === 1) continue;
    const bin = min(bins - 1, max(0, Math.floor((moisture[c + cells.pad]! - dry) / width)));
    const own = volume[cells.region[c + cells.pad]!]!;
    own[bin] = own[bin]! + 1 / cells.inverse[c + cells.pad]!;
  }
  return volume.map((own, r) => {
    let left = own.reduce((sum, v) => sum + v, 0) * shares[r]!;
    if (left === 0) return Infinity;
    let bin = bins - 1;
    while (bin > 0 && own[bin]! <= left) left -= own[bin--]!;
    return dry + (bin + 1 - (own[bin]! > 0 ? left / own[bin]! : 0)) * width;
  });
}
