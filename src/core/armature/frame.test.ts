import fc from 'fast-check';
import { Matrix, solve as denseSolve } from 'ml-matrix';
import {
  beamAxes,
  beamStiffness,
  factorFrame,
  freedoms,
  memberPeaks,
  SparseMatrix,
  sparsePattern,
  eliminationOrder,
  type FrameLoad,
  type FrameMember,
  type FrameModel,
  type FrameSolution,
} from '.';
import type { Vec3 } from '../quantity';

const section = { E: 2e11, G: 8e10, A: 1e-3, Iy: 2e-6, Iz: 1e-6, J: 3e-6 };
const fixed = [...freedoms];

function solved(model: FrameModel, loads: readonly FrameLoad[]): FrameSolution {
  const factored = factorFrame(model);
  if (!factored.ok) throw new Error(factored.message);
  const solution = factored.value.solve(loads);
  if (!solution.ok) throw new Error(solution.message);
  return solution.value;
}

const near = (value: number | undefined, wanted: number, share = 1e-6) => {
  expect(Math.abs(value! - wanted)).toBeLessThanOrEqual(share * Math.max(1e-12, Math.abs(wanted)));
};

describe('textbook frames', () => {
  const L = 2;
  const cantilever: FrameModel = {
    nodes: [
      { id: 'A', at: [0, 0, 0], fixed },
      { id: 'B', at: [L, 0, 0] },
    ],
    members: [{ id: 'm', from: 'A', to: 'B', ...section }],
  };

  test('cantilever with a load at its end: PL3/3EI, PL2/2EI, PL', () => {
    const s = solved(cantilever, [{ node: 'B', force: [0, 0, -1000] }]);
    near(s.displacements[8], (-1000 * L ** 3) / (3 * section.E * section.Iy));
    near(s.displacements[10], (1000 * L ** 2) / (2 * section.E * section.Iy));
    near(memberPeaks(s.forces[0] ?? []).momentY, 1000 * L);
    near(s.reactions[2], 1000);
    near(s.reactions[4], -1000 * L);
  });

  test('cantilever under its own weight and a point load half way', () => {
    near(
      solved(cantilever, [{ member: 'm', perLength: [0, 0, -50] }]).displacements[8],
      (-50 * L ** 4) / (8 * section.E * section.Iy),
    );
    const a = L / 2;
    near(
      solved(cantilever, [{ member: 'm', at: 0.5, force: [0, -70, 0] }]).displacements[7],
      (-70 * a * a * (3 * L - a)) / (6 * section.E * section.Iz),
    );
  });

  test('torsion: TL/GJ', () => {
    near(solved(cantilever, [{ node: 'B', moment: [40, 0, 0] }]).displacements[9], (40 * L) / (section.G * section.J));
  });

  test('beam built in at both ends: wL2/12 at the ends, wL2/24 in the middle', () => {
    const s = solved(
      { nodes: [cantilever.nodes[0] as never, { id: 'B', at: [L, 0, 0], fixed }], members: cantilever.members },
      [{ member: 'm', perLength: [0, 0, -120] }],
    );
    near(memberPeaks(s.forces[0] ?? []).momentY, (120 * L * L) / 12);
    const middle = s.forces[0]?.find((f) => Math.abs(f.at - L / 2) < 1e-9);
    near(Math.abs(middle!.momentY!), (120 * L * L) / 24);
  });

  test('portal with fixed feet and a level push at its beam', () => {
    // Slope deflection with k = (I_beam/l)/(I_column/h); feet and heads of the columns share P h / 2 each side.
    const h = 3,
      l = 4;
    const stiffAxial = { ...section, A: 1e3 };
    const s = solved(
      {
        nodes: [
          { id: 'A', at: [0, 0, 0], fixed },
          { id: 'B', at: [0, 0, h] },
          { id: 'C', at: [l, 0, h] },
          { id: 'D', at: [l, 0, 0], fixed },
        ],
        members: (
          [
            ['AB', 'A', 'B'],
            ['BC', 'B', 'C'],
            ['CD', 'C', 'D'],
          ] as const
        ).map(([id, from, to]): FrameMember => ({ id, from, to, ...stiffAxial, Iy: 2e-6, Iz: 2e-6 })),
      },
      [
        { node: 'B', force: [500, 0, 0] },
        { node: 'C', force: [500, 0, 0] },
      ],
    );
    const k = h / l;
    const foot = ((1000 * h) / 2) * ((3 * k + 1) / (6 * k + 1));
    const head = ((1000 * h) / 2) * ((3 * k) / (6 * k + 1));
    near(Math.abs(s.reactions[4]!), foot);
    const top = s.forces[0]?.[s.forces[0].length - 1];
    near(Math.hypot(top?.momentY ?? 0, top?.momentZ ?? 0), head);
  });

  test('three-legged space frame: axial shares by statics', () => {
    // Ball feet; nearly pin-jointed (slender), so each leg takes W/(3 cos a).
    const thin = { E: 2e11, G: 8e10, A: 1e-4, Iy: 1e-16, Iz: 1e-16, J: 1e-16 };
    const feet: Vec3[] = [0, 120, 240].map((d) => [Math.cos((d * Math.PI) / 180), Math.sin((d * Math.PI) / 180), 0]);
    const s = solved(
      {
        nodes: [...feet.map((at, i) => ({ id: `f${i}`, at, fixed })), { id: 'top', at: [0, 0, 2] }],
        members: feet.map((_, i) => ({ id: `l${i}`, from: `f${i}`, to: 'top', ...thin })),
      },
      [{ node: 'top', force: [0, 0, -900] }],
    );
    const slope = 2 / Math.hypot(1, 2);
    for (const f of s.forces) near(Math.abs(f[0]!.axial!), 900 / (3 * slope), 1e-6);
  });

  test('a hinge by springs of nothing: the far end carries like a propped cantilever', () => {
    const s = solved(
      {
        nodes: [
          { id: 'A', at: [0, 0, 0], fixed },
          { id: 'B', at: [L, 0, 0], fixed },
        ],
        members: [{ id: 'm', from: 'A', to: 'B', ...section, springTo: 0 }],
      },
      [{ member: 'm', perLength: [0, 0, -80] }],
    );
    near(Math.abs(s.reactions[4]!), (80 * L * L) / 8);
    expect(Math.abs(s.reactions[10]!)).toBeLessThan(1e-6);
  });

  test('an end spring turns by M/k', () => {
    const k = 5000;
    const s = solved({ ...cantilever, members: [{ id: 'm', from: 'A', to: 'B', ...section, springFrom: k }] }, [
      { node: 'B', force: [0, 0, -100] },
    ]);
    near(s.displacements[8], (-100 * L ** 3) / (3 * section.E * section.Iy) - ((100 * L) / k) * L);
  });
});

