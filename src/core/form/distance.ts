import { compile, type CompiledMass } from './compiled';
import {
  apartFromBound,
  askAgainstUnion,
  askAll,
  askFelt,
  beginCube,
  blended,
  cube,
  cubeSide,
  feltBeyond,
  haveMass,
  keepMass,
  leastAfter,
  leastOf,
  mergeCube,
  needBefore,
  shortfall,
  takeMass,
} from './cube';
import type { Mass } from './mass';
import { intoAxes, massCube } from './mass-cube';
import { massDistance, massTangent } from './mass-distance';

const { abs, hypot, max, min, sqrt } = Math;
/** A loop that asks for a global each time is slow under the unit runner. */
const none = Infinity;

export interface Box {
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

/** Masses near a cube from which it pays to bound it by the nearest first. */
const fewMasses = 6;

/** Metres that rounding and roots leave a tangent wrong by across a cube, with much to spare. */
const tangentSlack = 1e-6;
const tangent = new Float64Array(4);

/**
 * The form as one function of place: signed distance of a smooth union of masses, negative inside. Every primitive is
 * exact to 1e-9 m or rounding, and the union keeps a slope of at most 1, so a distance at a block's middle bounds the
 * whole block. Reads are into the object's own fields, so the hot loop allocates nothing.
 */
export class DistanceField {
  readonly compiled: readonly CompiledMass[];
  /** Largest blend of a mass and of all after it: how far a later one can still feel it. */
  readonly feltWithin: Float64Array;
  /** Four a mass: middle and radius of a sphere that holds it. */
  private readonly spheres: Float64Array;
  private readonly blends: Float64Array;
  private readonly scratch: Float64Array;
  /** Of a cube: the masses that can be felt there, planes they lie outside of, and how far each, and the union up to it, lies outside the nearest at least. */
  private readonly feltHere: Int32Array;
  private readonly planes: Float64Array;
  private readonly apart: Float64Array;
  private readonly unionApart: Float64Array;
  private readonly order: Int32Array;
  /** Whether `scratch` holds a bound only. */
  private readonly bounded: Uint8Array;
  /** By mass: a distance it is not nearer than, where the last `prune` without a move was. */
  private readonly known: Float64Array;
  /** Distance (or a bound under it) of each mass kept by the last `prune`, at its middle. */
  private readonly middle: Float64Array;
  /** Finely made: many small masses, counted together. */
  readonly many: boolean;
  /** Masses that are measured: of a mesh with limbs one stands for all of its parts. */
  readonly measured: number;
  /** The most a distance can change over a way of one: over one only where limbs are bent. */
  readonly slope: number;
  /** By mass: of the one that stands for a mesh with limbs, the mass of each joint. */
  private readonly partOfJoint = new Map<number, Int32Array>();
  private hint = 0;
  /** Index of the nearest mass at the last `at`. */
  owner = 0;
  /** From the last `prune`: distance at the middle, the nearest mass's there, masses kept, and how much nearer the nearest mass is than the next that is counted apart from it. */
  pruned = { distance: 0, nearest: 0, count: 0, nearestGap: 0 };

  /** By mass: the one it is counted with on a grid. */
  readonly countedWith: Uint16Array;
  /** Objects that stand bare under a shell: however large they are, it is the shell that cells have to be fine for. */
  readonly underShells: ReadonlySet<number>;

  /** Indices of the masses the form is made of, and of those that are cut out of its clay. */
  private readonly solid: Int32Array;
  private readonly openings: Int32Array;
  /** What lies under the clay that is cut: objects without it. */
  private readonly under: DistanceField | null;

