import fc from 'fast-check';
import { ballMesh, boxMesh, insideOut, ringMesh, together, without } from '../../../../tests/support/meshes';
import {
  guessUnit,
  meshFormats,
  placeMesh,
  readMesh,
  mendMesh,
  reportOnMesh,
  sizeOfMesh,
  upInFile,
  weld,
  writeMesh,
  type MeshFormat,
  type NamedMesh,
  type Placing,
  type TriangleMesh,
} from '.';

const named = (mesh: TriangleMesh, name = 'piece'): NamedMesh => ({ ...mesh, name });
const soup = (m: TriangleMesh): TriangleMesh => ({
  positions: Float32Array.from([...m.triangles].flatMap((v) => [...m.positions.subarray(v * 3, v * 3 + 3)])),
  triangles: Uint32Array.from(m.triangles.keys()),
});
const text = (s: string) => new TextEncoder().encode(s);
const read = (bytes: Uint8Array, name: string) => {
  const mesh = readMesh(bytes, name);
  if (!mesh.ok) throw new Error(`${mesh.path}: ${mesh.message}`);
  return mesh.value;
};
const glb = (json: unknown, bin = new Uint8Array(0)): Uint8Array => {
  const body = text(JSON.stringify(json));
  const padded = Math.ceil(body.length / 4) * 4;
  const out = new Uint8Array(28 + padded + bin.length);
  const v = new DataView(out.buffer);
  [0x46546c67, 2, out.length, padded, 0x4e4f534a].forEach((n, i) => v.setUint32(i * 4, n, true));
  out.fill(32, 20, 20 + padded);
  out.set(body, 20);
  v.setUint32(20 + padded, bin.length, true);
  v.setUint32(24 + padded, 0x004e4942, true);
  out.set(bin, 28 + padded);
  return out;
};

describe('brought in', () => {
  // Its nose points along +z in a file whose y is up: that is the front.
  const file: TriangleMesh = {
    positions: Float32Array.from([-10, 5, 0, 10, 5, 0, 0, 45, 0, 0, 15, 30]),
    triangles: Uint32Array.from([0, 1, 3, 1, 2, 3, 2, 0, 3, 0, 2, 1]),
  };
  const placed = (placing: Placing) => {
    const made = placeMesh(file, placing);
    if (!made.ok) throw new Error(made.message);
    return {
      volume: reportOnMesh(made.value).volume,
      at: [...made.value.positions].map((v) => Math.round(v * 1e6) / 1e6),
    };
  };
  test('upright, its front to the front, in the middle of the board and standing on it', () => {
    const { volume, at } = placed({ unit: 'mm', turn: upInFile.y, height: null });
    expect(at).toEqual([-0.01, 0.015, 0, 0.01, 0.015, 0, 0, 0.015, 0.04, 0, -0.015, 0.01]);
    // Turned, not mirrored: what was outside is outside.
    expect(volume).toBeCloseTo(reportOnMesh(file).volume * 1e-9, 12);
  });
  test('to a height; one with z up stays as it is', () => {
    expect(placed({ unit: 'mm', turn: upInFile.y, height: 0.4 }).at.filter((_, i) => i % 3 === 2)).toEqual([
      0, 0, 0.4, 0.1,
    ]);
    expect(placed({ unit: 'cm', turn: upInFile.z, height: null }).at.slice(9)).toEqual([0, -0.1, 0.3]);
  });
});

