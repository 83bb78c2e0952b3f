import { createEvents, type EventAttributes } from 'ics';
import Papa from 'papaparse';
import {
  clockText,
  sittingsOfPlan,
  timeWords,
  zoneClock,
  type BuildPlan,
  type BuildToPlan,
  type PlanSurroundings,
  type WorkshopPlan,
} from '../core/plan';
import { failure, success, type Result } from '../core/quantity';
import type { Report } from '../core/evaluate';
import * as db from '../db';
import { questionOf } from './questions';
import { workOut } from './reckoner';
import { demoBuildsFlag, readFlag } from './settings';
import { database } from './store';
import { learnedPaces, readWorkshop } from './workshop';

/** Plans of saved builds: the others a build shares its people with, and the calendar and table of one. */
const made = new Map<string, { readonly key: string; readonly input: BuildToPlan }>();

/**
 * Builds on the go other than this one; one that does not work out is passed over. The pieces of the demo data take no
 * evening from one of the maker's own.
 */
export async function othersOnTheGo(except: string): Promise<BuildToPlan[]> {
  const store = await database();
  const demo = new Set((await readFlag(demoBuildsFlag))?.split(',') ?? []);
  const stamps = await db.logStamps(store),
    dried = await db.dryingStamps(store);
  const out: BuildToPlan[] = [];
  for (const row of await db.listBuilds(store)) {
    if (row.id === except || row.archivedAt !== null || row.active !== 1) continue;
    if (demo.has(row.id) && !demo.has(except)) continue;
    // A restore can bring another content under the same revision.
    const key = [row.revision, row.updatedAt, stamps.get(row.id) ?? '', dried.get(row.id) ?? ''].join();
    let kept = made.get(row.id);
    if (kept?.key !== key) {
      const saved = await questionOf(row.id, 0);
      const input = saved.ok
        ? await workOut('toPlan', { question: saved.value.question, options: { id: row.id, full: saved.value.full } })
        : saved;
      if (input.ok) {
        kept = { key, input: input.value };
        made.set(row.id, kept);
      }
      // Too much at once is no fault of the piece: what it took before is nearer than nothing.
      else if (!kept) continue;
    }
    out.push(kept.input);
  }
  return out;
}

/** What a plan of this build needs besides the build and its log. */
export async function planSurroundings(id: string, zoneOfPage?: string): Promise<PlanSurroundings> {
  return { workshop: await readWorkshop(zoneOfPage), paces: await learnedPaces(), others: await othersOnTheGo(id) };
}

/** The whole answer of a saved build as it stands now, its plan among the others. */
export async function answerOf(id: string, now: number, zoneOfPage?: string): Promise<Result<Report>> {
  const saved = await questionOf(id, now);
  if (!saved.ok) return saved;
  const surroundings = await planSurroundings(id, zoneOfPage);
  return workOut('report', {
    question: saved.value.question,
    options: { id, full: saved.value.full, surroundings, ranges: 'dates' },
  });
}

export async function planOf(
  id: string,
  now: number,
  zoneOfPage?: string,
): Promise<Result<{ readonly whole: WorkshopPlan; readonly own: BuildPlan; readonly report: Report }>> {
  const report = await answerOf(id, now, zoneOfPage);
  if (!report.ok) return report;
  const { workshop: whole, plan: own } = report.value;
  return whole && own
    ? success({ whole, own, report: report.value })
    : failure('ring', 'plan.own', 'steps of your own wait for each other in a ring');
}

const utc = (seconds: number): [number, number, number, number, number] => {
  const d = new Date(Math.round(seconds / 60) * 60_000);
  return [d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate(), d.getUTCHours(), d.getUTCMinutes()];
};

/** On one line: a calendar ends its lines where a carriage return stands, wherever it came from. */
const oneLine = (text: string) => text.replace(/[\u0000-\u001f\u007f\u0085\u2028\u2029]+/g, ' ');

/** Names of this length are told in full in a title; the rest is in what it says. */
const longTitle = 60;

/**
 * An open calendar (RFC 5545), times in UTC: an event a sitting, its steps inside with their hours. An event's id is that
 * of its first step and which part of that it is, so that bringing it in again moves it.
 */
export function calendarOfPlan(plan: BuildPlan, now: number): Result<string> {
  const events = sittingsOfPlan(plan.steps).map(({ from, until, parts }): EventAttributes => {
    const first = parts[0]!;
    const names = [...new Set(parts.map((p) => p.step.name))];
    const title =
      names.length === 1 || names.join(', ').length <= longTitle
        ? names.join(', ')
        : `${names[0]!} and ${names.length - 1} more`;
    const needs = [...new Set(parts.flatMap((p) => p.step.needs))];
    return {
      uid: `${plan.id}.${first.step.id.replaceAll('/', '.')}.${first.part}@sostegno`,
      title: oneLine(`${title} (${plan.name})`),
      start: utc(from),
      end: utc(Math.max(until, from + 60)),
      startInputType: 'utc',
      startOutputType: 'utc',
      endInputType: 'utc',
      endOutputType: 'utc',
      calName: oneLine(`Sostegno: ${plan.name}`),
      productId: 'sostegno',
      sequence: Math.floor(now / 60) % 2 ** 31,
      description:
        [
          ...(parts.length > 1 || first.of > 1
            ? parts.map((p) =>
                oneLine(
                  `${timeWords(p.from, plan.zone)} ${p.step.name}${p.of > 1 ? ` (part ${p.part} of ${p.of})` : ''}`,
                ),
              )
            : []),
          ...(needs.length > 0 ? [`Needs: ${needs.join(', ')}.`] : []),
        ].join('\n') || undefined,
    };
  });
  if (events.length === 0)
    return failure('nothing-left', 'plan', 'every step is done: there is nothing to put in a calendar');
  const { error, value } = createEvents(events);
  return value ? success(value) : failure('calendar', 'plan', error?.message ?? 'the calendar could not be written');
}

/** A cell that a table program would take for a formula, also by the wide signs of East Asian text, is written as text. */
const formula = /^\s*[=+\-@\t\r＝＋－＠]/;

/** One row a step; times as the workshop's clock shows them. */
export function tableOfPlan(plan: BuildPlan, zone: string): string {
  const clock = zoneClock(zone);
  const at = (t: number | null) => {
    if (t === null || !Number.isFinite(t)) return '';
    const w = clock.wallOf(t);
    return `${w.date} ${clockText(w.minutes)}`;
  };
  const rows = plan.steps.map((s) => ({
    step: s.id,
    what: s.name,
    region: s.region ?? '',
    from: at(s.from),
    until: at(s.until),
    hours: (Math.round(s.takes * 100) / 100).toString(),
    done: s.done ? 'yes' : 'no',
    'latest start': at(s.latest),
    people: s.crew.join(' '),
    needs: s.needs.join('; '),
    breaks: s.clashes.map((c) => c.kind).join('; '),
  }));
  return Papa.unparse(rows, { newline: '\r\n', escapeFormulae: formula });
}
