import type { FrameLoad } from '../armature';
import {
  amountIndex,
  groundUnder,
  hungInWind,
  lumpedCentre,
  stanceInWind,
  stationShare,
  stationsPerBone,
  windOn,
  windPressure,
  windSides,
  type LifeStage,
  type LumpedLoad,
  type Outline,
  type Stance,
  type WindReport,
} from '../load';
import { cross, gravity, type Vec3 } from '../quantity';
import type { Piece } from './piece';

/** What a gust does to the frame, and whether the piece stands in it. */

/** What wind presses on is solved with three times what it asks, as what stands above people is. */
const windSafety = 3;

const asArea = { clayDensity: [1], bulkOn: false } as unknown as LifeStage;

function outlineOf(load: LumpedLoad): Outline {
  const { mass, at } = lumpedCentre(load, asArea, 0);
  return { area: mass, at };
}

/** The pushes of a gust on the bones, one set a side. Guys keep it from tipping; the frame is judged as if they did no more. */
export function windStage(piece: Piece, finished: Pick<LifeStage, 'clayDensity'>): LifeStage {
  const outlines = piece.outlines();
  const q = windPressure(piece.build.brief.outdoors!.gust);
  const pushes = outlines.map((load, side): FrameLoad[] => {
    const [x, y] = windSides[side]!.way;
    const way: Vec3 = [x * q, y * q, 0];
    const out: FrameLoad[] = [];
    for (let b = 0; b < load.bones.length; b++)
      for (let s = 0; s < stationsPerBone; s++) {
        let area = 0;
        const first: [number, number, number] = [0, 0, 0];
        for (const c of [0, load.components - 1]) {
          const i = amountIndex(load, b, s, c);
          area += load.amounts[i]!;
          for (let k = 0; k < 3; k++) first[k]! += load.amounts[i + 1 + k]!;
        }
        if (area > 0)
          out.push({
            member: load.bones[b]!.id,
            at: stationShare(s),
            force: [way[0] * area, way[1] * area, 0],
            moment: cross(first, way),
          });
      }
    return out;
  });
  return {
    id: 'wind',
    name: 'in the wind',
    bulkOn: true,
    clayDensity: finished.clayDensity,
    wet: false,
    safety: windSafety,
    accelerations: windSides.map(() => [0, 0, -gravity]),
    causes: windSides.map(({ from }) => `wind from ${from}`),
    pushes,
    propped: 'lasting',
  };
}

/** Whether it stands in the gust it is to stand, by the stance it has when it is finished. */
export function windReport(piece: Piece, stance: Stance): WindReport {
  const outlines = piece.outlines();
  const { gust } = piece.build.brief.outdoors!;
  const { armature, build } = piece;
  const { base } = armature;
  const ground = groundUnder(base);
  const sides = windOn(gust, outlines.map(outlineOf));
  const height = (s: { readonly at: Vec3 }) => Math.max(0, s.at[2] - ground);
  const worst = sides.reduce((w, s) => (s.force * height(s) > w.force * height(w) ? s : w));
  const top = armature.nodes.reduce((z, n) => Math.max(z, n.at[2]), 0);
  const hung = build.armature.mount.kind === 'hangs';
  return {
    gust,
    worst,
    height: height(worst),
    stands:
      build.armature.mount.kind === 'stands' ? stanceInWind(sides, stance, ground, base.standing, base.at, top) : null,
    hangs: hung ? hungInWind(sides, stance.mass) : null,
  };
}
