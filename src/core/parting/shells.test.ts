import { STLLoader } from 'three/addons/loaders/STLLoader.js';
import { ballMesh, finelyPlaced, latheMesh, ringMesh, together } from '../../../tests/support/meshes';
import { weld, writeMesh, type TriangleMesh } from '../form';
import { flangeAbout } from '../mould';
import { cross, dot, type Vec3 } from '../quantity';
import {
  checkAsked,
  checkShells,
  masterFace,
  partingOf,
  readyToPart,
  shellsOf,
  type MasterFace,
  type Parting,
  type PartingAsked,
} from '.';
import type { Shells, ShellAsked } from './shells';

beforeAll(readyToPart);

/** Shells against balls, whose volumes are known; read back by a reader that is not ours. */
function run<T>(work: Generator<number, T, undefined>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}
function made(
  mesh: TriangleMesh,
  board: number | null,
  asked: PartingAsked,
  walls: Omit<ShellAsked, 'board'>,
  points = 120_000,
) {
  const face = masterFace(weld(mesh, 1e-7), { board });
  const checked = checkAsked(asked);
  if (!face.ok || !checked.ok) throw new Error('no face');
  const parting: Parting = run(partingOf(face.value, board, checked.value));
  const shells: Shells = run(shellsOf(face.value, parting, { ...walls, board }, points));
  return { face: face.value, parting, shells };
}

/** m3 of a closed body, and how many of its edges are not met by one the other way. */
function bodyOf({ positions: p, triangles: t }: TriangleMesh): { volume: number; open: number } {
  const edges = new Map<string, number>();
  let volume = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => [0, 1, 2].map((m) => p[3 * t[i + k]! + m]!)) as [
      number[],
      number[],
      number[],
    ];
    volume +=
      (a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) -
        a[1]! * (b[0]! * c[2]! - b[2]! * c[0]!) +
        a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!)) /
      6;
    for (const k of [0, 1, 2]) {
      const [from, to] = [t[i + k]!, t[i + ((k + 1) % 3)]!];
      const [key, way] = from < to ? [`${from},${to}`, 1] : [`${to},${from}`, -1];
      edges.set(key, (edges.get(key) ?? 0) + way);
    }
  }
  return { volume, open: [...edges.values()].filter((v) => v !== 0).length };
}
/** Whether a place lies in a closed body: all of it is seen round it. Van Oosterom and Strackee (1983). */
function holds({ positions: p, triangles: t }: TriangleMesh, at: Vec3): boolean {
  let seen = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => [0, 1, 2].map((m) => p[3 * t[i + k]! + m]! - at[m as 0])) as unknown as [
      Vec3,
      Vec3,
      Vec3,
    ];
    const [la, lb, lc] = [a, b, c].map((v) => Math.hypot(...v)) as [number, number, number];
    const over = dot(a, cross(b, c));
    seen += 2 * Math.atan2(over, la * lb * lc + dot(a, b) * lc + dot(b, c) * la + dot(c, a) * lb);
  }
  return seen > 2 * Math.PI;
}
const upAndDown: PartingAsked = {
  pulls: [
    [0, 0, 1],
    [0, 0, -1],
  ],
  pour: [0, 0, 1],
};
const ballOf = (r: number) => (4 / 3) * Math.PI * r ** 3;

describe('a ball of 60 mm under a wall of 10, in two', () => {
  const r = 0.06,
    shell = 0.01;
  const { shells } = made(ballMesh(r, 40), null, upAndDown, { skin: 0, shell });
  const { width, thickness, keyAcross } = flangeAbout(shell);
  const bodies = shells.parts.map(bodyOf);

  test('both are closed', () => expect(bodies.map((b) => b.open)).toEqual([0, 0]));

  test('they hold the wall and its flange: half a hollow ball each, and a ring', () => {
    const out = r + shell;
    const wall = (ballOf(out) - ballOf(r)) / 2;
    // A ring from the wall to its rim. At a radius R it is as high as its border, the root of 2 R r (1 - cos a), allows.
    let ring = 0;
    const slice = 1e-5;
    for (let rho = out; rho < out + width; rho += slice)
      ring += 2 * Math.PI * rho ** 2 * Math.sqrt(1 - (1 - thickness ** 2 / (2 * rho * r)) ** 2) * slice;
    const both = bodies.reduce((sum, b) => sum + b.volume, 0);
    expect(Math.abs(both / (2 * (wall + ring)) - 1)).toBeLessThan(0.03);
  });

  test('keys stand on one and go into the other', () => {
    expect(shells.keys.length).toBeGreaterThanOrEqual(4);
    const [top, under] = [shells.parts[0]!, shells.parts[1]!];
    for (const { at, of, into } of shells.keys) {
      expect([of, into]).toEqual([0, 1]);
      expect(Math.hypot(...at)).toBeCloseTo(r + shell + width / 2, 3);
      const below: Vec3 = [at[0], at[1], at[2] - 0.3 * keyAcross],
        above: Vec3 = [at[0], at[1], at[2] + 0.3 * keyAcross];
      expect([holds(top, below), holds(under, below)]).toEqual([true, false]);
      expect([holds(top, above), holds(under, above)]).toEqual([true, false]);
    }
    // Beside a key each has its own side.
    const beside: Vec3 = [0.0825 * Math.cos(0.1), 0.0825 * Math.sin(0.1), -0.004];
    const away = shells.keys.every((k) => Math.hypot(...k.at.map((v, i) => v - beside[i]!)) > keyAcross);
    expect(away && [holds(top, beside), holds(under, beside)]).toEqual([false, true]);
  });

  test('read back by another reader, in millimetres, with all its triangles', () => {
    const [one] = shells.parts;
    const bytes = writeMesh('stl', [{ name: 'top', ...one! }]);
    const geometry = new STLLoader().parse(bytes.slice().buffer);
    expect(geometry.getAttribute('position').count).toBe(one!.triangles.length);
    geometry.computeBoundingBox();
    const { min, max } = geometry.boundingBox!;
    expect(max.x - min.x).toBeCloseTo(2000 * (r + shell + width), -0.5);
    expect(max.z).toBeCloseTo(1000 * (r + shell), -0.5);
  });
});

