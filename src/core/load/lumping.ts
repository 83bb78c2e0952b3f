import { straightStretches, type ArmatureNode, type Bone, type Member, type StraightStretches } from '../armature';
import { distance, dot, mix, subtract, type Vec3 } from '../quantity';
import type { Parcels } from '../form';

const { cbrt, ceil, floor, max, min, sqrt } = Math;

/**
 * Hangs what the voxels hold on the bones. Each parcel goes to the nearest bone of its mass and is gathered at one of
 * a few stations along it, keeping its first moment, so weight and centre of gravity are kept exactly. What lies beyond
 * an end hangs on the end itself. Amounts are volumes by component; densities come later, one set for each stage of the piece's life.
 */
const alongBone = 6;
export const stationsPerBone = alongBone + 2;

/** Share of the bone's length at which a station stands: the first and the last at its ends. */
export function stationShare(station: number): number {
  return station === 0 ? 0 : station === stationsPerBone - 1 ? 1 : (station - 0.5) / alongBone;
}

function stationOf(share: number): number {
  return share <= 0 ? 0 : share >= 1 ? stationsPerBone - 1 : 1 + floor(share * alongBone);
}

/** Components: clay by region (0..regions-1), then bulk, then the area that is wrapped, then metal in kg. */
export interface LumpedLoad {
  readonly bones: readonly Bone[];
  readonly ends: readonly (readonly [Vec3, Vec3])[];
  readonly components: number;
  /** [bone][station][component][amount, first moment x, y, z], flat. Volumes in m3, area in m2, metal in kg. */
  readonly amounts: Float64Array;
  /** Of the straight stretch each bone is in, metres. */
  readonly stretchLength: Float64Array;
  /** Equivalent diameters of what stands round each bone, metres; the same all along a straight stretch. */
  readonly outerDiameter: Float64Array;
  readonly coreDiameter: Float64Array;
}

export function amountIndex(
  load: Pick<LumpedLoad, 'components'>,
  bone: number,
  station: number,
  component: number,
): number {
  return ((bone * stationsPerBone + station) * load.components + component) * 4;
}

export function stationAt(ends: readonly [Vec3, Vec3], station: number): Vec3 {
  return mix(ends[0], ends[1], stationShare(station));
}

/** Squares of distances as alike as this are one. */
const alike = 1e-9;
/** Fewer bones than this are all looked at for every parcel. */
const fewBones = 12;

/**
 * Finds the nearest of some bones to a place. It is asked for every parcel there is, so nothing is made on the way; among
 * many bones, only those are looked at that can be nearest anywhere in the small cube the place lies in.
 */
class NearestBone {
  /** Start, way, and one over the length squared: seven a bone. */
  private readonly ends: Float64Array;
  private readonly side: number;
  private readonly low: Vec3;
  private readonly kept = new Map<number, Int32Array>();
  bone = 0;
  share = 0;

  constructor(ends: readonly (readonly [Vec3, Vec3])[]) {
    this.ends = new Float64Array(ends.length * 7);
    ends.forEach(([a, b], i) => {
      const d = subtract(b, a);
      const l2 = dot(d, d);
      this.ends.set([a[0], a[1], a[2], d[0], d[1], d[2], l2 > 0 ? 1 / l2 : 0], i * 7);
    });
    const all = ends.flat();
    const low = [0, 1, 2].map((k) => all.reduce((m, p) => min(m, p[k]!), Infinity)),
      high = [0, 1, 2].map((k) => all.reduce((m, p) => max(m, p[k]!), -Infinity));
    this.side = max(1e-6, ...low.map((l, k) => high[k]! - l)) / 20;
    this.low = low.map((l) => l - 100 * this.side) as unknown as Vec3;
  }

  /** `group` names the candidates: the same for the same list. */
  find(px: number, py: number, pz: number, candidates: Int32Array, group: number): void {
    if (candidates.length <= fewBones) {
      this.among(px, py, pz, candidates);
      return;
    }
    const { side, low } = this;
    const x = floor((px - low[0]) / side),
      y = floor((py - low[1]) / side),
      z = floor((pz - low[2]) / side);
    const key = ((group * 512 + (x & 511)) * 512 + (y & 511)) * 512 + (z & 511);
    let list = this.kept.get(key);
    if (!list) {
      list = this.near(low[0] + (x + 0.5) * side, low[1] + (y + 0.5) * side, low[2] + (z + 0.5) * side, candidates);
      this.kept.set(key, list);
    }
    this.among(px, py, pz, list);
  }

