import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { STLLoader } from 'three/addons/loaders/STLLoader.js';
import {
  beamAxes,
  beamStiffness,
  factorFrame,
  freedoms,
  memberMass,
  type FrameMember,
  type FrameModel,
  type FrameNode,
} from '../src/core/armature';
import { applyEdit, newBust, type Build, type BuildEdit } from '../src/core/document';
import { clays } from '../src/core/catalogue';
import { ClayDryer, dryLayer, evaporationCurve, type ClayLattice, type WholeDrying } from '../src/core/drying';
import {
  depthInSolid,
  DistanceField,
  EarlierGrids,
  extractSurface,
  findLimbs,
  latticeFor,
  latticePlace,
  latticeSize,
  limbsInSolid,
  measureForm,
  readMesh,
  reportOnMesh,
  resolveForm,
  sampleSolid,
  sizeOfMesh,
  solidOfMesh,
  voxelise,
  waysUp,
  Winding,
  windingExactly,
  windingInside,
  writeMesh,
  type MeshSolid,
} from '../src/core/form';
import { lumpLoad } from '../src/core/load';
import { masterOfPiece, partingOf, readyToPart, type MasterFace, type PartingAsked } from '../src/core/parting';
import { drawDirections } from '../src/core/parting/directions';
import { HeightFields } from '../src/core/parting/height-fields';
import { FaceRays } from '../src/core/parting/rays';
import { chooseDirections } from '../src/core/parting/search';
import type { Vec3 } from '../src/core/quantity';
import { schedule, type Schedule } from '../src/core/plan';
import { generatedPlan } from '../tests/support/generated-plan';
import { lamplighter, otherDemoBuilds } from '../src/server/demo-builds';
import { checkLoad, surfaceOf, wholePlan, wholeRun } from '../src/core/piece';
import { asBriefed, Evaluator, type Question } from '../src/core/evaluate';
import { bringIn, startBuild } from '../src/core/school';
import { evaluateWithRemedies, strengthen } from '../src/core/improve';
import { clayAt, longLog } from '../tests/support/weighed-log';
import { allStarts, startIn, tally, tallyWords } from './starts';
import { editKinds, largeBuild } from '../tests/support/generated-build';
import { ballMesh, without } from '../tests/support/meshes';

/** Prints the ratios of one run on this machine: each stands beside what it is measured against. */
function percentile(times: readonly number[], share: number): number {
  const sorted = [...times].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}

function time(work: () => void): number {
  const began = performance.now();
  work();
  return performance.now() - began;
}

function line(what: string, figure: string, against = ''): void {
  process.stdout.write(`${what.padEnd(58)} ${figure.padStart(12)}  ${against}\n`);
}