test('over a skin it begins where that ends', () => {
  const { shells } = made(ballMesh(0.05, 40), null, upAndDown, { skin: 0.01, shell: 0.012 });
  for (const part of shells.parts) {
    let least = Infinity;
    const { positions: p } = part;
    for (let i = 0; i < p.length; i += 3) least = Math.min(least, Math.hypot(p[i]!, p[i + 1]!, p[i + 2]!));
    expect(Math.abs(least - 0.06)).toBeLessThan(shells.step);
  }
});

test('half a ball on its flat: one wall, open below, cut level at the board', () => {
  const bow = Array.from({ length: 40 }, (_, i): [number, number] => {
    const a = (i / 39) * (Math.PI / 2);
    return [0.06 * Math.cos(a), 0.06 * Math.sin(a)];
  });
  const half = latheMesh(finelyPlaced([[0, 0], ...bow], 0.004));
  const { shells } = made(half, 0, { pieces: 1 }, { skin: 0, shell: 0.01 });
  const [only, ...more] = shells.parts;
  expect(more).toEqual([]);
  const { volume, open } = bodyOf(only!);
  expect(open).toBe(0);
  expect(Math.abs(volume / ((ballOf(0.07) - ballOf(0.06)) / 2) - 1)).toBeLessThan(0.03);
  expect(Math.min(...only!.positions.filter((_, i) => i % 3 === 2))).toBeGreaterThan(-1e-6);
});

test('what could never come off, or has no hard wall, is refused', () => {
  const face = masterFace(weld(ballMesh(0.05, 24), 1e-7), { board: null }) as { ok: true; value: MasterFace };
  const one: Parting = run(partingOf(face.value, null, { pieces: 1, pour: [0, 0, 1] }));
  const walls = { skin: 0, shell: 0.01, board: null };
  expect(checkShells(one, walls, face.value.stands)).toMatchObject({ ok: false, code: 'one-part' });
  const two: Parting = run(partingOf(face.value, null, upAndDown as PartingAsked));
  expect(checkShells(two, { ...walls, shell: 0 }, face.value.stands)).toMatchObject({ ok: false, code: 'no-shell' });
  expect(checkShells(two, walls, face.value.stands)).toMatchObject({ ok: true });
});

const sideways: PartingAsked = {
  pulls: [
    [1, 0, 0],
    [-1, 0, 0],
  ],
  pour: [0, 0, 1],
};

/** A bowl 100 mm across, its wall 8 mm, mouth up. */
function bowl(): TriangleMesh {
  const arc = (r: number) =>
    Array.from({ length: 17 }, (_, i): [number, number] => {
      const a = (i / 16) * (Math.PI / 2);
      return [r * Math.sin(a), 0.05 - r * Math.cos(a)];
    });
  return latheMesh([...arc(0.05), ...arc(0.042).reverse()], 64);
}

test.each([
  ['hollow on top', bowl(), null],
  ['hollow on top, on a board', bowl(), 0],
  ['with a hole through it', ringMesh(0.04, 0.012, 64, 24), null],
  ['in two', together(ballMesh(0.03, 24, [0.06, 0, 0.03]), ballMesh(0.03, 24, [-0.06, 0, 0.03])), 0],
] as const)('a piece %s: every hard part is a closed body beside the piece, not in it', (_, mesh, board) => {
  const { face, shells } = made(mesh, board, board === null ? upAndDown : sideways, { skin: 0, shell: 0.008 }, 50_000);
  expect(shells.parts.length).toBeGreaterThan(0);
  for (const part of shells.parts) {
    const { volume, open } = bodyOf(part);
    expect(open).toBe(0);
    expect(volume).toBeGreaterThan(0);
    // Inside the piece, well under its face, there is none of it.
    for (let t = 0; t < face.count; t += Math.ceil(face.count / 40)) {
      const within = [0, 1, 2].map((k) => face.centres[3 * t + k]! - 0.003 * face.normals[3 * t + k]!);
      expect(holds(part, within as unknown as Vec3)).toBe(false);
    }
  }
});
