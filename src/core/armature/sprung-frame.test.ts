import { Matrix, solve as denseSolve } from 'ml-matrix';
import { seeded } from '../quantity';
import type { Vec3 } from '../quantity';
import {
  beamAxes,
  beamStiffness,
  consistentLoad,
  factorFrame,
  freedoms,
  type FrameLoad,
  type FrameMember,
  type FrameModel,
} from '.';

/**
 * Frames with turning joins and loads along their members against a slow twin that keeps every sprung end as unknowns
 * of its own, dense and unordered: nothing is condensed, nothing shared but the one beam's stiffness.
 */
const rigid = Infinity;

function twin(model: FrameModel, loads: readonly FrameLoad[]): number[] {
  const index = new Map(model.nodes.map((n, i) => [n.id, i]));
  const springs = model.members.flatMap((m) =>
    (
      [
        [4, m.springFrom],
        [5, m.springFrom],
        [10, m.springTo],
        [11, m.springTo],
      ] as const
    )
      .map(([dof, k]) => ({ m, dof, k: k ?? rigid }))
      .filter((s) => s.k !== rigid),
  );
  const own = new Map(springs.map((s, i) => [`${s.m.id}:${s.dof}`, model.nodes.length * 6 + i]));
  const size = model.nodes.length * 6 + springs.length;
  const K = Matrix.zeros(size, size),
    f = Matrix.zeros(size, 1);
  for (const m of model.members) {
    const a = index.get(m.from)!,
      b = index.get(m.to)!;
    const from = model.nodes[a]!.at!,
      to = model.nodes[b]!.at!;
    const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
    const axes = beamAxes(from, to, m.up);
    const k = new Float64Array(144);
    beamStiffness(m, length, k);
    // Each of the beam's twelve ends, as a row over all unknowns: [unknown, share] pairs.
    const rowOf = (i: number): [number, number][] => {
      const node = i < 6 ? a : b,
        base = node * 6 + (i % 6 < 3 ? 0 : 3),
        axis = axes[i % 3]!;
      return [0, 1, 2].map((d): [number, number] => [base + d, axis[d as 0 | 1 | 2]]);
    };
    const ends = Array.from({ length: 12 }, (_, i): [number, number][] => {
      const free = own.get(`${m.id}:${i}`);
      return free === undefined ? rowOf(i) : [[free, 1]];
    });
    const add = (p: readonly [number, number][], q: readonly [number, number][], v: number) => {
      for (const [i, si] of p) for (const [j, sj] of q) K.set(i, j, K.get(i, j) + v * si * sj);
    };
    for (let i = 0; i < 12; i++) for (let j = 0; j < 12; j++) add(ends[i] as never, ends[j] as never, k[i * 12 + j]!);
    for (const s of springs) {
      if (s.m !== m) continue;
      const apart: [number, number][] = [...rowOf(s.dof), [own.get(`${m.id}:${s.dof}`)!, -1]];
      add(apart, apart, s.k);
    }
    for (const l of loads) {
      if (!('member' in l) || l.member !== m.id) continue;
      const local = (v: Vec3) => axes.map((x) => x[0] * v[0] + x[1] * v[1] + x[2] * v[2]) as unknown as Vec3;
      const out = new Float64Array(12);
      consistentLoad(
        'perLength' in l
          ? { at: null, force: local(l.perLength), moment: [0, 0, 0] }
          : { at: l.at * length, force: local(l.force), moment: local(l.moment ?? [0, 0, 0]) },
        length,
        out,
      );
      out.forEach((v, i) => ends[i]!.forEach(([u, s]) => f.set(u, 0, f.get(u, 0) + v * s)));
    }
  }
  model.nodes.forEach((n, i) =>
    n.fixed?.forEach((name) => {
      const d = i * 6 + freedoms.indexOf(name);
      for (let j = 0; j < size; j++) {
        K.set(d, j, 0);
        K.set(j, d, 0);
      }
      K.set(d, d, 1);
      f.set(d, 0, 0);
    }),
  );
  return denseSolve(K, f)
    .to1DArray()
    .slice(0, model.nodes.length * 6);
}

function randomFrame(seed: number, count: number): { model: FrameModel; loads: FrameLoad[] } {
  const random = seeded(seed);
  const nodes: { id: string; at: Vec3; fixed?: (typeof freedoms)[number][] }[] = [
    { id: 'n0', at: [0, 0, 0], fixed: [...freedoms] },
  ];
  const members: FrameMember[] = [];
  const spring = () =>
    random() < 0.5
      ? {}
      : { springFrom: 20 + 4000 * random(), ...(random() < 0.5 ? { springTo: 20 + 4000 * random() } : {}) };
  const section = () => ({
    E: 7e10,
    G: 2.6e10,
    A: 1e-5 * (1 + random()),
    Iy: 1e-8 * (1 + random()),
    Iz: 1e-8 * (1 + random()),
    J: 2e-8 * (1 + random()),
  });
  for (let i = 1; i < count; i++) {
    const parent = nodes[Math.floor(random() * nodes.length)]!;
    const at: Vec3 = [
      parent.at[0] + random() - 0.5,
      parent.at[1] + random() - 0.5,
      parent.at[2] + 0.1 + random() * 0.4,
    ];
    nodes.push({ id: `n${i}`, at, ...(random() < 0.04 ? { fixed: ['ux', 'uz'] } : {}) });
    members.push({ id: `m${i}`, from: parent.id, to: `n${i}`, ...section(), ...spring() });
    if (i > 6 && random() < 0.25)
      members.push({ id: `x${i}`, from: `n${i}`, to: `n${i - 5}`, ...section(), ...spring() });
  }
  const force = (): Vec3 => [random() - 0.5, random() - 0.5, -random()];
  const loads = members.map((m): FrameLoad =>
    random() < 0.5
      ? { member: m.id, perLength: force() }
      : { member: m.id, at: random(), force: force(), moment: force() },
  );
  return { model: { nodes, members }, loads };
}

describe('frames with turning joins and loads along members', () => {
  test.each([...Array.from({ length: 24 }, (_, i) => [i + 1, 5 + i * 2]), [101, 90], [102, 140]])(
    'seed %d, %d joints: as the twin, to 1e-8, and in equilibrium',
    (seed, count) => {
      const { model, loads } = randomFrame(seed, count);
      const factored = factorFrame(model);
      if (!factored.ok) throw new Error(factored.message);
      const solution = factored.value.solve(loads);
      if (!solution.ok) throw new Error(solution.message);
      const expected = twin(model, loads);
      const scale = Math.max(...expected.map(Math.abs));
      const worst = expected.reduce((w, v, i) => Math.max(w, Math.abs(solution.value.displacements[i]! - v)), 0);
      expect(worst / scale).toBeLessThan(1e-8);
      const place = new Map(model.nodes.map((n) => [n.id, n.at]));
      const total: [number, number, number] = [0, 0, 0];
      for (const l of loads) {
        if (!('member' in l)) continue;
        const m = model.members.find((x) => x.id === l.member)!;
        const a = place.get(m.from)!,
          b = place.get(m.to)!;
        const share = 'perLength' in l ? Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]) : 1;
        const v = 'perLength' in l ? l.perLength : l.force;
        for (const k of [0, 1, 2] as const) total[k] += v[k] * share;
      }
      for (const k of [0, 1, 2] as const) {
        const held = model.nodes.reduce((sum, _, i) => sum + solution.value.reactions[i * 6 + k]!, 0);
        expect(Math.abs(total[k] + held)).toBeLessThan(1e-6 * count);
      }
    },
  );
});