function benchEdits(): void {
  const evaluator = new Evaluator();
  const start = largeBuild(1);
  const cells = evaluator.piece(asBriefed(start));
  if (!cells.ok) throw new Error(cells.message);
  const { piece } = { piece: cells.value };
  line(
    'large build',
    `${piece.form.masses.length} / ${piece.armature.members.length}`,
    `masses / members; cells of ${(piece.grid.step * 1000).toFixed(1)} mm, ${piece.grid.evaluated * 512} evaluated`,
  );
  // A bench that has been open for a minute has its code compiled: five of every kind before the clock starts.
  const log = longLog(evaluator, start);
  const now = clayAt(start) + 4 * 86400;
  const asked = (build: Build): Question => ({ build, log, now });
  for (let i = 21; i <= 25; i++) {
    for (const kind of editKinds) {
      const next = applyEdit(start, kind.edit(i));
      if (!next.ok) continue;
      if (i === 25) evaluateWithRemedies(evaluator, asked(next.value), { ranges: true });
      else evaluator.evaluate(asked(next.value));
    }
  }
  const all: number[] = [];
  const byKind = editKinds.map((kind) => {
    const times: number[] = [];
    for (let i = 1; i <= 20; i++) {
      const next = applyEdit(start, kind.edit(i));
      if (!next.ok) throw new Error(`${kind.name}: ${next.message}`);
      times.push(
        time(() => {
          const r = evaluator.evaluate(asked(next.value));
          if (!r.ok) throw new Error(r.message);
        }),
      );
    }
    all.push(...times);
    return `${kind.name} ${percentile(times, 0.5).toFixed(0)}`;
  });
  line(
    'edit to new nominal verdicts, log of 40, 95th percentile',
    `${percentile(all, 0.95).toFixed(0)} ms`,
    'wanted under 100',
  );
  line('  middle by kind, ms', '', byKind.join(', '));
  const ranges: number[] = [],
    full: number[] = [];
  for (const [k, kind] of editKinds.entries()) {
    const next = applyEdit(start, kind.edit(3 + k));
    if (!next.ok) continue;
    evaluator.evaluate(asked(next.value));
    ranges.push(time(() => evaluator.evaluate(asked(next.value), { ranges: true })));
    // As the bench does it: ranges first, then remedies beside them; together they are what a person waits for.
    const both = time(() => evaluateWithRemedies(evaluator, asked(next.value), { ranges: true }));
    full.push((ranges[ranges.length - 1] ?? 0) + both);
  }
  line('ranges after it, largest', `${Math.max(...ranges).toFixed(0)} ms`);
  line('ranges and remedies after it, 95th percentile', `${percentile(full, 0.95).toFixed(0)} ms`, 'wanted under 1000');
}

function benchVoxels(): void {
  const form = resolveForm(newBust('Bust', '2026-12-01'));
  if (!form.ok) throw new Error(form.message);
  const { masses } = form.value;
  const field = new DistanceField(masses);
  voxelise(field, { step: 0.008, depth: 0.015 });
  const fast = Math.min(...[1, 2, 3].map(() => time(() => voxelise(field, { step: 0.002, depth: 0 }))));
  const deep = Math.min(...[1, 2, 3].map(() => time(() => voxelise(field, { step: 0.002, depth: 0.015 }))));
  const slow = time(() => voxelise(field, { step: 0.002, depth: 0.015, everyCell: true }));
  line(
    'life-size bust at 2 mm, against every cell',
    `${(slow / fast).toFixed(1)} x`,
    `${fast.toFixed(0)} ms against ${slow.toFixed(0)}; wanted 10 x`,
  );
  line(
    'the same with distances kept 15 mm deep, for the core',
    `${(slow / deep).toFixed(1)} x`,
    `${deep.toFixed(0)} ms`,
  );
  const grid = voxelise(field, { step: 0.004, depth: 0.015 });
  line(
    'volumes and parcels at 4 mm',
    `${time(() =>
      measureForm(
        grid,
        Float64Array.from(masses, () => 0.01),
      ),
    ).toFixed(0)} ms`,
  );
  line('surface at 4 mm', `${time(() => extractSurface(grid)).toFixed(0)} ms`);
}

