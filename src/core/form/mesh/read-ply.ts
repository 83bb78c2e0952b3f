import { failure, success, type Failure, type Result } from '../../quantity';
import { latin } from './read-stl';
import { checkPoints, mostTriangles, tooMany, type Progress, type TriangleMesh } from './triangle-mesh';

/** PLY: text and both binary orders. Points need x, y, z; faces a list of corners; all other properties are passed over. */
const sizes: Readonly<Record<string, number>> = {
  char: 1,
  uchar: 1,
  int8: 1,
  uint8: 1,
  short: 2,
  ushort: 2,
  int16: 2,
  uint16: 2,
  int: 4,
  uint: 4,
  int32: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};

interface Property {
  readonly name: string;
  readonly type: string;
  readonly countType: string | null;
}
interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: Property[];
}
interface Header {
  readonly format: string;
  readonly elements: Element[];
  readonly end: number;
}

/** Reads values one after another; false when there are no more. */
interface Source {
  readonly next: (type: string) => number;
  readonly ended: () => boolean;
}

function readHeader(bytes: Uint8Array): Result<Header> {
  const text = latin(bytes.subarray(0, 65536));
  if (!/^ply\r?\n/.test(text)) return failure('not-a-mesh', 'the file', 'it does not begin as a PLY file does');
  const end = /end_header\r?\n/.exec(text);
  if (!end) return failure('torn', 'the header', 'it has no end');
  const elements: Element[] = [];
  let format = '';
  for (const [i, row] of text.slice(0, end.index).split(/\r?\n/).entries()) {
    const [word, ...rest] = row.trim().split(/\s+/);
    const where = `line ${i + 1}`;
    if (word === 'format') format = rest[0] ?? '';
    else if (word === 'element') {
      const count = Number(rest[1]);
      if (!Number.isInteger(count) || count < 0 || count > 4e9)
        return failure('torn', where, `"${(rest[1] ?? '').slice(0, 20)}" is no count`);
      elements.push({ name: rest[0] ?? '', count, properties: [] });
    } else if (word === 'property') {
      const list = rest[0] === 'list';
      const p: Property = list
        ? { name: rest[3] ?? '', type: rest[2] ?? '', countType: rest[1] ?? '' }
        : { name: rest[1] ?? '', type: rest[0] ?? '', countType: null };
      if (!Object.hasOwn(sizes, p.type) || (p.countType !== null && !Object.hasOwn(sizes, p.countType)))
        return failure('torn', where, 'a property of no known kind');
      const element = elements[elements.length - 1];
      if (!element) return failure('torn', where, 'a property before any element');
      element.properties.push(p);
    }
  }
  if (!['ascii', 'binary_little_endian', 'binary_big_endian'].includes(format))
    return failure('torn', 'the header', `"${format.slice(0, 30)}" is no way of writing PLY`);
  return success({ format, elements, end: end.index + end[0].length });
}

export function readPly(bytes: Uint8Array, progress?: Progress): Result<TriangleMesh> {
  const header = readHeader(bytes);
  if (!header.ok) return header;
  const { format, elements, end } = header.value;
  const rest = bytes.length - end;
  for (const e of elements) {
    // Each item takes two bytes at least ("0\n" as text), so a count beyond that is a lie, found before any room is made.
    const least = format === 'ascii' ? 2 : e.properties.reduce((sum, p) => sum + sizes[p.countType ?? p.type]!, 0);
    if (e.count * Math.max(1, least) > rest + 2)
      return failure('torn', `the ${e.name} count`, `it claims ${e.count} and holds fewer`);
  }
  const vertices = elements.find((e) => e.name === 'vertex'),
    faces = elements.find((e) => e.name === 'face');
  if (!vertices || !faces || faces.count === 0) return failure('empty', 'the header', 'it holds no faces');
  if (faces.count > mostTriangles) return tooMany(faces.count);
  if (vertices.count > 3 * mostTriangles)
    return failure('too-large', 'the vertex count', 'it holds more points than are read');
  const source =
    format === 'ascii'
      ? textSource(latin(bytes.subarray(end)))
      : binarySource(bytes.subarray(end), format === 'binary_little_endian');
  const positions = new Float32Array(vertices.count * 3);
  const triangles: number[] = [];
  for (const e of elements) {
    const wrong = readElement(e, source, vertices.count, positions, triangles, progress);
    if (wrong) return wrong;
    if (triangles.length / 3 > mostTriangles) return tooMany(triangles.length / 3);
  }
  if (triangles.length === 0) return failure('empty', 'the faces', 'none has three corners');
  return (
    checkPoints(positions, (p) => `vertex ${p + 1}`) ?? success({ positions, triangles: Uint32Array.from(triangles) })
  );
}

