import { cross, seeded, type Vec3 } from '../quantity';
import { shellStiffness, type Corners } from './shell-element';
import { ownWeight, Shell, type ShellInputs } from './shell-solve';

/** Shells against rigid motions, patches, and what handbooks and published benchmarks say of plates, roofs and balls. */
const steel = { youngs: 200e9, poisson: 0.3 };
const skew: Corners = [
  [0.1, 0.2, -0.1],
  [0.9, 0.1, 0.3],
  [0.3, 0.8, 0.5],
];

/** A sheet of nu x nv quads, each cut in two, put in place by `at` from 0 to 1 each way. */
function sheet(
  nu: number,
  nv: number,
  at: (u: number, v: number) => Vec3,
): { positions: number[]; triangles: number[] } {
  const positions: number[] = [],
    triangles: number[] = [];
  for (let j = 0; j <= nv; j++) for (let i = 0; i <= nu; i++) positions.push(...at(i / nu, j / nv));
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const a = j * (nu + 1) + i,
        b = a + 1,
        c = a + nu + 1,
        d = c + 1;
      // Cut across by turns, so that neither way is preferred.
      if ((i + j) % 2 === 0) triangles.push(a, b, d, a, d, c);
      else triangles.push(a, b, c, b, d, c);
    }
  return { positions, triangles };
}

type Held = (p: Vec3) => readonly boolean[] | null;
const all = [true, true, true, true, true, true];

function shellOf(
  mesh: { positions: number[]; triangles: number[] },
  thickness: number,
  material: ShellInputs['material'],
  hold: Held,
): { shell: Shell; inputs: ShellInputs; points: Vec3[] } {
  const points = mesh.positions.flatMap((_, k): Vec3[] =>
    k % 3 === 0 ? [[mesh.positions[k]!, mesh.positions[k + 1]!, mesh.positions[k + 2]!]] : [],
  );
  const held = new Map(
    points.flatMap((p, i) => {
      const h = hold(p);
      return h ? [[i, h] as const] : [];
    }),
  );
  const inputs: ShellInputs = { ...mesh, thickness: () => thickness, material, held };
  const shell = Shell.of(inputs);
  if (!shell.ok) throw new Error(shell.message);
  return { shell: shell.value, inputs, points };
}
const nearest = (points: readonly Vec3[], to: Vec3): number =>
  points.reduce((best, p, i) => {
    const d = (q: Vec3) => Math.hypot(q[0] - to[0], q[1] - to[1], q[2] - to[2]);
    return d(p) < d(points[best]!) ? i : best;
  }, 0);
const near = (a: number, b: number) => Math.abs(a - b) < 1e-9;

describe('one triangle', () => {
  const k = shellStiffness(skew, steel, 0.01);
  const largest = k.reduce((m, v) => Math.max(m, Math.abs(v)), 0);

  test('pulls as it is pulled', () => {
    for (let i = 0; i < 18; i++)
      for (let j = 0; j < i; j++) expect(Math.abs(k[18 * i + j]! - k[18 * j + i]!) / largest).toBeLessThan(1e-12);
  });

  test('moved or turned as a whole it bears nothing', () => {
    for (let mode = 0; mode < 6; mode++) {
      const moves = skew.flatMap((p) => {
        if (mode < 3) return [0, 1, 2].map((i) => (i === mode ? 1 : 0)).concat(0, 0, 0);
        const about: Vec3 = [0, 1, 2].map((i) => (i === mode - 3 ? 1 : 0)) as never;
        return [...cross(about, p), ...about];
      });
      for (let i = 0; i < 18; i++) {
        let force = 0;
        for (let j = 0; j < 18; j++) force += k[18 * i + j]! * moves[j]!;
        expect(Math.abs(force) / largest).toBeLessThan(1e-12);
      }
    }
  });
});

