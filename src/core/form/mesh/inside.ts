import { latticeIndex, latticePlace, latticeSize, type Lattice } from './lattice';
import type { Progress, TriangleMesh } from './triangle-mesh';
import { around } from './ways-in-solid';
import { Winding } from './winding';

const { abs, ceil, floor, hypot, max, min, round } = Math;

/** Which places of a lattice lie inside a mesh, and how sure that is. */
export interface Inside {
  /** 1 inside. */
  readonly inside: Uint8Array;
  /** 1 where it is in doubt: half gone round. */
  readonly doubt: Uint8Array;
  /** The mesh goes round some place more than once. */
  readonly overlaps: boolean;
  /** Places the winding number was worked out at. */
  readonly evaluated: number;
}

/** Blocks of so many places a side are filled whole where no face of the mesh is in them and their corners agree. */
const side = 4;
/** A block is plain when its corners are all under the one or over the other; what lies between them is in doubt. */
const plainOut = 0.3;
const plainIn = 0.7;

/** The slow twin asks at every place. */
export function windingInside(
  mesh: TriangleMesh,
  lattice: Lattice,
  options: { readonly everyPlace?: boolean; readonly progress?: Progress } = {},
): Inside {
  const winding = new Winding(mesh);
  const { cells, step, from } = lattice;
  const inside = new Uint8Array(latticeSize(lattice));
  const blocks = cells.map((n) => ceil(n / side)) as [number, number, number];
  const at = (x: number, y: number, z: number) =>
    winding.at(from[0] + x * step, from[1] + y * step, from[2] + z * step);
  const faced = blocksWithFaces(mesh, lattice, blocks);
  const corners = blocks.map((b) => b + 1) as [number, number, number];
  const atCorner = new Float32Array(corners[0] * corners[1] * corners[2]).fill(NaN);
  let overlaps = false;
  let evaluated = 0;
  const doubt = new Uint8Array(inside.length);
  const corner = (x: number, y: number, z: number): number => {
    const i = x + corners[0] * (y + corners[1] * z);
    if (Number.isNaN(atCorner[i]!)) {
      evaluated++;
      atCorner[i] = at(x * side, y * side, z * side);
    }
    return atCorner[i]!;
  };
  for (let bz = 0; bz < blocks[2]; bz++) {
    options.progress?.(bz / blocks[2]);
    for (let by = 0; by < blocks[1]; by++) {
      for (let bx = 0; bx < blocks[0]; bx++) {
        let out = true,
          within = true;
        if (options.everyPlace || faced[bx + blocks[0] * (by + blocks[1] * bz)]) out = within = false;
        for (let c = 0; c < 8 && (out || within); c++) {
          const w = corner(bx + (c & 1), by + ((c >> 1) & 1), bz + (c >> 2));
          out = out && w < plainOut;
          within = within && w > plainIn;
          if (w > 1.5) overlaps = true;
        }
        if (out) continue;
        for (let z = bz * side; z < min(cells[2], (bz + 1) * side); z++)
          for (let y = by * side; y < min(cells[1], (by + 1) * side); y++)
            for (let x = bx * side; x < min(cells[0], (bx + 1) * side); x++) {
              let w = 1;
              if (!within) {
                evaluated++;
                w = at(x, y, z);
              }
              const i = latticeIndex(lattice, x, y, z);
              if (w > 0.5) inside[i] = 1;
              if (w > 1.5) overlaps = true;
              if (w >= plainOut && w < plainIn) doubt[i] = 1;
            }
      }
    }
  }
  return {
    inside,
    doubt,
    overlaps,
    evaluated,
  };
}

