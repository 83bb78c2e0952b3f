import type { DryingCoefficients } from '../catalogue';
import { meanAir, type DryingCourse, type Geometry } from '../drying';
import { combineDepartures, type Range } from '../quantity';
import { calendarOf, layClay, nominalPush, type Laid, type LaidCoat, type Push, type RegionShape } from './laying';
import type { Memory } from './memory';
import type { Piece } from './piece';
import { windowIds, type RegionReport, type WindowId, type WindowReport } from './report';

/** Solid clay dries like the ball, rod or slab its volume and face make; a coat over a core dries like a slab. */
function shapeOf(piece: Piece, region: number, clay: number, area: number, bulk: number): RegionShape {
  const laid = piece.coats[region] ?? [];
  // What was painted thicker is judged at its thickest; it goes on with the last coat.
  const coats = laid.map((t, k) => (k === laid.length - 1 ? t + (piece.paintedMost[region] ?? 0) : t));
  if (clay <= 0) return { geometry: 'slab', solid: false, thicknesses: [] };
  const solid = bulk < 0.03 * (clay + bulk);
  if (!solid || area <= 0) return { geometry: 'slab', solid: false, thicknesses: coats };
  const kinds = piece.form.masses.filter((m) => m.region === piece.regions[region]).map((m) => m.shape.kind);
  // A shell is its clay and nothing else, with a face either side: a slab as thick as it was laid.
  if (kinds.length > 0 && kinds.every((k) => k === 'shell'))
    return { geometry: 'slab', solid: false, thicknesses: coats };
  const geometry: Geometry = kinds.every((k) => k === 'round-cone' || k === 'ring')
    ? 'cylinder'
    : kinds.every((k) => k === 'rounded-box')
      ? 'slab'
      : 'sphere';
  const n = geometry === 'slab' ? 1 : geometry === 'cylinder' ? 2 : 3;
  return { geometry, solid, thicknesses: [(n * clay) / area] };
}

/** Seconds from the first clay to a state of the last coat; null when never. */
function lastCoatTime(coats: readonly LaidCoat[], pick: (c: DryingCourse) => number | null): number | null {
  const last = coats.reduce<LaidCoat | undefined>((l, c) => (!l || c.start >= l.start ? c : l), undefined);
  const own = last ? pick(last.course) : null;
  return last && own !== null && Number.isFinite(last.start) ? last.start + own : null;
}

/** When a hand may do what: each is a state of the last coat. */
const windowOf: Record<WindowId, (c: DryingCourse) => number | null> = {
  smooth: (c) => c.smoothUntil,
  touch: (c) => c.touchDry,
  leather: (c) => c.leatherHard,
  hold: (c) => (c.touchDry === null || c.leatherHard === null ? null : Math.max(c.touchDry, c.leatherHard)),
  through: (c) => c.throughDry,
  paint: (c) => c.throughDry,
  seal: (c) => c.steady,
  mould: (c) => c.steady,
};

const regionNames: Record<string, string> = { head: 'head', neck: 'neck', chest: 'shoulders and chest' };

export interface DryingReport {
  readonly regions: RegionReport[];
  readonly starts: Laid['starts'];
  readonly lifted: number | null;
}

interface RegionSums {
  clay: number;
  bulk: number;
  area: number;
  masses: string[];
}

/** Clay, bulk and face of each region, and what it dries like. */
export function regionShapes(piece: Piece): {
  readonly sums: readonly RegionSums[];
  readonly shapes: readonly RegionShape[];
} {
  const sums = piece.regions.map((_, r): RegionSums => {
    const out: RegionSums = { clay: 0, bulk: 0, area: 0, masses: [] };
    piece.form.masses.forEach((m, i) => {
      if (piece.regionOfMass[i] !== r) return;
      const v = piece.volumes.perMass[i];
      out.clay += v?.clay ?? 0;
      out.bulk += v?.bulk ?? 0;
      out.area += v?.area ?? 0;
      out.masses.push(m.id);
    });
    return out;
  });
  return { sums, shapes: sums.map((s, r) => shapeOf(piece, r, s.clay, s.area, s.bulk)) };
}

