import { capacityAt, compositeSection, type Armature } from '../armature';
import type { ClayHold } from '../clay';
import { blockSide, cellsPerBlock, deepOwner, isOutside, type Mass, type VoxelGrid } from '../form';
import { distance, gravity, mix, type Vec3 } from '../quantity';

const { abs, ceil, cbrt, floor, hypot, max, min, PI, round, sqrt } = Math;

/**
 * What hangs on nothing: clay and bulk that no wire, pipe or post, no object and not the board comes near enough to, or
 * that is not joined to anything that one of these holds.
 *
 * From what holds, distance is measured through the piece. What lies beyond some distance hangs on the section there: its
 * weight bends that section, and the section bears what clay and bulk of its size bear (`armature/cross-section.ts`).
 */
export interface Unsupported {
  /** kg, wet. */
  readonly weight: number;
  readonly at: Vec3;
  /** Index of the mass the middle of it lies in. */
  readonly mass: number;
  /** Metres through the piece from the nearest thing that holds; Infinity when none is joined to it. */
  readonly away: number;
  /** What is asked of the section it hangs on, of what that bears; Infinity without one. */
  readonly utilisation: number;
}

export interface SupportInputs {
  readonly grid: VoxelGrid;
  readonly masses: readonly Mass[];
  /** Depth of the core under the face by mass, Infinity where it is clay throughout. */
  readonly coreDepths: ArrayLike<number>;
  /** kg/m3. */
  readonly clayDensity: number;
  readonly bulkDensity: number;
  readonly clay: ClayHold;
  readonly grip: number;
  readonly bulk: { readonly stiffness: number; readonly crushing: number } | null;
  readonly armature: Pick<Armature, 'nodes' | 'bones' | 'members' | 'base'>;
}

/** Cells to look at: coarser than what volumes are measured by where there are more. */
const mostCells = 20_000;
/** Less than this, in kg, is a speck at the tip of something. */
const speck = 0.001;

/** The piece in cells, those with something in them numbered one after another. */
interface Cells {
  readonly count: number;
  readonly step: number;
  readonly from: Vec3;
  readonly size: readonly [number, number, number];
  /** Number of the cell at a place of the padded box (`slotOf`), -1 where there is nothing; and the place of each. */
  readonly numberAt: Int32Array;
  readonly slot: Int32Array;
  /** Steps in the box to the 26 neighbours, and how far off each is. */
  readonly ways: Int32Array;
  readonly reach: Float64Array;
  /** Middle of each, three figures. */
  readonly places: Float64Array;
  /** m3 of clay, and of both; kg; the owner; whether it is an object that does not give. */
  readonly clay: Float64Array;
  readonly volume: Float64Array;
  readonly weight: Float64Array;
  readonly owner: Uint16Array;
  readonly rigid: Uint8Array;
}

/** Worst first; what is left over of a section's strength is in them too, down to a half asked. */
export function unsupportedOf(input: SupportInputs): Unsupported[] {
  const cells = gather(input);
  const away = distances(cells, seedsOf(cells, input));
  return [...afloat(cells, away), ...overhanging(cells, away, input)].sort(
    (a, b) => b.utilisation - a.utilisation || b.weight - a.weight,
  );
}

/** One empty cell lies all round, so that every neighbour is within the box. */
function slotOf(size: readonly [number, number, number], x: number, y: number, z: number): number {
  return x + 1 + (size[0] + 2) * (y + 1 + (size[1] + 2) * (z + 1));
}

