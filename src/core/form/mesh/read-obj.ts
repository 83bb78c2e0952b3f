import { failure, success, type Result } from '../../quantity';
import { latin } from './read-stl';
import { checkPoints, mostTriangles, tooMany, type Progress, type TriangleMesh } from './triangle-mesh';

/** OBJ: points and faces; polygons are cut into fans, everything else is passed over. Other files it names are not opened. */
export function readObj(bytes: Uint8Array, progress?: Progress): Result<TriangleMesh> {
  const text = latin(bytes);
  const points: number[] = [];
  const triangles: number[] = [];
  let line = 0;
  for (let from = 0; from < text.length;) {
    let to = text.indexOf('\n', from);
    if (to < 0) to = text.length;
    line += 1;
    const kind = text.charCodeAt(from),
      next = text.charCodeAt(from + 1);
    const spaced = next === 32 || next === 9;
    if ((kind === 118 || kind === 102) && spaced) {
      const parts = text
        .slice(from + 2, to)
        .trim()
        .split(/\s+/);
      const wrong = kind === 118 ? readPoint(parts, points) : readFace(parts, points.length / 3, triangles);
      if (wrong !== null) return failure('torn', `line ${line}`, wrong);
      if (triangles.length / 3 > mostTriangles) return tooMany(triangles.length / 3);
      if (points.length / 3 > 3 * mostTriangles)
        return failure('too-large', `line ${line}`, 'it holds more points than are read');
    }
    from = to + 1;
    if ((line & 0xffff) === 0) progress?.(from / text.length);
  }
  if (triangles.length === 0) return failure('empty', 'the file', 'it holds no faces');
  const positions = Float32Array.from(points);
  return (
    checkPoints(positions, (p) => `point ${p + 1}`) ?? success({ positions, triangles: Uint32Array.from(triangles) })
  );
}

function readPoint(parts: readonly string[], points: number[]): string | null {
  if (parts.length < 3) return 'a point has three numbers';
  for (let k = 0; k < 3; k++) {
    const v = Number(parts[k]);
    if (parts[k] === '' || !Number.isFinite(v)) return `"${(parts[k] ?? '').slice(0, 20)}" is not a number`;
    points.push(v);
  }
  return null;
}

/** Corners are numbered from one, or backwards from the last with a minus; what follows a slash is passed over. */
function readFace(parts: readonly string[], count: number, triangles: number[]): string | null {
  if (parts.length < 3) return 'a face has three corners at least';
  if (parts.length > 1000) return 'a face with more than a thousand corners';
  const corners: number[] = [];
  for (const part of parts) {
    const slash = part.indexOf('/');
    const n = Number(slash < 0 ? part : part.slice(0, slash));
    const index = n < 0 ? count + n : n - 1;
    if (!Number.isInteger(n) || index < 0 || index >= count)
      return `it names point ${part.slice(0, 20)}, and there are ${count}`;
    corners.push(index);
  }
  for (let k = 2; k < corners.length; k++) triangles.push(corners[0]!, corners[k - 1]!, corners[k]!);
  return null;
}