/** The head of today beside the first making, which has six masses: what its eighty-five cost. */
function benchHead(): void {
  const made = startBuild('Bust', '2026-12-01', 'bust', 1);
  if (!made.ok) throw new Error(made.message);
  const of = (first: Build, moved: string, longer: string, from: number) => {
    const evaluator = new Evaluator();
    const start = first.form.start;
    const kinds: readonly (readonly [string, (i: number) => BuildEdit['changes']])[] = [
      ['a mass moved', (i) => [{ path: ['form', 'edits'], value: { [moved]: { moved: [0, 0, 0.0005 * i] } } }]],
      [
        longer === 'nose' ? 'nose' : 'a measure',
        (i) => [{ path: ['form', 'start', 'measures'], value: { ...start.measures, [longer]: from + 0.0005 * i } }],
      ],
      [
        'head forward',
        (i) => [{ path: ['form', 'start', 'measures'], value: { ...start.measures, headForward: 0.03 + 0.0005 * i } }],
      ],
      ['coat', (i) => [{ path: ['regions', 'everywhere'], value: { coats: [0.008 + 0.0001 * i] } }]],
    ];
    return kinds.map(([name, changes]) => {
      const times: number[] = [];
      for (let i = 1; i <= 25; i++) {
        const next = applyEdit(first, { label: name, changes: changes(i) });
        if (!next.ok) throw new Error(`${name}: ${next.message}`);
        const took = time(() => {
          const r = evaluator.evaluate(asBriefed(next.value));
          if (!r.ok) throw new Error(r.message);
        });
        if (i > 5) times.push(took);
      }
      return `${name} ${percentile(times, 0.5).toFixed(0)}`;
    });
  };
  const first = newBust('Bust', '2026-12-01');
  // Each is gone through once for its code to be compiled.
  of(first, 'skull', 'headBreadth', 0.15);
  of(made.value, 'nose-tip', 'nose', 0.03);
  line('edits of the first bust, middle, ms', '', of(first, 'skull', 'headBreadth', 0.15).join(', '));
  line('edits of today’s', '', of(made.value, 'nose-tip', 'nose', 0.03).join(', '));
  const field = (build: Build) => {
    const piece = new Evaluator().piece(asBriefed(build));
    if (!piece.ok) throw new Error(piece.message);
    return piece.value;
  };
  const before = field(first),
    now = field(made.value);
  const least = (work: () => void) => Math.min(...Array.from({ length: 30 }, () => time(work)));
  const cells = (p: typeof now) => least(() => voxelise(p.field, { step: p.grid.step, depth: 0.015 }));
  const [a, b] = [cells(before), cells(now)];
  line(
    'voxels of today’s bust, against the first',
    `${(b / a).toFixed(1)} x`,
    `${b.toFixed(0)} ms against ${a.toFixed(0)}`,
  );
  const face = least(() => surfaceOf(now));
  line(
    '  its face as it is looked at',
    `${face.toFixed(0)} ms`,
    `${surfaceOf(now).triangles.length / 3} triangles; wanted under 1000`,
  );
  const longer = applyEdit(made.value, {
    label: 'nose',
    changes: [{ path: ['form', 'start', 'measures'], value: { ...made.value.form.start.measures, nose: 0.031 } }],
  });
  if (!longer.ok) throw new Error(longer.message);
  const next = field(longer.value);
  const again = (work: (p: typeof now, earlier: EarlierGrids) => void) => {
    const earlier = new EarlierGrids();
    let odd = false;
    return least(() => work((odd = !odd) ? next : now, earlier));
  };
  line(
    '  the nose alone changed',
    `${again((p, e) => voxelise(p.field, { step: p.grid.step, depth: 0.015 }, e)).toFixed(0)} ms`,
    `its face ${again((p, e) => surfaceOf(p, e)).toFixed(0)} ms`,
  );
}

function benchMesh(): void {
  const bytes = writeMesh('stl', [{ ...ballMesh(0.1, 354), name: 'ball' }]);
  const best = (act: () => void) => Math.min(...[1, 2, 3, 4].map(() => time(act)));
  const read = () => {
    const mesh = readMesh(bytes, 'ball.stl');
    if (!mesh.ok) throw new Error(mesh.message);
    return mesh.value;
  };
  const alone = best(() => new STLLoader().parse(bytes.buffer as ArrayBuffer));
  const size = best(() => sizeOfMesh(read()));
  const whole = best(() => reportOnMesh(read()));
  line(
    'STL of 500 000 triangles: volume, area and centroid, against the loader alone',
    `${(size / alone).toFixed(2)} x`,
    `${size.toFixed(0)} ms against ${alone.toFixed(0)}; wanted 2 x at most`,
  );
  line('the same with closedness', `${(whole / alone).toFixed(2)} x`, `${whole.toFixed(0)} ms; wanted 10 x at most`);
}

