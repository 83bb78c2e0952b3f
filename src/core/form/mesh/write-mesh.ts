import type { TriangleMesh } from './triangle-mesh';

/** Writing for other programs. Positions come in metres and go out in millimetres, but for GLB, which is in metres by its own rule. */
export type MeshFormat = 'stl' | 'obj' | 'ply' | 'glb';
export const meshFormats: readonly MeshFormat[] = ['stl', 'obj', 'ply', 'glb'];

export interface NamedMesh extends TriangleMesh {
  readonly name: string;
}

export function writeMesh(format: MeshFormat, parts: readonly NamedMesh[]): Uint8Array {
  switch (format) {
    case 'stl':
      return writeStl(parts);
    case 'obj':
      return writeObj(parts);
    case 'ply':
      return writePly(parts);
    case 'glb':
      return writeGlb(parts);
  }
}

const mm = 1000;

function writeStl(parts: readonly NamedMesh[]): Uint8Array {
  const count = parts.reduce((sum, p) => sum + p.triangles.length / 3, 0);
  const out = new Uint8Array(84 + count * 50);
  const view = new DataView(out.buffer);
  out.set(new TextEncoder().encode('binary, millimetres').subarray(0, 80));
  view.setUint32(80, count, true);
  let at = 84;
  for (const { positions: p, triangles: t } of parts) {
    for (let i = 0; i < t.length; i += 3) {
      const corner = (k: number) => [0, 1, 2].map((j) => p[t[i + k]! * 3 + j]! * mm) as [number, number, number];
      const a = corner(0),
        b = corner(1),
        c = corner(2);
      const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const,
        v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
      const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
      const l = Math.hypot(...n) || 1;
      [n[0] / l, n[1] / l, n[2] / l, ...a, ...b, ...c].forEach((x, k) => view.setFloat32(at + k * 4, x, true));
      at += 50;
    }
  }
  return out;
}

function writeObj(parts: readonly NamedMesh[]): Uint8Array {
  const lines = ['# millimetres, z up'];
  let first = 1;
  for (const { name, positions: p, triangles: t } of parts) {
    lines.push(`o ${name.replace(/\s+/g, '_')}`);
    for (let i = 0; i < p.length; i += 3) lines.push(`v ${short(p[i])} ${short(p[i + 1])} ${short(p[i + 2])}`);
    for (let i = 0; i < t.length; i += 3) lines.push(`f ${t[i]! + first} ${t[i + 1]! + first} ${t[i + 2]! + first}`);
    first += p.length / 3;
  }
  return new TextEncoder().encode(`${lines.join('\n')}\n`);
}

const short = (metres: number | undefined) => Number(((metres ?? 0) * mm).toFixed(5));

function writePly(parts: readonly NamedMesh[]): Uint8Array {
  const points = parts.reduce((sum, p) => sum + p.positions.length / 3, 0),
    faces = parts.reduce((sum, p) => sum + p.triangles.length / 3, 0);
  const header = new TextEncoder().encode(
    [
      'ply',
      'format binary_little_endian 1.0',
      'comment millimetres, z up',
      `element vertex ${points}`,
      'property float x',
      'property float y',
      'property float z',
      `element face ${faces}`,
      'property list uchar int vertex_indices',
      'end_header',
      '',
    ].join('\n'),
  );
  const out = new Uint8Array(header.length + points * 12 + faces * 13);
  out.set(header);
  const view = new DataView(out.buffer);
  let at = header.length;
  for (const { positions } of parts)
    for (const v of positions) {
      view.setFloat32(at, v * mm, true);
      at += 4;
    }
  let first = 0;
  for (const { positions, triangles } of parts) {
    for (let i = 0; i < triangles.length; i += 3) {
      out[at++] = 3;
      for (let k = 0; k < 3; k++, at += 4) view.setInt32(at, triangles[i + k]! + first, true);
    }
    first += positions.length / 3;
  }
  return out;
}

/** z up turned to the format's y up: its front (+z) is our -y. */
function writeGlb(parts: readonly NamedMesh[]): Uint8Array {
  const buffers: Uint8Array[] = [];
  const json = {
    asset: { version: '2.0', generator: 'Sostegno' },
    scene: 0,
    scenes: [{ nodes: parts.map((_, i) => i) }],
    nodes: [] as object[],
    meshes: [] as object[],
    materials: [
      { pbrMetallicRoughness: { baseColorFactor: [0.91, 0.87, 0.8, 1], metallicFactor: 0, roughnessFactor: 0.9 } },
    ],
    accessors: [] as object[],
    bufferViews: [] as object[],
    buffers: [] as object[],
  };
  let length = 0;
  const put = (bytes: Uint8Array, target: number): number => {
    buffers.push(bytes);
    json.bufferViews.push({ buffer: 0, byteOffset: length, byteLength: bytes.byteLength, target });
    length += bytes.byteLength;
    return json.bufferViews.length - 1;
  };
  for (const { name, positions: p, triangles } of parts) {
    const turned = new Float32Array(p.length);
    const min = [Infinity, Infinity, Infinity],
      max = [-Infinity, -Infinity, -Infinity];
    for (let i = 0; i < p.length; i += 3) {
      turned[i] = p[i]!;
      turned[i + 1] = p[i + 2]!;
      turned[i + 2] = -p[i + 1]!;
      for (let k = 0; k < 3; k++) {
        min[k] = Math.min(min[k]!, turned[i + k]!);
        max[k] = Math.max(max[k]!, turned[i + k]!);
      }
    }
    const points = put(new Uint8Array(turned.buffer), 34962);
    const corners = put(new Uint8Array(triangles.slice().buffer), 34963);
    json.accessors.push(
      { bufferView: points, componentType: 5126, count: p.length / 3, type: 'VEC3', min, max },
      { bufferView: corners, componentType: 5125, count: triangles.length, type: 'SCALAR' },
    );
    const at = json.accessors.length;
    json.meshes.push({
      name,
      primitives: [{ attributes: { POSITION: at - 2 }, indices: at - 1, material: 0, mode: 4 }],
    });
    json.nodes.push({ name, mesh: json.meshes.length - 1 });
  }
  json.buffers.push({ byteLength: length });
  const text = new TextEncoder().encode(JSON.stringify(json));
  const pad = (n: number) => (4 - (n % 4)) % 4;
  const textLength = text.length + pad(text.length);
  const out = new Uint8Array(12 + 8 + textLength + 8 + length + pad(length));
  const view = new DataView(out.buffer);
  view.setUint32(0, 0x46546c67, true);
  view.setUint32(4, 2, true);
  view.setUint32(8, out.length, true);
  view.setUint32(12, textLength, true);
  view.setUint32(16, 0x4e4f534a, true);
  out.fill(32, 20, 20 + textLength);
  out.set(text, 20);
  view.setUint32(20 + textLength, length + pad(length), true);
  view.setUint32(24 + textLength, 0x004e4942, true);
  let at = 28 + textLength;
  for (const b of buffers) {
    out.set(b, at);
    at += b.byteLength;
  }
  return out;
}
