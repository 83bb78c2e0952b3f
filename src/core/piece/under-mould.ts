import type { LifeStage } from '../load';
import {
  mouldChosen,
  mouldKinds,
  mouldMaterials,
  swells,
  type LaidOn,
  type MouldKind,
  type MouldKindId,
} from '../mould';
import { gravity, type Vec3 } from '../quantity';
import type { Piece } from './piece';

/** The piece under a mould that is brushed or laid on it: wet, it hangs on the clay, and the clay on the frame. */

export const underMould = 'mould';
export const underMouldName = 'under its mould, wet';

/** N: a hand where the mould is opened. */
const hand = 50;

/** kg to a m2 of face that hang on the piece as it stands; null where none do: no mould, a poured one, or the piece lies on its bed. */
export function mouldPerArea(build: Piece['build'], on: LaidOn): number | null {
  return build.mould.posture === 'lying' ? null : laidPerArea(build, on);
}

/** kg to a m2 of face, of skin and shell as they are laid over a piece; null where there is no mould, or it is poured or open behind. */
function laidPerArea(build: Piece['build'], on: LaidOn): number | null {
  const chosen = mouldChosen(build);
  if (!chosen) return null;
  const kind: MouldKind<MouldKindId> = mouldKinds.find((k) => k.id === chosen.kind)!;
  const { skin, shell } = kind;
  // One that is open behind is laid over a piece on its back.
  if (kind.open || (!skin && !shell)) return null;
  const of = (layer: MouldKind['skin'], thickness: number | null, under: number) =>
    layer && thickness !== null ? mouldMaterials[layer.material].density * thickness * swells(on, thickness, under) : 0;
  return of(skin, chosen.walls.skin, 0) + of(shell, chosen.walls.shell, chosen.walls.skin ?? 0);
}

/**
 * kg of a piece that lies for its mould, with the first half on, as it is turned over for the second; null for others. It
 * rides in that half, which bears it. `mass`: of the piece with its board.
 */
export function turnedMass(piece: Pick<Piece, 'build' | 'volumes'>, mass: number): number | null {
  const area = cladArea(piece);
  const perArea = laidPerArea(piece.build, { area, volume: piece.volumes.outerVolume });
  return piece.build.mould.posture === 'lying' && perArea !== null ? mass + (perArea * area) / 2 : null;
}

/** m2 of face that bear clay. */
function cladArea({ volumes }: Pick<Piece, 'volumes'>): number {
  return volumes.perMass.reduce((sum, m) => sum + (m.clay > 0 ? m.area : 0), 0);
}

/** The stage it is under, on the clay as it is when it is moulded; with a hand that opens it, from four sides. */
export function mouldStage(piece: Piece, finished: Pick<LifeStage, 'clayDensity' | 'safety'>): LifeStage | null {
  const perArea = mouldPerArea(piece.build, { area: cladArea(piece), volume: piece.volumes.outerVolume });
  const { masses, regions } = piece.form;
  if (perArea === null || finished.clayDensity.length === 0) return null;
  const clayDensity = finished.clayDensity.map((density, r) => {
    let area = 0,
      clay = 0;
    for (const [i, m] of piece.volumes.perMass.entries())
      if (masses[i]!.region === regions[r] && m.clay > 0) {
        area += m.area;
        clay += m.clay;
      }
    return clay > 0 ? density + (perArea * area) / clay : density;
  });
  // It is opened along its seam, as high as low: half way up.
  const half = (piece.extent.low[2] + piece.extent.high[2]) / 2;
  const off = (n: { readonly at: Vec3 }) => Math.abs(n.at[2] - half);
  const middle = piece.armature.nodes.reduce((best, n) => (off(n) < off(best) ? n : best));
  const ways: readonly Vec3[] = [
    [hand, 0, 0],
    [-hand, 0, 0],
    [0, hand, 0],
    [0, -hand, 0],
  ];
  return {
    id: underMould,
    name: underMouldName,
    bulkOn: true,
    clayDensity,
    wet: piece.clay.setting === 'damp' || piece.clay.setting === 'never',
    safety: finished.safety,
    accelerations: [[0, 0, -gravity], ...ways.map((): Vec3 => [0, 0, -gravity])],
    causes: ['its mould, wet', ...ways.map(() => 'a hand that opens the mould, 50 N')],
    pushes: [[], ...ways.map((force) => [{ node: middle.id, force }])],
    // A prop that stands until the clay is dry is gone, and one under the clay is in the mould's way.
    propped: 'lasting',
  };
}