/** A scan of a hundred thousand triangles, a fiftieth of them missing: our own bust, as a scanner would see it. */
function benchScan(): void {
  const start = startBuild('bench', '2026-12-01', 'bust', 1);
  const form = start.ok ? resolveForm(start.value) : start;
  if (!form.ok) throw new Error(form.message);
  const field = new DistanceField(form.value.masses);
  const whole = extractSurface(voxelise(field, { step: 0.0034, depth: 0.01 }));
  let seed = 1;
  const mesh = without(whole, () => (seed = (seed * 16807) % 2147483647) % 50 === 0);
  const count = `${Math.round(mesh.triangles.length / 3000)} 000 triangles`;
  const lattice = latticeFor(mesh, 96);
  const winding = new Winding(mesh);
  const places = Array.from({ length: 60 }, (_, i) => latticePlace(lattice, (i * 7919) % latticeSize(lattice)));
  const quick = time(() => places.forEach((p) => winding.at(...p)));
  const exact = time(() => places.forEach((p) => windingExactly(mesh, ...p)));
  line(`winding number at a place, ${count}, against each summed`, `${(exact / quick).toFixed(0)} x`);
  const blocks = time(() => windingInside(mesh, lattice));
  const every = time(() => windingInside(mesh, lattice, { everyPlace: true }));
  line(
    'inside and outside at 96 places along, against every place asked',
    `${(every / blocks).toFixed(1)} x`,
    `${blocks.toFixed(0)} ms`,
  );
  let solid: ReturnType<typeof solidOfMesh> | undefined;
  const found = time(() => (solid = solidOfMesh(mesh, 96)));
  if (!solid?.ok) throw new Error('the scan has no inside');
  const { inside, lattice: own } = solid.value;
  line('the solid of it, holes closed and its hollow looked for', `${found.toFixed(0)} ms`);
  const ways = time(() => waysUp(mesh, (solid as { value: MeshSolid }).value));
  line('which way is up', `${ways.toFixed(0)} ms`);
  const limbs = time(() => limbsInSolid(inside, own, true));
  line('its limbs, forks and tips at 96 places along', `${limbs.toFixed(0)} ms`, 'wanted 2 s at most');
  let depth: Float32Array = new Float32Array();
  const deep = time(() => (depth = depthInSolid(inside, own)));
  const within = [...inside.keys()].filter((i) => inside[i]),
    outside = [...inside.keys()].filter((i) => !inside[i]).map((i) => latticePlace(own, i));
  const some = within.filter((_, i) => i % 2000 === 0);
  const asked = time(() =>
    some.forEach((i) => {
      const p = latticePlace(own, i);
      const least = outside.reduce((d, q) => Math.min(d, Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])), Infinity);
      if (Math.abs(least / own.step - depth[i]!) > 1e-3) throw new Error('depth differs from its twin');
    }),
  );
  line(
    '  of that, how deep each place lies, against all outside asked',
    `${((asked * within.length) / some.length / deep).toFixed(0)} x`,
    `${deep.toFixed(0)} ms`,
  );
  const shape = sampleSolid(solid.value);
  let joints: ReturnType<typeof findLimbs> = null;
  const named = time(() => (joints = findLimbs(shape)));
  line('joints to pose it by, with their names, from its samples', `${named.toFixed(0)} ms`);
  const begun = startBuild('bench', '2026-12-01', 'free', 1);
  if (!begun.ok) throw new Error(begun.message);
  const made = bringIn(begun.value, { shape, limbs: joints, name: 'scan', role: 'face', alone: true });
  const build = made && applyEdit(begun.value, made.edit);
  if (!build?.ok) throw new Error('the scan was not brought in');
  const sized = time(() => new Evaluator().judge(asBriefed(build.value)));
  const drawn = new Evaluator().piece(asBriefed(build.value));
  const sizes = drawn.ok ? (drawn.value.stockOf('aluminium-annealed')?.sizes ?? []) : [];
  const each = time(() =>
    sizes.forEach(({ id }) => {
      const changes = [{ path: ['armature', 'school', 'parameters', 'shoulderSize'], value: id }];
      const tried = applyEdit(build.value, { label: 'another size', changes });
      if (tried.ok) new Evaluator().judge(asBriefed(tried.value));
    }),
  );
  line(
    'an armature along its limbs, sized and judged afresh,',
    `${(each / sized).toFixed(1)} x`,
    `${sized.toFixed(0)} ms, against each of ${sizes.length} sizes of wire judged`,
  );
  const standing = resolveForm(build.value);
  const root = standing.ok ? standing.value.skeleton.joints.find((j) => j.name.startsWith('root')) : undefined;
  const posed = resolveForm({
    ...build.value,
    form: { ...build.value.form, pose: root ? { [root.id]: { turned: [30, 0, 0] } } : {} },
  });
  if (!posed.ok) throw new Error(posed.message);
  const bent = new DistanceField(posed.value.masses);
  bent.at(0, 0, 0, bent.all());
  const skipped = time(() => voxelise(bent, { step: 0.012, depth: 0.01 }));
  const full = time(() => voxelise(bent, { step: 0.012, depth: 0.01, everyCell: true }));
  line(
    'a bent limb on cells of 12 mm, against every cell',
    `${(full / skipped).toFixed(1)} x`,
    `${skipped.toFixed(0)} ms`,
  );
}