function gather({ grid, masses, coreDepths, clayDensity, bulkDensity }: SupportInputs): Cells {
  let inside = 0;
  for (const slot of grid.slots) if (slot < 0 && !isOutside(slot)) inside += cellsPerBlock;
  for (let i = 0; i < grid.evaluated * cellsPerBlock; i++) if (grid.distances[i]! < 0) inside++;
  const by = max(1, ceil(cbrt(inside / mostCells)));
  const size = grid.blocks.map((b) => ceil((b * blockSide) / by)) as [number, number, number];
  const [px, py, pz] = [size[0] + 2, size[1] + 2, size[2] + 2];
  const numberAt = new Int32Array(px * py * pz).fill(-1);
  const cell = grid.step ** 3;
  const most = inside + 4 * grid.evaluated * blockSide ** 2 + 8;
  const clay = new Float64Array(most),
    volume = new Float64Array(most),
    weight = new Float64Array(most);
  const owner = new Uint16Array(most),
    rigid = new Uint8Array(most),
    slots = new Int32Array(most);
  const object = masses.map((m) => m.role === 'bare' || m.role === 'core');
  const bare = masses.map((m) => m.role === 'bare');
  let count = 0;
  // By the place of a cell along each way, how far that brings it in the box.
  const alongX = Int32Array.from({ length: grid.blocks[0] * blockSide }, (_, x) => floor(x / by) + 1),
    alongY = Int32Array.from({ length: grid.blocks[1] * blockSide }, (_, y) => px * (floor(y / by) + 1)),
    alongZ = Int32Array.from({ length: grid.blocks[2] * blockSide }, (_, z) => px * py * (floor(z / by) + 1));
  const coreCells = Float64Array.from(masses, (_, m) => (bare[m] ? 0 : coreDepths[m]! / grid.step));
  const [bx, by2] = grid.blocks;
  grid.slots.forEach((at, b) => {
    if (isOutside(at)) return;
    const deep = deepOwner(at);
    const x0 = (b % bx) * blockSide,
      y0 = (floor(b / bx) % by2) * blockSide,
      z0 = floor(b / (bx * by2)) * blockSide;
    const first = at * cellsPerBlock;
    for (let c = 0; c < cellsPerBlock; c++) {
      let d: number, m: number;
      if (deep >= 0) {
        m = deep;
        // What lies deep is core wherever there is one.
        d = coreDepths[m] === Infinity ? -1 : -Infinity;
      } else {
        d = grid.distances[first + c]! / grid.step;
        if (d >= 0.5) continue;
        m = grid.owners[first + c]!;
      }
      const slot =
        alongX[x0 + (c % blockSide)]! +
        alongY[y0 + (floor(c / blockSide) % blockSide)]! +
        alongZ[z0 + floor(c / blockSide ** 2)]!;
      let to = numberAt[slot]!;
      if (to < 0) {
        to = numberAt[slot] = count++;
        slots[to] = slot;
      }
      const within = min(1, 0.5 - d);
      const core = min(within, max(0, min(1, 0.5 - d - coreCells[m]!)));
      volume[to]! += within * cell;
      clay[to]! += (within - core) * cell;
      weight[to]! += ((within - core) * clayDensity + (bare[m] ? 0 : core * bulkDensity)) * cell;
      owner[to] = m;
      if (object[m] && core > 0.5) rigid[to] = 1;
    }
  });
  const step = grid.step * by;
  const places = new Float64Array(count * 3);
  for (let i = 0; i < count; i++) {
    const s = slots[i]!;
    places[i * 3] = grid.origin[0] + ((s % px) - 0.5) * step;
    places[i * 3 + 1] = grid.origin[1] + ((floor(s / px) % py) - 0.5) * step;
    places[i * 3 + 2] = grid.origin[2] + (floor(s / (px * py)) - 0.5) * step;
  }
  const ways: number[] = [],
    reach: number[] = [];
  for (let c = 0; c < 27; c++) {
    const [dx, dy, dz] = [(c % 3) - 1, (floor(c / 3) % 3) - 1, floor(c / 9) - 1];
    if (c === 13) continue;
    ways.push(dx + px * (dy + py * dz));
    reach.push(step * hypot(dx, dy, dz));
  }
  return {
    count,
    step,
    from: grid.origin,
    size,
    numberAt,
    slot: slots,
    ways: Int32Array.from(ways),
    reach: Float64Array.from(reach),
    places,
    clay,
    volume,
    weight,
    owner,
    rigid,
  };
}