describe('measuring', () => {
  test('a box: volume, area, centroid, closed', () => {
    const r = reportOnMesh(boxMesh(2, 3, 4));
    expect(r).toMatchObject({ triangles: 12, watertight: true, openEdges: 0, flipped: 0 });
    expect(r.volume).toBeCloseTo(24, 12);
    expect(r.area).toBeCloseTo(52, 12);
    r.centroid.forEach((v) => expect(v).toBeCloseTo(0, 12));
  });
  test('the middle of a corner’s weight is the mean of its corners, wherever it lies', () => {
    const corner: TriangleMesh = {
      positions: Float32Array.from([0, 0, 0, 4, 0, 0, 0, 8, 0, 0, 0, 12].map((v) => v + 100)),
      triangles: Uint32Array.from([0, 2, 1, 0, 1, 3, 0, 3, 2, 1, 2, 3]),
    };
    const { volume, centroid } = reportOnMesh(corner);
    expect(volume).toBeCloseTo((4 * 8 * 12) / 6, 9);
    expect(centroid.map((v) => v - 100)).toEqual([1, 2, 3].map((v) => expect.closeTo(v, 9)));
  });
  test('a ball and a ring with a handle come to their smooth shapes as they are cut finer', () => {
    expect(reportOnMesh(ballMesh(10, 96)).volume / ((4 / 3) * Math.PI * 1000)).toBeCloseTo(1, 2);
    // Pappus, with the tube's section averaged round the ring.
    expect(
      reportOnMesh(ringMesh(10, 3, 256, 96)).volume / (2 * Math.PI * 10 * Math.PI * 9 * (1 + 0.25 ** 2 / 2)),
    ).toBeCloseTo(1, 2);
    expect(reportOnMesh(ringMesh(10, 3)).watertight).toBe(true);
  });
  test('far from its origin it loses no figures', () => {
    const far = sizeOfMesh(ballMesh(1, 32, [1000, -2000, 500]));
    expect(far.volume / sizeOfMesh(ballMesh(1, 32)).volume).toBeCloseTo(1, 3);
    expect(far.centroid[1]).toBeCloseTo(-2000, 3);
  });
  test('faces turned the wrong way are counted, and count the right way', () => {
    const m = ballMesh(5);
    const t = m.triangles.slice();
    for (const f of [3, 50, 51, 700]) [t[f * 3], t[f * 3 + 1]] = [t[f * 3 + 1]!, t[f * 3]!];
    const r = reportOnMesh({ positions: m.positions, triangles: t });
    expect(r.flipped).toBe(4);
    expect(r.volume).toBeCloseTo(sizeOfMesh(m).volume, 4);
    const inside = { positions: m.positions, triangles: m.triangles.slice().reverse() };
    expect(reportOnMesh(inside)).toMatchObject({ flipped: inside.triangles.length / 3 });
  });
  test('a soup of triangles welds to what it was', () => {
    const m = ringMesh(10, 3, 24, 12);
    expect(weld(soup(m)).positions.length).toBe(m.positions.length);
    expect(reportOnMesh(soup(m))).toMatchObject({ watertight: true, flipped: 0 });
  });
  test.each([
    [232, 'mm'],
    [23, 'cm'],
    [9, 'in'],
    [0.25, 'm'],
    [1800, 'mm'],
  ] as const)('a longest side of %d is likely in %s', (longest, unit) => expect(guessUnit(longest)).toBe(unit));
});

describe('mending', () => {
  test('doubled faces go, turned ones are put right, holes are counted and left to be closed where its inside is found', () => {
    const m = ballMesh(50, 40);
    const holed = without(m, (f) => f >= 2000 && f < 2006);
    const [a, b, c] = holed.triangles.subarray(30, 33) as unknown as [number, number, number];
    const [d, e, g] = holed.triangles.subarray(90, 93) as unknown as [number, number, number];
    const spoilt = together(
      without({ positions: holed.positions, triangles: holed.triangles }, (f) => f === 30),
      { positions: holed.positions, triangles: Uint32Array.from([e, d, g, a, b, c]) },
    );
    const mended = mendMesh(soup(spoilt));
    if (!mended.ok) throw new Error(mended.message);
    expect(mended.value).toMatchObject({ facesTurned: 1, doubled: 1, openEdges: 8, crowdedEdges: 0 });
    expect(sizeOfMesh(mended.value.mesh).volume / sizeOfMesh(holed).volume).toBeCloseTo(1, 6);
  });
  test('an open piece looks the way most of it does, unless all of it would enclose less than nothing', () => {
    const open = without(ballMesh(50, 40, [200, 0, 0]), (f) => f < 900);
    const looks = (m: TriangleMesh) => {
      const mended = mendMesh(m);
      return mended.ok ? mended.value.facesTurned : NaN;
    };
    expect(looks(open)).toBe(0);
    expect(looks(insideOut(open))).toBe(open.triangles.length / 3);
  });
  test('an edge of three faces is counted; points in one place and lines for faces are refused', () => {
    const fin = boxMesh(1, 1, 1);
    const finned = {
      positions: Float32Array.from([...fin.positions, 3, 3, 3]),
      triangles: Uint32Array.from([...fin.triangles, 0, 1, 8]),
    };
    expect(mendMesh(finned)).toMatchObject({ ok: true, value: { crowdedEdges: 1, openEdges: 2 } });
    expect(mendMesh({ positions: new Float32Array(9), triangles: Uint32Array.of(0, 1, 2) })).toMatchObject({
      ok: false,
      code: 'no-size',
    });
    expect(
      mendMesh({ positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 0, 0), triangles: Uint32Array.of(0, 1, 2) }),
    ).toMatchObject({ ok: false, code: 'no-size' });
  });
});