  /**
   * `clay` holds what each mass's region carries, metres; only objects and shells ask for it. `countedWith` says for each
   * mass which one stands for it on a grid (itself, where nothing is said): where neighbours are counted together, what
   * lies deep in them need not be told apart. `named`: a grid's cells are each given to their own mass all the same.
   */
  constructor(
    readonly masses: readonly Mass[],
    private readonly clay?: Float64Array,
    countedWith?: Uint16Array,
    readonly named = false,
  ) {
    this.countedWith = countedWith ?? Uint16Array.from(masses, (_, i) => i);
    this.many = new Set(this.countedWith).size < masses.length;
    this.compiled = masses.map((m, i) => compile(m, clay?.[i] ?? 0, this.many));
    const all = Int32Array.from(masses, (_, i) => i).filter((i) => this.standsForItself(i));
    this.measured = all.length;
    this.slope = masses.reduce((s, m) => max(s, m.part?.whole.slope ?? 1), 1);
    this.openings = all.filter((i) => masses[i]!.role === 'opening');
    this.solid = all.filter((i) => masses[i]!.role !== 'opening');
    this.hint = this.solid[0] ?? 0;
    const objects = masses.filter((m) => m.role === 'core' || m.role === 'bare');
    this.under = this.openings.length > 0 && objects.length > 0 ? new DistanceField(objects) : null;
    const shells = masses.some((m) => m.shape.kind === 'shell');
    this.underShells = new Set(shells ? all.filter((i) => masses[i]!.role === 'bare') : []);
    this.feltWithin = new Float64Array(masses.length);
    let most = 0;
    for (let i = masses.length - 1; i >= 0; i--) {
      most = max(most, masses[i]!.blend);
      this.feltWithin[i] = most;
    }
    this.spheres = Float64Array.from(this.compiled.flatMap((m) => [...m.at, m.reach]));
    this.blends = Float64Array.from(this.compiled, (m) => m.blend);
    this.scratch = new Float64Array(masses.length);
    this.feltHere = new Int32Array(masses.length);
    this.planes = new Float64Array(4 * masses.length);
    this.apart = new Float64Array(masses.length);
    this.unionApart = new Float64Array(masses.length);
    this.order = new Int32Array(masses.length);
    this.bounded = new Uint8Array(masses.length);
    this.known = new Float64Array(masses.length).fill(-none);
    this.middle = new Float64Array(masses.length);
  }

  /** Parts of one mesh are measured as one, by the first of them. */
  private standsForItself(i: number): boolean {
    const part = this.masses[i]!.part;
    if (!part) return true;
    const first = this.masses.findIndex((m) => m.part?.whole === part.whole);
    const parts = this.partOfJoint.get(first) ?? new Int32Array(part.whole.places.at.length).fill(first);
    parts[part.joint] = i;
    this.partOfJoint.set(first, parts);
    return first === i;
  }

  /** The mass a place belongs to, where the one that is nearest stands for several. */
  private partAt(owner: number, x: number, y: number, z: number): number {
    const parts = this.partOfJoint.get(owner);
    return parts ? parts[this.compiled[owner]!.limbed!.jointAt(x, y, z)]! : owner;
  }

  /** Whether openings are cut out of its clay. */
  get cutOut(): boolean {
    return this.openings.length > 0;
  }

  /** The same form, its cells given each to its own mass: for what is looked at and taken hold of. */
  byName(): DistanceField {
    return new DistanceField(this.masses, this.clay, this.countedWith, true);
  }

  /** Every mass the form is made of, for callers that do not prune. */
  all(): Int32Array {
    return this.solid.slice();
  }

  /**
   * The union's distance at a place once the openings are cut. Where one reaches deeper than the place lies, it is
   * further out by that: but no further than the object under the clay. Within the object the opening has the place:
   * there is no clay to be looked for there.
   */
  private cut(x: number, y: number, z: number, d: number): number {
    let out = d;
    let opening = -1;
    for (const i of this.openings) {
      const own = -massDistance(this.compiled[i]!, x, y, z);
      if (own > out) {
        out = own;
        opening = i;
      }
    }
    if (opening < 0 || !this.under) return out;
    const object = this.under.at(x, y, z, this.under.solid);
    if (object < out) out = max(d, object);
    if (object < 0 || out === object) this.owner = opening;
    return out;
  }