describe('what cannot stand is named', () => {
  test('a mechanism names a joint that moves', () => {
    const bad = factorFrame({
      nodes: [
        { id: 'neck', at: [0, 0, 0], fixed: ['ux', 'uy', 'uz'] },
        { id: 'crown', at: [1, 0, 0] },
      ],
      members: [{ id: 'm', from: 'neck', to: 'crown', ...section }],
    });
    expect(bad).toMatchObject({ ok: false, code: 'mechanism', path: 'nodes.crown' });
  });
  test('a joint with nothing on it', () => {
    const bad = factorFrame({
      nodes: [
        { id: 'A', at: [0, 0, 0], fixed },
        { id: 'B', at: [1, 0, 0] },
        { id: 'adrift', at: [5, 5, 5] },
      ],
      members: [{ id: 'm', from: 'A', to: 'B', ...section }],
    });
    expect(bad).toMatchObject({ ok: false, code: 'mechanism', path: 'nodes.adrift' });
  });
  test('no length, unknown ends, unknown loads', () => {
    const nodes = [
      { id: 'A', at: [0, 0, 0] as Vec3, fixed },
      { id: 'B', at: [0, 0, 0] as Vec3 },
    ];
    expect(factorFrame({ nodes, members: [{ id: 'm', from: 'A', to: 'B', ...section }] })).toMatchObject({
      code: 'no-length',
      path: 'members.m',
    });
    expect(factorFrame({ nodes, members: [{ id: 'm', from: 'A', to: 'Z', ...section }] })).toMatchObject({
      code: 'unknown-node',
      path: 'members.m.to',
    });
    const good = factorFrame({
      nodes: [nodes[0] as never, { id: 'B', at: [1, 0, 0] }],
      members: [{ id: 'm', from: 'A', to: 'B', ...section }],
    });
    if (!good.ok) throw new Error(good.message);
    expect(good.value.solve([{ node: 'Q', force: [1, 0, 0] }])).toMatchObject({ ok: false, path: 'loads[0].node' });
  });
});

