'use client';
import { Button } from 'react-bootstrap';
import { dayWords, helpWanted, timeWords, type BuildPlan } from '../../../core/plan';
import { formatMass, formatWork } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';

const ways = {
  stands: 'On its base, a stand, a stick or a loop',
  cradle: 'Lying in a cradle of foam or sand, turned over as it dries',
  hands: 'In the hands, by a dry place',
} as const;

const nightsWords = (n: number): string => (n === 0 ? 'in one day' : n === 1 ? 'over one night' : `over ${n} nights`);
/** kg that a hand does not hold for an evening. Ours. */
const heavyInHand = 2.5;

/** What each way of holding it costs in nights, side by side; one is taken with a press. */
export function Holding({ zone }: { zone: string }) {
  const controller = useController();
  const units = useBench((s) => s.units);
  const wet = useBench((s) => s.report?.ledger.wet) ?? 0;
  const found = useBench((s) => s.sooner.holding);
  if (!found || found.length === 0) return null;
  return (
    <ul className="plain small" aria-label="Ways of holding it" data-testid="holding">
      {found.map((w) => (
        <li key={`${w.held} ${w.bareFirst}`} className="lined">
          {w.now ? <strong>{ways[w.held]}</strong> : ways[w.held]}: the clay goes on {nightsWords(w.nights)}, ready on{' '}
          {dayWords(w.finish, zone)}
          {w.now ? ' (as it is planned)' : ''}.
          {w.bare !== null &&
            ` Leave the ${w.bare} bare at the first sitting and ${w.held === 'hands' ? 'hold it there' : 'let it lie there'}; then ${w.order.slice(0, 6).join(', ')}${w.order.length > 6 ? ' …' : ''}, in this order.`}
          {w.held === 'hands' && wet > heavyInHand && ` At ${formatMass(wet, units)} it is heavy in a hand.`}{' '}
          {!w.now && (
            <Button
              size="sm"
              variant="quiet"
              onClick={() =>
                controller.edit({
                  label: 'What holds it',
                  changes: [
                    { path: ['plan', 'held'], value: w.held },
                    { path: ['plan', 'bareFirst'], value: w.bareFirst },
                  ],
                })
              }
            >
              Hold it so
            </Button>
          )}
        </li>
      ))}
      <li className="muted">A place that was laid gives no hold until it is dry or has set.</li>
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
