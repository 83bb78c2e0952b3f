import { flangeAbout, flangeOf, mouldKinds, type MouldKind } from '.';

const kind = (id: string): MouldKind => mouldKinds.find((k) => k.id === id)!;

test('a metre and a half of seam in plaster of 20 mm, by hand', () => {
  const f = flangeOf(kind('plaster-parts'), { shell: 0.02 }, 1.5)!;
  // Half as wide again as the wall is thick, on both sides of the seam.
  expect(f).toMatchObject({ width: 0.03, thickness: 0.02, keyAcross: 0.015, keys: 15 });
  expect(f.mass).toBeCloseTo(1.5 * 0.03 * 0.02 * 2 * 1600, 9);
  expect(f.toBuy).toBeCloseTo(1.5 * 0.03 * 0.02 * 2 * 970 * 1.1, 9);
});

test('never narrower than a clamp, never wider than needed, and keys enough to meet one way', () => {
  expect(flangeAbout(0.005).width).toBe(0.025);
  expect(flangeAbout(0.08).width).toBe(0.06);
  expect(flangeOf(kind('rubber-skin'), { shell: 0.012 }, 0.15)!.keys).toBe(4);
});

test('none on what has no hard wall, no seam, or is open behind', () => {
  expect(flangeOf(kind('rubber-block'), { shell: null }, 1)).toBeNull();
  expect(flangeOf(kind('plaster-parts'), { shell: 0.02 }, 0)).toBeNull();
  expect(flangeOf(kind('plaster-open'), { shell: 0.02 }, 1)).toBeNull();
});
