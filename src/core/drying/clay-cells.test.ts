import { ballLattice, lattice, slabLattice } from '../../../tests/support/lattices';
import { seeded } from '../quantity';
import { clayCells, squareBelow } from '.';

test('share of a square under a line: as counted on a fine raster', () => {
  const random = seeded(5);
  for (let k = 0; k < 60; k++) {
    const angle = random() * 2 * Math.PI,
      a = Math.cos(angle),
      b = Math.sin(angle),
      d = (random() - 0.5) * 1.6;
    let inside = 0;
    const n = 200;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) if (a * ((i + 0.5) / n - 0.5) + b * ((j + 0.5) / n - 0.5) < -d) inside += 1;
    expect(squareBelow(a, b, d)).toBeCloseTo(inside / n ** 2, 2);
  }
  expect(squareBelow(1, 0, 0.2)).toBeCloseTo(0.3, 5);
});

test('a ball has its own volume and its own face, not that of its stairs', () => {
  const r = 0.03;
  const cells = clayCells(ballLattice(r, 10));
  const area = cells.outerFaces.area.reduce((s, a) => s + a, 0);
  expect(cells.volume / ((4 / 3) * Math.PI * r ** 3)).toBeCloseTo(1, 2);
  expect(Math.abs(area / (4 * Math.PI * r * r) - 1)).toBeLessThan(0.005);
  // Normals look outward, and their sum over a closed face is nothing.
  const sum = [0, 0, 0];
  for (let f = 0; f < cells.outerFaces.count; f++)
    for (let k = 0; k < 3; k++) sum[k] = sum[k]! + cells.outerFaces.normal[f * 3 + k]! * cells.outerFaces.area[f]!;
  for (const s of sum) expect(Math.abs(s)).toBeLessThan(area * 0.01);
});

test('a shell between two balls: both faces, and the clay between them', () => {
  const step = 0.002,
    outer = 0.03,
    inner = 0.022;
  const cells = clayCells(
    lattice(
      [38, 38, 38],
      step,
      (x, y, z) => Math.hypot(x, y, z) - outer,
      (x, y, z) => Math.hypot(x, y, z) - inner,
    ),
  );
  const area = (f: typeof cells.outerFaces) => f.area.reduce((s, a) => s + a, 0);
  expect(Math.abs(cells.volume / ((4 / 3) * Math.PI * (outer ** 3 - inner ** 3)) - 1)).toBeLessThan(0.01);
  expect(Math.abs(area(cells.outerFaces) / (4 * Math.PI * outer ** 2) - 1)).toBeLessThan(0.01);
  expect(Math.abs(area(cells.innerFaces) / (4 * Math.PI * inner ** 2) - 1)).toBeLessThan(0.01);
  // Out of the clay: the outer face looks away from the middle, the core's face towards it.
  for (const [faces, way] of [
    [cells.outerFaces, 1],
    [cells.innerFaces, -1],
  ] as const)
    for (let f = 0; f < faces.count; f++) {
      const i = cells.latticeOf[faces.cell[f]! - cells.pad]!;
      const at = [i % 38, Math.floor(i / 38) % 38, Math.floor(i / 38 ** 2)].map((v) => v - 18.5);
      expect(way * at.reduce((sum, v, k) => sum + v * faces.normal[f * 3 + k]!, 0)).toBeGreaterThan(0);
    }
});

test('every part of every lattice cell is in one cell, and no cell is too slight to keep pace', () => {
  const cells = clayCells(ballLattice(0.02, 8));
  const held = new Float64Array(cells.count + 2 * cells.pad);
  cells.parts.cell.forEach((c, p) => {
    held[c] = held[c]! + cells.parts.share[p]!;
  });
  for (let c = cells.pad; c < cells.pad + cells.count; c++) {
    expect(held[c]!).toBeCloseTo(1 / cells.inverse[c]!, 4);
    expect(cells.pace[c]!).toBeLessThanOrEqual(6.61);
  }
});

test('what one cell lets through the other lets through: sides are the same from either', () => {
  const cells = clayCells(ballLattice(0.02, 7));
  const [nx, ny] = cells.lattice.size;
  for (let c = cells.pad; c < cells.pad + cells.count; c++) {
    const i = cells.latticeOf[c - cells.pad]!;
    const up = cells.cellOf[i + nx]!,
      over = cells.cellOf[i + nx * ny]!;
    if (cells.yp[c]! > 0) expect(cells.ym[up]).toBe(cells.yp[c]);
    if (cells.zp[c]! > 0) expect(cells.zm[over]).toBe(cells.zp[c]);
  }
});

test('a cut keeps the clay and opens a face on either side of it', () => {
  const whole = slabLattice(0.012, 0.002);
  const [nx] = whole.size;
  const piece = Uint8Array.from(whole.region, (_, i) => (i % nx < 5 ? 0 : 1));
  const plain = clayCells(whole),
    apart = clayCells({ ...whole, piece, cut: true });
  const area = (c: typeof plain) => c.outerFaces.area.reduce((s, a) => s + a, 0);
  expect(apart.volume).toBeCloseTo(plain.volume, 12);
  // Two faces of eight cells by the thickness of the slab, but for slivers that were joined to the cell under them.
  expect((area(apart) - area(plain)) / (2 * 8 * 0.002 * 0.012)).toBeGreaterThan(0.96);
  expect((area(apart) - area(plain)) / (2 * 8 * 0.002 * 0.012)).toBeLessThan(1.01);
});

test('no clay at all is said, not computed', () => {
  expect(() => clayCells(lattice([8, 8, 8], 0.001, () => 1))).toThrow('no clay');
});
