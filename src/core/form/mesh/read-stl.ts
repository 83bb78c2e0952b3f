import { failure, success, type Result } from '../../quantity';
import {
  checkPoints,
  farthest,
  mostTriangles,
  notAPlace,
  tooMany,
  type Progress,
  type TriangleMesh,
} from './triangle-mesh';

/** STL, both kinds: binary (80 bytes, a count, 50 bytes a triangle) and text. Normals in the file are not used. */
export function readStl(bytes: Uint8Array, progress?: Progress): Result<TriangleMesh> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const claimed = bytes.length >= 84 ? view.getUint32(80, true) : 0;
  const startsAsText = /^\s*solid\b/.test(latin(bytes.subarray(0, 80)));
  if (startsAsText && bytes.length !== 84 + claimed * 50) {
    // Text says "facet" soon after its first line; a binary file may begin with "solid" and does not.
    if (/\bfacet\b|\bendsolid\b/.test(latin(bytes.subarray(0, 4096)))) return readTextStl(bytes, progress);
  }
  if (bytes.length < 84) return failure('torn', 'the file', 'it is too short for an STL file');
  const held = Math.floor((bytes.length - 84) / 50);
  if (claimed > held) return failure('torn', 'the triangle count', `it claims ${claimed} triangles and holds ${held}`);
  if (claimed === 0) return failure('empty', 'the triangle count', 'it holds no triangles');
  if (claimed > mostTriangles) return tooMany(claimed);
  const positions = placesOf(view, claimed, progress);
  for (let i = 0; i < positions.length; i++) {
    const v = positions[i]!;
    if (!(v > -farthest && v < farthest)) return failure('not-a-place', `triangle ${Math.floor(i / 9) + 1}`, notAPlace);
  }
  return success({ positions, triangles: inOrder(claimed) });
}

const littleEndian = new Uint8Array(Uint16Array.of(1).buffer)[0] === 1;

/**
 * Nine numbers a triangle out of its 50 bytes. Every other triangle begins at a multiple of four: those are read off the
 * file as it is, the rest off a copy moved by two bytes, where the machine orders numbers as the file does.
 */
function placesOf(view: DataView, count: number, progress?: Progress): Float32Array {
  const positions = new Float32Array(count * 9);
  if (!littleEndian) {
    for (let t = 0, put = 0; t < count; t++)
      for (let k = 96 + t * 50; k < 132 + t * 50; k += 4) positions[put++] = view.getFloat32(k, true);
    return positions;
  }
  const bytes = new Uint8Array(view.buffer, view.byteOffset, view.byteLength);
  const floats = (from: Uint8Array) => new Float32Array(from.buffer, from.byteOffset, Math.floor(from.byteLength / 4));
  const even = floats(view.byteOffset % 4 === 0 ? bytes : bytes.slice()),
    odd = floats(bytes.slice(2));
  // In numbers from the start: 24 + 12.5 t, and on the moved copy half a one less.
  for (let t = 0, put = 0; t < count; t++) {
    const from = (t & 1) === 0 ? even : odd;
    const first = ((t & 1) === 0 ? 24 : 36) + (t >> 1) * 25;
    for (let k = first; k < first + 9; k++) positions[put++] = from[k]!;
    if ((t & 0xffff) === 0) progress?.(t / count);
  }
  return positions;
}

function readTextStl(bytes: Uint8Array, progress?: Progress): Result<TriangleMesh> {
  const text = latin(bytes);
  const numbers: number[] = [];
  let line = 0,
    inFacet = -1;
  for (let from = 0; from < text.length;) {
    let to = text.indexOf('\n', from);
    if (to < 0) to = text.length;
    line += 1;
    const row = text.slice(from, to).trim();
    from = to + 1;
    if ((line & 0xffff) === 0) progress?.(from / text.length);
    if (row.startsWith('vertex')) {
      if (inFacet < 0) return failure('torn', `line ${line}`, 'a vertex outside a facet');
      const parts = row.slice(6).trim().split(/\s+/);
      if (parts.length !== 3) return failure('torn', `line ${line}`, 'a vertex has three numbers');
      for (const part of parts) {
        const v = Number(part);
        if (part === '' || !Number.isFinite(v))
          return failure('not-a-place', `line ${line}`, `"${part.slice(0, 20)}" is not a number`);
        numbers.push(v);
      }
      inFacet += 1;
    } else if (row.startsWith('facet')) {
      inFacet = 0;
      if (numbers.length / 9 > mostTriangles) return tooMany(numbers.length / 9);
    } else if (row.startsWith('endfacet')) {
      if (inFacet !== 3)
        return failure('torn', `line ${line}`, `a facet has three vertices; this one has ${Math.max(0, inFacet)}`);
      inFacet = -1;
    }
  }
  if (inFacet >= 0) return failure('torn', `line ${line}`, 'the file ends inside a facet');
  if (numbers.length === 0) return failure('empty', 'the file', 'it holds no triangles');
  const positions = Float32Array.from(numbers);
  return (
    checkPoints(positions, (p) => `triangle ${Math.floor(p / 3) + 1}`) ??
    success({ positions, triangles: inOrder(numbers.length / 9) })
  );
}

export function inOrder(triangles: number): Uint32Array {
  const out = new Uint32Array(triangles * 3);
  for (let i = 0; i < out.length; i++) out[i] = i;
  return out;
}

/** One byte a character: these formats' words are plain ASCII. */
export function latin(bytes: Uint8Array): string {
  return new TextDecoder('latin1').decode(bytes);
}
