'use client';
import Link from 'next/link';
import { Button } from 'react-bootstrap';
import {
  batchesLeft,
  clashSentence,
  dayWords,
  decidingSentence,
  holdOf,
  holdWords,
  planVerdict,
  timeWords,
  whenWords,
  zoneClock,
  type BuildPlan,
  type PlannedStep,
} from '../../core/plan';
import { mixes } from '../../core/cure';
import { StepAmounts } from '../plan/step-amounts';
import { StepPasses } from '../plan/step-passes';
import { WarmClay } from '../plan/warm-clay';
import { formatDuration, formatMass, type UnitSystem } from '../../core/quantity';

/** How the piece is held meanwhile, where a hand has to hold it. */
function heldBy(plan: BuildPlan, step: PlannedStep, span: { from: number; until: number }): string[] {
  const hold = holdOf(plan, step, span);
  return hold ? [holdWords(hold)] : [];
}

/** A box for every batch that is mixed for a step. */
function Batches({ step, units }: { step: PlannedStep; units: UnitSystem }) {
  const all = batchesLeft(step);
  const [first = 0] = all,
    last = all[all.length - 1] ?? 0;
  if (!step.mixed || all.length === 0) return null;
  return (
    <div className="fine">
      {mixes[step.mixed.id].done === 'wetted' ? 'Wet' : 'Mix'}{' '}
      {all.length > 1 ? `${all.length} batches of ${formatMass(first, units)}` : formatMass(first, units)}
      {all.length > 1 && first - last > 0.001 ? `, the last of ${formatMass(last, units)}` : ''}
      {step.mixed.id === 'two-part-clay' ? `; smooth within ${formatDuration(step.mixed.works)} of placing` : ''}:{' '}
      {all.map((_, i) => (
        <span key={i}>
          <span className="box" />{' '}
        </span>
      ))}
    </div>
  );
}

/** The plan on paper: a box to tick for every step, day by day, black on white; one day's card can be cut off. */
export default function PlanSheet({
  id,
  plan,
  zone,
  now,
  units,
}: {
  id: string;
  plan: BuildPlan;
  zone: string;
  now: number;
  units: UnitSystem;
}) {
  const verdict = planVerdict(plan, zone, now);
  const clock = zoneClock(zone);
  const left = plan.steps.filter((s) => !s.done && Number.isFinite(s.from));
  const byDay = new Map<string, { step: PlannedStep; from: number; until: number; goesOn: boolean }[]>();
  for (const s of left) {
    s.sittings.forEach((x, i) => {
      const date = clock.wallOf(x.from).date;
      byDay.set(date, [...(byDay.get(date) ?? []), { step: s, from: x.from, until: x.until, goesOn: i > 0 }]);
    });
  }
  const needs = [...new Set(left.flatMap((s) => s.needs))];
  return (
    <>
      <div className="sheet-bar">
        <Button variant="iron" onClick={() => window.print()}>
          Print
        </Button>
        <Link className="btn btn-quiet" href={`/build/${id}?station=plan`}>
          Back to the plan
        </Link>
      </div>
      <div className="sheet">
        <h1>{plan.name}: plan</h1>
        <p>
          <strong>{verdict.sentence}</strong> {verdict.reason}
        </p>
        <p>{decidingSentence(plan)}</p>
        {needs.length > 0 && <p>Have there: {needs.join(', ')}.</p>}
        {[...byDay]
          .sort(([a], [b]) => (a < b ? -1 : 1))
          .map(([date, sittings]) => (
            <section key={date} className="keep">
              <h2>{dayWords(clock.epochOf(date, 720), zone)}</h2>
              <WarmClay plan={plan} date={date} zone={zone} units={units} className="fine" />
              <table>
                <thead>
                  <tr>
                    <th aria-label="Done" />
                    <th>From</th>
                    <th>Until</th>
                    <th>What</th>
                    <th className="n">Work</th>
                    <th>Needs</th>
                  </tr>
                </thead>
                <tbody>
                  {sittings
                    .sort((a, b) => a.from - b.from)
                    .map(({ step, from, until, goesOn }) => (
                      <tr key={`${step.id}${from}`}>
                        <td>
                          <span className="box" />
                        </td>
                        <td>{timeWords(from, zone)}</td>
                        <td>{timeWords(until, zone)}</td>
                        <td>
                          {step.name}
                          {goesOn ? ', goes on' : ''}
                          {!goesOn && <Batches step={step} units={units} />}
                          {!goesOn && <StepAmounts step={step} units={units} className="fine" />}
                          {!goesOn && <StepPasses step={step} className="fine" boxes />}
                          {step.clashes.map((c, i) => (
                            <div key={i} className="fine">
                              ! {clashSentence(plan, c)}
                            </div>
                          ))}
                        </td>
                        <td className="n">{formatDuration(until - from)}</td>
                        <td>{[...step.needs, ...heldBy(plan, step, { from, until })].join(', ')}</td>
                      </tr>
                    ))}
                </tbody>
              </table>
              {plan.wet.filter(
                (w) =>
                  clock.wallOf(w.from).date <= date &&
                  clock.wallOf(w.until.nominal).date >= date &&
                  w.until.nominal > w.from,
              ).length > 0 && (
                <p className="fine">
                  No hand on:{' '}
                  {plan.wet
                    .filter(
                      (w) =>
                        clock.wallOf(w.from).date <= date &&
                        clock.wallOf(w.until.nominal).date >= date &&
                        w.until.nominal > w.from,
                    )
                    .map((w) => `the ${w.name} until ${whenWords(w.until.nominal, zone)}`)
                    .join('; ')}
                  .
                </p>
              )}
            </section>
          ))}
        <p className="fine">Made {whenWords(now, zone)}.</p>
      </div>
    </>
  );
}
