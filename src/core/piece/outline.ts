import { sectionAcross, type Armature, type Member } from '../armature';
import type { Stock } from '../catalogue';
import { denseGrid, type Parcels, type VoxelGrid } from '../form';
import { lumpLoad, windSides, type LumpedLoad } from '../load';
import { distance } from '../quantity';

/** The piece's outline from eight sides: what wind presses on, and which bones it pushes. */
interface OutlinedPiece {
  readonly grid: VoxelGrid;
  readonly armature: Armature;
  readonly form: { readonly masses: readonly { readonly id: string }[] };
  readonly countedWith: ArrayLike<number>;
  readonly stockOf: (id: string) => Stock | undefined;
}

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
export function outlinesOf({ grid, armature, form, countedWith, stockOf }: OutlinedPiece): LumpedLoad[] {
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
