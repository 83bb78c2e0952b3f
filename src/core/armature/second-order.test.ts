import {
  between,
  bucklingOfModel,
  factorFrame,
  freedoms,
  MovedFrame,
  type FrameLoad,
  type FrameModel,
  type FrameSolution,
  type SectionForces,
} from '.';
import { seeded } from '../quantity';

const g = 9.80665;
const round = (d: number, E: number) => {
  const I = (Math.PI * d ** 4) / 64;
  return { E, G: E / 2.6, A: (Math.PI * d * d) / 4, Iy: I, Iz: I, J: 2 * I };
};
type Section = ReturnType<typeof round>;
const bend = (s: SectionForces) => Math.hypot(s.momentY, s.momentZ);
const largest = (forces: FrameSolution['forces']) =>
  forces.reduce((m, cuts) => cuts.reduce((w, s) => Math.max(w, bend(s)), m), 0);

/** A post in so many bones, a weight held out from its top on something stiff; or its own weight along it. */
function post(section: Section, high: number, parts: number): FrameModel {
  return {
    nodes: Array.from({ length: parts + 1 }, (_, i) => ({
      id: `n${i}`,
      at: [0, 0, (high * i) / parts] as const,
      ...(i === 0 ? { fixed: [...freedoms] } : {}),
    })),
    members: Array.from({ length: parts }, (_, i) => ({ id: `m${i}`, from: `n${i}`, to: `n${i + 1}`, ...section })),
  };
}

function movedOf(model: FrameModel, loads: readonly FrameLoad[], factor: number): MovedFrame {
  const frame = factorFrame(model);
  if (!frame.ok) throw new Error(frame.message);
  const still = frame.value.solve(loads);
  if (!still.ok) throw new Error(still.message);
  const moved = MovedFrame.of(frame.value, loads, still.value, factor);
  if (!moved.ok) throw new Error(moved.message);
  return moved.value;
}

function solved(model: FrameModel, loads: readonly FrameLoad[], factor: number): FrameSolution {
  const found = movedOf(model, loads, factor).at(factor);
  if (!found?.ok) throw new Error('it folds');
  return found.value;
}

/** Weight forward of the top: forward is -y, so it bends about x. */
const held = (parts: number, kg: number, out: number): FrameLoad[] => [
  { node: `n${parts}`, force: [0, 0, -kg * g], moment: [kg * g * out, 0, 0] },
];

describe('a column with its weight to one side, by the secant formula', () => {
  // M = P e / cos(k L), sag = e (1 / cos(k L) - 1), k^2 = P / EI; Roark's Formulas for Stress and Strain.
  const aluminium = round(0.0048, 69e9),
    steel = round(0.003, 200e9);
  test.each([
    ['500 mm of 4.8 mm aluminium, 0.7 kg 44 mm forward', aluminium, 0.7, 0.044, 1],
    ['the same under 1.5 of it', aluminium, 0.7, 0.044, 1.5],
    ['500 mm of 3 mm steel, 0.45 kg 10 mm off', steel, 0.45, 0.01, 1],
  ])('%s', (_, section, kg, out, factor) => {
    const k = Math.sqrt((factor * kg * g) / (section.E * section.Iz));
    for (const parts of [1, 2, 3, 8]) {
      const found = solved(post(section, 0.5, parts), held(parts, kg, out), factor);
      const top = found.displacements.subarray(parts * 6, parts * 6 + 3);
      expect(Math.hypot(top[0]!, top[1]!) / (out * (1 / Math.cos(k * 0.5) - 1))).toBeCloseTo(1, 3);
      expect(largest(found.forces) / ((factor * kg * g * out) / Math.cos(k * 0.5))).toBeCloseTo(1, 3);
    }
  });
  test('what a workshop reads of it: 1.49 of plastic and 35 mm; 16 mm', () => {
    const plastic = (45e6 * 0.0048 ** 3) / 6;
    expect(largest(solved(post(aluminium, 0.5, 1), held(1, 0.7, 0.044), 1.5).forces) / plastic).toBeCloseTo(1.49, 2);
    const sag = (section: Section, kg: number, out: number) =>
      Math.abs(solved(post(section, 0.5, 1), held(1, kg, out), 1).displacements[7]!);
    expect(sag(aluminium, 0.7, 0.044)).toBeCloseTo(0.035, 3);
    expect(sag(steel, 0.45, 0.01)).toBeCloseTo(0.016, 3);
  });
});