  /** Signed distance at a point over the masses listed (in rising order); sets `owner`. */
  at(x: number, y: number, z: number, candidates: Int32Array, count = candidates.length): number {
    const { spheres, blends, feltWithin } = this;
    let d = none;
    let nearest = none;
    // Of many masses the one that was nearest last bounds the rest: most need no measuring then.
    const hint = this.many && count > fewMasses ? this.hint : -1;
    const within = hint >= 0 ? massDistance(this.compiled[hint]!, x, y, z) : none;
    for (let c = 0; c < count; c++) {
      const i = candidates[c]!;
      const k = blends[i]!;
      // A mass that cannot come within its blend of what stands there changes nothing.
      const clear = min(max(d + k, nearest), within + (i > hint ? k : 2 * feltWithin[i]!)) + spheres[4 * i + 3]!;
      if (clear < none && i !== hint) {
        const px = x - spheres[4 * i]!,
          py = y - spheres[4 * i + 1]!,
          pz = z - spheres[4 * i + 2]!;
        if (clear > 0 && px * px + py * py + pz * pz > clear * clear) continue;
      }
      const own = i === hint ? within : massDistance(this.compiled[i]!, x, y, z);
      if (own < nearest) {
        nearest = own;
        this.owner = i;
      }
      const gap = abs(d - own);
      d = own < d ? own : d;
      if (k > 0 && gap < k) d -= ((k - gap) * (k - gap)) / (4 * k);
    }
    if (this.many) this.hint = this.owner;
    if (this.partOfJoint.size > 0) this.owner = this.partAt(this.owner, x, y, z);
    return this.openings.length > 0 ? this.cut(x, y, z, d) : d;
  }

  /**
   * The masses of `from` that can matter within `radius` of a point, into `out`; the rest into `pruned`. One that is
   * merged after the nearest changes no value there if it is further than two radii and its own blend beyond it. One that
   * is merged before it has twice the blend that it or a later one can be felt within: what it is merged into is then
   * itself too far to be felt. `moved`: how far the point lies from that of the last call without it, whose masses
   * `from` are.
   */
  prune(
    x: number,
    y: number,
    z: number,
    radius: number,
    from: Int32Array,
    fromCount: number,
    out: Int32Array,
    moved = none,
  ): void {
    const { spheres, blends, feltWithin, scratch, bounded, known, countedWith } = this;
    let nearest = none;
    let second = none;
    let nearestMass = -1;
    // Most places are nearest to what the last one was nearest to: with that the far ones need no measuring.
    const hint = this.hint;
    const within = massDistance(this.compiled[hint]!, x, y, z);
    let near = within + 2 * radius;
    for (let c = 0; c < fromCount; c++) {
      const i = from[c]!;
      const far = near + (i > hint ? blends[i]! : 2 * feltWithin[i]!);
      // Bounded from below by what was known where one came from, then by its sphere; measured only when neither leaves it out.
      let own = known[i]! - moved;
      bounded[c] = 1;
      if (own <= far) {
        const px = x - spheres[4 * i]!,
          py = y - spheres[4 * i + 1]!,
          pz = z - spheres[4 * i + 2]!;
        own = sqrt(px * px + py * py + pz * pz) - spheres[4 * i + 3]!;
        if (own <= far) {
          bounded[c] = 0;
          own = i === hint ? within : massDistance(this.compiled[i]!, x, y, z);
        }
      }
      scratch[c] = own;
      const apart = nearestMass < 0 || countedWith[i] !== countedWith[nearestMass];
      if (own < nearest) {
        if (apart) second = nearest;
        nearest = own;
        nearestMass = i;
        near = min(near, nearest + 2 * radius);
      } else if (apart && own < second) second = own;
    }
    if (moved === none) for (let c = 0; c < fromCount; c++) known[from[c]!] = scratch[c]!;
    let count = 0;
    let d = none;
    let closest = none;
    for (let c = 0; c < fromCount; c++) {
      const i = from[c]!;
      const k = blends[i]!;
      if (scratch[c]! > nearest + 2 * radius + (i > nearestMass ? k : 2 * feltWithin[i]!)) continue;
      this.middle[count] = scratch[c]!;
      out[count++] = i;
      // The union at the point itself, as `at` has it.
      if (scratch[c]! >= max(d + k, closest)) continue;
      const own = bounded[c] === 1 ? massDistance(this.compiled[i]!, x, y, z) : scratch[c]!;
      if (own < closest) {
        closest = own;
        this.owner = i;
      }
      const gap = abs(d - own);
      d = own < d ? own : d;
      if (k > 0 && gap < k) d -= ((k - gap) * (k - gap)) / (4 * k);
    }
    if (nearestMass >= 0) this.hint = nearestMass;
    this.pruned.count = count;
    this.pruned.nearest = nearest;
    // What is deep in a mesh with limbs is told apart part by part.
    this.pruned.nearestGap = this.partOfJoint.has(nearestMass) ? 0 : second - nearest;
    if (this.partOfJoint.size > 0) this.owner = this.partAt(this.owner, x, y, z);
    this.pruned.distance = this.openings.length > 0 ? this.cut(x, y, z, d) : d;
  }