describe('a patch of uneven triangles', () => {
  const random = seeded(5);
  const mesh = sheet(4, 4, (u, v) => {
    const inside = u > 0 && u < 1 && v > 0 && v < 1;
    const off = () => (inside ? (random() - 0.5) * 0.12 : 0);
    return [0.24 * (u + off()), 0.12 * (v + off()), 0];
  });
  const edge: Held = ([x, y]) => (near(x, 0) || near(x, 0.24) || near(y, 0) || near(y, 0.12) ? all : null);
  const { inputs, points } = shellOf(mesh, 0.001, steel, edge);

  /** Moved at its edge as `field` says, the inside has to follow, and the stress is the same everywhere. */
  function follows(field: (p: Vec3) => number[]): Float64Array {
    // The edge's motion comes in as loads on what is free: K of the free part x = -K of the edge part.
    const wanted = Float64Array.from(points.flatMap(field));
    const loads = new Float64Array(6 * points.length);
    for (let t = 0; t < inputs.triangles.length / 3; t++) {
      const own = [0, 1, 2].map((c) => inputs.triangles[3 * t + c]!);
      const k = shellStiffness(own.map((p) => points[p]!) as never, steel, 0.001);
      for (let i = 0; i < 18; i++)
        for (let j = 0; j < 18; j++) {
          const at = 6 * own[Math.floor(j / 6)]! + (j % 6);
          if (inputs.held.has(own[Math.floor(j / 6)]!))
            loads[6 * own[Math.floor(i / 6)]! + (i % 6)]! -= k[18 * i + j]! * wanted[at]!;
        }
    }
    const shell = Shell.of(inputs);
    if (!shell.ok) throw new Error(shell.message);
    const moves = shell.value.solve(loads);
    for (const [i] of points.entries())
      if (inputs.held.has(i)) for (let k = 0; k < 6; k++) moves[6 * i + k] = wanted[6 * i + k]!;
    const size = wanted.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    for (let i = 0; i < moves.length; i++) expect(Math.abs(moves[i]! - wanted[i]!) / size).toBeLessThan(1e-9);
    return moves;
  }
  const stresses = (moves: Float64Array) => {
    const shell = Shell.of(inputs);
    if (!shell.ok) throw new Error(shell.message);
    return shell.value.stresses(moves);
  };

  test('stretched evenly: the same stress everywhere, to 1e-9', () => {
    const moves = follows(([x, y]) => [1e-3 * (x + y / 2), 1e-3 * (y + x / 2), 0, 0, 0, 0]);
    // MacNeal and Harder (1985): strains of 1e-3 each, with E 200 GPa.
    const e = steel.youngs / (1 - 0.3 ** 2);
    // Along each triangle's own axes: what does not depend on them is their sum, and how far apart pull and push lie.
    const shear = (e * 0.7) / 2;
    for (const { forces, pull, push } of stresses(moves)) {
      expect((forces[0] + forces[1]) / (0.001 * e * 1.3 * 2e-3)).toBeCloseTo(1, 9);
      expect(pull / (e * 1.3e-3 + shear * 1e-3)).toBeCloseTo(1, 9);
      expect(push / (e * 1.3e-3 - shear * 1e-3)).toBeCloseTo(1, 9);
    }
  });

  test('bent evenly: the same moment everywhere, to 1e-9', () => {
    // w = (x2 + xy + y2) / 2000: turned about x by w,y, about y by -w,x.
    const moves = follows(([x, y]) => [
      0,
      0,
      (x * x + x * y + y * y) / 2000,
      (x + 2 * y) / 2000,
      -(2 * x + y) / 2000,
      0,
    ]);
    const d = (steel.youngs * 0.001 ** 3) / 12 / (1 - 0.3 ** 2);
    for (const { moments } of stresses(moves)) {
      const sum = moments[0] + moments[1];
      expect(sum / (d * 1.3 * 2e-3)).toBeCloseTo(1, 9);
    }
  });
});