test('a free column bows under its own weight at 7.837 EI / L^2, in however many bones', () => {
  const section = round(0.01, 2e11);
  for (const parts of [1, 2, 3, 8]) {
    const model = post(section, 1.5, parts);
    const frame = factorFrame(model);
    if (!frame.ok) throw new Error(frame.message);
    const still = frame.value.solve(model.members.map((m) => ({ member: m.id, perLength: [0, 0, -1] as const })));
    if (!still.ok) throw new Error(still.message);
    const found = bucklingOfModel(model, still.value.forces);
    if (!found.ok) throw new Error(found.message);
    expect((found.value.factor * 1.5 * 1.5 ** 2) / (section.E * section.Iz)).toBeCloseTo(7.837, 1);
  }
});

test('past what it folds under nothing is solved, and the factor is Euler’s', () => {
  const section = round(0.003, 200e9);
  const euler = (Math.PI ** 2 * section.E * section.Iz) / (2 * 0.5) ** 2;
  const kg = (0.8 * euler) / g;
  const moved = movedOf(post(section, 0.5, 2), held(2, kg, 0.01), 1.5);
  expect(moved.at(1.5)).toBeNull();
  expect(moved.at(1.2)).not.toBeNull();
  expect(moved.buckling().factor).toBeCloseTo(1 / 0.8, 3);
});

test('pulled, it straightens: a hanging weight with a side push swings less than it would stand', () => {
  const section = round(0.003, 200e9);
  const side = (kg: number) => {
    const found = solved(post(section, 0.5, 1), [{ node: 'n1', force: [0.5, 0, kg * g] }], 1);
    return found.displacements[6]!;
  };
  // u = F/(k P) (k L - tanh(k L)), k^2 = P / EI, P the pull.
  const k = Math.sqrt((2 * g) / (section.E * section.Iz));
  expect(side(2) / ((0.5 / (k * 2 * g)) * (k * 0.5 - Math.tanh(k * 0.5))) - 1).toBeCloseTo(0, 1.7);
});

/** A tree of rods, some leaning together again, with weights at joints and along bones. */
function randomFrame(seed: number): { model: FrameModel; loads: FrameLoad[] } {
  const random = seeded(seed);
  const between = (a: number, b: number) => a + random() * (b - a);
  const nodes = [{ id: 'n0', at: [0, 0, 0] as const, fixed: [...freedoms] }] as FrameModel['nodes'][number][];
  const members: FrameModel['members'][number][] = [];
  const loads: FrameLoad[] = [];
  const count = 4 + Math.floor(random() * 5);
  for (let i = 1; i <= count; i++) {
    const from = Math.floor(random() * i);
    const [x, y, z] = nodes[from]!.at;
    nodes.push({ id: `n${i}`, at: [x + between(-0.15, 0.15), y + between(-0.15, 0.15), z + between(0.1, 0.35)] });
    members.push({
      id: `m${i}`,
      from: `n${from}`,
      to: `n${i}`,
      ...round(between(0.003, 0.006), 2e11),
      ...(random() < 0.3 ? { springFrom: between(5, 60) } : {}),
    });
    loads.push({ member: `m${i}`, perLength: [0, 0, -between(0.5, 4)] });
    if (random() < 0.5) loads.push({ member: `m${i}`, at: between(0.1, 0.9), force: [0, 0, -between(0.5, 3)] });
  }
  if (random() < 0.6) members.push({ id: 'brace', from: `n${count - 1}`, to: `n${count}`, ...round(0.004, 2e11) });
  return { model: { nodes, members }, loads };
}

/** One member in two at a place, as a maker would who puts a joint there. */
function inTwo(model: FrameModel, loads: readonly FrameLoad[], member: number, at: number) {
  const m = model.members[member]!;
  const place = new Map(model.nodes.map((n) => [n.id, n.at]));
  const a = place.get(m.from)!,
    b = place.get(m.to)!;
  const middle = [0, 1, 2].map((k) => a[k]! + at * (b[k]! - a[k]!)) as unknown as readonly [number, number, number];
  const { springFrom, springTo, ...rest } = m;
  return {
    model: {
      nodes: [...model.nodes, { id: 'cut', at: middle }],
      members: [
        ...model.members.filter((_, i) => i !== member),
        { ...rest, id: 'first', to: 'cut', ...(springFrom === undefined ? {} : { springFrom }) },
        { ...rest, id: 'second', from: 'cut', ...(springTo === undefined ? {} : { springTo }) },
      ],
    },
    loads: loads.flatMap((l): FrameLoad[] => {
      if (!('member' in l) || l.member !== m.id) return [l];
      if ('perLength' in l) return ['first', 'second'].map((id) => ({ ...l, member: id }));
      return [
        l.at <= at ? { ...l, member: 'first', at: l.at / at } : { ...l, member: 'second', at: (l.at - at) / (1 - at) },
      ];
    }),
  };
}