  /**
   * Distances and owners of a cube of cells from its corner, into the grid's arrays: cell (x, y, z) of the cube goes to
   * `to + x + rowStride y + layerStride z`. The same as `at` cell by cell, to rounding, in a quarter of the time.
   * `justPruned`: the candidates are what `prune` kept for this very cube. Returns how far beyond the union, at most, a
   * mass is felt anywhere in the cube but for its own blend.
   */
  fillCube(
    x0: number,
    y0: number,
    z0: number,
    step: number,
    candidates: Int32Array,
    count: number,
    justPruned: boolean,
    distances: Float32Array,
    owners: Uint16Array,
    to: number,
    rowStride: number,
    layerStride: number,
  ): number {
    beginCube();
    let beyond = this.blends[candidates[0]!]!;
    if (!justPruned) for (let c = 0; c < count; c++) this.mergeAll(candidates[c]!, x0, y0, z0, step);
    else if (!this.many || count === 1) this.mergeFew(x0, y0, z0, step, candidates, count);
    else {
      const kept = this.measureNear(x0, y0, z0, step, candidates, count);
      for (let c = 0; c < kept; c++) {
        haveMass(c);
        mergeCube(this.feltHere[c]!, this.blends[this.feltHere[c]!]!);
      }
      beyond = feltBeyond();
    }
    if (this.openings.length > 0) this.cutCube(x0, y0, z0, step);
    const { named } = this;
    if (this.partOfJoint.size > 0) this.tellParts(x0, y0, z0, step);
    let i = 0;
    for (let z = 0; z < cubeSide; z++) {
      for (let y = 0; y < cubeSide; y++) {
        let cell = to + y * rowStride + z * layerStride;
        for (let x = 0; x < cubeSide; x++, i++, cell++) {
          distances[cell] = cube.union[i]!;
          owners[cell] = named ? cube.owner[i]! : this.countedWith[cube.owner[i]!]!;
        }
      }
    }
    return beyond;
  }

  /** Owners of the cube's cells by part, where they are inside or at the face. */
  private tellParts(x0: number, y0: number, z0: number, step: number): void {
    let i = 0;
    for (let z = 0; z < cubeSide; z++)
      for (let y = 0; y < cubeSide; y++)
        for (let x = 0; x < cubeSide; x++, i++)
          if (cube.union[i]! < 2 * step)
            cube.owner[i] = this.partAt(
              cube.owner[i]!,
              x0 + (x + 0.5) * step,
              y0 + (y + 0.5) * step,
              z0 + (z + 0.5) * step,
            );
  }

  /** Distances of the cells asked for to a mass. */
  private measure(index: number, x0: number, y0: number, z0: number, step: number): void {
    const m = this.compiled[index]!;
    intoAxes(m, x0, y0, z0, step);
    massCube(m);
  }

  private mergeAll(index: number, x0: number, y0: number, z0: number, step: number): void {
    takeMass(0);
    askAll();
    this.measure(index, x0, y0, z0, step);
    mergeCube(index, this.blends[index]!);
  }

  /** Merges the masses that `prune` kept for a cube, each in the cells where it changes the union of those before it. */
  private mergeFew(x0: number, y0: number, z0: number, step: number, candidates: Int32Array, count: number): void {
    const { planes, blends } = this;
    const half = (cubeSide * step) / 2;
    this.mergeAll(candidates[0]!, x0, y0, z0, step);
    for (let c = 1; c < count; c++) {
      const index = candidates[c]!;
      takeMass(c);
      this.planeOf(c, index, x0 + half, y0 + half, z0 + half, step, half * sqrt(3) * this.slope);
      if (askAgainstUnion(c, blends[index]!, planes) === 0) continue;
      this.measure(index, x0, y0, z0, step);
      mergeCube(index, blends[index]!);
    }
  }

