import {
  guessUnit,
  placeMesh,
  readMesh,
  repairMesh,
  reportOnMesh,
  sampleMesh,
  sizeOfMesh,
  type TriangleMesh,
} from '../core/form';
import { Evaluator } from '../core/evaluate';
import { exportMesh } from '../core/sheet';
import type { MeshAnswer, MeshRequest } from './protocol';
import { serve, type Work } from './serve';

/** A shell over core for meshes: reading and mending, sampling, writing. Stopped by ending the worker. */
let mended: TriangleMesh | null = null;

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
  progress(send, 'Looking for holes')(0.5);
  const report = reportOnMesh(mesh.value);
  const repaired = repairMesh(mesh.value);
  if (!repaired.ok) {
    send({ kind: 'refused', why: repaired });
    return;
  }
  mended = repaired.value.mesh;
  const [low, high] = sizeOfMesh(mended).box;
  const sides = [high[0] - low[0], high[1] - low[1], high[2] - low[2]] as const;
  send({
    kind: 'read',
    report,
    sides,
    holesClosed: repaired.value.holesClosed,
    facesTurned: repaired.value.facesTurned,
    unit: mesh.value.format === 'glb' ? 'm' : guessUnit(Math.max(...sides)),
    up: mesh.value.format === 'obj' ? 'y' : 'z',
  });
}

function work(request: MeshRequest, { send }: Work<MeshAnswer>): void {
  if (request.kind === 'read') read(send, request.bytes, request.name);
  else if (request.kind === 'sample') {
    if (!mended) throw new Error('no mesh has been read');
    const placed = placeMesh(mended, request.placing);
    if (!placed.ok) {
      send({ kind: 'refused', why: placed });
      return;
    }
    const { volume, box } = sizeOfMesh(placed.value);
    const shape = sampleMesh(placed.value, undefined, progress(send, 'Sampling'));
    send({ kind: 'sampled', shape, volume, height: box[1][2] });
  } else {
    const written = exportMesh(request.build, request.parts, request.format, new Evaluator());
    if (!written.ok) send({ kind: 'refused', why: written });
    else send({ kind: 'written', bytes: written.value }, [written.value.buffer as ArrayBuffer]);
  }
}

serve('the mesh', work);
