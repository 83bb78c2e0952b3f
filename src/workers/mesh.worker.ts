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
import { failure, type Failure } from '../core/quantity';
import { Evaluator, exportMesh } from '../core/verdict';
import type { MeshAnswer, MeshRequest } from './mesh-protocol';

/** A shell over core for meshes: reading and mending, sampling, writing. Stopped by ending the worker. */
let mended: TriangleMesh | null = null;

const send = (answer: MeshAnswer, transfer: Transferable[] = []): void => self.postMessage(answer, { transfer });
const refused = (why: Failure): void => send({ kind: 'refused', why });

let told = 0;
function progress(what: string): (share: number) => void {
  return (share) => {
    const now = performance.now();
    if (now - told < 60 && share < 1) return;
    told = now;
    send({ kind: 'progress', what, share });
  };
}

function read(bytes: Uint8Array, name: string): void {
  const mesh = readMesh(bytes, name, progress('Reading'));
  if (!mesh.ok) {
    refused(mesh);
    return;
  }
  progress('Looking for holes')(0.5);
  const report = reportOnMesh(mesh.value);
  const repaired = repairMesh(mesh.value);
  if (!repaired.ok) {
    refused(repaired);
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

self.onmessage = (event: MessageEvent<MeshRequest>) => {
  const request = event.data;
  try {
    if (request.kind === 'read') read(request.bytes, request.name);
    else if (request.kind === 'sample') {
      if (!mended) throw new Error('no mesh has been read');
      const placed = placeMesh(mended, request.placing);
      if (!placed.ok) refused(placed);
      else {
        const { volume, box } = sizeOfMesh(placed.value);
        send({
          kind: 'sampled',
          shape: sampleMesh(placed.value, undefined, progress('Sampling')),
          volume,
          height: box[1][2],
        });
      }
    } else {
      const written = exportMesh(request.build, request.parts, request.format, new Evaluator());
      if (!written.ok) refused(written);
      else send({ kind: 'written', bytes: written.value }, [written.value.buffer as ArrayBuffer]);
    }
  } catch (error) {
    refused(failure('failed', 'the mesh', `it could not be worked on (${(error as Error).message})`));
  }
};
