import type { ClayLattice } from '../../src/core/drying';

type Field = (x: number, y: number, z: number) => number;

/** A lattice of `cells` along x, y, z about the origin, cut by two distances given as functions. */
export function lattice(
  cells: [number, number, number],
  step: number,
  outer: Field,
  inner: Field = () => 1,
): ClayLattice {
  const total = cells[0] * cells[1] * cells[2];
  const out: { outer: Float32Array; inner: Float32Array } = {
    outer: new Float32Array(total),
    inner: new Float32Array(total),
  };
  const origin = cells.map((n) => (-n * step) / 2) as [number, number, number];
  let i = 0;
  for (let z = 0; z < cells[2]; z++)
    for (let y = 0; y < cells[1]; y++)
      for (let x = 0; x < cells[0]; x++, i++) {
        const at = [origin[0] + (x + 0.5) * step, origin[1] + (y + 0.5) * step, origin[2] + (z + 0.5) * step] as const;
        out.outer[i] = outer(...at);
        out.inner[i] = inner(...at);
      }
  return { size: cells, origin, step, ...out, region: new Uint8Array(total), piece: null, cut: false };
}

/** A ball a little off the lattice, so that no face lies kindly. */
export function ballLattice(radius: number, perRadius: number): ClayLattice {
  const step = radius / perRadius,
    n = 2 * perRadius + 6;
  return lattice([n, n, n], step, (x, y, z) => Math.hypot(x + step * 0.21, y - step * 0.13, z + step * 0.07) - radius);
}

/** A level slab, sealed at its sides by the lattice's end. */
export function slabLattice(thickness: number, step: number, across = 10): ClayLattice {
  const tall = Math.ceil(thickness / step) + 8;
  return lattice(
    [across, across, tall],
    step,
    (_x, _y, z) => z - thickness / 2 - step * 0.13,
    (_x, _y, z) => z + thickness / 2 - step * 0.13,
  );
}
