import { solveDryingFile, solveFrameFile } from './inputs';

/** What the solvers' own files may hold, and where a refusal points. */
const member = { from: 'A', to: 'B', E: 2e11, G: 8e10, A: 1e-3, Iy: 1e-6, Iz: 1e-6, J: 2e-6 };
const beam = {
  nodes: { A: { at: [0, 0, 0], fixed: true }, B: { at: [2, 0, 0] } },
  members: { m: member },
  loads: [{ node: 'B', force: [0, 0, -100] }],
};
const frame = (more: object) => solveFrameFile({ ...beam, ...more });

interface Solved {
  displacements: Record<string, { translation: number[]; rotation: number[] }>;
  reactions: Record<string, { force: number[]; moment: number[] }>;
  members: Record<string, Record<string, number>>;
}
const solved = (more: object): Solved => {
  const r = frame(more);
  if (!r.ok) throw new Error(`${r.path} ${r.message}`);
  return r.value as Solved;
};

test('a weight spread along a cantilever: w L4 / 8 E I at its end, w L2 / 2 at its foot', () => {
  const r = solved({ loads: [{ member: 'm', perLength: [0, 0, -50] }] });
  expect(r.displacements['B']!.translation[2]).toBeCloseTo((-50 * 2 ** 4) / (8 * 2e11 * 1e-6), 9);
  expect(r.reactions['A']!.force[2]).toBeCloseTo(100, 6);
  expect(Math.abs(r.reactions['A']!.moment[1]!)).toBeCloseTo(100, 6);
});

test('held in some ways only: propped at its end it bears three eighths of a spread load there', () => {
  const r = solved({
    nodes: { ...beam.nodes, B: { at: [2, 0, 0], fixed: ['uz'] } },
    loads: [{ member: 'm', perLength: [0, 0, -50] }],
  });
  expect(r.reactions['B']!.force[2]).toBeCloseTo((3 / 8) * 100, 6);
  expect(r.displacements['B']!.translation[2]).toBeCloseTo(0, 12);
});

test('a moment alone turns it: M L / E I', () => {
  const r = solved({ loads: [{ node: 'B', moment: [0, 10, 0] }] });
  expect(Math.abs(r.displacements['B']!.rotation[1]!)).toBeCloseTo((10 * 2) / (2e11 * 1e-6), 9);
});

test('without loads nothing moves', () => {
  const { loads: _, ...bare } = beam;
  const r = solveFrameFile(bare);
  expect(r.ok && (r.value as Solved).displacements['B']!.translation.every((v) => v === 0 || Object.is(v, -0))).toBe(
    true,
  );
});

test.each([
  ['nothing at all', null, /the document/],
  ['no members', { ...beam, members: undefined }, /members/],
  ['a place of two numbers', { ...beam, nodes: { ...beam.nodes, B: { at: [2, 0] } } }, /nodes\.B\.at/],
  [
    'held in a way there is not',
    { ...beam, nodes: { ...beam.nodes, A: { at: [0, 0, 0], fixed: ['up'] } } },
    /nodes\.A/,
  ],
  ['no stiffness', { ...beam, members: { m: { ...member, E: 0 } } }, /members\.m\.E/],
  ['a field of its own', { ...beam, members: { m: { ...member, colour: 'red' } } }, /members\.m/],
  ['from nowhere', { ...beam, members: { m: { ...member, from: 'Z' } } }, /members\.m\.from/],
  ['from a joint to itself', { ...beam, members: { m: { ...member, to: 'A' } } }, /members\.m/],
  ['a load on a joint there is not', { ...beam, loads: [{ node: 'Q', force: [1, 0, 0] }] }, /loads/],
  ['a load on a member there is not', { ...beam, loads: [{ member: 'q', perLength: [1, 0, 0] }] }, /loads/],
  ['a force of text', { ...beam, loads: [{ node: 'B', force: ['1', 0, 0] }] }, /loads/],
  ['held nowhere', { ...beam, nodes: { A: { at: [0, 0, 0] }, B: { at: [2, 0, 0] } } }, /nodes/],
] as const)('a frame with %s is refused where it is wrong', (_, file, path) => {
  const r = solveFrameFile(file);
  expect(r.ok).toBe(false);
  if (r.ok) return;
  expect(r.path).toMatch(path);
  expect(r.message).toMatch(/\S/);
});

