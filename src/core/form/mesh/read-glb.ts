import { failure, readJson, success, type Result } from '../../quantity';
import { checkPoints, mostTriangles, tooMany, type TriangleMesh } from './triangle-mesh';

/**
 * GLB (glTF 2.0 in one file): every triangle mesh of its scene, in the scene's own placing, y up turned to z up.
 * Anything that lies outside the file is refused, never fetched.
 */
type Json = Record<string, unknown>;
type Matrix = readonly number[];

class Refused extends Error {
  constructor(
    readonly where: string,
    message: string,
    readonly code = 'torn',
  ) {
    super(message);
  }
}

const isJson = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v);
const list = (v: unknown): unknown[] => (Array.isArray(v) ? v : []);

function whole(v: unknown, where: string, fallback?: number): number {
  if (v === undefined && fallback !== undefined) return fallback;
  if (typeof v !== 'number' || !Number.isInteger(v) || v < 0 || v > 2 ** 31)
    throw new Refused(where, 'a whole number is needed here');
  return v;
}

function item(of: unknown, index: unknown, where: string): Json {
  const found = list(of)[whole(index, where)];
  if (!isJson(found)) throw new Refused(where, `there is no entry ${String(index)}`);
  return found;
}

const identity: Matrix = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

/** Column-major, as the format has them. */
function times(a: Matrix, b: Matrix): number[] {
  const out = new Array<number>(16).fill(0);
  for (let c = 0; c < 4; c++)
    for (let r = 0; r < 4; r++) for (let k = 0; k < 4; k++) out[c * 4 + r]! += a[k * 4 + r]! * b[c * 4 + k]!;
  return out;
}

function numbers(v: unknown, count: number, where: string, fallback: readonly number[]): readonly number[] {
  if (v === undefined) return fallback;
  if (!Array.isArray(v) || v.length !== count || !v.every((x) => typeof x === 'number' && Number.isFinite(x)))
    throw new Refused(where, `${count} numbers are needed here`);
  return v as number[];
}

function matrixOf(node: Json, where: string): Matrix {
  if (node['matrix'] !== undefined) return numbers(node['matrix'], 16, `${where}.matrix`, identity);
  const [tx, ty, tz] = numbers(node['translation'], 3, `${where}.translation`, [0, 0, 0]) as [number, number, number];
  const [x, y, z, w] = numbers(node['rotation'], 4, `${where}.rotation`, [0, 0, 0, 1]) as [
    number,
    number,
    number,
    number,
  ];
  const [sx, sy, sz] = numbers(node['scale'], 3, `${where}.scale`, [1, 1, 1]) as [number, number, number];
  return [
    (1 - 2 * (y * y + z * z)) * sx,
    2 * (x * y + z * w) * sx,
    2 * (x * z - y * w) * sx,
    0,
    2 * (x * y - z * w) * sy,
    (1 - 2 * (x * x + z * z)) * sy,
    2 * (y * z + x * w) * sy,
    0,
    2 * (x * z + y * w) * sz,
    2 * (y * z - x * w) * sz,
    (1 - 2 * (x * x + y * y)) * sz,
    0,
    tx,
    ty,
    tz,
    1,
  ];
}

interface Glb {
  readonly json: Json;
  readonly bin: Uint8Array;
}

function chunksOf(bytes: Uint8Array): Glb {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 20 || view.getUint32(0, true) !== 0x46546c67)
    throw new Refused('the file', 'it does not begin as a GLB file does', 'not-a-mesh');
  if (view.getUint32(4, true) !== 2)
    throw new Refused('the header', `version ${view.getUint32(4, true)}; only 2 is read`);
  if (view.getUint32(8, true) > bytes.length)
    throw new Refused('the header', `it claims ${view.getUint32(8, true)} bytes and holds ${bytes.length}`);
  let json: Json | null = null;
  let bin: Uint8Array = new Uint8Array(0);
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = view.getUint32(at, true),
      type = view.getUint32(at + 4, true);
    if (at + 8 + length > bytes.length)
      throw new Refused(`the part at byte ${at}`, 'it claims more bytes than the file holds');
    const part = bytes.subarray(at + 8, at + 8 + length);
    if (type === 0x4e4f534a && !json) {
      const read = readJson(new TextDecoder().decode(part), 'the description');
      if (!read.ok) throw new Refused(read.path, read.code === 'not-json' ? 'it is not JSON' : read.message);
      if (!isJson(read.value)) throw new Refused('the description', 'it is not an object');
      json = read.value;
    } else if (type === 0x004e4942 && bin.length === 0)
      bin = new Uint8Array(part.buffer, part.byteOffset, part.byteLength);
    at += 8 + length + ((4 - (length % 4)) % 4);
  }
  if (!json) throw new Refused('the file', 'it has no description');
  return { json, bin };
}