/** A tower of square storeys with braces: `count` nodes. */
function tower(count: number): FrameModel {
  const section = { E: 2e11, G: 8e10, A: 1e-3, Iy: 1e-6, Iz: 1e-6, J: 2e-6 };
  const nodes: FrameNode[] = [];
  const members: FrameMember[] = [];
  const join = (a: number, b: number) =>
    members.push({ id: `m${members.length}`, from: `n${a}`, to: `n${b}`, ...section });
  for (let i = 0; i < count; i++) {
    const storey = Math.floor(i / 4),
      corner = i % 4;
    nodes.push({
      id: `n${i}`,
      at: [corner === 1 || corner === 2 ? 1 : 0, corner > 1 ? 1 : 0, storey * 0.7],
      ...(storey === 0 ? { fixed: [...freedoms] } : {}),
    });
    if (storey > 0) {
      join(i - 4, i);
      if (corner > 0) join(i - 1, i);
      if (corner === 3) join(i - 3, i);
      if (corner === 0) join(i - 3, i);
    }
  }
  return { nodes, members };
}

function denseMatrix(model: FrameModel): Matrix {
  const index = new Map(model.nodes.map((n, i) => [n.id, i]));
  const n = model.nodes.length * 6;
  const K = Matrix.zeros(n, n);
  const k = new Float64Array(144);
  for (const m of model.members) {
    const ends = [m.from, m.to].map((id) => index.get(id)!) as [number, number];
    const [a, b] = ends.map((e) => model.nodes[e]!.at!) as [Vec3, Vec3];
    const axes = beamAxes(a, b);
    beamStiffness(m, Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]), k);
    const T = Matrix.zeros(12, 12);
    for (let block = 0; block < 4; block++)
      for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) T.set(block * 3 + i, block * 3 + j, axes[i]![j]!);
    const global = T.transpose()
      .mmul(new Matrix(Array.from({ length: 12 }, (_, i) => [...k.subarray(i * 12, i * 12 + 12)])))
      .mmul(T);
    const dofs = ends.flatMap((e) => Array.from({ length: 6 }, (_, d) => e * 6 + d));
    dofs.forEach((p, i) => dofs.forEach((q, j) => K.set(p, q, K.get(p, q) + global.get(i, j))));
  }
  model.nodes.forEach((node, i) =>
    node.fixed?.forEach((f) => {
      const d = i * 6 + freedoms.indexOf(f);
      K.set(d, d, K.get(d, d) + 1e18);
    }),
  );
  return K;
}

function benchFrame(): void {
  const model = tower(600);
  const ours = () => {
    const f = factorFrame(model);
    if (!f.ok) throw new Error(f.message);
    f.value.solve([{ node: 'n599', force: [100, 20, -50] }]);
  };
  ours();
  const mine = Math.min(...[1, 2, 3, 4, 5].map(() => time(ours)));
  const K = denseMatrix(model);
  // Rounding leaves the last digit of the two halves apart; the library wants them equal.
  const symmetric = Matrix.add(K, K.transpose()).mul(0.5);
  const right = Matrix.zeros(K.rows, 1);
  right.set(599 * 6, 0, 100);
  const dense = time(() => new CholeskyDecomposition(symmetric).solve(right));
  line(
    '600-node frame, against a dense Cholesky',
    `${(dense / mine).toFixed(0)} x`,
    `${mine.toFixed(1)} ms against ${dense.toFixed(0)}; wanted 100 x`,
  );
}

