import { tubeMesh } from '../armature';
import type { NamedMesh, SurfaceMesh } from '../form';
import type { Parting } from '../parting';
import type { Vec3 } from '../quantity';

/** What goes out of a parting for other programs: its parts and seams as meshes, its seams as drawings. */
export interface PartedFace {
  readonly surface: Pick<SurfaceMesh, 'positions' | 'triangles'>;
  readonly parting: Parting;
  /** By triangle: no mould lies there. */
  readonly stands: Uint8Array;
}

/** Across, metres: thick enough to be picked out among the parts. */
const seamAcross = 0.002;

/** Each part of the mould as the face it lies on, with its own points; then the seams as thin rods. */
export function mouldMeshes({ surface, parting, stands }: PartedFace, names: readonly string[]): NamedMesh[] {
  const parts = parting.pieces.map((_, i): NamedMesh => {
    const to = new Map<number, number>();
    const positions: number[] = [];
    const triangles: number[] = [];
    for (let t = 0; t < parting.labels.length; t++) {
      if (stands[t] || parting.labels[t] !== i) continue;
      for (let c = 0; c < 3; c++) {
        const p = surface.triangles[3 * t + c]!;
        let own = to.get(p);
        if (own === undefined) {
          own = positions.length / 3;
          to.set(p, own);
          positions.push(...surface.positions.subarray(3 * p, 3 * p + 3));
        }
        triangles.push(own);
      }
    }
    return {
      name: `part ${names[i] ?? i + 1}`,
      positions: Float32Array.from(positions),
      triangles: Uint32Array.from(triangles),
    };
  });
  const seams = parting.lines
    .filter((l) => l.points.length > 1)
    .map((l, i): NamedMesh => ({ name: `seam ${i + 1}`, ...tubeMesh(l.points, seamAcross) }));
  return [...parts, ...seams].filter((m) => m.triangles.length > 0);
}

export const seamViews = [
  { id: 'front', name: 'front', across: [1, 0, 0], up: [0, 0, 1] },
  { id: 'back', name: 'back', across: [-1, 0, 0], up: [0, 0, 1] },
  { id: 'left', name: 'left side', across: [0, 1, 0], up: [0, 0, 1] },
  { id: 'right', name: 'right side', across: [0, -1, 0], up: [0, 0, 1] },
  { id: 'top', name: 'top', across: [1, 0, 0], up: [0, 1, 0] },
] as const satisfies readonly { id: string; name: string; across: Vec3; up: Vec3 }[];
export type SeamView = (typeof seamViews)[number]['id'];

const mm = 1000,
  margin = 10;
const short = (v: number) => String(Math.round(v * 100) / 100);

/** The seams seen from one side at true size, a millimetre a unit, over the outline's box. What lies behind is dashed. */
export function seamDrawing({ surface, parting }: PartedFace, view: SeamView, title: string): string {
  const { across, up, name } = seamViews.find((v) => v.id === view)!;
  const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  // Towards the eye.
  const near: Vec3 = [
    across[1] * up[2] - across[2] * up[1],
    across[2] * up[0] - across[0] * up[2],
    across[0] * up[1] - across[1] * up[0],
  ];
  const place = (p: Vec3): [number, number] => [dot(p, across) * mm, -dot(p, up) * mm];
  let [lx, ly, hx, hy] = [Infinity, Infinity, -Infinity, -Infinity];
  let middle = 0;
  const { positions } = surface;
  for (let i = 0; i < positions.length; i += 3) {
    const p: Vec3 = [positions[i]!, positions[i + 1]!, positions[i + 2]!];
    const [x, y] = place(p);
    lx = Math.min(lx, x);
    hx = Math.max(hx, x);
    ly = Math.min(ly, y);
    hy = Math.max(hy, y);
    middle += (3 * dot(p, near)) / positions.length;
  }
  const box = [lx - margin, ly - margin, hx - lx + 2 * margin, hy - ly + 2 * margin].map(short);
  const lines = parting.lines.flatMap(({ points }) => runs(points, (p) => dot(p, near) >= middle));
  const paths = lines.map(
    ({ points, front }) =>
      `<polyline points="${points.map((p) => place(p).map(short).join(',')).join(' ')}" fill="none" stroke="#000" stroke-width="${front ? 0.7 : 0.35}"${front ? '' : ' stroke-dasharray="2 2"'}/>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${box[2]}mm" height="${box[3]}mm" viewBox="${box.join(' ')}">`,
    `<title>${escaped(title)}, seams seen from the ${name}, true size</title>`,
    `<rect x="${short(lx)}" y="${short(ly)}" width="${short(hx - lx)}" height="${short(hy - ly)}" fill="none" stroke="#999" stroke-width="0.25"/>`,
    ...paths,
    '</svg>',
    '',
  ].join('\n');
}

/** A line in runs that lie on one side each; a run ends where the next begins. */
function runs(points: readonly Vec3[], isFront: (p: Vec3) => boolean): { points: Vec3[]; front: boolean }[] {
  const out: { points: Vec3[]; front: boolean }[] = [];
  for (const p of points) {
    const front = isFront(p);
    const last = out[out.length - 1];
    if (last && last.front === front) last.points.push(p);
    else {
      last?.points.push(p);
      out.push({ points: [p], front });
    }
  }
  return out.filter((r) => r.points.length > 1);
}

function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
}
