import type { ArmatureNode, Bone, Member } from '../armature';
import { distance, dot, mix, subtract, type Vec3 } from '../quantity';
import type { Parcels } from '../form';

const { ceil, floor, max, min, sqrt } = Math;

/**
 * Hangs what the voxels hold on the bones. Each parcel goes to the nearest bone of its mass and is gathered at one of
 * a few stations along it, keeping its first moment, so weight and centre of gravity are kept exactly.
 * Amounts are volumes by component; densities come later, one set for each moment of the piece's life.
 */
export const stationsPerBone = 6;

/** Components: clay by region (0..regions-1), then bulk, then the area that is wrapped, then metal in kg. */
export interface HungLoad {
  readonly bones: readonly Bone[];
  readonly ends: readonly (readonly [Vec3, Vec3])[];
  readonly components: number;
  /** [bone][station][component][amount, first moment x, y, z], flat. Volumes in m3, area in m2, metal in kg. */
  readonly amounts: Float64Array;
  /** Equivalent diameters of what stands round each bone, metres. */
  readonly outerDiameter: Float64Array;
  readonly coreDiameter: Float64Array;
}

export function amountIndex(load: Pick<HungLoad, 'components'>, bone: number, station: number, component: number): number {
  return ((bone * stationsPerBone + station) * load.components + component) * 4;
}

export function stationAt(ends: readonly [Vec3, Vec3], station: number): Vec3 {
  return mix(ends[0], ends[1], (station + 0.5) / stationsPerBone);
}

function projection(p: Vec3, a: Vec3, b: Vec3): { share: number; away: number } {
  const along = subtract(b, a);
  const l2 = dot(along, along);
  const share = l2 > 0 ? min(1, max(0, dot(subtract(p, a), along) / l2)) : 0;
  return { share, away: distance(p, mix(a, b, share)) };
}

/** Finds the nearest of some bones to a place; nothing is made on the way, since it is asked for every parcel there is. */
class NearestBone {
  private readonly ends: Float64Array;
  bone = 0;
  share = 0;

  constructor(ends: readonly (readonly [Vec3, Vec3])[]) {
    this.ends = new Float64Array(ends.length * 7);
    ends.forEach(([a, b], i) => {
      const d = subtract(b, a);
      const l2 = dot(d, d);
      this.ends.set([a[0], a[1], a[2], d[0], d[1], d[2], l2 > 0 ? 1 / l2 : 0], i * 7);
    });
  }

  find(px: number, py: number, pz: number, candidates: Int32Array): void {
    const { ends } = this;
    let best = Infinity, bone = candidates[0] as number, at = 0;
    for (let c = 0; c < candidates.length; c++) {
      const o = (candidates[c] as number) * 7;
      const rx = px - (ends[o] as number), ry = py - (ends[o + 1] as number), rz = pz - (ends[o + 2] as number);
      const dx = ends[o + 3] as number, dy = ends[o + 4] as number, dz = ends[o + 5] as number;
      let t = (rx * dx + ry * dy + rz * dz) * (ends[o + 6] as number);
      if (t < 0) t = 0;
      else if (t > 1) t = 1;
      const ex = rx - t * dx, ey = ry - t * dy, ez = rz - t * dz;
      const away = ex * ex + ey * ey + ez * ez;
      if (away < best) {
        best = away;
        bone = candidates[c] as number;
        at = t;
      }
    }
    this.bone = bone;
    this.share = at;
  }
}

export function hangLoad(
  parcels: Parcels, regionOfMass: readonly number[], regionCount: number, massIds: readonly string[],
  nodes: readonly ArmatureNode[], bones: readonly Bone[], members: readonly Member[], massOf: (m: Member) => number,
  /** m2 of each mass that is wrapped. */
  wrapped: readonly number[] = [],
): HungLoad {
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const ends = bones.map((b): readonly [Vec3, Vec3] => [place.get(b.from) as Vec3, place.get(b.to) as Vec3]);
  const components = regionCount + 3;
  const amounts = new Float64Array(bones.length * stationsPerBone * components * 4);
  const load = { components, ends };
  const everyBone = bones.map((_, i) => i);
  const forMass = massIds.map((id) => {
    const own = everyBone.filter((i) => bones[i]?.masses.includes(id) && !bones[i]?.tie);
    return Int32Array.from(own.length > 0 ? own : everyBone);
  });
  const nearest = new NearestBone(ends);
  const clayOf = new Float64Array(massIds.length);
  for (let p = 0; p < parcels.count; p++) (clayOf[parcels.mass[p] as number] as number) += parcels.clayVolume[p] as number;
  const spread = new RoundBones(bones.length);
  const put = (bone: number, share: number, component: number, amount: number, at: Vec3) => {
    const station = min(stationsPerBone - 1, floor(share * stationsPerBone));
    const from = stationAt(ends[bone] as readonly [Vec3, Vec3], station);
    const i = amountIndex(load, bone, station, component);
    (amounts[i] as number) += amount;
    for (let k = 0; k < 3; k++) (amounts[i + 1 + k] as number) += amount * ((at[k] as number) - (from[k] as number));
  };
  for (let p = 0; p < parcels.count; p++) {
    const mass = parcels.mass[p] as number;
    const clay = parcels.clayVolume[p] as number;
    const bulk = parcels.bulkVolume[p] as number;
    const clayAt = triple(parcels.clayCentre, p);
    const bulkAt = triple(parcels.bulkCentre, p);
    const middle = mix(clayAt, bulkAt, bulk / (clay + bulk));
    nearest.find(middle[0], middle[1], middle[2], forMass[mass] as Int32Array);
    const { bone } = nearest;
    const [a, b] = ends[bone] as readonly [Vec3, Vec3];
    if (clay > 0) put(bone, projection(clayAt, a, b).share, regionOfMass[mass] as number, clay, clayAt);
    if (bulk > 0) put(bone, projection(bulkAt, a, b).share, regionCount, bulk, bulkAt);
    const wrap = clay > 0 ? ((wrapped[mass] ?? 0) * clay) / (clayOf[mass] as number) : 0;
    if (wrap > 0) put(bone, projection(clayAt, a, b).share, regionCount + 1, wrap, clayAt);
    spread.add(bone, clay + bulk, bulk, middle, a, b);
  }
  hangMembers(members, bones, nearest, Int32Array.from(everyBone), massOf, (bone, share, amount, at) => put(bone, share, regionCount + 2, amount, at));
  const { outer, core } = spread.diameters(ends);
  return { bones, ends, components, amounts, outerDiameter: outer, coreDiameter: core };
}