  /** Those no farther from the middle of a cube than the nearest and the cube's whole diagonal. */
  private near(px: number, py: number, pz: number, candidates: Int32Array): Int32Array {
    this.among(px, py, pz, candidates);
    const reach = sqrt(this.away(px, py, pz, this.bone)) + this.side * sqrt(3) + 1e-12;
    return candidates.filter((c) => this.away(px, py, pz, c) <= reach * reach);
  }

  private away(px: number, py: number, pz: number, bone: number): number {
    const { ends } = this;
    const o = bone * 7;
    const rx = px - ends[o]!,
      ry = py - ends[o + 1]!,
      rz = pz - ends[o + 2]!;
    const dx = ends[o + 3]!,
      dy = ends[o + 4]!,
      dz = ends[o + 5]!;
    const t = min(1, max(0, (rx * dx + ry * dy + rz * dz) * ends[o + 6]!));
    const ex = rx - t * dx,
      ey = ry - t * dy,
      ez = rz - t * dz;
    return ex * ex + ey * ey + ez * ez;
  }

  private among(px: number, py: number, pz: number, candidates: Int32Array): void {
    const { ends } = this;
    let best = Infinity,
      bone = candidates[0]!,
      at = 0;
    for (let c = 0; c < candidates.length; c++) {
      const o = candidates[c]! * 7;
      const rx = px - ends[o]!,
        ry = py - ends[o + 1]!,
        rz = pz - ends[o + 2]!;
      const dx = ends[o + 3]!,
        dy = ends[o + 4]!,
        dz = ends[o + 5]!;
      let t = (rx * dx + ry * dy + rz * dz) * ends[o + 6]!;
      if (t < 0) t = 0;
      else if (t > 1) t = 1;
      const ex = rx - t * dx,
        ey = ry - t * dy,
        ez = rz - t * dz;
      const away = ex * ex + ey * ey + ez * ez;
      if (away < best * (1 - alike)) {
        best = away;
        bone = candidates[c]!;
        at = t;
      } else if (
        away <= best * (1 + alike) &&
        this.leanTo(candidates[c]!, rx, ry, rz, t) > this.lean(px, py, pz, bone, at)
      ) {
        // Past the joint where two meet it is as far from either: it goes to the one it lies more beside.
        bone = candidates[c]!;
        at = t;
      }
    }
    this.bone = bone;
    this.share = at;
  }

  /** How far past a bone's end a place lies along it, metres, as a negative: 0 beside it. */
  private lean(px: number, py: number, pz: number, bone: number, t: number): number {
    const o = bone * 7;
    return this.leanTo(bone, px - this.ends[o]!, py - this.ends[o + 1]!, pz - this.ends[o + 2]!, t);
  }

  private leanTo(bone: number, rx: number, ry: number, rz: number, t: number): number {
    if (t > 0 && t < 1) return 0;
    const { ends } = this;
    const o = bone * 7;
    const dx = ends[o + 3]!,
      dy = ends[o + 4]!,
      dz = ends[o + 5]!;
    const length = sqrt(dx * dx + dy * dy + dz * dz) || 1;
    return (t === 0 ? 1 : -1) * ((rx * dx + ry * dy + rz * dz) / length - t * length);
  }

  /** Share of a bone's length nearest a place. */
  shareOn(bone: number, px: number, py: number, pz: number): number {
    const { ends } = this;
    const o = bone * 7;
    const t =
      ((px - ends[o]!) * ends[o + 3]! + (py - ends[o + 1]!) * ends[o + 4]! + (pz - ends[o + 2]!) * ends[o + 5]!) *
      ends[o + 6]!;
    return t < 0 ? 0 : t > 1 ? 1 : t;
  }
}