/** The Walrus's whole load check on cells fine enough for a million inside it; and the search that mends the net. */
function benchLoad(): void {
  const builds = otherDemoBuilds('2026-12-01', '2026-12-24');
  const named = (name: string) => builds.find((b) => b.name.includes(name))!;
  const evaluator = new Evaluator();
  const made = evaluator.piece(asBriefed(named('Walrus')));
  if (!made.ok) throw new Error(made.message);
  const piece = made.value;
  const step = Math.cbrt(piece.volumes.outerVolume / 1.02e6);
  const depth = Math.max(...piece.coreDepths.filter(Number.isFinite));
  let volumes = piece.volumes;
  const sampled = time(() => {
    volumes = measureForm(voxelise(piece.field, { step, depth }), piece.coreDepths);
  });
  const cells = Math.round(volumes.outerVolume / step ** 3);
  const check = () => {
    const load = lumpLoad(
      volumes.parcels,
      piece.regionOfMass,
      piece.regions.length,
      piece.form.masses.map((m) => m.id),
      piece.armature.nodes,
      piece.armature.bones,
      piece.armature.members,
      (m) => memberMass(m, piece.stockOf(m.stock)!),
      volumes.perMass.map((m) => m.area),
    );
    const report = checkLoad({ ...piece, volumes, load });
    if (!report.ok) throw new Error(report.message);
  };
  for (let i = 0; i < 4; i++) check();
  const times = Array.from({ length: 9 }, () => time(check));
  line(
    `load check of the Walrus, ${piece.armature.bones.length} bones, ${(cells / 1e6).toFixed(2)} million cells`,
    `${percentile(times, 0.5).toFixed(0)} ms`,
    `every moment, hung, solved and stood; wanted under 300; sampling the cells took ${sampled.toFixed(0)} ms before it`,
  );
  const net = named('net');
  let tried = 0;
  const search = time(() => {
    const steps = strengthen(new Evaluator(), asBriefed(net));
    for (let s = steps.next(); !s.done; s = steps.next()) tried = s.value;
  });
  line('Strengthen on The net that failed', `${(search / 1000).toFixed(2)} s`, `${tried} sets tried; wanted under 3`);
}

function benchDrying(): void {
  const air = { temperature: 20, relativeHumidity: 0.5, speed: 0.1 };
  const curve = evaporationCurve(air);
  const job = (id: string, mm: number) => ({
    clay: clays.get(id)!.drying!,
    geometry: 'slab' as const,
    thickness: mm / 1000,
    innerFace: 0,
    phases: [{ until: Infinity, curve, relativeHumidity: 0.5 }],
  });
  for (const [id, mm] of [
    ['paper-clay', 10],
    ['earthen-air-dry', 10],
  ] as const) {
    dryLayer(job(id, mm));
    line(
      `one coat of ${id}, ${mm} mm, wet to dry`,
      `${Math.min(...[1, 2, 3].map(() => time(() => dryLayer(job(id, mm))))).toFixed(1)} ms`,
    );
  }
}

