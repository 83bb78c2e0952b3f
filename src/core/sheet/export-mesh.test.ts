import { asBriefed } from '../evaluate';
import { tubeMesh } from '../armature';
import { newBust } from '../document';
import { meshFormats, placeMesh, readMesh, reportOnMesh, upInFile } from '../form';
import { boxMesh } from '../../../tests/support/meshes';
import { Evaluator } from '../evaluate';
import { exportMesh } from '../sheet';

const evaluator = new Evaluator();
const bust = newBust('b', '2026-12-01', 0.5);

test.each(meshFormats)('the form taken out as %s is closed and as large as the report says', (format) => {
  const out = exportMesh(bust, ['form'], format, evaluator),
    report = evaluator.evaluate(asBriefed(bust));
  if (!out.ok || !report.ok) throw new Error('nothing came out');
  const mesh = readMesh(out.value, `x.${format}`);
  if (!mesh.ok) throw new Error(mesh.message);
  const found = reportOnMesh(mesh.value);
  expect(found.watertight).toBe(true);
  expect(Math.abs(found.volume / ((format === 'glb' ? 1 : 1e9) * report.value.size.volume) - 1)).toBeLessThan(0.01);
});

test('the core is smaller than the form; a piece of solid clay has none, and says so', () => {
  const out = exportMesh(bust, ['core'], 'stl', evaluator),
    report = evaluator.evaluate(asBriefed(bust));
  const mesh = out.ok ? readMesh(out.value, 'x.stl') : out;
  if (!mesh.ok || !report.ok) throw new Error('nothing came out');
  const core = reportOnMesh(mesh.value).volume / 1e9,
    { volume, area } = report.value.size;
  expect(core).toBeLessThan(0.95 * volume);
  // A centimetre of clay over all of it at the most.
  expect(core).toBeGreaterThan(volume - 0.01 * area);
  const solid = {
    ...bust,
    armature: {
      ...bust.armature,
      school: { kind: 'stuffed', parameters: { ...bust.armature.school.parameters, bulk: 'none' } },
    },
  };
  expect(exportMesh(solid, ['core'], 'stl', evaluator)).toMatchObject({ ok: false, code: 'empty' });
});

test('a bar along a path is closed, looks outward, and holds its section times its length', () => {
  const found = reportOnMesh(
    tubeMesh(
      [
        [0, 0, 0],
        [0, 0, 0.1],
        [0, 0, 0.3],
      ],
      0.02,
      64,
    ),
  );
  expect(found).toMatchObject({ watertight: true, flipped: 0 });
  expect(found.volume / (Math.PI * 0.01 ** 2 * 0.3)).toBeCloseTo(1, 2);
  expect(
    reportOnMesh(
      tubeMesh(
        [
          [0, 0, 0],
          [0.1, 0, 0],
          [0.1, 0.1, 0],
          [0.1, 0.1, 0.1],
        ],
        0.01,
      ),
    ),
  ).toMatchObject({ watertight: true, flipped: 0 });
  expect(
    tubeMesh(
      [
        [0, 0, 0],
        [0, 0, 0],
      ],
      0.01,
    ).triangles,
  ).toHaveLength(0);
});

test('placed: its unit, its up, its height; nonsense is refused', () => {
  const box = boxMesh(100, 200, 300);
  const placed = placeMesh(box, { unit: 'mm', turn: upInFile.y, height: 0.5 });
  if (!placed.ok) throw new Error(placed.message);
  const [low, high] = reportOnMesh(placed.value).box;
  expect(low[2]).toBeCloseTo(0, 6);
  expect(high.map((v, k) => v - low[k]!)).toEqual([
    expect.closeTo(0.25, 5),
    expect.closeTo(0.75, 5),
    expect.closeTo(0.5, 5),
  ]);
  expect(reportOnMesh(placed.value).volume).toBeGreaterThan(0);
  expect(placeMesh(box, { unit: 'm', turn: upInFile.z, height: null })).toMatchObject({ ok: false, path: 'the unit' });
  expect(placeMesh(boxMesh(0, 0, 0), { unit: 'mm', turn: upInFile.z, height: null })).toMatchObject({
    ok: false,
    code: 'no-size',
  });
});