test('40 frames: any bone split in two changes moments and sag by under a hundredth, however near it is to folding', () => {
  let judged = 0,
    near = 0;
  for (let seed = 1; judged < 40 && seed < 200; seed++) {
    const { model, loads } = randomFrame(seed);
    const frame = factorFrame(model);
    if (!frame.ok) continue;
    const still = frame.value.solve(loads);
    if (!still.ok) continue;
    const whole = movedOf(model, loads, 1.5);
    const { factor } = whole.buckling();
    if (factor < 1.6) continue;
    if (factor < 4) near += 1;
    judged += 1;
    const before = solved(model, loads, 1.5);
    const sag = Math.max(...model.nodes.map((_, i) => Math.hypot(...before.displacements.subarray(i * 6, i * 6 + 3))));
    const random = seeded(1000 + seed);
    const member = Math.floor(random() * model.members.length);
    const cut = inTwo(model, loads, member, 0.2 + 0.6 * random());
    const after = solved(cut.model, cut.loads, 1.5);
    const sagAfter = Math.max(
      ...model.nodes.map((_, i) => Math.hypot(...after.displacements.subarray(i * 6, i * 6 + 3))),
    );
    expect(Math.abs(largest(after.forces) / largest(before.forces) - 1)).toBeLessThan(0.01);
    expect(Math.abs(sagAfter / sag - 1)).toBeLessThan(0.01);
    // Far from folding its pieces are longer than that figure would want.
    if (factor < 4)
      expect(Math.abs(movedOf(cut.model, cut.loads, 1.5).buckling().factor / factor - 1)).toBeLessThan(0.01);
  }
  expect(judged).toBe(40);
  expect(near).toBeGreaterThan(5);
});

test('what is held is what is put on, moved or not; moments balance about where things have moved to', () => {
  for (let seed = 1; seed < 12; seed++) {
    const { model, loads } = randomFrame(seed);
    const moved = movedOf(model, loads, 1);
    if (moved.buckling().factor < 1.3) continue;
    const found = moved.at(1);
    if (!found?.ok) throw new Error('it folds');
    const down = loads.reduce((sum, l) => {
      if (!('member' in l)) return sum;
      if (!('perLength' in l)) return sum + l.force[2];
      const m = model.members.find((x) => x.id === l.member)!;
      const [a, b] = [m.from, m.to].map((id) => model.nodes.find((n) => n.id === id)!.at);
      return sum + l.perLength[2] * Math.hypot(a![0] - b![0], a![1] - b![1], a![2] - b![2]);
    }, 0);
    const r = found.value.reactions;
    expect(r[2]! / -down).toBeCloseTo(1, 6);
    expect(Math.hypot(r[0]!, r[1]!)).toBeLessThan(-1e-6 * down);
    // Each bone’s moment at its outer joint, where nothing else meets it, is none.
    const ends = model.members.filter((m) => model.members.every((x) => x.from !== m.to && (x === m || x.to !== m.to)));
    for (const m of ends) {
      const cuts = found.value.forces[model.members.indexOf(m)]!;
      expect(bend(cuts[cuts.length - 1]!)).toBeLessThan(2e-3 * (largest(found.value.forces) + 1e-9));
    }
  }
});

describe('under the load alone, told from what safety times the load does', () => {
  const aluminium = round(0.0048, 69e9);
  const told = (kg: number) => {
    const model = post(aluminium, 0.5, 3),
      loads = held(3, kg, 0.044);
    const frame = factorFrame(model);
    const still = frame.ok && frame.value.solve(loads);
    if (!still || !still.ok) throw new Error('not solved');
    const found = between(still.value, solved(model, loads, 1.5), 1.5);
    return { found, exact: solved(model, loads, 1), still: still.value };
  };
  test('a post that grows by a few parts in a hundred: to a part in a thousand of what solving it finds', () => {
    const { found, exact, still } = told(0.04);
    expect(largest(exact.forces) / largest(still.forces)).toBeGreaterThan(1.01);
    expect(largest(found!.forces) / largest(exact.forces)).toBeCloseTo(1, 3);
    expect(found!.displacements[19]! / exact.displacements[19]!).toBeCloseTo(1, 3);
    expect(found!.reactions[2]! / exact.reactions[2]!).toBeCloseTo(1, 6);
  });
  test('one that grows by more is solved', () => {
    expect(told(0.3).found).toBeNull();
  });
});