describe('plates and beams', () => {
  test('a clamped square under a load in its middle sinks by 0.0056 P a2 / D, simply held by 0.0116', () => {
    const a = 1,
      thickness = 0.01;
    const d = (steel.youngs * thickness ** 3) / 12 / (1 - 0.3 ** 2);
    const rim = ([x, y]: Vec3) => near(x, 0) || near(y, 0) || near(x, a) || near(y, a);
    // Timoshenko and Woinowsky-Krieger (1959), *Theory of Plates and Shells*, articles 34 and 44.
    for (const [held, factor] of [
      [all, 0.0056],
      [[true, true, true, false, false, false], 0.0116],
    ] as const) {
      const { shell, points } = shellOf(
        sheet(24, 24, (u, v) => [a * u, a * v, 0]),
        thickness,
        steel,
        (p) => (rim(p) ? held : [true, true, false, false, false, true]),
      );
      const loads = new Float64Array(6 * points.length);
      const middle = nearest(points, [0.5, 0.5, 0]);
      loads[6 * middle + 2] = -1000;
      expect(-shell.solve(loads)[6 * middle + 2]! / ((factor * 1000 * a * a) / d)).toBeCloseTo(1, 1.7 as never);
    }
  });

  test('a spike held at its foot, pushed at its tip: P l3 / 3 E I, and P l / W at the foot', () => {
    const [long, wide, thick] = [0.2, 0.02, 0.004];
    const { shell, points } = shellOf(
      sheet(40, 4, (u, v) => [long * u, wide * v, 0]),
      thick,
      { youngs: 3e9, poisson: 0 },
      ([x]) => (near(x, 0) ? all : null),
    );
    const loads = new Float64Array(6 * points.length);
    const tip = points.flatMap((p, i) => (near(p[0], long) ? [i] : []));
    for (const i of tip) loads[6 * i + 2] = 5 / tip.length;
    const moves = shell.solve(loads);
    const inertia = (wide * thick ** 3) / 12;
    expect(moves[6 * tip[0]! + 2]! / ((5 * long ** 3) / (3 * 3e9 * inertia))).toBeCloseTo(1, 2);
    // In the first row of triangles the middle lies a third or two of an element out.
    const foot = Math.max(...shell.stresses(moves).map((s) => s.pull));
    const w = (wide * thick ** 2) / 6;
    expect(foot / ((5 * long) / w)).toBeGreaterThan(0.97);
    expect(foot / ((5 * long) / w)).toBeLessThan(1.03);
  });

  test('bent in its own plane it is a beam too: a short cantilever within a hundredth', () => {
    // 48 by 12, thickness 1, E 30000, Poisson 1/4, P 40: tip 0.3558 (Timoshenko and Goodier, *Theory of Elasticity*).
    const { shell, points } = shellOf(
      sheet(32, 8, (u, v) => [48 * u, 12 * v - 6, 0]),
      1,
      { youngs: 30000, poisson: 0.25 },
      ([x]) => (near(x, 0) ? all : [false, false, true, true, true, false]),
    );
    const loads = new Float64Array(6 * points.length);
    const tip = points.flatMap((p, i) => (near(p[0], 48) ? [i] : []));
    // Shear over its end goes as a parabola.
    const shares = tip.map((i) => Math.max(0, 1 - (points[i]![1] / 6) ** 2) + 1e-9);
    const whole = shares.reduce((s, v) => s + v, 0);
    tip.forEach((i, n) => (loads[6 * i + 1] = (40 * shares[n]!) / whole));
    const middle = nearest(points, [48, 0, 0]);
    expect(shell.solve(loads)[6 * middle + 1]! / 0.3558).toBeCloseTo(1, 1);
  });
});