/** Cells a second of the drying kernel, faces and looks included, against plain copies of typed arrays in the same run: both counted at sixteen bytes. */
function benchKernel(): void {
  const perRadius = 52;
  const r = 0.15,
    step = r / perRadius,
    n = 2 * perRadius + 8;
  const outer = new Float32Array(n ** 3);
  for (let z = 0, i = 0; z < n; z++)
    for (let y = 0; y < n; y++)
      for (let x = 0; x < n; x++, i++)
        outer[i] = Math.hypot(x - n / 2 + 0.3, y - n / 2 + 0.4, z - n / 2 + 0.2) * step - r;
  const curve = evaporationCurve({ temperature: 20, relativeHumidity: 0.5, speed: 0.1 });
  const lattice = (): ClayLattice => ({
    size: [n, n, n],
    origin: [0, 0, 0],
    step,
    outer,
    inner: new Float32Array(n ** 3).fill(1),
    region: new Uint8Array(n ** 3),
    piece: null,
    cut: false,
  });
  const face = { curve, share: 1 };
  const dryer = new ClayDryer({
    clay: clays.get('paper-clay')!.drying!,
    stages: [{ start: 0, lattice }],
    spans: [{ until: Infinity, outer: [face], inner: [{ curve: null, share: 0 }], resting: null, key: 'still' }],
  });
  dryer.advance(7200);
  const before = dryer.steps;
  const ms = time(() => dryer.advance(7200 + 12 * 3600));
  const rate = ((dryer.steps - before) * dryer.cells.count) / ms / 1000;
  const copied = (count: number) => {
    const a = new Float64Array(count),
      b = new Float64Array(count).fill(1.5);
    const rounds = Math.max(3, Math.round(6e7 / count));
    a.set(b);
    return Math.max(
      ...[1, 2, 3, 4].map(
        () =>
          (rounds * count) /
          time(() => {
            for (let k = 0; k < rounds; k++) a.set(b);
          }) /
          1000,
      ),
    );
  };
  const memory = copied(8_000_000),
    cache = copied(dryer.cells.count);
  line(
    `drying kernel, ${(dryer.cells.count / 1000).toFixed(0)} thousand cells`,
    `${rate.toFixed(0)} M/s`,
    `${((rate * 16) / 1000).toFixed(1)} GB/s at 16 bytes an update`,
  );
  line(
    '  of what a plain copy moves, through memory',
    `${(rate / memory).toFixed(2)}`,
    `${((memory * 16) / 1000).toFixed(1)} GB/s; wanted 0.10`,
  );
  line(
    '  of one that stays in the cache, as many numbers',
    `${(rate / cache).toFixed(2)}`,
    `${((cache * 16) / 1000).toFixed(1)} GB/s`,
  );
}

/** The life-size bust of the demo, stuffed, at 3 mm over fourteen days. */
function benchWholePiece(): void {
  const piece = new Evaluator().piece(asBriefed(lamplighter('2026-12-01', null)));
  if (!piece.ok) throw new Error(piece.message);
  const plan = wholePlan(piece.value, { step: 0.003, until: 14 * 86400 });
  if (!plan.ok) throw new Error(plan.message);
  let whole: WholeDrying | null = null;
  const ms = time(() => {
    const run = wholeRun(plan.value);
    while (!run.work(256));
    whole = run.result();
  });
  const done = whole as WholeDrying | null;
  line(
    'life-size bust at 3 mm over 14 days, watched',
    `${(ms / 1000).toFixed(1)} s`,
    `${done?.cells ?? 0} cells, ${done?.steps ?? 0} steps, balance ${(done?.balance ?? 1).toExponential(0)}; wanted under 30`,
  );
  line('  memory of the process then', `${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`, 'wanted under 500');
}

/** An armature sized again after an edit, and how many untouched starts stand: every ninth, or all with `--starts`. */
function benchSizing(every: number): void {
  for (const [name, base] of [
    ['build of 200 members', largeBuild(1)],
    ['wire figure', startIn('figure', 'wire-figure', 'paper-clay')],
  ] as const) {
    const evaluator = new Evaluator();
    let build = { ...base, armature: { ...base.armature, sizing: 'to-carry' as const } };
    evaluator.evaluate(asBriefed(build));
    const ms: number[] = [];
    for (let i = 0; i < 12; i++) {
      const { regions } = build;
      build = { ...build, regions: { ...regions, everywhere: { coats: [0.006 + i * 0.0003] } } };
      ms.push(time(() => evaluator.sizesOf(asBriefed(build))));
    }
    line(
      `${name} sized again after an edit, 95th percentile`,
      `${percentile(ms, 0.95).toFixed(0)} ms`,
      `median ${percentile(ms, 0.5).toFixed(0)}; wanted under 600`,
    );
  }
  line(every > 1 ? `untouched starts, each ${every}th` : 'untouched starts', tallyWords(tally(allStarts(every))));
}