function readElement(
  e: Element,
  source: Source,
  pointCount: number,
  positions: Float32Array,
  triangles: number[],
  progress?: Progress,
): Failure | null {
  const axes = e.properties.map((p) =>
    e.name === 'vertex' && p.countType === null ? ['x', 'y', 'z'].indexOf(p.name) : -1,
  );
  if (e.name === 'vertex' && new Set(axes.filter((a) => a >= 0)).size !== 3)
    return failure('torn', 'the header', 'its points have no x, y and z');
  for (let i = 0; i < e.count; i++) {
    for (const [k, p] of e.properties.entries()) {
      if (p.countType === null) {
        const v = source.next(p.type);
        const axis = axes[k]!;
        if (axis >= 0) positions[i * 3 + axis] = v;
        continue;
      }
      const count = source.next(p.countType);
      if (!(count >= 0 && count <= 1000))
        return failure(
          'torn',
          `${e.name} ${i + 1}`,
          'a list with more than a thousand entries, or none that can be counted',
        );
      const corners = e.name === 'face' && (p.name === 'vertex_indices' || p.name === 'vertex_index');
      let first = -1,
        before = -1;
      for (let c = 0; c < count; c++) {
        const at = source.next(p.type);
        if (!corners) continue;
        if (!Number.isInteger(at) || at < 0 || at >= pointCount)
          return source.ended()
            ? torn(e, i)
            : failure(
                'torn',
                `face ${i + 1}`,
                `it names point ${String(at).slice(0, 20)}, and there are ${pointCount}`,
              );
        if (c === 0) first = at;
        else if (c > 1) triangles.push(first, before, at);
        before = at;
      }
    }
    if (source.ended()) return torn(e, i);
    if ((i & 0xffff) === 0) progress?.(i / e.count);
  }
  return null;
}

function torn(e: Element, i: number): Failure {
  return failure('torn', `${e.name} ${i + 1}`, `it claims ${e.count} and ends here`);
}

function textSource(text: string): Source {
  const word = /\S+/g;
  let over = false;
  return {
    next: () => {
      const found = word.exec(text);
      if (!found) {
        over = true;
        return NaN;
      }
      return Number(found[0]);
    },
    ended: () => over,
  };
}

function binarySource(bytes: Uint8Array, little: boolean): Source {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  let over = false;
  const read = (type: string): number => {
    switch (type) {
      case 'char':
      case 'int8':
        return view.getInt8(at);
      case 'uchar':
      case 'uint8':
        return view.getUint8(at);
      case 'short':
      case 'int16':
        return view.getInt16(at, little);
      case 'ushort':
      case 'uint16':
        return view.getUint16(at, little);
      case 'int':
      case 'int32':
        return view.getInt32(at, little);
      case 'uint':
      case 'uint32':
        return view.getUint32(at, little);
      case 'float':
      case 'float32':
        return view.getFloat32(at, little);
      default:
        return view.getFloat64(at, little);
    }
  };
  return {
    next: (type) => {
      const size = sizes[type]!;
      if (at + size > bytes.length) {
        over = true;
        return NaN;
      }
      const v = read(type);
      at += size;
      return v;
    },
    ended: () => over,
  };
}