/** Blocks that a triangle comes into, its corners to the next block's counted: its box and its plane both meet the block. */
function blocksWithFaces(mesh: TriangleMesh, lattice: Lattice, blocks: readonly [number, number, number]): Uint8Array {
  const faced = new Uint8Array(blocks[0] * blocks[1] * blocks[2]);
  const { positions: p, triangles: t } = mesh;
  const { step, from } = lattice;
  const size = side * step;
  const slack = 1e-3 * step;
  for (let f = 0; f < t.length; f += 3) {
    const a = t[f]! * 3,
      b = t[f + 1]! * 3,
      c = t[f + 2]! * 3;
    const first = [0, 0, 0],
      last = [0, 0, 0];
    for (let k = 0; k < 3; k++) {
      const low = min(p[a + k]!, p[b + k]!, p[c + k]!) - from[k as 0] - slack,
        high = max(p[a + k]!, p[b + k]!, p[c + k]!) - from[k as 0] + slack;
      first[k] = max(0, floor(low / size));
      last[k] = min(blocks[k as 0] - 1, floor(high / size));
    }
    const ux = p[b]! - p[a]!,
      uy = p[b + 1]! - p[a + 1]!,
      uz = p[b + 2]! - p[a + 2]!;
    const vx = p[c]! - p[a]!,
      vy = p[c + 1]! - p[a + 1]!,
      vz = p[c + 2]! - p[a + 2]!;
    const nx = uy * vz - uz * vy,
      ny = uz * vx - ux * vz,
      nz = ux * vy - uy * vx;
    const reach = (size / 2 + slack) * (abs(nx) + abs(ny) + abs(nz));
    for (let z = first[2]!; z <= last[2]!; z++)
      for (let y = first[1]!; y <= last[1]!; y++)
        for (let x = first[0]!; x <= last[0]!; x++) {
          const away =
            nx * (from[0] + (x + 0.5) * size - p[a]!) +
            ny * (from[1] + (y + 0.5) * size - p[a + 1]!) +
            nz * (from[2] + (z + 0.5) * size - p[a + 2]!);
          if (abs(away) <= reach) faced[x + blocks[0] * (y + blocks[1] * z)] = 1;
        }
  }
  return faced;
}

/** How many of the 26 ways from each place run into a wall, walls themselves 26. */
function waysIntoWall(wall: Uint8Array, { cells }: Pick<Lattice, 'cells'>): Uint8Array {
  const [nx, ny, nz] = cells;
  const counts = new Uint8Array(wall.length);
  const hit = new Uint8Array(wall.length);
  for (const [dx, dy, dz] of around) {
    const step = dx + nx * (dy + ny * dz);
    // What lies further along is looked at first.
    for (let k = 0; k < nz; k++) {
      const z = dz > 0 ? nz - 1 - k : k;
      const edgeZ = z + dz < 0 || z + dz >= nz;
      for (let j = 0; j < ny; j++) {
        const y = dy > 0 ? ny - 1 - j : j;
        const edgeY = edgeZ || y + dy < 0 || y + dy >= ny;
        for (let h = 0; h < nx; h++) {
          const x = dx > 0 ? nx - 1 - h : h;
          const i = x + nx * (y + ny * z);
          const found = edgeY || x + dx < 0 || x + dx >= nx ? 0 : wall[i + step]! | hit[i + step]!;
          hit[i] = found;
          counts[i] = counts[i]! + found;
        }
      }
    }
  }
  return counts;
}

/** A place in a hollow meets walls nearly every way; before a face of it that no air lies behind, most. */
const hollowPlace = 24;
const hollowFace = 22;
/** A wall of so many steps is no skin. */
const mostSkin = 4;
/** A hollow of less than this share of the solid is a nostril. */
const leastHollow = 0.05;

/**
 * Of a skin that is open at one end, as a head scanned from outside is, and of a pot: the faces that do not look into its
 * hollow, as those do that have more walls about what lies before them than about what lies behind. What the rest go round
 * is the whole. `wall` marks what is inside and what lies close about a face. Null where there is no hollow.
 */
