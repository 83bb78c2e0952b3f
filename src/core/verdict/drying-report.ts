import type { DryingCoefficients } from '../catalogue';
import { hashOf } from '../build';
import { furtherCoatRestraint, coverResistance, crackIndex, dryLayer, evaporationCurve, type AirPhase, type DryingCourse, type Geometry } from '../drying';
import { combineDepartures, type Range } from '../quantity';
import type { Memory } from './memory';
import type { Piece } from './piece';
import type { CoatReport, RegionReport } from './report';

/** Coefficients pushed off their nominal, as factors; 1 is nominal. */
export interface Push {
  readonly diffusivity: number;
  readonly transfer: number;
  readonly sorption: number;
  readonly restraint: number;
  readonly shrinkage: number;
}

const nominal: Push = { diffusivity: 1, transfer: 1, sorption: 1, restraint: 1, shrinkage: 1 };

/** The factors that move the answers most; no range is given for them, so the usual spread is used. */
const timePushes: readonly Partial<Push>[] = [
  { diffusivity: 0.6 }, { diffusivity: 1.6 }, { transfer: 0.7 }, { transfer: 1.4 }, { sorption: 0.7 }, { sorption: 1.3 },
];

function phasesOf(piece: Piece, transfer: number): AirPhase[] {
  const { room } = piece.build;
  const air = { temperature: room.temperature, relativeHumidity: room.relativeHumidity, speed: room.airSpeed };
  const open: AirPhase = { until: Infinity, curve: evaporationCurve(air, 0, transfer), relativeHumidity: room.relativeHumidity };
  if (room.cover === 'none' || room.coverHours <= 0) return [open];
  const covered = evaporationCurve(air, coverResistance(room.cover), transfer);
  return [{ until: room.coverHours * 3600, curve: covered, relativeHumidity: room.relativeHumidity }, open];
}

interface RegionShape {
  readonly geometry: Geometry;
  readonly solid: boolean;
  /** One entry a coat. */
  readonly thicknesses: readonly number[];
}

/** Solid clay dries like the ball, rod or slab its volume and face make; a coat over a core dries like a slab. */
function shapeOf(piece: Piece, region: number, clay: number, area: number, bulk: number): RegionShape {
  const coats = piece.coats[region] ?? [];
  if (clay <= 0) return { geometry: 'slab', solid: false, thicknesses: [] };
  const solid = bulk < 0.03 * (clay + bulk);
  if (!solid || area <= 0) return { geometry: 'slab', solid: false, thicknesses: coats };
  const kinds = piece.form.masses.filter((m) => m.region === piece.regions[region]).map((m) => m.shape.kind);
  const geometry: Geometry = kinds.every((k) => k === 'round-cone' || k === 'ring') ? 'cylinder' : kinds.every((k) => k === 'rounded-box' || k === 'shell') ? 'slab' : 'sphere';
  const n = geometry === 'slab' ? 1 : geometry === 'cylinder' ? 2 : 3;
  return { geometry, solid, thicknesses: [(n * clay) / area] };
}

function courseOf(piece: Piece, memory: Memory, clay: DryingCoefficients, geometry: Geometry, thickness: number, innerFace: number, transfer: number): DryingCourse {
  const { room } = piece.build;
  const key = hashOf([clay, piece.mixed.tabulatedW0, geometry, thickness, innerFace, room, transfer]);
  return memory.keep('course', key, () => dryLayer({
    clay, tabulatedW0: piece.mixed.tabulatedW0, geometry, thickness, innerFace,
    phases: memory.keep('phases', hashOf([room, transfer]), () => phasesOf(piece, transfer)),
  }));
}

function coatReports(piece: Piece, memory: Memory, clay: DryingCoefficients, shape: RegionShape, push: Push): CoatReport[] {
  const pushed: DryingCoefficients = {
    ...clay, D_wet: clay.D_wet * push.diffusivity, D_dry: clay.D_dry * push.diffusivity, w_m: clay.w_m * push.sorption,
    shrinkage: clay.shrinkage * push.shrinkage,
  };
  let start = 0;
  return shape.thicknesses.map((thickness, k) => {
    const first = k === 0;
    const course = courseOf(piece, memory, pushed, shape.geometry, thickness, first && !shape.solid ? piece.face.innerFace : 0, push.transfer);
    const restraint = Math.min(1, (first ? piece.face.restraint : furtherCoatRestraint) * push.restraint);
    const report = { thickness, start, restraint, course, crack: crackIndex(pushed, thickness, course, restraint) };
    start += course.throughDry ?? Infinity;
    return report;
  });
}

