import type { TriangleMesh } from './triangle-mesh';

/** Points in one place made one. Open addressing over the coordinates in steps of `tolerance`, or to the last bit. */
export function weld(mesh: TriangleMesh, tolerance = 0): TriangleMesh {
  const { positions, triangles } = mesh;
  const count = positions.length / 3;
  // Six corners meet in most points: a table for so many stays near the processor, and grows where there are more.
  let size = 16;
  while (size < count / 3) size *= 2;
  let table = new Int32Array(size).fill(-1);
  const kept = new Float32Array(positions.length);
  const to = new Uint32Array(count);
  const keys = new Int32Array(positions.length);
  const places = tolerance > 0 ? inSteps(positions, tolerance) : exactly(positions);
  let used = 0;
  for (let i = 0; i < count; i++) {
    if (used * 2 > size) {
      size *= 2;
      table = new Int32Array(size).fill(-1);
      for (let j = 0; j < used; j++) {
        let slot = slotOf(keys[j * 3]!, keys[j * 3 + 1]!, keys[j * 3 + 2]!, size);
        while (table[slot]! >= 0) slot = (slot + 1) & (size - 1);
        table[slot] = j;
      }
    }
    const a = places[i * 3]!,
      b = places[i * 3 + 1]!,
      c = places[i * 3 + 2]!;
    let slot = slotOf(a, b, c, size);
    for (;;) {
      const held = table[slot]!;
      if (held < 0) {
        table[slot] = used;
        keys[used * 3] = a;
        keys[used * 3 + 1] = b;
        keys[used * 3 + 2] = c;
        kept[used * 3] = positions[i * 3]!;
        kept[used * 3 + 1] = positions[i * 3 + 1]!;
        kept[used * 3 + 2] = positions[i * 3 + 2]!;
        to[i] = used++;
        break;
      }
      if (keys[held * 3] === a && keys[held * 3 + 1] === b && keys[held * 3 + 2] === c) {
        to[i] = held;
        break;
      }
      slot = (slot + 1) & (size - 1);
    }
  }
  const out = new Uint32Array(triangles.length);
  let n = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const a = to[triangles[t]!]!,
      b = to[triangles[t + 1]!]!,
      c = to[triangles[t + 2]!]!;
    // A triangle that has shrunk to a line has no face.
    if (a === b || b === c || c === a) continue;
    out[n] = a;
    out[n + 1] = b;
    out[n + 2] = c;
    n += 3;
  }
  return { positions: kept.slice(0, used * 3), triangles: out.slice(0, n) };
}

/** Coordinates in whole steps; beyond 32 bits they wrap, and no mesh is so many steps across. */
function inSteps(positions: Float32Array, step: number): Int32Array {
  const out = new Int32Array(positions.length);
  // Rounded by the floor, which is three times as quick here as Math.round.
  const inverse = 1 / step;
  for (let i = 0; i < out.length; i++) out[i] = Math.floor(positions[i]! * inverse + 0.5);
  return out;
}

/** Coordinates to the last bit; adding zero makes minus nought nought. */
function exactly(positions: Float32Array): Int32Array {
  return new Int32Array(positions.map((v) => v + 0).buffer);
}

function slotOf(a: number, b: number, c: number, size: number): number {
  // The high half is where a product mixes best: it is brought down before each next one.
  let mixed = Math.imul(a, 0x9e3779b1);
  mixed = Math.imul(mixed ^ (mixed >>> 15) ^ b, 0x85ebca6b);
  mixed = Math.imul(mixed ^ (mixed >>> 13) ^ c, 0xc2b2ae35);
  return (mixed ^ (mixed >>> 16)) & (size - 1);
}

/** Every edge with the corners that run along it, for closedness and for walking from face to face. */
export interface Edges {
  readonly count: number;
  /** Smaller and larger point of each edge. */
  readonly ends: Uint32Array;
  /** Faces met so far; what an edge of a closed surface has is two. */
  readonly faces: Uint8Array;
  /** Those that run from the smaller to the larger point. */
  readonly forward: Uint8Array;
  /** Edge of each corner (the side from it to the next). */
  readonly ofCorner: Uint32Array;
}

/** `mesh` must be welded. */
export function edgesOf(mesh: TriangleMesh): Edges {
  const { triangles } = mesh;
  const corners = triangles.length;
  const points = mesh.positions.length / 3;
  // Edges lie with their smaller point, one after another: a handful is looked through, and near points lie near.
  const from = new Uint32Array(points + 1);
  for (let c = 0; c < corners; c++) {
    const a = triangles[c]!,
      b = triangles[c % 3 === 2 ? c - 2 : c + 1]!;
    from[(a < b ? a : b) + 1]!++;
  }
  for (let i = 0; i < points; i++) from[i + 1]! += from[i]!;
  const until = from.slice(0, points);
  const highs = new Uint32Array(corners),
    ids = new Uint32Array(corners);
  const ends = new Uint32Array(corners * 2);
  const faces = new Uint8Array(corners),
    forward = new Uint8Array(corners);
  const ofCorner = new Uint32Array(corners);
  let count = 0;
  for (let c = 0; c < corners; c++) {
    const a = triangles[c]!,
      b = triangles[c % 3 === 2 ? c - 2 : c + 1]!;
    const low = a < b ? a : b,
      high = a < b ? b : a;
    let at = from[low]!;
    const last = until[low]!;
    while (at < last && highs[at] !== high) at++;
    if (at === last) {
      highs[at] = high;
      ids[at] = count;
      until[low] = last + 1;
      ends[count * 2] = low;
      ends[count * 2 + 1] = high;
      count++;
    }
    const edge = ids[at]!;
    if (faces[edge]! < 255) faces[edge]!++;
    if (a < b && forward[edge]! < 255) forward[edge]!++;
    ofCorner[c] = edge;
  }
  return {
    count,
    ends: ends.slice(0, count * 2),
    faces: faces.slice(0, count),
    forward: forward.slice(0, count),
    ofCorner,
  };
}