/** The cell a place lies in, -1 outside the piece. */
function cellAt({ size, step, from, numberAt }: Cells, p: Vec3): number {
  const x = floor((p[0] - from[0]) / step),
    y = floor((p[1] - from[1]) / step),
    z = floor((p[2] - from[2]) / step);
  if (x < 0 || y < 0 || z < 0 || x >= size[0] || y >= size[1] || z >= size[2]) return -1;
  return numberAt[slotOf(size, x, y, z)]!;
}

/** A bone that has nothing along it is the clay and bulk round it: it holds where it lies within them. */
const mostlyWithin = 0.9;

/** Cells that something holds: along members, along bones of clay and bulk, and on the board. */
function seedsOf(cells: Cells, { armature }: SupportInputs): number[] {
  const { nodes, bones, members, base } = armature;
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const along = new Set(members.flatMap((m) => m.bones));
  const through = (a: Vec3, b: Vec3): number[] => {
    const pieces = max(1, ceil(distance(a, b) / (cells.step / 2)));
    return Array.from({ length: pieces + 1 }, (_, k) => cellAt(cells, mix(a, b, k / pieces)));
  };
  const ends = (b: (typeof bones)[number]) => [place.get(b.from)!, place.get(b.to)!] as const;
  const ofClay = new Set(
    bones.filter((b) => {
      if (along.has(b.id) || b.tie) return false;
      const met = through(...ends(b));
      return met.filter((i) => i >= 0).length >= mostlyWithin * met.length;
    }),
  );
  // What leads to nothing that is built into the base holds nothing.
  const carried = reached(
    nodes.filter((n) => n.held).map((n) => n.id),
    bones.filter((b) => along.has(b.id) || ofClay.has(b)),
  );
  const holding = new Set(bones.filter((b) => carried.has(b.from) || carried.has(b.to)).map((b) => b.id));
  const out: number[] = [];
  for (const m of members)
    if (m.bones.length === 0 || m.bones.some((b) => holding.has(b)))
      for (let i = 1; i < m.path.length; i++) out.push(...through(m.path[i - 1]!, m.path[i]!));
  for (const b of ofClay) if (holding.has(b.id)) out.push(...through(...ends(b)));
  return [...out.filter((i) => i >= 0), ...onTheBoard(cells, base)];
}

function reached(from: readonly string[], bones: Armature['bones']): Set<string> {
  const out = new Set(from);
  for (let grew = true; grew;) {
    grew = false;
    for (const b of bones) {
      if (out.has(b.from) === out.has(b.to)) continue;
      out.add(b.from).add(b.to);
      grew = true;
    }
  }
  return out;
}

/** What lies on the board, or on the ground where it stands without one. */
function onTheBoard({ places, count, step }: Cells, base: Armature['base']): number[] {
  const own = base.standing === 'own';
  let ground = 0;
  if (own) {
    ground = Infinity;
    for (let i = 0; i < count; i++) ground = min(ground, places[i * 3 + 2]!);
  }
  const out: number[] = [];
  for (let i = 0; i < count; i++) {
    if (places[i * 3 + 2]! > ground + step) continue;
    const over =
      2 * abs(places[i * 3]! - base.at[0]) <= base.width && 2 * abs(places[i * 3 + 1]! - base.at[1]) <= base.depth;
    if (own || over) out.push(i);
  }
  return out;
}

