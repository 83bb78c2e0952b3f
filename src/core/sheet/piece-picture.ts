import { isBare, shadedPicture, type ColouredMesh, type ShadedPicture, type SurfaceMesh } from '../form';
import { surfaceOf, type Piece } from '../piece';
import type { Vec3 } from '../quantity';
import { memberMesh } from './export-mesh';

const clay: Vec3 = [232, 216, 190];
/** What stands bare, as a plaster head does. */
const plaster: Vec3 = [206, 209, 208];
const iron: Vec3 = [98, 112, 122];
const board: Vec3 = [196, 160, 112];
/** From the left and a little above, as one walks up to it. */
const from: Vec3 = [-0.75, -1.5, 0.42];

/** The piece with its clay on, on its board where it has one: what of the armature stands out of the clay is seen. */
export function pictureOfPiece(piece: Piece, width: number, height: number): ShadedPicture {
  const meshes: ColouredMesh[] = [
    ...clayAndBare(piece, surfaceOf(piece)),
    ...piece.armature.members.map((m) => ({ ...memberMesh(piece, m), colour: iron, edges: 'round' as const })),
  ];
  const { base } = piece.armature;
  if (base.standing !== 'own')
    meshes.push(box([base.at[0], base.at[1], -base.thickness / 2], [base.width, base.depth, base.thickness], board));
  return shadedPicture(meshes, { from, width, height });
}

function clayAndBare(piece: Piece, surface: SurfaceMesh): ColouredMesh[] {
  const { masses } = piece.form;
  const { positions, triangles, owners } = surface;
  if (!masses.some(isBare)) return [{ positions, triangles, colour: clay, edges: 'round' }];
  const of: [number[], number[]] = [[], []];
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    const bare = corners.filter((v) => isBare(masses[owners[v]!])).length > 1;
    of[bare ? 1 : 0].push(...corners);
  }
  return [
    { positions, triangles: of[0], colour: clay, edges: 'round' },
    { positions, triangles: of[1], colour: plaster, edges: 'round' },
  ];
}

function box(at: Vec3, size: Vec3, colour: Vec3): ColouredMesh {
  const positions = Array.from({ length: 8 }, (_, i) => [
    at[0] + (i & 1 ? 0.5 : -0.5) * size[0],
    at[1] + (i & 2 ? 0.5 : -0.5) * size[1],
    at[2] + (i & 4 ? 0.5 : -0.5) * size[2],
  ]).flat();
  const sides = [
    [0, 1, 3, 2],
    [4, 6, 7, 5],
    [0, 4, 5, 1],
    [2, 3, 7, 6],
    [0, 2, 6, 4],
    [1, 5, 7, 3],
  ] as const;
  return { positions, triangles: sides.flatMap(([a, b, c, d]) => [a, b, c, a, c, d]), colour, edges: 'sharp' };
}
