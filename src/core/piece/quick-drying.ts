import { equilibriumMoisture, meanAir, type DryingCourse, type Geometry } from '../drying';
import { combineDepartures, type Range } from '../quantity';
import { ratiosOf, type FullFindings, type RegionFigures } from './full-findings';
import {
  calendarOf,
  lastCoat,
  layClay,
  layingInputs,
  nominalPush,
  type Laid,
  type LaidCoat,
  type LayingInputs,
  type Push,
  type RegionShape,
} from './laying';
import { isShell, lyingRadii } from './lying';
import type { ResultCache } from './result-cache';
import type { Piece } from './piece';
import {
  correctedTimes,
  shownAgainst,
  usualAgainst,
  type Against,
  type CorrectedTime,
  type DriedAs,
} from './quick-against-full';
import {
  windowIds,
  type CrackPlace,
  type DryingBasis,
  type RegionReport,
  type WindowId,
  type WindowReport,
} from './report';

/** Solid clay dries like the ball, rod or slab its volume and face make; a coat over a core dries like a slab. */
function shapeOf(piece: Piece, region: number, clay: number, area: number, bulk: number): RegionShape {
  const laid = piece.coats[region] ?? [];
  // What was painted thicker is judged at its thickest; it goes on with the last coat.
  const coats = laid.map((t, k) => (k === laid.length - 1 ? t + (piece.paintedMost[region] ?? 0) : t));
  if (clay <= 0) return { geometry: 'slab', solid: false, thicknesses: [] };
  const solid = bulk < 0.03 * (clay + bulk);
  if (!solid || area <= 0) return { geometry: 'slab', solid: false, thicknesses: coats };
  // A shell is its clay and nothing else, with a face either side: a slab as thick as it was laid.
  if (isShell(piece, region)) return { geometry: 'slab', solid: false, thicknesses: coats };
  const kinds = piece.form.masses.filter((m) => m.region === piece.regions[region]).map((m) => m.shape.kind);
  const geometry: Geometry = kinds.every((k) => k === 'round-cone' || k === 'ring')
    ? 'cylinder'
    : kinds.every((k) => k === 'rounded-box')
      ? 'slab'
      : 'sphere';
  const n = geometry === 'slab' ? 1 : geometry === 'cylinder' ? 2 : 3;
  return { geometry, solid, thicknesses: [(n * clay) / area] };
}

/** What a window is a state of, how the state is read off a coat, and which correction it takes. */
const windowOf: Record<
  WindowId,
  { readonly pick: (c: DryingCourse) => number | null; readonly corrected: CorrectedTime }
> = {
  smooth: { pick: (c) => c.smoothUntil, corrected: 'touch' },
  touch: { pick: (c) => c.touchDry, corrected: 'touch' },
  leather: { pick: (c) => c.leatherHard, corrected: 'leather' },
  hold: {
    pick: (c) => (c.touchDry === null || c.leatherHard === null ? null : Math.max(c.touchDry, c.leatherHard)),
    corrected: 'hold',
  },
  through: { pick: (c) => c.throughDry, corrected: 'through' },
  paint: { pick: (c) => c.throughDry, corrected: 'through' },
  seal: { pick: (c) => c.steady, corrected: 'steady' },
  mould: { pick: (c) => c.steady, corrected: 'steady' },
};
const stateOf: Record<CorrectedTime, (c: DryingCourse) => number | null> = {
  touch: windowOf.touch.pick,
  leather: windowOf.leather.pick,
  hold: windowOf.hold.pick,
  through: windowOf.through.pick,
  steady: windowOf.seal.pick,
};

const regionNames: Record<string, string> = { chest: 'shoulders and chest' };
export function regionName(id: string): string {
  return regionNames[id] ?? id.replaceAll('-', ' ');
}

export interface DryingReport {
  readonly regions: RegionReport[];
  readonly starts: Laid['starts'];
  readonly lifted: number | null;
  readonly basis: DryingBasis;
}