const componentSize: Readonly<Record<number, number>> = { 5121: 1, 5123: 2, 5125: 4, 5126: 4 };

function accessor(
  { json, bin }: Glb,
  index: unknown,
  type: string,
  kinds: readonly number[],
  where: string,
): { count: number; at: (i: number, k: number) => number } {
  const a = item(json['accessors'], index, where);
  if (a['sparse'] !== undefined) throw new Refused(where, 'sparse data is not read');
  const kind = whole(a['componentType'], `${where}.componentType`);
  if (a['type'] !== type || !kinds.includes(kind))
    throw new Refused(where, `${type} of a kind that is read is needed here`);
  const count = whole(a['count'], `${where}.count`);
  const view = item(json['bufferViews'], a['bufferView'], `${where}.bufferView`);
  if (whole(view['buffer'], where) !== 0)
    throw new Refused(`${where}.buffer`, 'its data lies outside the file', 'points-outside');
  const size = componentSize[kind]!,
    width = type === 'VEC3' ? 3 : 1;
  const stride = whole(view['byteStride'], `${where}.byteStride`, size * width);
  const viewAt = whole(view['byteOffset'], `${where}.byteOffset`, 0),
    from = viewAt + whole(a['byteOffset'], `${where}.byteOffset`, 0);
  const end = Math.min(bin.length, viewAt + whole(view['byteLength'], `${where}.byteLength`));
  if (stride < size * width || (count > 0 && from + (count - 1) * stride + size * width > end))
    throw new Refused(where, `it claims ${count} entries and holds fewer`);
  const data = new DataView(bin.buffer, bin.byteOffset, bin.byteLength);
  return {
    count,
    at: (i, k) => {
      const p = from + i * stride + k * size;
      return kind === 5126
        ? data.getFloat32(p, true)
        : kind === 5125
          ? data.getUint32(p, true)
          : kind === 5123
            ? data.getUint16(p, true)
            : data.getUint8(p);
    },
  };
}

class Gathered {
  readonly positions: number[] = [];
  readonly triangles: number[] = [];

  private parts = 0;

  constructor(private readonly glb: Glb) {}

