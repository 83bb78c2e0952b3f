import { evenClay } from '../support/even-clay';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { check } from '../../src/cli/check';
import { applyEdit, newBust } from '../../src/core/document';
import { writeMesh } from '../../src/core/form';
import { takeMould } from '../../src/core/mould';
import { boxMesh } from '../support/meshes';

const root = path.join(__dirname, '../..');
/** Bundled once: every command is a process of its own, and most of its time would go on reading sources. */
const program = path.join(root, '.state/command-line-test.mjs');
beforeAll(() => {
  buildSync({
    entryPoints: [path.join(root, 'src/cli/main.ts')],
    outfile: program,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
  });
});
afterAll(() => rmSync(program, { force: true }));

const folder = mkdtempSync(path.join(tmpdir(), 'sostegno-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function run(args: readonly string[], file?: unknown) {
  const at = path.join(folder, 'in.json');
  if (file !== undefined) writeFileSync(at, typeof file === 'string' ? file : JSON.stringify(file));
  const done = spawnSync(process.execPath, [program, ...args, ...(file === undefined ? [] : [at])], {
    encoding: 'utf8',
  });
  return { code: done.status, out: done.stdout, error: done.stderr };
}

const beam = {
  nodes: { A: { at: [0, 0, 0], fixed: true }, B: { at: [0, 0, 1.5] } },
  members: { m: { from: 'A', to: 'B', E: 2e11, G: 8e10, A: 1e-3, Iy: 1e-6, Iz: 2e-6, J: 2e-6 } },
  loads: [
    { node: 'B', force: [100, 0, 0] },
    { node: 'B', force: [0, 50, 0] },
  ],
};

describe('solve frame', () => {
  test('an upright member takes local y = global y, and every field is there', () => {
    const { code, out } = run(['solve', 'frame'], beam);
    expect(code).toBe(0);
    const r = JSON.parse(out) as {
      displacements: Record<string, { translation: number[]; rotation: number[] }>;
      reactions: Record<string, { force: number[]; moment: number[] }>;
      members: Record<string, Record<string, number>>;
    };
    // A push along x turns it about y: local y is global y, so Iy. A push along y turns it about local z.
    expect(r.displacements['B']?.translation[0]).toBeCloseTo((100 * 1.5 ** 3) / (3 * 2e11 * 1e-6), 9);
    expect(r.displacements['B']?.translation[1]).toBeCloseTo((50 * 1.5 ** 3) / (3 * 2e11 * 2e-6), 9);
    expect(r.reactions['A']?.force).toEqual([expect.closeTo(-100, 6), expect.closeTo(-50, 6), expect.closeTo(0, 6)]);
    expect(r.reactions['A']?.moment[1]).toBeCloseTo(-150, 6);
    expect(Object.keys(r.reactions)).toEqual(['A']);
    expect(Object.keys(r.members['m'] ?? {}).sort()).toEqual([
      'axial',
      'momentY',
      'momentZ',
      'shearY',
      'shearZ',
      'torsion',
    ]);
    expect(r.members['m']?.['momentY']).toBeCloseTo(150, 6);
    expect(r.members['m']?.['momentZ']).toBeCloseTo(75, 6);
  });
  test.each([
    [
      'a mechanism',
      { ...beam, nodes: { ...beam.nodes, A: { at: [0, 0, 0], fixed: ['ux', 'uy', 'uz'] } } },
      /nodes\.B.*free to/,
    ],
    ['not JSON', '{"nodes":', /not JSON/],
  ])('%s: exit 2 and one line', (_, file, line) => {
    const { code, error, out } = run(['solve', 'frame'], file);
    expect(code).toBe(2);
    expect(out).toBe('');
    expect(error.trim().split('\n')).toHaveLength(1);
    expect(error).toMatch(line);
  });
});

describe('solve drying', () => {
  test('by family, at the times asked', () => {
    const { code, out } = run(['solve', 'drying'], {
      clay: 'paper-clay',
      thickness: 0.008,
      geometry: 'slab',
      innerFace: 0,
      air: { temperature: 20, relativeHumidity: 0.5, speed: 0.1 },
      cover: 0,
      times: [0, 3600, 360000],
    });
    expect(code).toBe(0);
    const r = JSON.parse(out) as {
      throughDry: number;
      history: Record<string, number>[];
      crackIndexPerRestraint: number;
      crackIndexDifferential: number;
    };
    expect(r.history.map((h) => h['time'])).toEqual([0, 3600, 360000]);
    expect(Object.keys(r.history[0] ?? {}).sort()).toEqual(['massPerArea', 'meanMoisture', 'surfaceMoisture', 'time']);
    expect(r.history[0]?.['massPerArea']).toBeCloseTo(560 * 0.008 * 1.95, 6);
    expect(r.throughDry / 3600).toBeGreaterThan(74);
    expect(r.throughDry / 3600).toBeLessThan(90);
  });
  test('by coefficients, with a fixed face', () => {
    const { code, out } = run(['solve', 'drying'], {
      clay: evenClay,
      thickness: 0.01,
      geometry: 'sphere',
      innerFace: 0,
      air: { temperature: 20, relativeHumidity: 0.5, speed: 0.1 },
      cover: 0,
      surfaceMoisture: 0.2,
      times: [10000],
    });
    expect(code).toBe(0);
    expect((JSON.parse(out) as { history: { surfaceMoisture: number }[] }).history[0]?.surfaceMoisture).toBe(0.2);
  });
  test.each([['marzipan', /clay.*marzipan/]])('%s', (clay, line) => {
    const { code, error } = run(['solve', 'drying'], { clay, thickness: 0.01 });
    expect(code).toBe(2);
    expect(error).toMatch(line);
  });
});

test('check prints the whole report', () => {
  const bust = newBust('Checked', '2026-12-01');
  const { code, out } = run(['check', '--now', '2026-12-03T09:00Z'], bust);
  expect(code).toBe(0);
  const r = JSON.parse(out) as Record<string, unknown>;
  for (const part of ['ledger', 'members', 'stance', 'regions', 'findings']) expect(r[part]).toBeDefined();
  const told = check(JSON.stringify(bust), { now: '2026-12-03T09:00Z', full: false });
  expect(r).toEqual(JSON.parse(JSON.stringify(told.ok && told.value)));
});

test('no such file, no such command', () => {
  expect(run(['check', '/nowhere/build.json'])).toMatchObject({ code: 2 });
  expect(run(['juggle'])).toMatchObject({ code: 2 });
});

describe('backup and restore', () => {
  const cli = (...args: string[]) => run(args);

  test('out of one folder and into another, with the same hash; what is torn is refused in one line', () => {
    const [from, to, file] = ['from', 'to', 'all.tar.gz'].map((n) => path.join(folder, n)) as [string, string, string];
    const made = cli('backup', file, '--data', from);
    // A folder that is not there yet is begun, as by the server.
    expect(made).toMatchObject({ code: 0, error: '' });
    const { content } = JSON.parse(made.out) as { content: string };
    const back = cli('restore', file, '--data', to);
    expect(back.code).toBe(0);
    expect((JSON.parse(back.out) as { content: string }).content).toBe(content);
    expect(cli('backup', file, '--data', from)).toMatchObject({
      code: 2,
      error: expect.stringMatching(/there is a file of this name already/),
    });
    truncateSync(file, 200);
    const torn = cli('restore', file, '--data', to);
    expect(torn).toMatchObject({ code: 2, out: '' });
    expect(torn.error.trim().split('\n')).toHaveLength(1);
    expect(torn.error).toMatch(/cut short or damaged: nothing was changed/);
    expect(cli('restore')).toMatchObject({ code: 2, error: expect.stringMatching(/^usage: /) });
  }, 60_000);
});

describe('mould', () => {
  const stl = path.join(folder, 'cube.stl');
  // In millimetres, as meshes go out.
  beforeAll(() => writeFileSync(stl, writeMesh('stl', [{ name: 'cube', ...boxMesh(0.1, 0.1, 0.1) }])));
  test('of a cube of 100 mm in a mesh: 565 cc of skin of 10 mm over all but what it stands on, a shell, a block', () => {
    const made = run(['mould', stl, '--kind', 'rubber-skin', '--skin', '0.01', '--shell', '0.012']);
    expect([made.code, made.error]).toEqual([0, '']);
    const said = JSON.parse(made.out) as Record<string, number> & { castMass: { nominal: number }; cautions: string[] };
    expect(said['pieceVolume']! / 1e-3).toBeCloseTo(1, 1);
    expect(said['skinVolume']! / 564.9e-6).toBeCloseTo(1, 1);
    expect(said).toMatchObject({ kind: 'rubber-skin', skin: 0.01, shell: 0.012, blockVolume: null });
    expect(said.cautions.length).toBeGreaterThan(1);
    const block = run(['mould', stl, '--kind', 'rubber-block', '--margin', '0.02', '--cast', 'resin-solid']);
    const { blockVolume, castMass } = JSON.parse(block.out) as typeof said;
    expect(blockVolume! / (0.14 * 0.14 * 0.12 - 1e-3)).toBeCloseTo(1, 1);
    expect(castMass.nominal).toBeCloseTo(1.03, 1);
  });
  test('how it parts: a cube drawn up in one, in two when it is told, a pour that is said', () => {
    type Said = {
      pieces: { direction: number[]; area: number }[];
      partingLength: number;
      locked: unknown[];
      lockedVolume: number;
      traps: number[][];
      pour: number[];
    };
    const said = (args: readonly string[]) => JSON.parse(run(['mould', stl, ...args]).out) as Said;
    const free = said([]);
    expect(free.pieces).toHaveLength(1);
    expect(free.pieces[0]!.direction[2]).toBeGreaterThan(0.99);
    // What it stands on is left open.
    expect(free.pieces[0]!.area / 0.05).toBeCloseTo(1, 2);
    expect(free).toMatchObject({ locked: [], lockedVolume: 0, partingLength: 0 });
    const turned = said(['--pull=1,0,0;-1,0,0', '--pour', '0,0,2']);
    expect(turned.pieces.map((p) => p.direction)).toEqual([
      [1, 0, 0],
      [-1, 0, 0],
    ]);
    expect(turned.pour).toEqual([0, 0, 1]);
    expect(turned.traps).toHaveLength(1);
  }, 60_000);
  test('of a build; and what is wrong is said, with exit 2', () => {
    const bust = run(['mould', '--kind', 'plaster-parts', '--cast', 'latex-skin'], newBust('Bust', '2026-12-01', 0.4));
    expect([bust.code, bust.error]).toEqual([0, '']);
    expect(JSON.parse(bust.out)).toMatchObject({ kind: 'plaster-parts', cast: 'latex-skin', skinVolume: null });
    // Where nothing is said, the build's own.
    const plain = newBust('Bust', '2026-12-01', 0.4);
    const taken = applyEdit(plain, takeMould(plain, 'plaster-open'));
    if (!taken.ok) throw new Error(taken.message);
    const own = JSON.parse(run(['mould'], taken.value).out) as { kind: string; pieces: unknown[] };
    expect(own).toMatchObject({ kind: 'plaster-open', pieces: [expect.anything()] });
    for (const [args, words] of [
      [['mould'], /usage|mould BUILD/],
      [['mould', stl, '--kind', 'jelly'], /kind: the kinds of mould are/],
      [['mould', stl, '--cast', 'gold'], /cast: the casts are/],
      [['mould', stl, '--skin', 'thick'], /--skin: "thick" is no number/],
      [['mould', stl, '--skin', '-1'], /skin: it is above 0/],
      [['mould', stl, '--unit', 'ell'], /--unit: it is one of/],
      [['mould', stl, '--deep'], /there is no option --deep/],
      [['mould', stl, '--pieces', '0'], /--pieces: a mould has 1 to 8 of them/],
      [['mould', stl, '--pull', 'up'], /--pull: "up" is no direction/],
      [['mould', stl, '--pull', '0,0,0'], /--pull: it is three numbers/],
      [['mould', stl, '--pour', '0,0,1;1,0,0'], /--pour: it is one direction/],
      [['mould', path.join(folder, 'none.stl')], /there is no such file/],
    ] as const) {
      const refused = run([...args]);
      expect([refused.code, refused.out]).toEqual([2, '']);
      expect(refused.error).toMatch(words);
    }
  });
});