describe('published shells', () => {
  test('the roof of Scordelis and Lo: 0.3024 at the middle of its edge within 2 %, a quarter of it in 20 x 20', () => {
    const [radius, long, half] = [25, 50, (40 * Math.PI) / 180];
    const { shell, inputs, points } = shellOf(
      sheet(20, 20, (u, v) => [radius * Math.sin(half * u), (long / 2) * v, radius * Math.cos(half * u)]),
      0.25,
      { youngs: 4.32e8, poisson: 0 },
      ([x, y]) => {
        // The end is a diaphragm, free along; the two other edges are planes of symmetry.
        const end = near(y, long / 2),
          middle = near(y, 0),
          crown = near(x, 0);
        return end || middle || crown ? [end || crown, middle, end, middle, crown || end, middle || crown] : null;
      },
    );
    // 90 a unit of face.
    const moves = shell.solve(ownWeight(inputs, 90 / 0.25, [0, 0, -1]));
    const edge = nearest(points, [radius * Math.sin(half), 0, radius * Math.cos(half)]);
    expect(-moves[6 * edge + 2]! / 0.3024).toBeGreaterThan(0.98);
    expect(-moves[6 * edge + 2]! / 0.3024).toBeLessThan(1.02);
  });

  test('the pinched cylinder: 1.8248e-5 under its loads within 2 %, an eighth of it in 40 x 40', () => {
    const [radius, long] = [300, 600];
    const { shell, points } = shellOf(
      sheet(40, 40, (u, v) => [
        radius * Math.sin((Math.PI / 2) * u),
        (long / 2) * v,
        radius * Math.cos((Math.PI / 2) * u),
      ]),
      3,
      { youngs: 3e6, poisson: 0.3 },
      ([x, y, z]) => {
        const end = near(y, long / 2),
          middle = near(y, 0),
          crown = near(x, 0),
          side = Math.abs(z) < 1e-6;
        return end || middle || crown || side
          ? [
              end || crown,
              middle,
              end || side,
              middle || side,
              crown || side ? crown || side : end && false,
              middle || crown,
            ]
          : null;
      },
    );
    const loads = new Float64Array(6 * points.length);
    const at = nearest(points, [0, 0, radius]);
    loads[6 * at + 2] = -0.25;
    const sinks = -shell.solve(loads)[6 * at + 2]!;
    expect(sinks / 1.8248e-5).toBeGreaterThan(0.98);
    expect(sinks / 1.8248e-5).toBeLessThan(1.02);
  });

  test('the pinched half ball with a hole: 0.094 under its loads within 2 %, a quarter of it in 24 x 24', () => {
    const radius = 10,
      hole = (18 * Math.PI) / 180;
    const { shell, points } = shellOf(
      sheet(24, 24, (u, v) => {
        const around = (Math.PI / 2) * u,
          up = (Math.PI / 2 - hole) * v;
        return [
          radius * Math.cos(up) * Math.cos(around),
          radius * Math.cos(up) * Math.sin(around),
          radius * Math.sin(up),
        ];
      }),
      0.04,
      { youngs: 6.825e7, poisson: 0.3 },
      ([x, y, z]) => {
        const front = Math.abs(y) < 1e-9,
          side = Math.abs(x) < 1e-9;
        const foot = front && Math.abs(z) < 1e-9;
        return front ? [false, true, foot, true, false, true] : side ? [true, false, false, false, true, true] : null;
      },
    );
    const loads = new Float64Array(6 * points.length);
    const out = nearest(points, [radius, 0, 0]),
      inward = nearest(points, [0, radius, 0]);
    loads[6 * out] = 1;
    loads[6 * inward + 1] = -1;
    const moves = shell.solve(loads);
    expect(moves[6 * out]! / 0.094).toBeGreaterThan(0.98);
    expect(moves[6 * out]! / 0.094).toBeLessThan(1.02);
    expect(-moves[6 * inward + 1]! / moves[6 * out]!).toBeCloseTo(1, 2);
  });
});

describe('what cannot be', () => {
  const mesh = sheet(2, 2, (u, v) => [u, v, 0]);
  const inputs = (held: ShellInputs['held'], own = mesh): ShellInputs => ({
    ...own,
    thickness: () => 0.01,
    material: steel,
    held,
  });
  test.each([
    ['held nowhere', inputs(new Map()), 'free-to-move'],
    [
      'held at one point that lets it turn',
      inputs(new Map([[0, [true, true, true, false, false, false]]])),
      'free-to-move',
    ],
    ['held everywhere', inputs(new Map(Array.from({ length: 9 }, (_, i) => [i, all] as const))), 'nothing-moves'],
    [
      'a triangle in one line',
      inputs(
        new Map([[0, all]]),
        sheet(2, 2, (u) => [u, 0, 0]),
      ),
      'no-area',
    ],
  ] as const)('%s is refused', (_, from, code) => {
    expect(Shell.of(from)).toMatchObject({ ok: false, code });
  });
});