  add(primitive: Json, placing: Matrix, where: string): void {
    // Empty ones cost time too, placed often enough.
    if (++this.parts > mostParts) throw new Refused(where, `it places more than ${mostParts} parts`, 'too-large');
    const mode = whole(primitive['mode'], `${where}.mode`, 4);
    if (mode < 4) return;
    if (!isJson(primitive['attributes'])) throw new Refused(where, 'it has no points');
    const points = accessor(this.glb, primitive['attributes']['POSITION'], 'VEC3', [5126], `${where}.POSITION`);
    const corners =
      primitive['indices'] === undefined
        ? null
        : accessor(this.glb, primitive['indices'], 'SCALAR', [5121, 5123, 5125], `${where}.indices`);
    const count = corners ? corners.count : points.count;
    const made = mode === 4 ? Math.floor(count / 3) : Math.max(0, count - 2);
    if (this.triangles.length / 3 + made > mostTriangles)
      throw new Refused('the triangles', tooMany(this.triangles.length / 3 + made).message, 'too-large');
    if (this.positions.length / 3 + points.count > 3 * mostTriangles)
      throw new Refused('the points', 'it holds more points than are read', 'too-large');
    const first = this.positions.length / 3;
    for (let i = 0; i < points.count; i++) {
      const x = points.at(i, 0),
        y = points.at(i, 1),
        z = points.at(i, 2);
      const row = (r: number) => placing[r]! * x + placing[4 + r]! * y + placing[8 + r]! * z + placing[12 + r]!;
      // y up to z up: what faced forward (+z) faces -y.
      this.positions.push(row(0), -row(2), row(1));
    }
    const corner = (i: number) => {
      const c = corners ? corners.at(i, 0) : i;
      if (c >= points.count)
        throw new Refused(`${where}.indices`, `it names point ${c}, and there are ${points.count}`);
      return first + c;
    };
    const mirrored = determinant(placing) < 0;
    for (let t = 0; t < made; t++) {
      const [a, b, c] =
        mode === 4
          ? [3 * t, 3 * t + 1, 3 * t + 2]
          : mode === 5
            ? t % 2
              ? [t + 1, t, t + 2]
              : [t, t + 1, t + 2]
            : [0, t + 1, t + 2];
      if (mirrored) this.triangles.push(corner(a), corner(c), corner(b));
      else this.triangles.push(corner(a), corner(b), corner(c));
    }
  }
}

function determinant(m: Matrix): number {
  const at = (i: number) => m[i]!;
  return (
    at(0) * (at(5) * at(10) - at(6) * at(9)) -
    at(4) * (at(1) * at(10) - at(2) * at(9)) +
    at(8) * (at(1) * at(6) - at(2) * at(5))
  );
}

const deepestNode = 64;
const mostParts = 200_000;
const mostNodes = 100_000;

function gather(glb: Glb): Gathered {
  const { json } = glb;
  const needed = list(json['extensionsRequired']).map(String);
  if (needed.length > 0)
    throw new Refused(
      'the description',
      `it needs ${needed
        .slice(0, 3)
        .map((n) => n.slice(0, 40))
        .join(', ')}, which is not read`,
      'unread-extension',
    );
  for (const b of list(json['buffers']))
    if (isJson(b) && b['uri'] !== undefined)
      throw new Refused('buffers', 'its data lies outside the file', 'points-outside');
  const out = new Gathered(glb);
  let visited = 0;
  const visit = (index: unknown, above: Matrix, depth: number): void => {
    if (depth > deepestNode || ++visited > mostNodes)
      throw new Refused(`nodes[${String(index)}]`, 'its parts are nested without end');
    const where = `nodes[${String(index)}]`;
    const node = item(json['nodes'], index, where);
    const placing = times(above, matrixOf(node, where));
    if (node['mesh'] !== undefined) {
      const mesh = item(json['meshes'], node['mesh'], `${where}.mesh`);
      list(mesh['primitives']).forEach((p, i) => {
        if (isJson(p)) out.add(p, placing, `meshes[${String(node['mesh'])}].primitives[${i}]`);
      });
    }
    for (const child of list(node['children'])) visit(child, placing, depth + 1);
  };
  const scenes = list(json['scenes']);
  if (scenes.length > 0)
    for (const root of list(item(scenes, json['scene'] ?? 0, 'scene')['nodes'])) visit(root, identity, 0);
  else
    list(json['meshes']).forEach(
      (m, i) =>
        isJson(m) &&
        list(m['primitives']).forEach((p, k) => isJson(p) && out.add(p, identity, `meshes[${i}].primitives[${k}]`)),
    );
  return out;
}

export function readGlb(bytes: Uint8Array): Result<TriangleMesh> {
  try {
    const { positions, triangles } = gather(chunksOf(bytes));
    if (triangles.length === 0) return failure('empty', 'the scene', 'it holds no triangles');
    const points = Float32Array.from(positions);
    return (
      checkPoints(points, (p) => `point ${p + 1}`) ??
      success({ positions: points, triangles: Uint32Array.from(triangles) })
    );
  } catch (error) {
    if (error instanceof Refused) return failure(error.code, error.where, error.message);
    throw error;
  }
}
