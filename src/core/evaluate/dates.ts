import type { DateRange, Dates } from '../finding';
import { coatState, type Piece, type PieceReport, type RegionReport } from '../piece';
import { decidingSentence, zoneClock, type BuildPlan, type PlannedStep } from '../plan';
import { compared, type Range } from '../quantity';
import type { LaidDates } from './report';

/**
 * The two dates. Dry through: each region's last coat from when it was or is to be laid by the plan, the latest of them.
 * Ready: the end of the plan. Earliest and latest are those of the same figures with everything early or late.
 */
export function datesOf(
  piece: Piece,
  report: PieceReport,
  plan: BuildPlan | null,
  firstClay: number,
  weighings: number,
): Dates {
  const through = piece.clay.setting === 'dries' ? dryThroughOf(report, plan, firstClay) : null;
  return {
    dryThrough: through && isoTimes(through.at),
    lastDry: through?.region ?? null,
    ready: plan && Number.isFinite(plan.finish.nominal) ? isoDays(plan.finish, plan.zone) : null,
    decides: plan ? decidingSentence(plan) : '',
    weighings,
    basis: report.basis,
  };
}

function dryThroughOf(
  report: PieceReport,
  plan: BuildPlan | null,
  firstClay: number,
): { readonly at: Range; readonly region: string } | null {
  const ends: { region: string; at: Range }[] = [];
  for (const r of report.regions) {
    const last = r.coats.length;
    if (last === 0) continue;
    const coat = r.coats[last - 1]!;
    const after = coatState(r, coat, 'through');
    if (!after) return null;
    const laid = plan && laidBy(plan, `lay/${r.id}/${last}`);
    const from = laid ?? exactFrom(firstClay, r);
    ends.push({
      region: r.id,
      at: { low: from.low + after.low, nominal: from.nominal + after.nominal, high: from.high + after.high },
    });
  }
  const latest = ends.reduce<(typeof ends)[number] | null>(
    (m, e) => (!m || compared(e.at.nominal) > compared(m.at.nominal) ? e : m),
    null,
  );
  if (!latest || ![latest.at.low, latest.at.nominal, latest.at.high].every(Number.isFinite)) return null;
  const most = (pick: (r: Range) => number) => ends.reduce((m, e) => Math.max(m, pick(e.at)), -Infinity);
  return {
    region: latest.region,
    at: { low: most((r) => r.low), nominal: latest.at.nominal, high: most((r) => r.high) },
  };
}

/** When a step's clay is on, also where a class lays it group by group; null where the plan has no such step. */
function laidBy(plan: BuildPlan, step: string): Range | null {
  const all = plan.steps.filter((s) => s.id === step || s.id.endsWith(`/${step}`));
  if (all.length === 0) return null;
  const most = (pick: (s: PlannedStep) => number) => all.reduce((m, s) => Math.max(m, pick(s)), -Infinity);
  return {
    low: most((s) => s.ends.low),
    nominal: most((s) => s.until),
    high: most((s) => s.ends.high),
  };
}

function exactFrom(firstClay: number, r: RegionReport): Range {
  const at = firstClay + r.lastStart;
  return { low: at, nominal: at, high: at };
}

/** When the clay went on by the log, else when the plan lays it, else when the brief would have it laid. */
export function laidDates(
  report: PieceReport,
  plan: BuildPlan | null,
  firstClay: number,
  clayIsOn: boolean,
): LaidDates {
  const lays = plan?.steps.filter((s) => /(^|\/)lay\//.test(s.id) && Number.isFinite(s.until)) ?? [];
  const planned = lays.reduce((m, s) => Math.min(m, s.until), Infinity);
  const first = clayIsOn || planned === Infinity ? firstClay : planned;
  const lastCoat = Object.fromEntries(
    report.regions
      .filter((r) => r.coats.length > 0)
      .map((r) => [r.id, (plan && laidBy(plan, `lay/${r.id}/${r.coats.length}`)?.nominal) ?? first + r.lastStart]),
  );
  return { first, lastCoat };
}

const iso = (seconds: number) => new Date(Math.round(seconds) * 1000).toISOString();

function isoTimes(r: Range): DateRange {
  return {
    earliest: iso(Math.min(r.low, r.nominal)),
    likely: iso(r.nominal),
    latest: iso(Math.max(r.high, r.nominal)),
  };
}

/** The day on which the last step ends; one that ends at midnight ends the day before. */
function isoDays(r: Range, zone: string): DateRange {
  const clock = zoneClock(zone);
  const day = (t: number) => clock.wallOf(Number.isFinite(t) ? t - 1 : r.nominal).date;
  return { earliest: day(r.low), likely: day(r.nominal), latest: Number.isFinite(r.high) ? day(r.high) : '9999-12-31' };
}
