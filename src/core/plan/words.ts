import { formatDate, formatDuration, formatWork, sensible } from '../quantity';
import type { Person } from './calendar';
import type { Link } from './deciding';
import type { BuildPlan, PlannedStep } from './plan';
import type { Clash } from './task';
import { clockText, zoneClock } from './time-zone';

/** What a plan says, in sentences. */
export interface PlanVerdict {
  readonly status: 'sound' | 'watch' | 'fails' | 'unknown';
  readonly sentence: string;
  readonly reason: string;
}

const day = 86400;
/** From here on a step that cannot be done in its time spoils the piece; below it only shows. */
export const missedMuch = 0.9;

export function dayWords(seconds: number, zone: string): string {
  return Number.isFinite(seconds) ? formatDate(zoneClock(zone).wallOf(seconds).date) : 'never';
}

export function timeWords(seconds: number, zone: string): string {
  if (!Number.isFinite(seconds)) return 'never';
  return clockText(Math.round(zoneClock(zone).wallOf(seconds).minutes) % 1440);
}

export function whenWords(seconds: number, zone: string): string {
  return Number.isFinite(seconds) ? `${dayWords(seconds, zone)}, ${timeWords(seconds, zone)}` : 'never';
}

/** Whole days between two moments, as anyone counts them on a calendar. */
function daysBetween(from: number, until: number, zone: string): number {
  const at = (t: number) => Date.parse(`${zoneClock(zone).wallOf(t).date}T00:00:00Z`) / 1000;
  return Math.round((at(until) - at(from)) / day);
}

function days(n: number): string {
  return n === 1 ? 'a day' : `${n} days`;
}

export function planVerdict(plan: BuildPlan, zone: string, now: number): PlanVerdict {
  const left = plan.steps.filter((s) => !s.done);
  if (plan.steps.length === 0)
    return {
      status: 'unknown',
      sentence: 'There is nothing to plan yet.',
      reason: 'Steps come from the form, the armature and the clay.',
    };
  if (left.length === 0) return { status: 'sound', sentence: 'Every step is done.', reason: '' };
  const { low, nominal, high } = plan.finish;
  if (!Number.isFinite(nominal))
    return {
      status: 'fails',
      sentence: 'There is no time for all of it within two years.',
      reason: 'Nobody has hours for some steps, or one of them waits for what never comes.',
    };
  const range =
    dayWords(low, zone) === dayWords(high, zone)
      ? ''
      : ` It may be any day from ${dayWords(low, zone)} to ${dayWords(high, zone)}.`;
  const first = missedWindows(left).find((w) => w.step.missed >= missedMuch);
  if (first)
    return {
      status: 'fails',
      sentence: windowSentence(first, zone, now),
      reason: `${clashSentence(plan, first.clash)} What comes after is planned as if it could still be done.`,
    };
  const clashing = left.filter((s) => s.clashes.length > 0);
  const breaks =
    clashing.length === 0
      ? ''
      : ` ${clashing.length === 1 ? 'One step breaks' : `${clashing.length} steps break`} what the plan has to keep to.`;
  if (plan.due === null)
    return {
      status: clashing.length > 0 ? 'watch' : 'sound',
      sentence: `Ready on ${dayWords(nominal, zone)}.`,
      reason: `No deadline is set.${range}${breaks}`,
    };
  const due = dayWords(plan.due - 1, zone);
  if (nominal > plan.due) {
    const begin =
      plan.beginBy !== null && plan.beginBy < now
        ? ` To be done by then it would have had to be begun on ${dayWords(plan.beginBy, zone)}.`
        : '';
    return {
      status: 'fails',
      sentence: `${capital(days(Math.max(1, daysBetween(plan.due - 1, nominal, zone))))} late: ready on ${dayWords(nominal, zone)}, wanted on ${due}.`,
      reason: `${range.trim()}${begin}${breaks}`,
    };
  }
  if (high > plan.due)
    return {
      status: 'watch',
      sentence: `Ready on ${dayWords(nominal, zone)}, wanted on ${due}; if all goes slowly, not before ${dayWords(high, zone)}.`,
      reason: `The forecast is no surer than that.${breaks} What dries is weighed, and it will be.`,
    };
  const spare = daysBetween(nominal, plan.due - 1, zone);
  return {
    status: clashing.length > 0 ? 'watch' : 'sound',
    sentence: `In time${spare > 0 ? `, with ${days(spare)} to spare` : ''}: ready on ${dayWords(nominal, zone)}, wanted on ${due}.`,
    reason: `${range.trim()}${plan.beginBy !== null && plan.beginBy > now ? ` The next step can wait until ${whenWords(plan.beginBy, zone)}.` : ''}${breaks}`,
  };
}

/** Whether a piece is done by its day even if all goes slowly: nothing has to be sooner. */
export function hasTimeToSpare(plan: BuildPlan | null): boolean {
  return plan !== null && plan.due !== null && plan.finish.high <= plan.due;
}

function capital(text: string): string {
  return text[0]?.toUpperCase() + text.slice(1);
}

export interface MissedWindow {
  readonly step: PlannedStep;
  readonly clash: Clash;
  /** The last moment there was for it, seconds since 1970. */
  readonly closes: number;
}