  /**
   * Measures the masses that `prune` kept for a cube in the cells where they can be felt, from the last merged to the
   * first; returns how many there are, in `feltHere`.
   */
  private measureNear(x0: number, y0: number, z0: number, step: number, candidates: Int32Array, count: number): number {
    const { feltHere, planes, blends } = this;
    // The mass nearest to the middle is worked out first: nothing is further out than that.
    askAll();
    this.measure(this.hint, x0, y0, z0, step);
    cube.bound.set(cube.own);
    const kept = this.keepFelt(x0, y0, z0, step, candidates, count);
    let first = 0;
    while (feltHere[first] !== this.hint) first++;
    for (let c = 0; c <= first; c++) leastOf(c, blends[feltHere[c]!]!, c === first ? null : planes);
    for (let c = first + 1; c < kept; c++) leastAfter(c, planes);
    for (let c = kept - 1; c >= 0; c--) {
      const index = feltHere[c]!;
      const blend = blends[index]!;
      takeMass(c);
      if (c === first) {
        askAll();
        cube.own.set(cube.bound);
        cube.limit.fill(none);
      } else if (askFelt(c, blend, c > first) > 0) this.measure(index, x0, y0, z0, step);
      // What comes after the mass of the bound meets a union no further out than that.
      if (c === first) cube.felt.set(cube.bound);
      needBefore(blend);
      keepMass(c);
    }
    return kept;
  }

  /**
   * Of the masses listed, those that can be felt anywhere in the cube, into `feltHere`, with planes of distance they lie
   * outside of, into `planes`: four figures each, the middle's and the rise a cell along x, y and z.
   */
  private keepFelt(x0: number, y0: number, z0: number, step: number, candidates: Int32Array, count: number): number {
    const { feltHere, planes, blends, apart, unionApart, order } = this;
    const half = (cubeSide * step) / 2;
    let first = 0;
    for (let c = 0; c < count; c++) {
      const index = candidates[c]!;
      let own = 0;
      if (index === this.hint) first = c;
      else {
        this.planeOf(c, index, x0 + half, y0 + half, z0 + half, step, half * sqrt(3) * this.slope);
        own = apartFromBound(planes, c, this.compiled[this.hint]!.kind);
      }
      apart[c] = own;
      unionApart[c] = c === 0 ? own : blended(unionApart[c - 1]!, own, blends[index]!);
    }
    // From the last to the first, as cell by cell: how far from the bound the union before a mass may still be felt.
    let felt = 0;
    let kept = 0;
    for (let c = count - 1; c >= 0; c--) {
      const blend = blends[candidates[c]!]!;
      if (c === first) felt = blend;
      else if (c < first && unionApart[c]! >= felt) break;
      else if (apart[c]! >= felt + blend) continue;
      else if (c < first) felt += shortfall(blend, blend - (apart[c]! - felt));
      order[kept++] = c;
    }
    // Those kept, in rising order again.
    for (let k = 0; k < kept; k++) {
      const c = order[kept - 1 - k]!;
      feltHere[k] = candidates[c]!;
      for (let q = 0; q < 4; q++) planes[4 * k + q] = planes[4 * c + q]!;
    }
    return kept;
  }

  /** As `cut`, for every cell of the cube that an opening reaches. */
  private cutCube(x0: number, y0: number, z0: number, step: number): void {
    const half = (cubeSide * step) / 2;
    const radius = half * sqrt(3);
    let deepest = none;
    for (const u of cube.union) deepest = min(deepest, u);
    const near = this.openings.some(
      (i) => massDistance(this.compiled[i]!, x0 + half, y0 + half, z0 + half) - radius < -deepest,
    );
    if (!near) return;
    let i = 0;
    for (let z = 0; z < cubeSide; z++)
      for (let y = 0; y < cubeSide; y++)
        for (let x = 0; x < cubeSide; x++, i++) {
          this.owner = cube.owner[i]!;
          cube.union[i] = this.cut(x0 + (x + 0.5) * step, y0 + (y + 0.5) * step, z0 + (z + 0.5) * step, cube.union[i]!);
          cube.owner[i] = this.owner;
        }
  }