describe.each(meshFormats.map((f) => [f]))('%s', (format) => {
  // Metres in; the files are in millimetres, but for GLB in metres.
  const unit = format === 'glb' ? 1 : 1000;
  test.each([
    ['ball', ballMesh(0.1, 24, [0.02, -0.3, 1])],
    ['ring', ringMesh(0.1, 0.03)],
  ] as const)('written and read again, a %s keeps its volume to 0.1 %% and stays closed', (_, mesh) => {
    const back = reportOnMesh(read(writeMesh(format, [named(mesh)]), `x.${format}`));
    const there = reportOnMesh(mesh);
    expect(back).toMatchObject({ triangles: there.triangles, watertight: true, flipped: 0 });
    expect(Math.abs(back.volume / (there.volume * unit ** 3) - 1)).toBeLessThan(0.001);
    back.centroid.forEach((v, k) => expect(v / unit).toBeCloseTo(there.centroid[k]!, 4));
  });
  test('two parts stay two parts', () => {
    const bytes = writeMesh(format, [
      named(boxMesh(0.1, 0.1, 0.1), 'one'),
      named(ballMesh(0.05, 12, [0.5, 0, 0]), 'two'),
    ]);
    expect(reportOnMesh(read(bytes, `x.${format}`))).toMatchObject({ watertight: true });
  });
  test('torn anywhere, or with bytes changed, it is read or refused in a sentence: never a crash', () => {
    const whole = writeMesh(format, [named(boxMesh(0.1, 0.2, 0.3))]);
    fc.assert(
      fc.property(
        fc.nat(whole.length),
        fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 6 }),
        (cut, changes) => {
          const bytes = whole.slice(0, Math.max(1, cut));
          for (const [at, to] of changes) if (at < bytes.length) bytes[at] = to;
          const result = readMesh(bytes, `x.${format}`);
          if (result.ok) {
            const r = reportOnMesh(result.value);
            expect(r.triangles).toBeLessThan(100);
            mendMesh(result.value);
          } else expect(`${result.path}${result.message}`.length).toBeGreaterThan(5);
        },
      ),
      { seed: 17, numRuns: 300 },
    );
  });
});

test('text STL, and a binary one that begins with "solid"', () => {
  const ascii = text(
    'solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid a\n',
  );
  expect(reportOnMesh(read(ascii, 'a.stl'))).toMatchObject({ triangles: 1, area: 0.5, openEdges: 3 });
  const binary = writeMesh('stl', [named(boxMesh(0.1, 0.1, 0.1))]);
  binary.set(text('solid something'));
  expect(read(binary, 'a.stl').triangles.length).toBe(36);
});

test('other programs’ PLY: big-endian, doubles, colours, polygons', () => {
  const ascii = text(
    'ply\nformat ascii 1.0\nelement vertex 4\nproperty double x\nproperty double y\nproperty double z\nproperty uchar red\nelement face 1\nproperty list uchar int vertex_index\nend_header\n0 0 0 9\n1 0 0 9\n1 1 0 9\n0 1 0 9\n4 0 1 2 3\n',
  );
  expect(sizeOfMesh(read(ascii, 'a.ply'))).toMatchObject({ triangles: 2, area: 1 });
  const head = text(
    'ply\nformat binary_big_endian 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar ushort vertex_indices\nend_header\n',
  );
  const body = new Uint8Array(36 + 7);
  const v = new DataView(body.buffer);
  [0, 0, 0, 2, 0, 0, 0, 2, 0].forEach((x, i) => v.setFloat32(i * 4, x));
  v.setUint8(36, 3);
  [0, 1, 2].forEach((x, i) => v.setUint16(37 + i * 2, x));
  const bytes = new Uint8Array(head.length + body.length);
  bytes.set(head);
  bytes.set(body, head.length);
  expect(sizeOfMesh(read(bytes, 'a.ply'))).toMatchObject({ triangles: 1, area: 2 });
});