/** The steps still to do that miss the last moment for them, each by the most it is missed; what closes first comes first. */
export function missedWindows(steps: readonly PlannedStep[]): MissedWindow[] {
  return steps
    .filter((s) => !s.done)
    .flatMap((step) => {
      const [clash] = step.clashes.filter((c) => c.kind === 'window').sort((a, b) => b.by - a.by);
      return clash ? [{ step, clash, closes: step.from - clash.by }] : [];
    })
    .sort((a, b) => a.closes - b.closes);
}

function windowSentence({ step, closes }: MissedWindow, zone: string, now: number): string {
  return closes <= now
    ? `Too late: “${step.name}” had to be begun by ${whenWords(closes, zone)}.`
    : `Nobody is there in time: “${step.name}” has to be begun by ${whenWords(closes, zone)}.`;
}

const bare = (id: string) =>
  id
    .split(':')
    .slice(1)
    .join(':')
    .replace(/#so-far$/, '');

/** What one clash is, and what would help. */
export function clashSentence(plan: BuildPlan, clash: Clash): string {
  const other = plan.steps.find((s) => s.id === bare(clash.other));
  const named = other ? `“${other.name}”` : 'other work';
  const by = formatDuration(clash.by);
  switch (clash.kind) {
    case 'too-soon':
      return `${by} too soon after ${named}. Move it later.`;
    case 'window':
      return `It comes ${by} after the last moment for it, counted from ${named}. An hour of somebody's at that time, a cover that slows the drying, or ${named} at another hour would help.`;
    case 'person':
      return `The same hands are busy with ${named}. Move one of them.`;
    case 'tool':
      return `What it needs is in use for ${named}.`;
    case 'hold':
      return clash.other === ''
        ? 'There is no place to hold it by: a stand or a skewer would help.'
        : `Every place to hold it by is wet, since ${named}. A stand, a skewer, or another order would help.`;
    case 'hours':
      return 'It runs outside the hours there are.';
    case 'one-sitting':
      return plan.steps.find((s) => s.id === bare(clash.task))?.kind === 'clay'
        ? 'No sitting is long enough for it in one go. Keep the edge damp under plastic overnight and go on from it, or find a longer sitting.'
        : 'No sitting is long enough for it in one go. Find a longer one.';
    case 'never':
      return 'There is no time for it.';
  }
}

/** What decides the date, in a sentence: this piece's own waits and work, and where its hands are at another piece. */
export function decidingSentence(plan: BuildPlan): string {
  const own = (id: string | null) => id !== null && id.startsWith(`${plan.id}:`);
  const name = (id: string | null) => (own(id) ? plan.steps.find((s) => s.id === bare(id!))?.name : undefined);
  const links: readonly Link[] = plan.deciding;
  if (links.length === 0) return '';
  const mine = links.filter((l) => own(l.task));
  const waits = mine
    .filter((l) => (l.by === 'wait' || l.by === 'hold') && l.waited > 3600)
    .sort((a, b) => b.waited - a.waited)
    .slice(0, 2)
    .sort((a, b) => links.indexOf(a) - links.indexOf(b));
  const idle = mine.reduce((sum, l) => sum + l.idle, 0);
  const work = mine.reduce((sum, l) => sum + (plan.steps.find((s) => s.id === bare(l.task))?.takes ?? 0), 0);
  const parts = waits.map((l) =>
    l.by === 'hold'
      ? `no dry place to hold until “${name(l.other) ?? 'what wets it'}” is ${formatDuration(l.waited)} old`
      : `${formatDuration(l.waited)} until ${l.why || `“${name(l.task) ?? 'the next step'}” may begin`}`,
  );
  parts.push(`${formatWork(work)} of work in ${mine.length} steps one after another`);
  if (links.length > mine.length) parts.push('hands that are at another piece first');
  if (idle > 12 * 3600) parts.push(`${formatDuration(idle)} in which nobody is there`);
  return `What decides the date: ${parts.slice(0, -1).join(', ')}${parts.length > 1 ? ' and ' : ''}${parts[parts.length - 1] ?? ''}.`;
}

/** From Monday on. */
export const dayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** "Tue Thu 19:00–22:00 (6 h a week)". */
export function personHoursWords({ hours }: Person): string {
  if (hours.length === 0) return 'no hours';
  const week = hours.reduce((sum, h) => sum + h.days.length * (h.until - h.from), 0) / 60;
  const lines = hours.map((h) => {
    const days = h.days.map((d) => dayNames[d]).join(' ');
    return `${days} ${clockText(h.from)}–${clockText(h.until)}`;
  });
  return `${lines.join('; ')} (${sensible(week, 3)} h a week)`;
}

/** The step to do now, or next. */
export function nextStep(plan: BuildPlan, now: number): PlannedStep | null {
  const left = plan.steps.filter((s) => !s.done && Number.isFinite(s.from));
  return left.find((s) => s.from <= now && s.until > now) ?? left[0] ?? null;
}

/** Steps with a sitting on the same wall-clock day as `now`, and the first ones there are where that day has none. */
export function cardFor(
  plan: BuildPlan,
  zone: string,
  now: number,
): { readonly date: string; readonly steps: readonly PlannedStep[] } {
  const clock = zoneClock(zone);
  const left = plan.steps.filter((s) => !s.done && Number.isFinite(s.from));
  const dates = [...new Set(left.flatMap((s) => s.sittings.map((x) => clock.wallOf(x.from).date)))].sort();
  const today = clock.wallOf(now).date;
  const date = dates.find((d) => d >= today) ?? today;
  return { date, steps: left.filter((s) => s.sittings.some((x) => clock.wallOf(x.from).date === date)) };
}