interface RegionSums {
  clay: number;
  bulk: number;
  area: number;
  /** Of the middle of its clay. */
  height: number;
  masses: string[];
}

/** Clay, bulk and face of each region, and what it dries like. */
export function regionShapes(piece: Piece): {
  readonly sums: readonly RegionSums[];
  readonly shapes: readonly RegionShape[];
} {
  const sums = piece.regions.map((_, r): RegionSums => {
    const out: RegionSums = { clay: 0, bulk: 0, area: 0, height: 0, masses: [] };
    piece.form.masses.forEach((m, i) => {
      if (piece.regionOfMass[i] !== r) return;
      const v = piece.volumes.perMass[i];
      out.clay += v?.clay ?? 0;
      out.bulk += v?.bulk ?? 0;
      out.area += v?.area ?? 0;
      out.height += (v?.clay ?? 0) * (v?.clayCentre[2] ?? 0);
      out.masses.push(m.id);
    });
    if (out.clay > 0) out.height /= out.clay;
    return out;
  });
  return { sums, shapes: sums.map((s, r) => shapeOf(piece, r, s.clay, s.area, s.bulk)) };
}

/** The laying of this piece as the log knows it; null for a clay that does not dry. */
export function layingOf(piece: Piece): LayingInputs | null {
  const clay = piece.mixed.drying;
  if (!clay) return null;
  const { sums, shapes } = regionShapes(piece);
  return layingInputs(
    piece,
    clay,
    shapes,
    sums.map((s) => s.area),
    sums.map((s) => s.bulk),
  );
}

export interface DryingOptions {
  readonly ranges: boolean;
  /** What the last whole drying found, and the key of the build as it stands. */
  readonly full: FullFindings | null;
  readonly key: string;
}

/**
 * Every region's times and crack index: by the quick answer corrected by what whole dryings usually show, or by what the
 * last one of this piece showed; by that one itself where it is of the build as it stands.
 */
export function quickDrying(piece: Piece, cache: ResultCache, options: DryingOptions): DryingReport {
  const { sums, shapes } = regionShapes(piece);
  const inputs = layingOf(piece);
  const laid = inputs ? layClay(inputs, cache) : { coats: shapes.map(() => []), starts: [], lifted: null };
  const pushed = inputs && options.ranges ? pushedOutcomes(piece, inputs, cache) : null;
  const share = dryShareInRoom(piece);
  const lying = lyingRadii(piece);
  const full = piece.clay.setting === 'dries' ? options.full : null;
  const basis: DryingBasis = !full ? 'quick' : full.key === options.key ? 'full' : 'corrected';
  const regions = piece.regions.map((id, r): RegionReport => {
    const s = sums[r]!;
    const shape = shapes[r]!;
    const coats = s.clay > 0 ? (laid.coats[r] ?? []) : [];
    const start = lastCoat(coats)?.start ?? 0;
    const dried = full?.regions.find((f) => f.id === id);
    const as = driedAs(piece, r, shape, coats, lying);
    const usual = usualAgainst[as];
    const found = dried && (dried.as ?? as) === as ? dried : undefined;
    const against = found ? shownAgainst(ratiosOf(found), usual) : usual;
    const certain = basis === 'full' && found ? found.full : null;
    const clayWet = s.clay * piece.mixed.wetDensity;
    const windows = windowsOf(coats, against, certain, pushed?.times.map((l) => l.coats[r] ?? []) ?? null);
    const quick = figuresOf(coats);
    const cracks = cracksOf(piece, r, coats, against, certain, pushed?.cracks.map((l) => l.coats[r] ?? []) ?? null);
    return {
      id,
      name: regionName(id),
      masses: s.masses,
      geometry: shape.geometry,
      solid: shape.solid,
      area: s.area,
      clayVolume: s.clay,
      height: s.height,
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
      ...cracks,
      basis: found ? basis : 'quick',
      lastStart: start,
      quick,
      as,
      against,
    };
  });
  return { regions, starts: laid.starts, lifted: laid.lifted, basis };
}