export function lumpLoad(
  parcels: Parcels,
  regionOfMass: readonly number[],
  regionCount: number,
  massIds: readonly string[],
  nodes: readonly ArmatureNode[],
  bones: readonly Bone[],
  members: readonly Member[],
  massOf: (m: Member) => number,
  /** m2 of each mass that is wrapped. */
  wrapped: readonly number[] = [],
  /** By mass: the one whose parcels hold its own too. */
  countedWith: ArrayLike<number> = massIds.map((_, i) => i),
): LumpedLoad {
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const ends = bones.map((b): readonly [Vec3, Vec3] => [place.get(b.from)!, place.get(b.to)!]);
  const components = regionCount + 3;
  const amounts = new Float64Array(bones.length * stationsPerBone * components * 4);
  const load = { components, ends };
  const everyBone = bones.map((_, i) => i);
  // What is counted with a mass hangs on the bones that carry any of them.
  const together = massIds.map((): string[] => []);
  massIds.forEach((id, i) => together[countedWith[i]!]!.push(id));
  const forMass = together.map((ids) => {
    const own = everyBone.filter((i) => !bones[i]?.tie && ids.some((id) => bones[i]?.masses.includes(id)));
    return Int32Array.from(own.length > 0 ? own : everyBone);
  });
  const nearest = new NearestBone(ends);
  const clayOf = new Float64Array(massIds.length);
  for (let p = 0; p < parcels.count; p++) clayOf[parcels.mass[p]!]! += parcels.clayVolume[p]!;
  const stretches = straightStretches(nodes, bones);
  const spread = new RoundBones(stretches);
  // Where each station stands, three numbers each.
  const stationPlaces = new Float64Array(bones.length * stationsPerBone * 3);
  ends.forEach((e, bone) => {
    for (let k = 0; k < stationsPerBone; k++) stationPlaces.set(stationAt(e, k), (bone * stationsPerBone + k) * 3);
  });
  const put = (bone: number, share: number, component: number, amount: number, x: number, y: number, z: number) => {
    const station = stationOf(share);
    const from = (bone * stationsPerBone + station) * 3;
    const i = amountIndex(load, bone, station, component);
    amounts[i] = amounts[i]! + amount;
    amounts[i + 1] = amounts[i + 1]! + amount * (x - stationPlaces[from]!);
    amounts[i + 2] = amounts[i + 2]! + amount * (y - stationPlaces[from + 1]!);
    amounts[i + 3] = amounts[i + 3]! + amount * (z - stationPlaces[from + 2]!);
  };
  const { clayCentre, bulkCentre } = parcels;
  for (let p = 0; p < parcels.count; p++) {
    const mass = parcels.mass[p]!;
    const clay = parcels.clayVolume[p]!;
    const bulk = parcels.bulkVolume[p]!;
    const cx = clayCentre[p * 3]!,
      cy = clayCentre[p * 3 + 1]!,
      cz = clayCentre[p * 3 + 2]!;
    const bx = bulkCentre[p * 3]!,
      by = bulkCentre[p * 3 + 1]!,
      bz = bulkCentre[p * 3 + 2]!;
    const t = bulk / (clay + bulk);
    const mx = cx + (bx - cx) * t,
      my = cy + (by - cy) * t,
      mz = cz + (bz - cz) * t;
    nearest.find(mx, my, mz, forMass[mass] as Int32Array, mass);
    const { bone } = nearest;
    const clayShare = nearest.shareOn(bone, cx, cy, cz);
    if (clay > 0) put(bone, clayShare, regionOfMass[mass]!, clay, cx, cy, cz);
    if (bulk > 0) put(bone, nearest.shareOn(bone, bx, by, bz), regionCount, bulk, bx, by, bz);
    const wrap = clay > 0 ? ((wrapped[mass] ?? 0) * clay) / clayOf[mass]! : 0;
    if (wrap > 0) put(bone, clayShare, regionCount + 1, wrap, cx, cy, cz);
    spread.add(bone, clay + bulk, bulk, mx, my, mz);
  }
  hangMembers(members, bones, nearest, Int32Array.from(everyBone), massOf, (bone, share, amount, at) =>
    put(bone, share, regionCount + 2, amount, at[0], at[1], at[2]),
  );
  const { outer, core } = spread.diameters();
  const stretchLength = Float64Array.from(stretches.of, (s) => distance(...stretches.ends[s]!));
  return { bones, ends, components, amounts, stretchLength, outerDiameter: outer, coreDiameter: core };
}