export function dryingReport(piece: Piece, memory: Memory, ranges: boolean): DryingReport {
  const drying = piece.mixed.drying;
  const { sums, shapes } = regionShapes(piece);
  const laid = drying
    ? layClay(piece, memory, drying, shapes)
    : { coats: shapes.map(() => []), starts: [], lifted: null };
  const outcomes = drying && ranges ? pushedOutcomes(piece, memory, drying, shapes) : null;
  const share = dryShareInRoom(piece);
  const regions = piece.regions.map((id, r): RegionReport => {
    const s = sums[r]!;
    const shape = shapes[r]!;
    const coats = s.clay > 0 ? (laid.coats[r] ?? []) : [];
    const crack = worstCrack(coats);
    const windows = Object.fromEntries(
      windowIds.map((w): [WindowId, WindowReport] => {
        const at = lastCoatTime(coats, windowOf[w]);
        return [
          w,
          {
            at,
            range:
              outcomes && at !== null
                ? combineDepartures(
                    at,
                    outcomes.times.map((t) => lastCoatTime(t.coats[r] ?? [], windowOf[w]) ?? at * 2),
                  )
                : null,
          },
        ];
      }),
    ) as Record<WindowId, WindowReport>;
    const clayWet = s.clay * piece.mixed.wetDensity;
    return {
      id,
      name: regionNames[id] ?? id.replaceAll('-', ' '),
      masses: s.masses,
      geometry: shape.geometry,
      solid: shape.solid,
      area: s.area,
      clayVolume: s.clay,
      bulkVolume: s.bulk,
      clayWet,
      clayDry: clayWet * share,
      thickness: shape.thicknesses.reduce((sum, t) => sum + t, 0),
      coats,
      windows,
      touchDry: windows.touch.at,
      leatherHard: windows.leather.at,
      throughDry: windows.through.at,
      throughDryRange: windows.through.range,
      crack,
      crackRange:
        outcomes && coats.length > 0
          ? crackRange(
              crack,
              outcomes.cracks.map((l) => worstCrack(l.coats[r] ?? [])),
            )
          : null,
    };
  });
  return { regions, starts: laid.starts, lifted: laid.lifted };
}

function worstCrack(coats: readonly LaidCoat[]): number {
  return coats.reduce((most, c) => Math.max(most, c.crack.total), 0);
}

function crackRange(at: number, outcomes: readonly number[]): Range {
  const range = combineDepartures(at, outcomes);
  return { ...range, low: Math.max(0, range.low) };
}

/** Everything once more with each uncertain figure at either end. What weighing has taught stands nearer. */
function pushedOutcomes(
  piece: Piece,
  memory: Memory,
  clay: DryingCoefficients,
  shapes: readonly RegionShape[],
): { readonly times: Laid[]; readonly cracks: Laid[] } {
  const taught = piece.learned?.spread;
  const either = (low: number, high: number, spread: number | undefined): [number, number] =>
    spread === undefined ? [low, high] : [Math.max(low, Math.exp(-2 * spread)), Math.min(high, Math.exp(2 * spread))];
  const [slow, fast] = either(0.6, 1.6, taught?.diffusion),
    [calm, brisk] = either(0.7, 1.4, taught?.evaporation);
  const lay = (p: Partial<Push>) => layClay(piece, memory, clay, shapes, { ...nominalPush, ...p });
  const shared = [
    lay({ diffusivity: slow }),
    lay({ diffusivity: fast }),
    lay({ transfer: calm }),
    lay({ transfer: brisk }),
  ];
  const s = piece.clay.shrinkageRange;
  return {
    times: [...shared, lay({ sorption: 0.7 }), lay({ sorption: 1.3 })],
    cracks: [
      ...shared,
      lay({ restraint: 0.7 }),
      lay({ restraint: 1.3 }),
      ...(s ? [lay({ shrinkage: s.low / s.nominal }), lay({ shrinkage: s.high / s.nominal })] : []),
    ],
  };
}

/** Dry mass over wet mass, at the moisture the room leaves in it: (1 + w_eq)/(1 + w0). */
export function dryShareInRoom(piece: Piece): number {
  const d = piece.mixed.drying;
  if (!d || piece.clay.setting !== 'dries') return 1;
  const left = -d.w_m * Math.log(1 - Math.min(0.999, meanAir(calendarOf(piece)).relativeHumidity));
  return (1 + Math.min(left, d.w0)) / (1 + d.w0);
}