/** Three builds of a hundred steps. */
function benchPlan(): void {
  const problem = generatedPlan(5, 3, 100);
  let made: Schedule | null = null;
  const ms = [1, 2, 3].map(() =>
    time(() => {
      made = schedule(problem);
    }),
  );
  const done = made as Schedule | null;
  line(
    'plan of 300 steps, three builds, two people',
    `${Math.min(...ms).toFixed(0)} ms`,
    `first time ${(ms[0] ?? 0).toFixed(0)} ms; ${done?.kept ? 'everything kept' : 'something broken'}, ${((done?.placed.reduce((m, p) => Math.max(m, p.until), 0) ?? 0) / 86400).toFixed(0)} days; wanted under 1000`,
  );
}

/** A life-size bust: one direction by picture and by rays in turn, then the search for its best two parts. */
function benchMould(): void {
  const begun = startBuild('bust', '2026-12-01', 'bust', 1);
  if (!begun.ok) throw new Error(begun.message);
  const made = new Evaluator().piece(asBriefed(begun.value));
  if (!made.ok) throw new Error(made.message);
  const master = masterOfPiece(made.value);
  if (!master.ok) throw new Error(master.message);
  const { face, board } = master.value;
  const fields = new HeightFields(face),
    rays = new FaceRays(face);
  const along = new Uint8Array(face.count),
    back = new Uint8Array(face.count);
  const byPicture: number[] = [],
    byRays: number[] = [];
  for (const d of drawDirections().filter((_, i) => i % 40 === 0)) {
    byPicture.push(time(() => fields.look(d).drawable(along, back)));
    // What rays are timed at is one first hit a triangle, whichever way it looks.
    byRays.push(time(() => everyRay(face, rays, d)));
  }
  const picture = percentile(byPicture, 0.5),
    ray = percentile(byRays, 0.5);
  line(
    `mould: ${face.count} triangles looked at along a direction and back`,
    `${(ray / picture).toFixed(0)} x a ray each along one`,
    `${picture.toFixed(1)} ms against ${ray.toFixed(0)}; wanted 10 x`,
  );
  const run = (asked: PartingAsked): number =>
    time(() => {
      const work = asked.pieces === 2 ? chooseDirections(face, 2) : partingOf(face, board, asked);
      while (!work.next().done);
    });
  const two = run({ pieces: 2 });
  line(
    'mould: search for the best two parts',
    `${(two / (162 * ray)).toFixed(2)} of rays along 162 directions`,
    `${(two / 1000).toFixed(1)} s; wanted 0.25`,
  );
  line('mould: parting of a life-size bust, all of it', `${(run({}) / 1000).toFixed(1)} s`, 'wanted under 5');
}

function everyRay({ centres, normals, count, medianEdge }: MasterFace, rays: FaceRays, d: Vec3): number {
  let met = 0;
  const off = 0.05 * medianEdge;
  for (let t = 0; t < count; t++) {
    const at = [0, 1, 2].map((k) => centres[3 * t + k]! + off * normals[3 * t + k]!) as unknown as Vec3;
    if (rays.meets(at, d) < Infinity) met++;
  }
  return met;
}

process.stdout.write(`${process.version}, ${process.arch}\n`);
const only = process.argv
  .slice(2)
  .find((a) => a.startsWith('--'))
  ?.slice(2);
const parts: Record<string, () => void> = {
  edits: benchEdits,
  voxels: benchVoxels,
  head: benchHead,
  mesh: benchMesh,
  scan: benchScan,
  frame: benchFrame,
  load: benchLoad,
  mould: benchMould,
  plan: benchPlan,
  sizing: () => benchSizing(9),
  drying: () => {
    benchDrying();
    benchKernel();
    benchWholePiece();
  },
};
await readyToPart();
for (const [name, part] of Object.entries(parts)) if (only === undefined || only === name) part();
if (only === 'starts') benchSizing(1);