const layer = { clay: 'paper-clay', thickness: 0.01 };
interface Dried {
  throughDry: number | null;
  touchDry: number | null;
  crackIndexPerRestraint: number;
  history: { time: number; meanMoisture: number; surfaceMoisture: number }[];
}
const dried = (more: object): Dried => {
  const r = solveDryingFile({ ...layer, ...more });
  if (!r.ok) throw new Error(`${r.path} ${r.message}`);
  return r.value as Dried;
};

test('twice as thick takes longer; a core that breathes, a warmer room, a draught less; a cover more', () => {
  const plain = dried({}).throughDry!;
  expect(dried({ thickness: 0.02 }).throughDry!).toBeGreaterThan(2 * plain);
  for (const quicker of [{ innerFace: 1 }, { air: { temperature: 30 } }, { air: { speed: 1 } }, { geometry: 'sphere' }])
    expect([quicker, dried(quicker).throughDry! < plain]).toEqual([quicker, true]);
  expect(dried({ cover: 1500 }).throughDry!).toBeGreaterThan(plain);
});

test('times come back in order, and it begins as wet as it is said to', () => {
  const r = dried({ times: [7200, 0, 3600], initialMoisture: 0.6 });
  expect(r.history.map((h) => h.time)).toEqual([0, 3600, 7200]);
  expect(r.history[0]!.meanMoisture).toBeCloseTo(0.6, 6);
});

test('in air as damp as can be it is never dry to the touch, and that is null', () =>
  expect(dried({ air: { relativeHumidity: 0.999 } }).touchDry).toBeNull());

test.each([
  [{ thickness: 0 }, /thickness/],
  [{ thickness: 6 }, /thickness/],
  [{ geometry: 'cube' }, /geometry/],
  [{ innerFace: 2 }, /innerFace/],
  [{ air: { relativeHumidity: 1 } }, /air\.relativeHumidity/],
  [{ air: { temperature: 120 } }, /air\.temperature/],
  [{ cover: -1 }, /cover/],
  [{ times: [-1] }, /times/],
  [{ initialMoisture: 0 }, /initialMoisture/],
  [{ clay: 'marzipan' }, /clay/],
  [{ clay: 'oil-soft' }, /clay/],
  [{ clay: { w0: 0.3, w_sl: 0.5 } }, /clay/],
  [{ depth: 0.01 }, /the document/],
] as const)('a layer with %j is refused where it is wrong', (more, path) => {
  const r = solveDryingFile({ ...layer, ...more });
  expect(r.ok).toBe(false);
  if (!r.ok) expect(r.path).toMatch(path);
});

describe('a frame solved as it stands once it has moved', () => {
  const I = (Math.PI * 0.0048 ** 4) / 64;
  const post = (kg: number, more: object = {}) => ({
    nodes: { A: { at: [0, 0, 0], fixed: true }, B: { at: [0, 0, 0.5] } },
    members: { m: { ...member, E: 69e9, G: 26e9, A: (Math.PI * 0.0048 ** 2) / 4, Iy: I, Iz: I, J: 2 * I } },
    loads: [{ node: 'B', force: [0, 0, -kg * 9.80665], moment: [kg * 9.80665 * 0.044, 0, 0] }],
    ...more,
  });
  const run = (kg: number, more: object = {}) => {
    const r = solveFrameFile(post(kg, more));
    if (!r.ok) throw new Error(r.message);
    return r.value as Solved & { bucklingFactor: number | null };
  };
  test('0.7 kg 44 mm forward on half a metre of 4.8 mm aluminium: 35 mm, 21 without; Euler’s factor either way', () => {
    const still = run(0.7),
      moved = run(0.7, { secondOrder: true });
    expect(Math.abs(still.displacements['B']!.translation[1]!)).toBeCloseTo(0.021, 3);
    expect(Math.abs(moved.displacements['B']!.translation[1]!)).toBeCloseTo(0.035, 3);
    const euler = (Math.PI ** 2 * 69e9 * I) / 1 / (0.7 * 9.80665);
    for (const r of [still, moved]) expect(r.bucklingFactor! / euler).toBeCloseTo(1, 3);
  });
  test('where nothing is pushed there is no factor, and past it the frame has no place to rest', () => {
    expect(solved({}) as unknown as { bucklingFactor: unknown }).toMatchObject({ bucklingFactor: null });
    expect(solveFrameFile(post(2, { secondOrder: true }))).toMatchObject({ ok: false, code: 'folds', path: 'loads' });
  });
});