/** Metres through the piece from the nearest of some cells; an object is no way at all. Infinity where none leads. */
function distances({ count, step, slot, ways, reach, numberAt, rigid }: Cells, seeds: readonly number[]): Float64Array {
  const away = new Float64Array(count).fill(Infinity);
  const shell = step / 2;
  const shells: number[][] = [[]];
  for (const i of seeds) {
    if (away[i] === 0) continue;
    away[i] = 0;
    shells[0]!.push(i);
  }
  for (let s = 0; s < shells.length; s++) {
    const now = shells[s];
    if (!now) continue;
    for (let n = 0; n < now.length; n++) {
      const i = now[n]!;
      if (floor(away[i]! / shell) !== s) continue;
      for (let w = 0; w < 26; w++) {
        const j = numberAt[slot[i]! + ways[w]!]!;
        if (j < 0) continue;
        const d = away[i]! + (rigid[i] && rigid[j] ? 0 : reach[w]!);
        if (!(d < away[j]! - 1e-12)) continue;
        away[j] = d;
        (shells[floor(d / shell)] ??= []).push(j);
      }
    }
  }
  return away;
}

/** The mass that the cell nearest to a place belongs to, among some. */
function massNear({ places, owner }: Cells, at: Vec3, among: readonly number[]): number {
  let best = among[0]!,
    least = Infinity;
  for (const i of among) {
    const d = hypot(places[i * 3]! - at[0], places[i * 3 + 1]! - at[1], places[i * 3 + 2]! - at[2]);
    if (d < least) [best, least] = [i, d];
  }
  return owner[best]!;
}

/** Lots that nothing that holds is joined to. */
function afloat(cells: Cells, away: Float64Array): Unsupported[] {
  const { count, slot, ways, numberAt, weight, places } = cells;
  const seen = new Uint8Array(count);
  const out: Unsupported[] = [];
  for (let start = 0; start < count; start++) {
    if (seen[start] || away[start]! < Infinity) continue;
    const lot = [start];
    seen[start] = 1;
    const sum = [0, 0, 0, 0] as [number, number, number, number];
    for (let n = 0; n < lot.length; n++) {
      const i = lot[n]!;
      sum[3] += weight[i]!;
      for (let k = 0; k < 3; k++) sum[k]! += weight[i]! * places[i * 3 + k]!;
      for (let w = 0; w < 26; w++) {
        const j = numberAt[slot[i]! + ways[w]!]!;
        if (j < 0 || seen[j]) continue;
        seen[j] = 1;
        lot.push(j);
      }
    }
    if (sum[3] <= speck) continue;
    const at: Vec3 = [sum[0] / sum[3], sum[1] / sum[3], sum[2] / sum[3]];
    out.push({ weight: sum[3], at, mass: massNear(cells, at, lot), away: Infinity, utilisation: Infinity });
  }
  return out;
}

/** Lots of cells that are joined as the shells come in; the sums of each, and what was found of it, are with its root. */
class Lots {
  private readonly parent: Int32Array;
  readonly weight: Float64Array;
  private readonly moment: Float64Array;
  readonly furthest: Float64Array;
  readonly found = new Map<number, Unsupported[]>();

  constructor({ count, weight, places }: Cells, away: Float64Array) {
    this.parent = new Int32Array(count);
    this.weight = weight.slice(0, count);
    this.moment = new Float64Array(count * 3);
    this.furthest = away.slice();
    for (let i = 0; i < count; i++) {
      this.parent[i] = i;
      for (let k = 0; k < 3; k++) this.moment[i * 3 + k] = places[i * 3 + k]! * weight[i]!;
    }
  }

  of(i: number): number {
    const { parent } = this;
    let at = i;
    while (parent[at] !== at) at = parent[at] = parent[parent[at]!]!;
    return at;
  }

  join(a: number, b: number): void {
    const to = this.of(a),
      from = this.of(b);
    if (to === from) return;
    this.parent[from] = to;
    this.weight[to]! += this.weight[from]!;
    for (let k = 0; k < 3; k++) this.moment[to * 3 + k]! += this.moment[from * 3 + k]!;
    this.furthest[to] = max(this.furthest[to]!, this.furthest[from]!);
    const other = this.found.get(from);
    if (!other) return;
    this.found.set(to, [...(this.found.get(to) ?? []), ...other]);
    this.found.delete(from);
  }