export function openEdges(edges: Edges): number {
  let open = 0;
  for (let e = 0; e < edges.count; e++) if (edges.faces[e] !== 2) open++;
  return open;
}

/**
 * Faces that look the wrong way: neighbours across an edge should run along it in opposite directions. In a closed piece
 * that hangs together the way that makes its volume positive is the right one; an open piece looks as most of its face
 * does in the file, unless all of those together would enclose less than nothing.
 */
export function flippedFaces(mesh: TriangleMesh, edges: Edges): Uint8Array {
  const { triangles, positions } = mesh;
  const faces = triangles.length / 3;
  const flipped = new Uint8Array(faces);
  // Two faces an edge is all that can be walked across; others are borders.
  const first = new Int32Array(edges.count).fill(-1),
    second = new Int32Array(edges.count).fill(-1);
  for (let c = 0; c < triangles.length; c++) {
    const e = edges.ofCorner[c]!;
    if (first[e]! < 0) first[e] = c;
    else if (second[e]! < 0) second[e] = c;
  }
  const seen = new Uint8Array(faces);
  const turned = new Uint8Array(faces);
  const stack = new Int32Array(faces);
  const piece = new Int32Array(faces);
  const middle = middleOf(positions);
  const ofOpen = new Uint8Array(faces);
  let openVolume = 0;
  const direction = (corner: number) =>
    triangles[corner]! < triangles[corner % 3 === 2 ? corner - 2 : corner + 1]! ? 1 : 0;
  for (let start = 0; start < faces; start++) {
    if (seen[start]) continue;
    let top = 0,
      inPiece = 0,
      volume = 0,
      closed = true;
    stack[top++] = start;
    seen[start] = 1;
    while (top > 0) {
      const f = stack[--top]!;
      piece[inPiece++] = f;
      volume += signedVolume(positions, triangles, f, middle) * (turned[f] ? -1 : 1);
      for (let k = 0; k < 3; k++) {
        const corner = f * 3 + k;
        const e = edges.ofCorner[corner]!;
        if (edges.faces[e] !== 2) {
          closed = false;
          continue;
        }
        const other = (first[e] === corner ? second[e] : first[e]) as number;
        const g = Math.floor(other / 3);
        if (seen[g]) continue;
        seen[g] = 1;
        turned[g] = turned[f]! ^ (direction(corner) === direction(other) ? 1 : 0);
        stack[top++] = g;
      }
    }
    const over = closed ? volume < 0 : mostlyTurned(positions, triangles, piece.subarray(0, inPiece), turned);
    if (!closed) openVolume += over ? -volume : volume;
    for (let i = 0; i < inPiece; i++) {
      const f = piece[i]!;
      flipped[f] = turned[f]! ^ (over ? 1 : 0);
      ofOpen[f] = closed ? 0 : 1;
    }
  }
  if (openVolume < 0) for (let f = 0; f < faces; f++) flipped[f]! ^= ofOpen[f]!;
  return flipped;
}

function middleOf(p: Float32Array): readonly [number, number, number] {
  const middle: [number, number, number] = [0, 0, 0];
  const n = p.length / 3;
  for (let i = 0; i < p.length; i++) middle[i % 3]! += p[i]! / n;
  return middle;
}

function mostlyTurned(p: Float32Array, t: Uint32Array, piece: Int32Array, turned: Uint8Array): boolean {
  let area = 0;
  for (const f of piece) area += areaOf(p, t, f) * (turned[f] ? 1 : -1);
  return area > 0;
}

function areaOf(p: Float32Array, t: Uint32Array, f: number): number {
  const a = t[f * 3]! * 3,
    b = t[f * 3 + 1]! * 3,
    c = t[f * 3 + 2]! * 3;
  const ux = p[b]! - p[a]!,
    uy = p[b + 1]! - p[a + 1]!,
    uz = p[b + 2]! - p[a + 2]!;
  const vx = p[c]! - p[a]!,
    vy = p[c + 1]! - p[a + 1]!,
    vz = p[c + 2]! - p[a + 2]!;
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
}

/** Six times smaller than the triple product: the tetrahedron from `about` to a face. */
function signedVolume(
  p: Float32Array,
  t: Uint32Array,
  f: number,
  [ox, oy, oz]: readonly [number, number, number],
): number {
  const a = t[f * 3]! * 3,
    b = t[f * 3 + 1]! * 3,
    c = t[f * 3 + 2]! * 3;
  const ax = p[a]! - ox,
    ay = p[a + 1]! - oy,
    az = p[a + 2]! - oz;
  const bx = p[b]! - ox,
    by = p[b + 1]! - oy,
    bz = p[b + 2]! - oz;
  const cx = p[c]! - ox,
    cy = p[c + 1]! - oy,
    cz = p[c + 2]! - oz;
  return (ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx)) / 6;
}