export function outerFaces(mesh: TriangleMesh, wall: Uint8Array, lattice: Lattice): TriangleMesh | null {
  const counts = waysIntoWall(wall, lattice);
  let solid = 0,
    hollow = 0;
  for (let i = 0; i < wall.length; i++)
    if (wall[i]) solid++;
    else if (counts[i]! >= hollowPlace) hollow++;
  if (hollow <= leastHollow * solid) return null;
  const { positions: p, triangles: t } = mesh;
  const { cells, step, from } = lattice;
  const kept: number[] = [];
  for (let f = 0; f < t.length; f += 3) {
    const a = t[f]! * 3,
      b = t[f + 1]! * 3,
      c = t[f + 2]! * 3;
    const n = [0, 0, 0];
    for (let k = 0; k < 3; k++) {
      const u = (k + 1) % 3,
        v = (k + 2) % 3;
      n[k] = (p[b + u]! - p[a + u]!) * (p[c + v]! - p[a + v]!) - (p[b + v]! - p[a + v]!) * (p[c + u]! - p[a + u]!);
    }
    const long = hypot(n[0]!, n[1]!, n[2]!) || 1;
    const beside = (steps: number) =>
      latticeIndex(
        lattice,
        ...([0, 1, 2].map((k) => {
          const at = (p[a + k]! + p[b + k]! + p[c + k]!) / 3 + (n[k]! / long) * steps * step;
          return min(cells[k as 0] - 1, max(0, round((at - from[k as 0]) / step)));
        }) as [number, number, number]),
      );
    // Through the skin to the air behind it; where it is thick there is none.
    let behind = -1;
    while (behind > -mostSkin && wall[beside(behind)]) behind--;
    const before = counts[beside(1)]!;
    const looksIn = wall[beside(behind)] ? before >= hollowFace : before > counts[beside(behind)]!;
    if (!looksIn) kept.push(t[f]!, t[f + 1]!, t[f + 2]!);
  }
  return { positions: p, triangles: Uint32Array.from(kept) };
}

/** Fills what no way leads into from outside. Returns how many places that were. */
export function fillCavities(inside: Uint8Array, lattice: Lattice): number {
  const [nx, ny, nz] = lattice.cells;
  const open = new Uint8Array(inside.length);
  const stack = [0];
  open[0] = 1;
  while (stack.length > 0) {
    const i = stack.pop()!;
    const x = i % nx,
      y = floor(i / nx) % ny,
      z = floor(i / (nx * ny));
    const go = (j: number) => {
      if (open[j] || inside[j]) return;
      open[j] = 1;
      stack.push(j);
    };
    if (x > 0) go(i - 1);
    if (x < nx - 1) go(i + 1);
    if (y > 0) go(i - nx);
    if (y < ny - 1) go(i + nx);
    if (z > 0) go(i - nx * ny);
    if (z < nz - 1) go(i + nx * ny);
  }
  let n = 0;
  for (let i = 0; i < inside.length; i++)
    if (!inside[i] && !open[i]) {
      inside[i] = 1;
      n++;
    }
  return n;
}

export interface Lump {
  /** Share of all the inside. */
  readonly share: number;
  readonly at: readonly [number, number, number];
}

/** A piece of less than this share of the largest is a crumb; of so few places, a speck at the tip of something thin, and not told. */
const crumb = 0.02;
const speck = 8;

/** Takes pieces that hang together with nothing away where they are crumbs; says which stayed, largest first, and how many went. */
export function dropCrumbs(inside: Uint8Array, lattice: Lattice): { kept: Lump[]; dropped: number } {
  const [nx, ny] = lattice.cells;
  const steps = [1, -1, nx, -nx, nx * ny, -nx * ny];
  const seen = new Uint8Array(inside.length);
  const lumps: number[][] = [];
  for (let start = 0; start < inside.length; start++) {
    if (!inside[start] || seen[start]) continue;
    const lump = [start];
    seen[start] = 1;
    for (let n = 0; n < lump.length; n++)
      for (const s of steps) {
        const j = lump[n]! + s;
        if (!inside[j] || seen[j]) continue;
        seen[j] = 1;
        lump.push(j);
      }
    lumps.push(lump);
  }
  lumps.sort((a, b) => b.length - a.length);
  const total = lumps.reduce((n, l) => n + l.length, 0);
  const largest = lumps[0]?.length ?? 0;
  const kept: Lump[] = [];
  let dropped = 0;
  for (const lump of lumps) {
    if (lump.length < crumb * largest) {
      for (const i of lump) inside[i] = 0;
      if (lump.length > speck) dropped++;
      continue;
    }
    const sum = [0, 0, 0];
    for (const i of lump) latticePlace(lattice, i).forEach((v, k) => (sum[k]! += v));
    kept.push({ share: lump.length / total, at: sum.map((v) => v / lump.length) as [number, number, number] });
  }
  return { kept, dropped };
}
