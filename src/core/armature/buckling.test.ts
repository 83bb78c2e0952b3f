import {
  bucklingNear,
  bucklingOfModel,
  factorFrame,
  freedoms,
  GeometricStiffness,
  lengthsOf,
  type Freedom,
  type FrameMember,
  type FrameModel,
  type PushAlong,
} from '.';

/** Against Euler: pi^2 EI / (K L)^2. */
const section = { E: 2e11, G: 8e10, A: 1e-3, Iy: 3e-8, Iz: 2e-8, J: 5e-8 };
const L = 2;
const euler = (k: number) => (Math.PI ** 2 * section.E * section.Iz) / (k * L) ** 2;

/** One axial force to a member, pulled positive. */
const even = (model: FrameModel, pulls: readonly number[]): PushAlong[] =>
  lengthsOf(model).map((l, i) => [
    { at: 0, axial: -pulls[i]! },
    { at: l, axial: -pulls[i]! },
  ]);
const bucklingOf = (model: FrameModel, pulls: readonly number[]) => bucklingOfModel(model, even(model, pulls));

function column(
  foot: readonly Freedom[],
  head: readonly Freedom[],
  parts = 1,
  more: Partial<FrameMember> = {},
): FrameModel {
  const nodes = Array.from({ length: parts + 1 }, (_, i) => ({
    id: `n${i}`,
    at: [0, 0, (L * i) / parts] as const,
    ...(i === 0 ? { fixed: foot } : i === parts ? { fixed: head } : {}),
  }));
  return {
    nodes,
    members: Array.from({ length: parts }, (_, i) => ({
      id: `m${i}`,
      from: `n${i}`,
      to: `n${i + 1}`,
      ...section,
      ...(i === 0 ? more : {}),
    })),
  };
}
const pinned: Freedom[] = ['ux', 'uy', 'uz', 'rz'];
const slidingPin: Freedom[] = ['ux', 'uy', 'rz'];
const clamped: Freedom[] = ['ux', 'uy', 'rx', 'ry', 'rz'];

describe('columns bow at Euler’s load', () => {
  test.each<[string, Freedom[], Freedom[], number]>([
    ['free-standing', [...freedoms], [], 2],
    ['pinned at both ends', pinned, slidingPin, 1],
    ['built in at both ends', [...freedoms], clamped, 0.5],
    ['built in and pinned', [...freedoms], slidingPin, 0.699156],
  ])('%s', (_, foot, head, k) => {
    for (const parts of [1, 3, 6]) {
      const model = column(foot, head, parts);
      const found = bucklingOf(
        model,
        model.members.map(() => -1000),
      );
      if (!found.ok) throw new Error(found.message);
      // One bone alone is looked at as four beams: eight thousandths for the stiffest ends, less for all else.
      const off = (found.value.factor * 1000) / euler(k) - 1;
      expect(off).toBeGreaterThan(-1e-6);
      expect(off).toBeLessThan(k === 0.5 ? 0.008 : 0.0025);
    }
  });
  test('the weaker way is found whatever the axes are called', () => {
    const model = column([...freedoms], [], 3, {});
    const turned = { ...model, members: model.members.map((m) => ({ ...m, Iy: 2e-8, Iz: 3e-8 })) };
    const a = bucklingOf(model, [-1, -1, -1]),
      b = bucklingOf(turned, [-1, -1, -1]);
    expect(a.ok && b.ok && a.value.factor / b.value.factor).toBeCloseTo(1, 5);
  });
  test('a foot that turns on a spring: k tan(k L) = spring / EI, k^2 = P / EI', () => {
    const spring = 3000;
    const model = column([...freedoms], [], 6, { springFrom: spring });
    const found = bucklingOf(
      model,
      model.members.map(() => -1),
    );
    if (!found.ok) throw new Error(found.message);
    const ei = section.E * section.Iz;
    let low = 1e-6,
      high = Math.PI / 2 / L - 1e-9;
    for (let i = 0; i < 200; i++) {
      const k = (low + high) / 2;
      if (k * Math.tan(k * L) * ei < spring) low = k;
      else high = k;
    }
    expect(found.value.factor / (low * low * ei)).toBeCloseTo(1, 3);
  });
});

test('pulled, nothing bows; a rough look is within a factor of two or so of the careful one', () => {
  const model = column([...freedoms], [], 4);
  expect(bucklingOf(model, [500, 500, 500, 500])).toEqual({
    ok: true,
    value: { factor: Infinity, shares: [0, 0, 0, 0] },
  });
  const pushes = [-800, -800, -800, -800];
  const frame = factorFrame(model),
    exact = bucklingOf(model, pushes);
  if (!frame.ok || !exact.ok) throw new Error('no frame');
  const along = even(model, pushes);
  const near = bucklingNear(frame.value, along, new GeometricStiffness(frame.value, along)) * exact.value.factor;
  expect(near).toBeGreaterThan(0.9);
  expect(near).toBeLessThan(3);
});

test('in a frame of a slender and a stout post the slender one is told', () => {
  const stout = { ...section, Iy: 3e-6, Iz: 2e-6 };
  const model: FrameModel = {
    nodes: [
      { id: 'a', at: [0, 0, 0], fixed: [...freedoms] },
      { id: 'b', at: [1, 0, 0], fixed: [...freedoms] },
      { id: 'A', at: [0, 0, L] },
      { id: 'B', at: [1, 0, L], fixed: slidingPin },
    ],
    members: [
      { id: 'stout', from: 'a', to: 'A', ...stout },
      { id: 'slender', from: 'b', to: 'B', ...section },
    ],
  };
  const found = bucklingOf(model, [-1000, -1000]);
  if (!found.ok) throw new Error(found.message);
  expect(found.value.shares[1]).toBe(1);
  expect(found.value.shares[0]).toBeLessThan(0.05);
});