/** A member's weight, piece by piece along its path, on the bones it runs along (or the nearest). */
function hangMembers(
  members: readonly Member[],
  bones: readonly Bone[],
  nearest: NearestBone,
  everyBone: Int32Array,
  massOf: (m: Member) => number,
  put: (bone: number, share: number, amount: number, at: Vec3) => void,
): void {
  const indexOf = new Map(bones.map((b, i) => [b.id, i]));
  for (const [m, member] of members.entries()) {
    const own = [...new Set(member.bones)].map((id) => indexOf.get(id)).filter((i): i is number => i !== undefined);
    const candidates = own.length > 0 ? Int32Array.from(own) : everyBone;
    const lengths = member.path.slice(1).map((b, i) => distance(member.path[i]!, b));
    const total = lengths.reduce((sum, l) => sum + l, 0);
    const mass = massOf(member);
    lengths.forEach((length, i) => {
      if (total <= 0) return;
      const pieces = max(1, ceil(length / 0.03));
      for (let k = 0; k < pieces; k++) {
        const at = mix(member.path[i]!, member.path[i + 1]!, (k + 0.5) / pieces);
        nearest.find(at[0], at[1], at[2], candidates, -1 - m);
        put(nearest.bone, nearest.share, (mass * length) / total / pieces, at);
      }
    });
  }
}

/**
 * How thick the piece is round each straight stretch of bones. Two measures, the smaller counts: the cylinder of its length with the same
 * volume, and the cylinder with the same spread across the bone (a mass far larger than a short bone is no sleeve).
 */
class RoundBones {
  private readonly sums: Float64Array;
  /** Start, unit way and length: seven a bone. */
  private readonly lines: Float64Array;

  constructor(private readonly stretches: StraightStretches) {
    const { ends } = stretches;
    this.sums = new Float64Array(ends.length * 9);
    this.lines = new Float64Array(ends.length * 7);
    ends.forEach(([a, b], i) => {
      const d = subtract(b, a);
      const length = sqrt(dot(d, d)) || 1;
      this.lines.set([a[0], a[1], a[2], d[0] / length, d[1] / length, d[2] / length, length], i * 7);
    });
  }

  add(bone: number, volume: number, core: number, x: number, y: number, z: number): void {
    const stretch = this.stretches.of[bone]!;
    const l = this.lines,
      from = stretch * 7;
    const rx = x - l[from]!,
      ry = y - l[from + 1]!,
      rz = z - l[from + 2]!;
    const ux = l[from + 3]!,
      uy = l[from + 4]!,
      uz = l[from + 5]!;
    const t = rx * ux + ry * uy + rz * uz;
    const px = rx - ux * t,
      py = ry - uy * t,
      pz = rz - uz * t;
    const o = stretch * 9;
    const s = this.sums;
    s[o]! += volume;
    s[o + 1]! += core;
    s[o + 2]! += volume * px;
    s[o + 3]! += volume * py;
    s[o + 4]! += volume * pz;
    s[o + 5]! += volume * (px * px + py * py + pz * pz);
    s[o + 6]! += volume * cbrt(volume) * cbrt(volume);
  }

  diameters(): { outer: Float64Array; core: Float64Array } {
    const count = this.sums.length / 9;
    const outer = new Float64Array(count);
    const core = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      const o = i * 9;
      const [volume, coreVolume, mx, my, mz, square, own] = this.sums.subarray(o, o + 7) as unknown as [
        number,
        number,
        number,
        number,
        number,
        number,
        number,
      ];
      if (!(volume > 0)) continue;
      const length = this.lines[i * 7 + 6]!;
      const byVolume = sqrt((4 * volume) / (Math.PI * length));
      const mean2 = (mx * mx + my * my + mz * mz) / (volume * volume);
      // A parcel is a cube, whose own spread across a line is a sixth of its side squared.
      const variance = max(0, square / volume - mean2 + own / volume / 6);
      const bySpread = sqrt(8 * variance);
      outer[i] = min(byVolume, bySpread);
      core[i] = outer[i]! * sqrt(min(1, coreVolume / volume));
    }
    const { of } = this.stretches;
    return { outer: Float64Array.from(of, (i) => outer[i]!), core: Float64Array.from(of, (i) => core[i]!) };
  }
}
