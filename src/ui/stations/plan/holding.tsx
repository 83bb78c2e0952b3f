'use client';
import { dayWords, helpWanted, timeWords, type BuildPlan } from '../../../core/plan';
import { formatWork } from '../../../core/quantity';
import { useBench } from '../../bench/context';

const ways = {
  stands: 'On its base, a stand, a stick or a loop',
  hands: 'In the hands, by a dry place',
} as const;

const nightsWords = (n: number): string => (n === 0 ? 'in one day' : n === 1 ? 'over one night' : `over ${n} nights`);

/** What each way of holding it costs in nights, side by side. */
export function Holding({ zone }: { zone: string }) {
  const found = useBench((s) => s.sooner.holding);
  if (!found || found.length === 0) return null;
  return (
    <ul className="plain small" aria-label="Ways of holding it" data-testid="holding">
      {found.map((w) => (
        <li key={w.held} className="lined">
          {w.now ? <strong>{ways[w.held]}</strong> : ways[w.held]}: the clay goes on {nightsWords(w.nights)}, ready on{' '}
          {dayWords(w.finish, zone)}
          {w.now ? ' (as it is planned)' : ''}.
          {w.bare !== null &&
            ` Leave the ${w.bare} bare at the first sitting and hold it there; then ${w.order.slice(0, 6).join(', ')}${w.order.length > 6 ? ' …' : ''}, in this order.`}
        </li>
      ))}
      <li className="muted">A place that was laid gives a hand no hold until it is dry or has set.</li>
    </ul>
  );
}

/** Somebody to help who is not in the workshop: asked for by the hour. */
export function HelpWanted({ own, zone }: { own: BuildPlan; zone: string }) {
  const wanted = helpWanted(own);
  if (wanted.length === 0) return null;
  const hours = wanted.reduce((sum, w) => sum + (w.until - w.from) / 3600, 0);
  return (
    <div className="small mb-2" data-testid="help-wanted">
      A second pair of hands is wanted for {formatWork(hours)}:
      <ul className="mb-0">
        {wanted.slice(0, 5).map((w) => (
          <li key={`${w.step.id} ${w.from}`}>
            {dayWords(w.from, zone)}, {timeWords(w.from, zone)} to {timeWords(w.until, zone)}: {w.step.name}
          </li>
        ))}
      </ul>
    </div>
  );
}