/** A member's weight, piece by piece along its path, on the bones it runs along (or the nearest). */
function hangMembers(
  members: readonly Member[], bones: readonly Bone[], nearest: NearestBone, everyBone: Int32Array,
  massOf: (m: Member) => number, put: (bone: number, share: number, amount: number, at: Vec3) => void,
): void {
  const indexOf = new Map(bones.map((b, i) => [b.id, i]));
  for (const member of members) {
    const own = [...new Set(member.bones)].map((id) => indexOf.get(id)).filter((i): i is number => i !== undefined);
    const candidates = own.length > 0 ? Int32Array.from(own) : everyBone;
    const lengths = member.path.slice(1).map((b, i) => distance(member.path[i] as Vec3, b));
    const total = lengths.reduce((sum, l) => sum + l, 0);
    const mass = massOf(member);
    lengths.forEach((length, i) => {
      if (total <= 0) return;
      const pieces = max(1, ceil(length / 0.03));
      for (let k = 0; k < pieces; k++) {
        const at = mix(member.path[i] as Vec3, member.path[i + 1] as Vec3, (k + 0.5) / pieces);
        nearest.find(at[0], at[1], at[2], candidates);
        put(nearest.bone, nearest.share, (mass * length) / total / pieces, at);
      }
    });
  }
}

function triple(a: Float64Array, i: number): Vec3 {
  return [a[i * 3] as number, a[i * 3 + 1] as number, a[i * 3 + 2] as number];
}

/**
 * How thick the piece is round each bone. Two measures, the smaller counts: the cylinder of its length with the same
 * volume, and the cylinder with the same spread across the bone (a mass far larger than a short bone is no sleeve).
 */
class RoundBones {
  private readonly sums: Float64Array;

  constructor(private readonly count: number) {
    this.sums = new Float64Array(count * 9);
  }

  add(bone: number, volume: number, core: number, at: Vec3, a: Vec3, b: Vec3): void {
    const along = subtract(b, a);
    const length = sqrt(dot(along, along)) || 1;
    const r = subtract(at, a);
    const t = dot(r, along) / length;
    const px = r[0] - (along[0] / length) * t, py = r[1] - (along[1] / length) * t, pz = r[2] - (along[2] / length) * t;
    const o = bone * 9;
    const s = this.sums;
    (s[o] as number) += volume;
    (s[o + 1] as number) += core;
    (s[o + 2] as number) += volume * px;
    (s[o + 3] as number) += volume * py;
    (s[o + 4] as number) += volume * pz;
    (s[o + 5] as number) += volume * (px * px + py * py + pz * pz);
    (s[o + 6] as number) += volume ** (5 / 3);
  }

  diameters(ends: readonly (readonly [Vec3, Vec3])[]): { outer: Float64Array; core: Float64Array } {
    const outer = new Float64Array(this.count);
    const core = new Float64Array(this.count);
    for (let i = 0; i < this.count; i++) {
      const o = i * 9;
      const [volume, coreVolume, mx, my, mz, square, own] = this.sums.subarray(o, o + 7) as unknown as [number, number, number, number, number, number, number];
      if (!(volume > 0)) continue;
      const length = distance(...(ends[i] as readonly [Vec3, Vec3]));
      const byVolume = sqrt((4 * volume) / (Math.PI * length));
      const mean2 = (mx * mx + my * my + mz * mz) / (volume * volume);
      // A parcel is a cube, whose own spread across a line is a sixth of its side squared.
      const variance = max(0, square / volume - mean2 + own / volume / 6);
      const bySpread = sqrt(8 * variance);
      outer[i] = min(byVolume, bySpread);
      core[i] = (outer[i] as number) * sqrt(min(1, coreVolume / volume));
    }
    return { outer, core };
  }
}