describe('what is refused, and where', () => {
  const stl = (count: number, bytes: number) => {
    const b = new Uint8Array(bytes);
    new DataView(b.buffer).setUint32(80, count, true);
    return b;
  };
  const nan = writeMesh('stl', [named(boxMesh(0.1, 0.1, 0.1))]);
  new DataView(nan.buffer).setFloat32(84 + 4 * 50 + 12, NaN, true);
  const accessors = (more: object) => ({
    asset: { version: '2.0' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0 }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
    accessors: [{ bufferView: 0, componentType: 5126, type: 'VEC3', count: 3 }],
    bufferViews: [{ buffer: 0, byteLength: 36 }],
    buffers: [{ byteLength: 36 }],
    ...more,
  });
  test.each<[string, Uint8Array, string, string, RegExp]>([
    [
      'more triangles than it holds',
      stl(1000, 84 + 50),
      'a.stl',
      'the triangle count',
      /claims 1000 triangles and holds 1/,
    ],
    ['four thousand million triangles', stl(0xffffffff, 500), 'a.stl', 'the triangle count', /holds 8/],
    ['not a number in an STL', nan, 'a.stl', 'triangle 5', /not a number/],
    ['text where a number belongs', text('v 0 0 0\nv one 0 0\n'), 'a.obj', 'line 2', /"one" is not a number/],
    ['a point that is not there', text('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n'), 'a.obj', 'line 4', /names point 9/],
    ['no faces', text('v 0 0 0\n'), 'a.obj', 'the file', /no faces/],
    [
      'a PLY that claims a thousand million points',
      text(
        'ply\nformat ascii 1.0\nelement vertex 1000000000\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n',
      ),
      'a.ply',
      'the vertex count',
      /claims 1000000000 and holds fewer/,
    ],
    [
      'a GLB that points outside itself',
      glb(accessors({ buffers: [{ byteLength: 36, uri: 'https://example.invalid/a.bin' }] }), new Uint8Array(36)),
      'a.glb',
      'buffers',
      /outside the file/,
    ],
    [
      'a GLB that claims more than it holds',
      glb(
        accessors({ accessors: [{ bufferView: 0, componentType: 5126, type: 'VEC3', count: 3e8 }] }),
        new Uint8Array(36),
      ),
      'a.glb',
      'meshes[0].primitives[0].POSITION',
      /claims 300000000 entries/,
    ],
    [
      'a GLB nested in itself',
      glb(accessors({ nodes: [{ mesh: 0, children: [0] }] }), new Uint8Array(36)),
      'a.glb',
      'nodes[0]',
      /without end/,
    ],
    [
      'a GLB of empty parts placed without end',
      glb(
        accessors({
          meshes: [{ primitives: Array.from({ length: 2000 }, () => ({ mode: 1 })) }],
          nodes: Array.from({ length: 20_000 }, () => ({ mesh: 0 })),
          scenes: [{ nodes: Array.from({ length: 20_000 }, (_, n) => n) }],
        }),
        new Uint8Array(36),
      ),
      'a.glb',
      'meshes[0].primitives[0]',
      /places more than 200000 parts/,
    ],
    [
      'a GLB whose description is nested without end',
      glb(JSON.parse(`${'['.repeat(200)}${']'.repeat(200)}`), new Uint8Array(36)),
      'a.glb',
      'the description',
      /nested more than 64 deep/,
    ],
    [
      'a GLB that needs more than is read',
      glb(accessors({ extensionsRequired: ['EXT_packed'] }), new Uint8Array(36)),
      'a.glb',
      'the description',
      /needs EXT_packed/,
    ],
    ['something else', text('hello'), 'a.png', 'the file', /none of STL/],
  ])('%s', (_, bytes, name, where, why) =>
    expect(readMesh(bytes, name)).toMatchObject({ ok: false, path: where, message: expect.stringMatching(why) }),
  );
});

test('GLB passes an independent validator', async () => {
  // eslint-disable-next-line @typescript-eslint/no-require-imports
  const validator = require('gltf-validator') as {
    validateBytes: (
      b: Uint8Array,
    ) => Promise<{ issues: { numErrors: number; numWarnings: number; messages: unknown[] } }>;
  };
  const report = await validator.validateBytes(
    writeMesh('glb', [named(ringMesh(0.1, 0.03), 'form'), named(boxMesh(0.1, 0.1, 0.1), 'core')]),
  );
  expect(report.issues.messages.filter((m) => (m as { severity: number }).severity < 2)).toEqual([]);
});

test('progress is told, and never past the end', () => {
  const shares: number[] = [];
  const mesh = readMesh(
    writeMesh('stl', [named(ballMesh(0.1, 150))]),
    'a.stl' satisfies `${string}.${MeshFormat}`,
    (s) => shares.push(s),
  );
  expect(mesh.ok && mesh.value.triangles.length / 3).toBeGreaterThan(80_000);
  expect(shares.length).toBeGreaterThan(1);
  expect(Math.max(...shares)).toBeLessThanOrEqual(1);
});