function driedAs(
  piece: Piece,
  region: number,
  shape: RegionShape,
  coats: readonly LaidCoat[],
  lying: readonly number[],
): DriedAs {
  if (isShell(piece, region)) return 'shell';
  if (shape.solid) return 'solid';
  if (coats.length > 1) return 'further-coat';
  return lying[region]! > 0 ? 'resting' : 'coat';
}

/** Seconds from the first clay to a state of the last coat; null when never. */
function lastCoatTime(coats: readonly LaidCoat[], pick: (c: DryingCourse) => number | null): number | null {
  const last = lastCoat(coats);
  const own = last ? pick(last.course) : null;
  return last && own !== null && Number.isFinite(last.start) ? last.start + own : null;
}

/** What the quick answer says by itself. */
function figuresOf(coats: readonly LaidCoat[]): RegionFigures {
  const times = Object.fromEntries(correctedTimes.map((k) => [k, lastCoatTime(coats, stateOf[k])])) as Record<
    CorrectedTime,
    number | null
  >;
  return { ...times, crack: worstCrack(coats) };
}

function windowsOf(
  coats: readonly LaidCoat[],
  against: Against,
  certain: RegionFigures | null,
  pushed: readonly (readonly LaidCoat[])[] | null,
): Record<WindowId, WindowReport> {
  const start = lastCoat(coats)?.start ?? 0;
  const windows = Object.fromEntries(
    windowIds.map((w): [WindowId, WindowReport] => {
      const { pick, corrected } = windowOf[w];
      const { low, nominal, high } = against[corrected];
      const quick = lastCoatTime(coats, pick);
      const own = quick === null ? null : start + (quick - start) * nominal;
      // What may still be smoothed no whole drying says.
      const at = certain && w !== 'smooth' ? certain[corrected] : own;
      if (at === null || !pushed) return [w, { at, range: null }];
      const scale = quick !== null && quick > start ? (at - start) / (quick - start) : 1;
      const outcomes = pushed.map((c) => start + ((lastCoatTime(c, pick) ?? at * 2) - start) * scale);
      const apart = certain ? [] : [start + ((at - start) * low) / nominal, start + ((at - start) * high) / nominal];
      const range = combineDepartures(at, [...outcomes, ...apart]);
      return [w, { at, range: { ...range, low: Math.max(0, range.low) } }];
    }),
  ) as Record<WindowId, WindowReport>;
  // Firm and dry to the touch: a hand may hold it when it is both.
  return certain ? windows : { ...windows, hold: later(windows.touch, windows.leather) };
}

function later(a: WindowReport, b: WindowReport): WindowReport {
  const most = (x: number | null, y: number | null) => (x === null || y === null ? null : Math.max(x, y));
  const at = most(a.at, b.at);
  const range =
    a.range && b.range && at !== null
      ? { low: Math.max(a.range.low, b.range.low), nominal: at, high: Math.max(a.range.high, b.range.high) }
      : null;
  return { at, range };
}

function worstCrack(coats: readonly LaidCoat[]): number {
  return coats.reduce((most, c) => Math.max(most, c.crack.total, c.overMember?.total ?? 0), 0);
}

/** The one crack index of a region: its worst place, over a member too; what it is made of, and where. */
function cracksOf(
  piece: Piece,
  region: number,
  coats: readonly LaidCoat[],
  against: Against,
  certain: RegionFigures | null,
  pushed: readonly (readonly LaidCoat[])[] | null,
): Pick<RegionReport, 'crack' | 'crackRange' | 'crackParts' | 'crackPlaces'> {
  const quick = worstCrack(coats);
  const crack = certain ? certain.crack : quick * against.crack.nominal;
  const scale = quick > 0 ? crack / quick : 1;
  const worst = coats.reduce<{ restrained: number; differential: number; total: number } | null>(
    (w, c) => [c.crack, c.overMember].reduce((m, x) => (x && (!m || x.total > m.total) ? x : m), w),
    null,
  );
  const over = Math.max(0, ...coats.map((c) => c.overMember?.total ?? 0)) * scale;
  const places = piece.thinOver[region]!.map((t): CrackPlace => ({ member: t.member, name: t.name, crack: over }));
  const outcomes = pushed?.map((c) => worstCrack(c) * scale);
  const apart = certain ? [] : [quick * against.crack.low, quick * against.crack.high];
  const range = outcomes && coats.length > 0 ? combineDepartures(crack, [...outcomes, ...apart]) : null;
  return {
    crack,
    crackRange: range && { ...range, low: Math.max(0, range.low) },
    crackParts: { restrained: (worst?.restrained ?? 0) * scale, differential: (worst?.differential ?? 0) * scale },
    crackPlaces: coats.some((c) => c.overMember) ? places : [],
  };
}

