import {
  extractSurface,
  sizeOfMesh,
  voxelise,
  weld,
  type DistanceField,
  type MeshSolid,
  type SurfaceMesh,
  type TriangleMesh,
} from '../form';
import { findClay, type Build } from '../document';
import { mouldChosen, mouldKinds, opensBehind, peelsOut } from '../mould';
import { boardOf, keptFreeOf, ofBareMasses, surfaceWith, type Piece } from '../piece';
import type { Result } from '../quantity';
import { masterFace, type MasterFace } from './face';
import type { PartingAsked } from './parting';

/** What a mould is taken of, as its parting wants it: a piece that was worked out, or a mesh. */
export interface PartedMaster {
  readonly face: MasterFace;
  /** Height of the board; null for a piece that hangs free. */
  readonly board: number | null;
}

/** Triangles: lids and lips want as many. */
const fewestOfAPiece = 24_000;

/** Fails as `masterFace` does. */
export function masterOfPiece(piece: Piece): Result<PartedMaster & { readonly surface: SurfaceMesh }> {
  const surface = surfaceWith(piece, fewestOfAPiece);
  const board = boardOf(piece);
  const { masses } = piece.form;
  const bare = ofBareMasses(surface, masses);
  // A piece of which nothing bears clay is moulded as it is.
  const clad = bare.includes(0);
  const face = masterFace(surface, {
    board,
    kept: keptFreeOf(piece, surface),
    ...(clad ? { bare } : {}),
  });
  return face.ok ? { ok: true, value: { surface, face: face.value, board } } : face;
}

/** Fewer, and a line has nowhere to run; more, and nobody could follow it. */
const fewest = 12_000,
  wanted = 40_000,
  most = 60_000;

/** A mesh in metres, standing on its lowest face: as it is where it is whole, and as it was sampled where it is not. */
export function masterOfMesh(mesh: TriangleMesh, solid: MeshSolid, field: DistanceField): Result<PartedMaster> {
  const closed = solid.openEdges === 0 && solid.crowdedEdges === 0;
  // Every face of it parts inside from outside: none runs through its inside, nothing was put across a hole.
  const outer = solid.surface.triangles.length === mesh.triangles.length;
  const whole = closed && outer && solid.lumps.length === 1 && mesh.triangles.length / 3 <= most;
  const surface = whole ? finely(weld(mesh)) : sampled(field, sizeOfMesh(mesh).area);
  const [low] = sizeOfMesh(surface).box;
  const face = masterFace(surface, { board: low[2] });
  return face.ok ? { ok: true, value: { face: face.value, board: low[2] } } : face;
}

/** Every triangle in four, until there are enough. */
function finely(mesh: TriangleMesh): TriangleMesh {
  let { positions, triangles } = mesh;
  while (triangles.length / 3 < fewest) {
    const points = Array.from(positions);
    const middles = new Map<number, number>();
    const count = points.length / 3;
    const middle = (a: number, b: number): number => {
      const key = Math.min(a, b) * count + Math.max(a, b);
      const known = middles.get(key);
      if (known !== undefined) return known;
      for (let k = 0; k < 3; k++) points.push((points[3 * a + k]! + points[3 * b + k]!) / 2);
      middles.set(key, points.length / 3 - 1);
      return points.length / 3 - 1;
    };
    const next: number[] = [];
    for (let t = 0; t < triangles.length; t += 3) {
      const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
      const [ab, bc, ca] = [middle(a, b), middle(b, c), middle(c, a)];
      next.push(a, ab, ca, ab, b, bc, ca, bc, c, ab, bc, ca);
    }
    positions = Float32Array.from(points);
    triangles = Uint32Array.from(next);
  }
  return { positions, triangles };
}

/** Squares of cells over its face come to some two triangles each. */
function sampled(field: DistanceField, area: number): TriangleMesh {
  const step = Math.sqrt((3 * area) / wanted);
  return extractSurface(voxelise(field, { step, depth: step }));
}

/** How a mould of this kind parts where nothing else is said: in as many parts as it has, or as few as will do. */
export function usualParting(kind: string | undefined): PartingAsked {
  const parts = mouldKinds.find((k) => k.id === kind)?.parts;
  if (kind === 'shim-halves') return { shim: true };
  if (opensBehind(kind ?? null)) return { open: true };
  return parts === undefined || parts === 'more' ? {} : { pieces: parts === 'one' ? 1 : 2 };
}

/** How this build's mould is to part. */
export function partingAskedOf(build: Build): PartingAsked {
  const { parts } = build.mould;
  if (parts !== null && !(parts === 1 && opensBehind(mouldChosen(build)?.kind ?? null))) return { pieces: parts };
  const usual = usualParting(mouldChosen(build)?.kind);
  return comesOff(build) ? { ...usual, worth: worthForSoftClay } : usual;
}

/** Whether what holds this build's mould gives, or is dug out. */
export function comesOff(build: Build): boolean {
  const chosen = mouldChosen(build);
  const kind = mouldKinds.find((k) => k.id === chosen?.kind);
  const clay = findClay(build, build.brief.clay);
  return kind !== undefined && chosen !== null && clay.ok && peelsOut(kind, chosen.cast, clay.value.setting);
}

/** What holds soft clay and a peeled cast does no harm: a part more is for much of the face only. */
const worthForSoftClay = 0.1;
