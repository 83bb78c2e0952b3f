import { factorFrame, freedoms, memberPeaks, type FrameModel } from '.';

/** A beam held at both ends with a weight spread along it: what the command line prints of it, by the handbook. */
const [E, I, L, w] = [2e11, 1e-6, 3, 400];
const model = (fixedFar: boolean): FrameModel => ({
  nodes: [
    { id: 'a', at: [0, 0, 0], fixed: [...freedoms] },
    { id: 'b', at: [L, 0, 0], fixed: fixedFar ? [...freedoms] : undefined },
  ],
  members: [{ id: 'm', from: 'a', to: 'b', E, G: 8e10, A: 1e-3, Iy: I, Iz: I, J: 2e-6 }],
});
const peaks = (fixedFar: boolean, load: object) => {
  const frame = factorFrame(model(fixedFar));
  if (!frame.ok) throw new Error(frame.message);
  const solved = frame.value.solve([load as never]);
  if (!solved.ok) throw new Error(solved.message);
  return memberPeaks(solved.value.forces[0]!);
};

test('built in at both ends: w L2 / 12 at the ends, w L / 2 of shear', () => {
  const p = peaks(true, { member: 'm', perLength: [0, 0, -w] });
  expect(Math.max(p.momentY, p.momentZ)).toBeCloseTo((w * L ** 2) / 12, 6);
  expect(Math.max(p.shearY, p.shearZ)).toBeCloseTo((w * L) / 2, 6);
  expect(Math.min(p.momentY, p.momentZ)).toBeCloseTo(0, 6);
  expect([p.axial, p.torsion].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 0]);
});

test('free at one end: w L2 / 2 at its foot', () => {
  const p = peaks(false, { member: 'm', perLength: [0, 0, -w] });
  expect(Math.max(p.momentY, p.momentZ)).toBeCloseTo((w * L ** 2) / 2, 6);
});

test('pulled, pushed and twisted: the size of it, whichever way', () => {
  for (const sign of [1, -1]) {
    expect(peaks(false, { node: 'b', force: [sign * 250, 0, 0] }).axial).toBeCloseTo(250, 6);
    expect(peaks(false, { node: 'b', moment: [sign * 12, 0, 0] }).torsion).toBeCloseTo(12, 6);
  }
});

test('of no stations there is nothing', () =>
  expect(memberPeaks([])).toEqual({ axial: 0, shearY: 0, shearZ: 0, torsion: 0, momentY: 0, momentZ: 0 }));