  middle(i: number): Vec3 {
    const w = max(1e-300, this.weight[i]!);
    return [this.moment[i * 3]! / w, this.moment[i * 3 + 1]! / w, this.moment[i * 3 + 2]! / w];
  }
}

/** From the furthest inward, shell by shell: what lies beyond hangs on the section that the shell is. */
function overhanging(cells: Cells, away: Float64Array, input: SupportInputs): Unsupported[] {
  const { count, step, slot, ways, numberAt } = cells;
  const lots = new Lots(cells, away);
  const shells: number[][] = [];
  const shellOf = new Int32Array(count).fill(-1);
  for (let i = 0; i < count; i++)
    if (away[i]! < Infinity) {
      shellOf[i] = round(away[i]! / step);
      (shells[shellOf[i]!] ??= []).push(i);
    }
  for (let s = shells.length - 1; s > 0; s--) {
    const shell = shells[s] ?? [];
    for (const i of shell)
      for (let w = 0; w < 26; w++) {
        const j = numberAt[slot[i]! + ways[w]!]!;
        if (j >= 0 && shellOf[j]! >= s) lots.join(i, j);
      }
    const sections = new Map<number, number[]>();
    for (const i of shell) {
      const lot = lots.of(i);
      const own = sections.get(lot);
      if (own) own.push(i);
      else sections.set(lot, [i]);
    }
    for (const [lot, own] of sections) {
      const weight = lots.weight[lot]!;
      if (weight <= speck) continue;
      const at = lots.middle(lot);
      const utilisation = askedOf(cells, own, s * step, weight, at, input);
      const before = lots.found.get(lot) ?? [];
      const worst = before.reduce((most, b) => max(most, b.utilisation), utilisation);
      // What fails further in takes what hangs beyond with it; what only nears its limit is told by its worst.
      if (utilisation > 1 || (utilisation > nearLimit && worst === utilisation))
        lots.found.set(lot, [
          { weight, at, mass: massNear(cells, at, own), away: lots.furthest[lot]!, utilisation: worst },
        ]);
    }
  }
  return [...lots.found.values()].flat();
}
const nearLimit = 0.5;

/**
 * Nearer to what holds it than this share of its own breadth a shell is what bears on the wire, no section of the piece:
 * how a wire bites is not told here.
 */
const biting = 1 / 4;

/**
 * What a weight asks of the section it hangs on, `off` metres from what holds: bending and its plain pull, of what clay and
 * bulk of that size bear.
 */
function askedOf(
  cells: Cells,
  section: readonly number[],
  off: number,
  weight: number,
  middle: Vec3,
  input: SupportInputs,
): number {
  let volume = 0,
    clay = 0,
    x = 0,
    y = 0;
  for (const i of section) {
    const v = cells.volume[i]!;
    volume += v;
    clay += cells.clay[i]!;
    x += v * cells.places[i * 3]!;
    y += v * cells.places[i * 3 + 1]!;
  }
  const area = volume / cells.step;
  const outer = sqrt((4 * area) / PI),
    core = outer * sqrt(max(0, 1 - clay / volume));
  if (off < biting * outer) return 0;
  const { bulk, clay: hold, grip } = input;
  const bears = compositeSection({
    metal: [],
    bulk: bulk && core > 0 ? { diameter: core, stiffness: bulk.stiffness, crushing: bulk.crushing } : null,
    clay: { outer, core, ...hold, grip },
  });
  const moment = weight * gravity * hypot(middle[0] - x / volume, middle[1] - y / volume);
  const pull = weight * gravity;
  // In plain tension clay bears what it does in bending.
  const inTension = bears.bulkAxial + (2 * hold.yieldStress * PI * (outer ** 2 - core ** 2)) / 4 / hold.margin;
  return moment / max(1e-12, capacityAt(bears, 1).moment) + pull / max(1e-12, inTension);
}