/** Seconds from the start of the first coat to a state of the last one; null when never. */
function lastCoatTime(coats: readonly CoatReport[], pick: (c: DryingCourse) => number | null): number | null {
  const last = coats[coats.length - 1];
  const own = last ? pick(last.course) : null;
  return last && own !== null && Number.isFinite(last.start) ? last.start + own : null;
}

const regionNames: Record<string, string> = { head: 'head', neck: 'neck', chest: 'shoulders and chest' };

export function regionReports(piece: Piece, memory: Memory, ranges: boolean): RegionReport[] {
  const drying = piece.mixed.drying;
  return piece.regions.map((id, r) => {
    let clay = 0, bulk = 0, area = 0;
    const masses: string[] = [];
    piece.form.masses.forEach((m, i) => {
      if (piece.regionOfMass[i] !== r) return;
      const v = piece.volumes.perMass[i];
      clay += v?.clay ?? 0;
      bulk += v?.bulk ?? 0;
      area += v?.area ?? 0;
      masses.push(m.id);
    });
    const shape = shapeOf(piece, r, clay, area, bulk);
    const coats = drying && clay > 0 ? coatReports(piece, memory, drying, shape, nominal) : [];
    const throughDry = lastCoatTime(coats, (c) => c.throughDry);
    const crack = coats.reduce((m, c) => Math.max(m, c.crack.total), 0);
    const clayWet = clay * piece.mixed.wetDensity;
    return {
      id, name: regionNames[id] ?? id.replaceAll('-', ' '), masses, geometry: shape.geometry, solid: shape.solid, area,
      clayVolume: clay, bulkVolume: bulk, clayWet, clayDry: clayWet * dryShareInRoom(piece),
      thickness: shape.thicknesses.reduce((sum, t) => sum + t, 0), coats,
      touchDry: lastCoatTime(coats, (c) => c.touchDry), leatherHard: lastCoatTime(coats, (c) => c.leatherHard), throughDry,
      throughDryRange: ranges && drying && throughDry !== null ? timeRange(piece, memory, drying, shape, throughDry) : null,
      crack, crackRange: ranges && drying ? crackRange(piece, memory, drying, shape, crack) : null,
    };
  });
}

/** Dry mass over wet mass, at the moisture the room leaves in it: (1 + w_eq)/(1 + w0). */
export function dryShareInRoom(piece: Piece): number {
  const d = piece.mixed.drying;
  if (!d || piece.clay.setting !== 'dries') return 1;
  const left = -d.w_m * Math.log(1 - Math.min(0.999, piece.build.room.relativeHumidity));
  return (1 + Math.min(left, d.w0)) / (1 + d.w0);
}

function timeRange(piece: Piece, memory: Memory, clay: DryingCoefficients, shape: RegionShape, at: number): Range {
  const outcomes = timePushes.map((p) => lastCoatTime(coatReports(piece, memory, clay, shape, { ...nominal, ...p }), (c) => c.throughDry) ?? at * 2);
  return combineDepartures(at, outcomes);
}

function crackRange(piece: Piece, memory: Memory, clay: DryingCoefficients, shape: RegionShape, at: number): Range {
  const s = piece.clay.shrinkageRange;
  const pushes: Partial<Push>[] = [
    { restraint: 0.7 }, { restraint: 1.3 }, { diffusivity: 0.6 }, { diffusivity: 1.6 }, { transfer: 0.7 }, { transfer: 1.4 },
    ...(s ? [{ shrinkage: s.low / s.nominal }, { shrinkage: s.high / s.nominal }] : []),
  ];
  const outcomes = pushes.map((p) => coatReports(piece, memory, clay, shape, { ...nominal, ...p }).reduce((m, c) => Math.max(m, c.crack.total), 0));
  const range = combineDepartures(at, outcomes);
  return { ...range, low: Math.max(0, range.low) };
}