/** Slow twin: dense assembly and elimination, no ordering, no profile, rigid joints. */
function denseTwin(model: FrameModel, loads: readonly FrameLoad[]): number[] {
  const n = model.nodes.length * 6;
  const K = Matrix.zeros(n, n);
  const f = Matrix.zeros(n, 1);
  const index = new Map(model.nodes.map((x, i) => [x.id, i]));
  for (const m of model.members) {
    const a = model.nodes[index.get(m.from)!]!.at!,
      b = model.nodes[index.get(m.to)!]!.at!;
    const local = new Float64Array(144);
    beamStiffness(m, Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]), local);
    const axes = beamAxes(a, b, m.up);
    const T = Matrix.zeros(12, 12);
    for (let block = 0; block < 4; block++)
      for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) T.set(block * 3 + i, block * 3 + j, axes[i]![j]!);
    const k = T.transpose()
      .mmul(new Matrix(Array.from({ length: 12 }, (_, i) => [...local.subarray(i * 12, i * 12 + 12)])))
      .mmul(T);
    const dofs = [m.from, m.to].flatMap((id) => Array.from({ length: 6 }, (_, d) => index.get(id)! * 6 + d));
    dofs.forEach((p, i) => dofs.forEach((q, j) => K.set(p, q, K.get(p, q) + k.get(i, j))));
  }
  for (const l of loads) if ('node' in l) l.force?.forEach((v, d) => f.set(index.get(l.node)! * 6 + d, 0, v));
  model.nodes.forEach((x, i) =>
    x.fixed?.forEach((name) => {
      const d = i * 6 + freedoms.indexOf(name);
      for (let j = 0; j < n; j++) {
        K.set(d, j, 0);
        K.set(j, d, 0);
      }
      K.set(d, d, 1);
      f.set(d, 0, 0);
    }),
  );
  return denseSolve(K, f).to1DArray();
}

const randomTree = fc
  .integer({ min: 3, max: 24 })
  .chain((count) =>
    fc.tuple(
      fc.array(
        fc.tuple(
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: 0.1, max: 1, noNaN: true }),
        ),
        { minLength: count, maxLength: count },
      ),
      fc.array(fc.nat(1000), { minLength: count, maxLength: count }),
      fc.array(
        fc.tuple(
          fc.double({ min: -50, max: 50, noNaN: true }),
          fc.double({ min: -50, max: 50, noNaN: true }),
          fc.double({ min: -50, max: 50, noNaN: true }),
        ),
        { minLength: count, maxLength: count },
      ),
    ),
  )
  .map(([steps, parents, forces]) => {
    const nodes: { id: string; at: Vec3; fixed?: (typeof freedoms)[number][] }[] = [{ id: 'n0', at: [0, 0, 0], fixed }];
    const members: FrameMember[] = [];
    steps.forEach((s, i) => {
      const parent = nodes[parents[i]! % nodes.length]!;
      nodes.push({ id: `n${i + 1}`, at: [parent.at[0] + s[0], parent.at[1] + s[1], parent.at[2] + s[2]] });
      members.push({ id: `m${i}`, from: parent.id, to: `n${i + 1}`, ...section });
      if (i > 4 && i % 3 === 0) members.push({ id: `x${i}`, from: `n${i + 1}`, to: `n${i - 3}`, ...section });
    });
    return {
      model: { nodes, members },
      loads: forces.map((force, i) => ({ node: `n${i + 1}`, force: force as Vec3 })),
    };
  });

describe('random frames', () => {
  test('agree with the dense twin to 1e-8', () => {
    fc.assert(
      fc.property(randomTree, ({ model, loads }) => {
        const ours = solved(model, loads).displacements;
        const twin = denseTwin(model, loads);
        const scale = Math.max(...twin.map(Math.abs), 1e-12);
        twin.forEach((v, i) => expect(Math.abs(ours[i]! - v)).toBeLessThan(1e-8 * scale));
      }),
      { seed: 20261125, numRuns: 40 },
    );
  });

  test('stand in equilibrium', () => {
    fc.assert(
      fc.property(randomTree, ({ model, loads }) => {
        const s = solved(model, loads);
        for (let k = 0; k < 3; k++) {
          const applied = loads.reduce((sum, l) => sum + l.force[k]!, 0);
          const held = model.nodes.reduce((sum, _, i) => sum + s.reactions[i * 6 + k]!, 0);
          expect(Math.abs(applied + held)).toBeLessThan(1e-6 * (1 + Math.abs(applied)));
        }
      }),
      { seed: 7, numRuns: 40 },
    );
  });
});

describe('the sparse solver', () => {
  test('solves what it factored', () => {
    const m = new SparseMatrix(sparsePattern([[0], [0, 1], [1, 2]]));
    for (const [i, j, v] of [
      [0, 0, 4],
      [0, 1, 1],
      [1, 1, 5],
      [1, 2, 2],
      [2, 2, 6],
    ] as const)
      m.add(i, j, v);
    expect(m.factor()).toBe(-1);
    const x = Float64Array.of(4 + 2, 1 + 10 + 6, 4 + 18);
    m.solve(x);
    [1, 2, 3].forEach((v, i) => expect(x[i]).toBeCloseTo(v, 12));
  });
  test('takes a tree apart from its tips', () => {
    // A star: the middle goes last but one at the earliest, when a single tip is left.
    const order = eliminationOrder([[1, 2, 3, 4], [0], [0], [0], [0]]);
    expect([...order].sort()).toEqual([0, 1, 2, 3, 4]);
    expect(order.indexOf(0)).toBeGreaterThanOrEqual(3);
  });
});
