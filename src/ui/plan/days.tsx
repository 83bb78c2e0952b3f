'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { dayAfter, dayWords, zoneClock, type BuildPlan, type PlannedStep, type WorkshopPlan } from '../../core/plan';
import { formatWork } from '../../core/quantity';

/**
 * Days across, the piece and its regions down. A day with work in it is wide enough to read what is to be done; one without
 * is a strip with its night. Behind the steps lies what is wet: a hand may not go there. A step is moved by its slip of
 * paper, with the mouse or with the arrow keys.
 */
interface Day {
  readonly date: string;
  readonly from: number;
  readonly until: number;
  readonly left: number;
  readonly width: number;
  readonly open: boolean;
  /** Several days folded into one: how many, and why nothing is done on them. */
  readonly folded: { readonly days: number; readonly why: string } | null;
}

const wide = 148,
  thin = 22,
  fold = 118,
  fewest = 3,
  mostDays = 130;

function daysOf(plan: BuildPlan, zone: string, now: number): Day[] {
  const clock = zoneClock(zone);
  const worked = new Set(plan.steps.flatMap((s) => s.sittings.map((x) => clock.wallOf(x.from).date)));
  const first = [...worked, clock.wallOf(now).date].sort()[0]!;
  const finish = Number.isFinite(plan.finish.nominal) ? plan.finish.nominal : now;
  const last = [...worked, clock.wallOf(finish).date].sort().pop()!;
  const out: Day[] = [];
  for (let date = first; date <= last && out.length < mostDays; date = dayAfter(date)) {
    const open = worked.has(date);
    const day = { date, from: clock.epochOf(date, 0), until: clock.epochOf(dayAfter(date), 0), open, folded: null };
    out.push({ ...day, left: 0, width: open ? wide : thin });
  }
  let left = 0;
  return foldedDays(out, plan).map((d) => {
    const placed = { ...d, left };
    left += d.width;
    return placed;
  });
}

/** Runs of days without work, each folded into one with its reason. */
function foldedDays(days: readonly Day[], plan: BuildPlan): Day[] {
  const out: Day[] = [];
  for (let i = 0; i < days.length;) {
    let end = i;
    while (end < days.length && !days[end]!.open) end++;
    const first = days[i]!,
      last = days[end - 1];
    if (last && end - i >= fewest) {
      const gap = plan.gaps.find((g) => g.from < last.until && g.until > first.from);
      out.push({ ...first, until: last.until, width: fold, folded: { days: end - i, why: gap?.why ?? '' } });
      i = end;
    } else out.push(days[i++]!);
  }
  return out;
}

/** "4 to 16 Dec": the days folded into one. */
function foldedWords(d: Day, zone: string): string {
  const until = dayWords(d.until - 43200, zone).replace(/^\w+ /, '');
  const from = dayWords(d.from + 43200, zone).replace(/^\w+ /, '');
  const [a = '', b = ''] = from.split(' '),
    month = until.split(' ')[1];
  return `${b === month ? a : from} to ${until}`;
}

/** Where a moment lies across the days. */
function across(days: readonly Day[], t: number): number {
  const day = days.find((d) => t < d.until) ?? days[days.length - 1];
  if (!day) return 0;
  const share = Math.min(1, Math.max(0, (t - day.from) / (day.until - day.from)));
  return day.left + share * day.width;
}

interface Row {
  readonly id: string;
  readonly name: string;
  readonly steps: readonly PlannedStep[];
  readonly wet: BuildPlan['wet'];
}

function rowsOf(plan: BuildPlan): Row[] {
  const zones = [...new Set(plan.steps.map(zoneOf))].sort((a, b) => order(a, plan) - order(b, plan));
  const named = (zone: string) => {
    const group = /^group-(\d+)\//.exec(zone);
    return `${group ? `group ${group[1]}, ` : ''}${plan.steps.find((s) => s.region !== null && zoneOf(s) === zone)?.place ?? 'the whole piece'}`;
  };
  return zones.map((zone): Row => ({
    id: zone,
    name: named(zone),
    steps: plan.steps.filter((s) => zoneOf(s) === zone),
    wet: plan.wet.filter((w) => w.zone === zone),
  }));
}

