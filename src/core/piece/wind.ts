import { sectionAcross, type FrameLoad, type Member } from '../armature';
import { denseGrid, type Parcels, type VoxelGrid } from '../form';
import {
  amountIndex,
  groundUnder,
  hungInWind,
  lumpedCentre,
  lumpLoad,
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
import { cross, distance, gravity, type Vec3 } from '../quantity';
import type { Piece } from './piece';

/** The piece's outline from eight sides, what a gust does to its frame, and whether it stands. */

/** What wind presses on is solved with three times what it asks, as what stands above people is. */
const windSafety = 3;

/** The outline from one side as parcels of area on the masses that meet the wind first; m2 where clay has m3. */
function outlineFrom(
  { step, origin }: VoxelGrid,
  dense: ReturnType<typeof denseGrid>,
  way: readonly [number, number],
): Parcels {
  const { size, distances, owners } = dense;
  const [nx, ny, nz] = size;
  const across: readonly [number, number] = [-way[1], way[0]];
  const span = nx + ny + 2;
  // Of each place in the outline, the cell that stands farthest into the wind.
  const first = new Int32Array(2 * span * nz).fill(-1);
  const depth = new Float64Array(first.length).fill(Infinity);
  for (let z = 0, i = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++, i++) {
        if (distances[i]! > 0) continue;
        const u = Math.floor((x + 0.5) * across[0] + (y + 0.5) * across[1] + span),
          into = x * way[0] + y * way[1];
        const at = u + 2 * span * z;
        if (into >= depth[at]!) continue;
        depth[at] = into;
        first[at] = i;
      }
  const cells = first.filter((i) => i >= 0);
  const count = cells.length;
  const centre = new Float64Array(count * 3);
  cells.forEach((i, k) => {
    centre[k * 3] = origin[0] + ((i % nx) + 0.5) * step;
    centre[k * 3 + 1] = origin[1] + ((Math.floor(i / nx) % ny) + 0.5) * step;
    centre[k * 3 + 2] = origin[2] + (Math.floor(i / (nx * ny)) + 0.5) * step;
  });
  return {
    count,
    mass: Uint16Array.from(cells, (i) => owners[i]!),
    clayVolume: new Float64Array(count).fill(step * step),
    clayCentre: centre,
    bulkVolume: new Float64Array(count),
    bulkCentre: centre,
  };
}

/** Outlines hung on the bones, by `windSides`; poles that stand outside the form with their width too. */
export function outlinesOf({
  grid,
  armature,
  form,
  countedWith,
  stockOf,
}: Pick<Piece, 'grid' | 'armature' | 'form' | 'stockOf'> & { readonly countedWith: ArrayLike<number> }): LumpedLoad[] {
  const dense = denseGrid(grid);
  const bare = (m: Member) => {
    const size = m.bare ? stockOf(m.stock)?.sizes.find((s) => s.id === m.size) : undefined;
    const length = m.path.slice(1).reduce((sum, p, i) => sum + distance(m.path[i]!, p), 0);
    return size ? length * sectionAcross(size.section) : 0;
  };
  return windSides.map(({ way }) =>
    lumpLoad(
      outlineFrom(grid, dense, way),
      form.masses.map(() => 0),
      1,
      form.masses.map((m) => m.id),
      armature.nodes,
      armature.bones,
      armature.members,
      bare,
      [],
      countedWith,
    ),
  );
}

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
