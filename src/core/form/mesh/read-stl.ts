import { failure, success, type Result } from '../../quantity';
import { checkPoints, mostTriangles, tooMany, type Progress, type TriangleMesh } from './triangle-mesh';

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
  const wrong = checkPoints(positions, (p) => `triangle ${Math.floor(p / 3) + 1}`);
  if (wrong) return wrong;
  return success({ positions, triangles: inOrder(claimed) });
}

/** Nine numbers a triangle out of its 50 bytes; written out, as a loop of nine takes half as long again. */
function placesOf(view: DataView, count: number, progress?: Progress): Float32Array {
  const p = new Float32Array(count * 9);
  for (let t = 0, put = 0, at = 96; t < count; t++, put += 9, at += 50) {
    p[put] = view.getFloat32(at, true);
    p[put + 1] = view.getFloat32(at + 4, true);
    p[put + 2] = view.getFloat32(at + 8, true);
    p[put + 3] = view.getFloat32(at + 12, true);
    p[put + 4] = view.getFloat32(at + 16, true);
    p[put + 5] = view.getFloat32(at + 20, true);
    p[put + 6] = view.getFloat32(at + 24, true);
    p[put + 7] = view.getFloat32(at + 28, true);
    p[put + 8] = view.getFloat32(at + 32, true);
    if ((t & 0xffff) === 0) progress?.(t / count);
  }
  return p;
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