/**
 * A state of one coat, seconds after it was laid, as uncertain as the region's own is; null when never. The corrections
 * of the last coat are those of the region, those of one under it what is usual of a first coat.
 */
export function coatState(region: RegionReport, coat: LaidCoat, state: CorrectedTime): Range | null {
  const own = stateOf[state](coat.course);
  if (own === null) return null;
  const last = lastCoat(region.coats) === coat;
  if (!last) {
    const { low, nominal, high } = usualAgainst[region.solid ? 'solid' : 'coat'][state];
    return { low: own * low, nominal: own * nominal, high: own * high };
  }
  const window = region.windows[state === 'steady' ? 'seal' : state];
  const at = window.at === null ? own * region.against[state].nominal : window.at - region.lastStart;
  if (!window.range) return { low: at, nominal: at, high: at };
  const end = (t: number) => Math.max(0, t - region.lastStart);
  return { low: end(window.range.low), nominal: at, high: end(window.range.high) };
}

/** Ends of the usual ranges, as factors. */
const slow = 0.6,
  fast = 1.6,
  calm = 0.7,
  brisk = 1.4;

/** Everything once more with each uncertain figure at either end. What weighing has told stands nearer, and together. */
function pushedOutcomes(
  piece: Piece,
  inputs: LayingInputs,
  cache: ResultCache,
): { readonly times: Laid[]; readonly cracks: Laid[] } {
  const lay = (p: Partial<Push>) => layClay(inputs, cache, { ...nominalPush, ...p });
  const shared = factorPushes(piece.factors.covariance).map(lay);
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

/**
 * Either end of how fast water leaves and moves: two standard deviations along the ways in which the fit leaves them
 * open (so that what they do together counts once), or the usual ranges where those are narrower.
 */
export function factorPushes(covariance: Piece['factors']['covariance']): Partial<Push>[] {
  const usual: Partial<Push>[] = [
    { diffusivity: slow },
    { diffusivity: fast },
    { transfer: calm },
    { transfer: brisk },
  ];
  if (!covariance) return usual;
  const [[ee, ed], [, dd]] = covariance;
  if (!(Math.exp(2 * Math.sqrt(ee)) < brisk && Math.exp(2 * Math.sqrt(dd)) < fast)) return usual;
  // Cholesky: first along evaporation with what diffusion does beside it, then what is left of diffusion.
  const a = Math.sqrt(Math.max(1e-12, ee)),
    b = ed / a,
    c = Math.sqrt(Math.max(0, dd - b * b));
  const push = (e: number, d: number): Partial<Push> => ({ transfer: Math.exp(e), diffusivity: Math.exp(d) });
  return [push(2 * a, 2 * b), push(-2 * a, -2 * b), push(0, 2 * c), push(0, -2 * c)];
}

/** Dry mass over wet mass, at the moisture the room leaves in it: (1 + w_eq)/(1 + w0). */
export function dryShareInRoom(piece: Piece): number {
  const d = piece.mixed.drying;
  if (!d || piece.clay.setting !== 'dries') return 1;
  const left = equilibriumMoisture(meanAir(calendarOf(piece)).relativeHumidity, d.w_m);
  return (1 + Math.min(left, d.w0)) / (1 + d.w0);
}
