import { extractSurface, isBare, measureTriangles, type SurfaceMesh } from '../form';
import {
  castKinds,
  mouldKinds,
  openSide,
  type CastKind,
  type Master,
  type MouldChosen,
  type MouldKind,
} from '../mould';
import { distance, scale, type Vec3 } from '../quantity';
import type { Piece } from './piece';

/** Where a mould ends below: a piece that stands is left open where it stands, over its board or on a post; others are closed. */
export function boardOf({ build, extent }: Piece): number | null {
  return build.armature.mount.kind === 'stands' ? extent.low[2] : null;
}

/** A piece's master: with the share of its face that bears clay. A piece that bears none is moulded as it is. */
export function masterOf(piece: Piece): Master {
  const { field, extent, volumes, form } = piece;
  const area = (bare: boolean) =>
    volumes.perMass.reduce((sum, m, i) => sum + (isBare(form.masses[i]) === bare ? m.area : 0), 0);
  const clay = area(false);
  return {
    field,
    box: extent,
    board: boardOf(piece),
    clad: clay > 0 ? clay / (clay + area(true)) : 1,
    front: () => frontOf(piece),
  };
}

/** The kind and the cast that were chosen, m2 of the face the mould lies on, and m3 of the piece. */
export function castFrom(
  piece: Piece,
  chosen: MouldChosen,
): { readonly kind: MouldKind; readonly cast: CastKind; readonly area: number; readonly volume: number } {
  const kind: MouldKind = mouldKinds.find((k) => k.id === chosen.kind)!;
  const cast: CastKind = castKinds.find((c) => c.id === chosen.cast)!;
  const { clad = 1, front } = masterOf(piece);
  const face = piece.volumes.perMass.reduce((sum, m) => sum + m.area, 0);
  return { kind, cast, area: face * clad * (kind.open ? (front?.() ?? 1) : 1), volume: piece.volumes.outerVolume };
}

/** By what was sampled: most edits leave the form as it was. */
const fronts = new WeakMap<Piece['grid'], { readonly of: string; readonly share: number }>();

/** Of what bears clay, the share that lies under a mould that is open behind. */
function frontOf(piece: Piece): number {
  const { grid, form, build } = piece;
  const bare = form.masses.map((m) => isBare(m));
  const of = JSON.stringify([bare, build.mould.keepFree, build.form.start.size]);
  const known = fronts.get(grid);
  if (known?.of === of) return known.share;
  const surface = extractSurface(grid);
  const stands = ofBareMasses(surface, form.masses);
  const { share } = openSide({
    ...measureTriangles(surface),
    stands: stands.includes(0) ? stands : stands.fill(0),
    kept: keptFreeOf(piece, surface),
  });
  fronts.set(grid, { of, share });
  return share;
}

/** By triangle: what bears no clay, as the head a mask is made over, or an object left bare. */
export function ofBareMasses(surface: SurfaceMesh, masses: Piece['form']['masses']): Uint8Array {
  return new Uint8Array(surface.triangles.length / 3).map((_, t) =>
    isBare(masses[surface.owners[surface.triangles[3 * t]!]!]) ? 1 : 0,
  );
}

/** Parts of a face that look at one: names of masses as start forms give them. An ear is cut through without harm. */
const ofAFace =
  /^(?!ear)(?:.*-)?(brow|eye|lid|nose|lip|mouth|cheek|cheekbone|chin|jaw|upper-jaw|lower-teeth|teeth|fang|tusk|bag|fold|furrow|socket|forehead|face-core|face|muzzle|snout|beak|bill)(-|$)/;

/** By triangle: where no seam is wanted, on a face, on what else is named by its region, and where it was painted. */
export function keptFreeOf({ form, build }: Pick<Piece, 'form' | 'build'>, surface: SurfaceMesh): Uint8Array {
  const { face, regions, spots } = build.mould.keepFree;
  const { size } = build.form.start;
  const dear = form.masses.map((m) => (face && ofAFace.test(m.id)) || regions.includes(m.region));
  const balls = spots.map(({ at, radius }) => ({ at: scale(at, size), radius: radius * size }));
  const { positions: p, triangles } = surface;
  return new Uint8Array(triangles.length / 3).map((_, t) => {
    const first = triangles[3 * t]!;
    if (dear[surface.owners[first]!]) return 1;
    const at: Vec3 = [p[3 * first]!, p[3 * first + 1]!, p[3 * first + 2]!];
    return balls.some((b) => distance(at, b.at) <= b.radius) ? 1 : 0;
  });
}
