import {
  findLimbs,
  guessUnit,
  mendMesh,
  mostBroughtIn,
  placeMesh,
  readMesh,
  rotate,
  sampleSolid,
  samplesAlong,
  shadedPicture,
  sizeOfMesh,
  solidOfMesh,
  waysUp,
  withoutCrumbs,
  type MeshFormat,
  type MeshSolid,
  type Rotation,
  type TriangleMesh,
} from '../core/form';
import { failure, type Vec3 } from '../core/quantity';
import { Evaluator } from '../core/evaluate';
import { exportMesh } from '../core/sheet';
import type { MeshAnswer, MeshRequest, MeshWay } from './protocol';
import { serve, type Work } from './serve';

/** A shell over core for meshes: reading and mending, sampling, writing. Stopped by ending the worker. */
interface Held {
  readonly mesh: TriangleMesh;
  readonly format: MeshFormat;
  /** Coarse: enough to tell how it stands and what it holds. */
  solid: MeshSolid;
  /** The mesh without what floats about it. */
  whole: TriangleMesh;
}
let held: Held | null = null;

/** Places along the longest side to look at it by. */
const lookedAt = 64;
const pictureSize = 176;
/** From the left and a little above. */
const from: Vec3 = [-0.75, -1.5, 0.42];

type Send = Work<MeshAnswer>['send'];

let told = 0;
function progress(send: Send, what: string): (share: number) => void {
  return (share) => {
    const now = performance.now();
    if (now - told < 60 && share < 1) return;
    told = now;
    send({ kind: 'progress', what, share });
  };
}

function read(send: Send, bytes: Uint8Array, name: string): void {
  const mesh = readMesh(bytes, name, progress(send, 'Reading'));
  if (!mesh.ok) {
    send({ kind: 'refused', why: mesh });
    return;
  }
  const count = mesh.value.triangles.length / 3;
  if (count > mostBroughtIn) {
    const why = `it has ${count} triangles; up to ${mostBroughtIn} are brought in. Thin it out where it was made`;
    send({ kind: 'refused', why: failure('too-large', 'the mesh', why) });
    return;
  }
  const mended = mendMesh(mesh.value);
  if (!mended.ok) send({ kind: 'refused', why: mended });
  else look(send, mended.value.mesh, mesh.value.format, true);
}

/** What it encloses and how it may stand. */
function look(send: Send, mesh: TriangleMesh, format: MeshFormat, fillHollow: boolean): void {
  const solid = solidOfMesh(mesh, lookedAt, { fillHollow, progress: progress(send, 'Telling inside from outside') });
  if (!solid.ok) {
    send({ kind: 'refused', why: solid });
    return;
  }
  const { mesh: whole, crumbs } = withoutCrumbs(mesh, solid.value);
  held = { mesh, format, solid: solid.value, whole };
  const { lattice: _l, inside: _i, surface: _s, ...summary } = solid.value;
  const [low, high] = sizeOfMesh(whole).box;
  send({
    kind: 'read',
    triangles: mesh.triangles.length / 3,
    // Those too small for any place to lie in them are told too.
    solid: { ...summary, crumbs: Math.max(crumbs, summary.crumbs) },
    unit: format === 'glb' ? 'm' : guessUnit(Math.max(...low.map((l, k) => high[k as 0] - l))),
    ways: waysUp(whole, solid.value).map((w) => wayOf(held!, w.turn)),
  });
}

function wayOf({ solid, whole }: Held, turn: Rotation): MeshWay {
  const positions = turned(solid.surface.positions, turn);
  const [low, high] = sizeOfMesh({ positions: turned(whole.positions, turn), triangles: whole.triangles }).box;
  const clay: Vec3 = [232, 216, 190];
  const picture = shadedPicture([{ positions, triangles: solid.surface.triangles, colour: clay, edges: 'round' }], {
    from,
    width: pictureSize,
    height: pictureSize,
  });
  return {
    turn,
    sides: [high[0] - low[0], high[1] - low[1], high[2] - low[2]],
    picture: { ...picture, rgba: new Uint8ClampedArray(picture.rgba) },
  };
}

function turned(positions: Float32Array, turn: Rotation): Float32Array {
  const out = new Float32Array(positions.length);
  for (let i = 0; i < out.length; i += 3)
    out.set(rotate(turn, [positions[i]!, positions[i + 1]!, positions[i + 2]!]), i);
  return out;
}

function sample(
  send: Send,
  { whole }: Held,
  { placing, fillHollow, limbs }: Extract<MeshRequest, { kind: 'sample' }>,
): void {
  const placed = placeMesh(whole, placing);
  if (!placed.ok) {
    send({ kind: 'refused', why: placed });
    return;
  }
  const solid = solidOfMesh(placed.value, samplesAlong(placed.value), {
    fillHollow,
    progress: progress(send, 'Telling inside from outside'),
  });
  if (!solid.ok) {
    send({ kind: 'refused', why: solid });
    return;
  }
  const shape = sampleSolid(solid.value, progress(send, 'Sampling'));
  if (limbs) send({ kind: 'progress', what: 'Finding its limbs', share: 0.3 });
  send({ kind: 'sampled', shape, limbs: limbs ? findLimbs(shape) : null });
}

function work(request: MeshRequest, { send }: Work<MeshAnswer>): void {
  if (request.kind === 'write') {
    const written = exportMesh(request.build, request.parts, request.format, new Evaluator());
    if (!written.ok) send({ kind: 'refused', why: written });
    else send({ kind: 'written', bytes: written.value }, [written.value.buffer as ArrayBuffer]);
    return;
  }
  if (request.kind === 'read') {
    read(send, request.bytes, request.name);
    return;
  }
  if (request.kind === 'limbs') {
    send({ kind: 'limbs', limbs: findLimbs(request.shape) });
    return;
  }
  if (!held) throw new Error('no mesh has been read');
  if (request.kind === 'hollow') look(send, held.mesh, held.format, request.fillHollow);
  else if (request.kind === 'turned') send({ kind: 'turned', way: wayOf(held, request.turn) });
  else sample(send, held, request);
}

serve('the mesh', work);