/** Groups one after another; in each the whole piece first, then regions as they are laid. */
function order(zone: string, plan: BuildPlan): number {
  const group = Number(/^group-(\d+)\//.exec(zone)?.[1] ?? 0);
  const bare = zone.replace(/^group-\d+\//, '');
  const laid = plan.steps.find((s) => s.region !== null && zoneOf(s) === zone);
  return group * 1e12 + (bare === '' ? 0 : 1 + (laid && Number.isFinite(laid.from) ? laid.from : 9e11));
}

function zoneOf(s: PlannedStep): string {
  const group = /^group-\d+\//.exec(s.id)?.[0] ?? '';
  return `${group}${s.region ?? ''}`;
}

/** "Lay the clay on the neck" in the neck's own row is "Lay the clay". */
function short(s: PlannedStep, row: Row): string {
  const bare = s.name.replace(/, group \d+$/, '');
  return s.place === ''
    ? bare
    : bare.replace(
        new RegExp(` (on|in|of)? ?the ${row.name.replace(/^group \d+, /, '').replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$`),
        '',
      );
}

export interface DaysProps {
  readonly plan: BuildPlan;
  readonly whole: WorkshopPlan;
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
  /** To the day of this date, at the first hour there is; or to the nearest day with hours before or after it. */
  /** What a step would break on a day, in sentences. */
  readonly breaksOn: (id: string, date: string, folded: boolean) => readonly string[];
  readonly onMove: (id: string, date: string, seek?: 'before' | 'after' | undefined) => void;
}

export function Days({ plan, whole, chosen, onChoose, breaksOn, onMove }: DaysProps) {
  const { zone, now } = whole;
  const days = useMemo(() => daysOf(plan, zone, now), [plan, zone, now]);
  const rows = useMemo(() => rowsOf(plan), [plan]);
  const [over, setOver] = useState<{ readonly date: string; readonly breaks: readonly string[] } | null>(null);
  const held = useRef<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const today = days.find((d) => now < d.until)?.left ?? 0;
  // What is past lies to the left; today is what one looks for.
  useEffect(() => {
    scroller.current?.scrollTo({ left: Math.max(0, today - 120) });
    // Only when the plan opens: later it stays where it was put.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const clock = zoneClock(zone);
  const width = days.reduce((sum, d) => sum + d.width, 0);
  const columns = { gridTemplateColumns: days.map((d) => `${d.width}px`).join(' ') };
  const hover = (d: Day) => {
    if (held.current === null || over?.date === d.date) return;
    setOver({ date: d.date, breaks: breaksOn(held.current, d.date, d.folded !== null) });
  };
  const drop = (d: Day) => {
    setOver(null);
    if (held.current !== null) onMove(held.current, d.date, d.folded ? 'after' : undefined);
    held.current = null;
  };
  return (
    <div className="days" role="group" aria-label="The plan by days">
      <div className="days-scroll" ref={scroller} tabIndex={0} role="region" aria-label="Days; scroll sideways">
        <div className="days-sheet" style={{ width: `calc(${width}px + var(--names))` }}>
          <div className="days-line">
            <div className="days-name" aria-hidden="true" />
            <div className="days-head" style={columns}>
              {days.map((d) => (
                <div
                  key={d.date}
                  className={`day${d.folded ? ' folded' : d.open ? '' : ' idle'}`}
                  data-today={now >= d.from && now < d.until}
                >
                  {d.folded ? (
                    <>
                      {foldedWords(d, zone)}
                      <span className="why">{d.folded.why}</span>
                    </>
                  ) : d.open ? (
                    dayWords(d.from + 43200, zone)
                  ) : (
                    Number(d.date.slice(8))
                  )}
                </div>
              ))}
            </div>
          </div>
          {rows.map((r) => (
            <div key={r.id} className="days-line">
              <div className="days-name" aria-hidden="true">
                {r.name}
              </div>
              <div className="days-row">
                {days.map((d) => (
                  <div
                    key={d.date}
                    className={`night${d.folded ? ' folded' : d.open ? '' : ' idle'}`}
                    style={
                      d.folded
                        ? { left: d.left, width: d.width }
                        : { left: d.left + d.width * 0.9, width: d.width * 0.4 }
                    }
                  />
                ))}
                {r.wet
                  .filter((w) => w.until.nominal > w.from)
                  .map((w, i) => {
                    const from = across(days, w.from),
                      until = across(days, w.until.nominal),
                      late = across(days, w.until.high);
                    return (
                      <div key={i} aria-hidden="true">
                        <div
                          className="wet"
                          style={{ left: from, width: Math.max(2, until - from) }}
                          title={`Wet: no hand on it until ${dayWords(w.until.nominal, zone)}`}
                        />
                        {late > until + 1 && (
                          <div
                            className="wet maybe"
                            style={{ left: until, width: late - until }}
                            title={`If it goes slowly, until ${dayWords(w.until.high, zone)}`}
                          />
                        )}
                      </div>
                    );
                  })}
                <div className="slips" style={columns}>
                  {days.map((d) => (
                    <div
                      key={d.date}
                      className={`cell${over?.date === d.date ? (over.breaks.length > 0 ? ' over bad' : ' over') : ''}`}
                      data-date={d.date}
                      onDragOver={(e) => {
                        e.preventDefault();
                        hover(d);
                      }}
                      onDragLeave={() => setOver((o) => (o?.date === d.date ? null : o))}
                      onDrop={(e) => {
                        e.preventDefault();
                        drop(d);
                      }}
                    >
                      {r.steps
                        .filter((s) => s.sittings.some((x) => clock.wallOf(x.from).date === d.date))
                        .map((s) => {
                          const begins = clock.wallOf(s.from).date === d.date;
                          const bad = s.clashes.length > 0;
                          return (
                            <button
                              key={s.id}
                              type="button"
                              className={`slip${s.done ? ' done' : ''}${bad ? ' bad' : ''}${s.pinned ? ' pinned' : ''}${chosen === s.id ? ' chosen' : ''}`}
                              draggable={!s.done && begins}
                              aria-pressed={chosen === s.id}
                              onClick={() => onChoose(s.id)}
                              onDragStart={(e) => {
                                held.current = s.id;
                                e.dataTransfer.setData('text/plain', s.id);
                                e.dataTransfer.effectAllowed = 'move';
                              }}
                              onDragEnd={() => {
                                held.current = null;
                                setOver(null);
                              }}
                              onKeyDown={(e) => {
                                if (s.done || (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight')) return;
                                e.preventDefault();
                                onMove(
                                  s.id,
                                  dayAfter(clock.wallOf(s.from).date, e.key === 'ArrowLeft' ? -1 : 1),
                                  e.key === 'ArrowLeft' ? 'before' : 'after',
                                );
                              }}
                            >
                              {s.pinned && <span className="pin" aria-hidden="true" />}
                              {short(s, r)}
                              <span className="takes">{begins ? formatWork(s.takes) : 'goes on'}</span>
                              <span className="visually-hidden">
                                , {r.name}, {dayWords(d.from + 43200, zone)}
                                {s.done ? ', done' : ''}
                                {bad ? ', breaks something' : ''}
                                {s.pinned ? ', put there by you' : ''}. Left and right arrows move it to another day.
                              </span>
                            </button>
                          );
                        })}
                    </div>
                  ))}
                </div>
              </div>
            </div>
          ))}
        </div>
      </div>
      {over && (
        <p className={`days-told${over.breaks.length > 0 ? ' status-fails' : ''}`} data-testid="days-told">
          {dayWords(clock.epochOf(over.date, 720), zone)}:{' '}
          {over.breaks.length > 0 ? over.breaks.join(' ') : 'it breaks nothing there.'}
        </p>
      )}
    </div>
  );
}
