import { factorFrame, freedoms, MovedFrame, type Bone, type FrameModel } from '../armature';
import { bowingOf, slenderFrom, slenderness, type Pushed } from '.';

/** A free-standing post of four bones under a weight at its top. */
const L = 1.2,
  ei = 7e10 * ((Math.PI * 0.004 ** 4) / 64);
const section = { E: 1, G: 1, A: 7e10 * Math.PI * 0.002 ** 2, Iy: ei, Iz: ei, J: ei };
const model: FrameModel = {
  nodes: Array.from({ length: 5 }, (_, i) => ({
    id: `n${i}`,
    at: [0, 0, (L * i) / 4] as const,
    ...(i === 0 ? { fixed: [...freedoms] } : {}),
  })),
  members: Array.from({ length: 4 }, (_, i) => ({ id: `m${i}`, from: `n${i}`, to: `n${i + 1}`, ...section })),
};
const bones: Bone[] = model.members.map((m) => ({
  id: m.id,
  name: m.id,
  from: m.from,
  to: m.to,
  masses: [],
  joinFrom: 'welded',
  joinTo: 'welded',
}));
const outward = new Map(model.nodes.map((n) => [n.id, n.at[2]]));
const euler = (Math.PI ** 2 * ei) / (2 * L) ** 2;

function pushed(newtons: number, safety: number): Pushed {
  const frame = factorFrame(model);
  if (!frame.ok) throw new Error(frame.message);
  const loads = [{ node: 'n4', force: [0, 0, -newtons] }] as const;
  const solution = frame.value.solve(loads);
  if (!solution.ok) throw new Error(solution.message);
  const moved = MovedFrame.of(frame.value, loads, solution.value, safety);
  if (!moved.ok) throw new Error(moved.message);
  return {
    ratio: slenderness(frame.value, bones, solution.value, outward),
    safety,
    solution: solution.value,
    frame: frame.value,
    moved: moved.value,
  };
}

test('the cautious measure of a free-standing post is its push over Euler’s load', () => {
  expect(pushed(0.4 * euler, 1).ratio).toBeCloseTo(0.4, 6);
  expect(pushed(-euler, 1).ratio).toBeLessThan(slenderFrom);
});

test('at half of Euler’s load and a safety of two it is at its limit, in every bone that bows', () => {
  const bowing = bowingOf(pushed(0.5 * euler, 2))!;
  expect(bowing[0]).toBeCloseTo(1, 2);
  expect(bowing.filter((b) => b > 0).length).toBeGreaterThan(1);
});

test('far from bowing, or pulled, nothing is said; ties are not asked', () => {
  expect(bowingOf(pushed(0.05 * euler, 1.5))).toBeNull();
  expect(bowingOf(pushed(-3 * euler, 1.5))).toBeNull();
  expect(
    slenderness(
      pushed(euler, 1).frame,
      bones.map((b) => ({ ...b, tie: true })),
      pushed(euler, 1).solution,
      outward,
    ),
  ).toBe(0);
});