  /** The distance to a convex mass is nowhere less than its tangent at the middle; to any, than what it is there less the way. */
  private planeOf(c: number, index: number, x: number, y: number, z: number, step: number, radius: number): void {
    const m = this.compiled[index]!;
    const { planes } = this;
    if (m.kind > 2) {
      planes[4 * c] = this.middle[c]! - radius;
      planes[4 * c + 1] = planes[4 * c + 2] = planes[4 * c + 3] = 0;
      return;
    }
    massTangent(m, x, y, z, tangent);
    planes[4 * c] = tangent[0]! - tangentSlack;
    planes[4 * c + 1] = tangent[1]! * step;
    planes[4 * c + 2] = tangent[2]! * step;
    planes[4 * c + 3] = tangent[3]! * step;
  }

  /** A box that holds the whole union, blends included. */
  box(): Box {
    const low: [number, number, number] = [none, none, none];
    const high: [number, number, number] = [-none, -none, -none];
    this.solid.forEach((i) => {
      const half = axisReach(this.compiled[i]!, this.masses[i]!);
      for (let k = 0; k < 3; k++) {
        low[k] = min(low[k]!, half.low[k]!);
        high[k] = max(high[k]!, half.high[k]!);
      }
    });
    const bulge = this.measured > 1 ? this.feltWithin[0]! / 2 : 0;
    return {
      low: low.map((v) => v - bulge) as [number, number, number],
      high: high.map((v) => v + bulge) as [number, number, number],
    };
  }
}

/** A box that holds one mass, without its blends. */
export function massBox(mass: Mass, clay = 0): Box {
  if (mass.part) {
    const box = mass.part.whole.boxOf(mass.part.joint) ?? { low: mass.at, high: mass.at };
    const out = mass.role === 'core' ? clay : 0;
    return { low: box.low.map((v) => v - out) as never, high: box.high.map((v) => v + out) as never };
  }
  return axisReach(compile(mass, clay), mass);
}

function axisReach(m: CompiledMass, mass: Mass): Box {
  if (m.limbed) {
    const { low, high } = m.limbed.box();
    return { low: low.map((v) => v - m.grow) as never, high: high.map((v) => v + m.grow) as never };
  }
  const low: number[] = [];
  const high: number[] = [];
  for (let k = 0; k < 3; k++) {
    // Column k of the world-to-mass rotation is world axis k in the mass's own axes.
    const ux = m.rotation[k]!,
      uy = m.rotation[k + 3]!,
      uz = m.rotation[k + 6]!;
    const s = mass.shape;
    let minus: number;
    let plus: number;
    if (s.kind === 'ellipsoid' || s.kind === 'shell')
      minus = plus = hypot(ux * s.radii[0], uy * s.radii[1], uz * s.radii[2]);
    else if (s.kind === 'rounded-box') minus = plus = abs(ux) * s.half[0] + abs(uy) * s.half[1] + abs(uz) * s.half[2];
    else if (s.kind === 'drum') minus = plus = s.radius * hypot(ux, uy) + s.half * abs(uz);
    else if (s.kind === 'sampled') {
      // The border of empty samples is left out, but for one.
      const out = (s.empty ?? 3) - 1;
      const ends = s.cells.map((n, j) => [s.from[j]! + out * s.step, s.from[j]! + (n - 1 - out) * s.step] as const);
      plus = ends.reduce((sum, [low, high], j) => sum + max(low * [ux, uy, uz][j]!, high * [ux, uy, uz][j]!), 0);
      minus = -ends.reduce((sum, [low, high], j) => sum + min(low * [ux, uy, uz][j]!, high * [ux, uy, uz][j]!), 0);
    } else if (s.kind === 'ring') minus = plus = s.radius * hypot(ux, uy) + s.thickness;
    else {
      const end = ux * s.reach[0] + uy * s.reach[1] + uz * s.reach[2];
      plus = max(s.radiusFrom, end + s.radiusTo);
      minus = max(s.radiusFrom, -end + s.radiusTo);
    }
    low.push(m.at[k]! - minus - m.grow);
    high.push(m.at[k]! + plus + m.grow);
  }
  return { low: low as unknown as Box['low'], high: high as unknown as Box['high'] };
}
