'use client';
import { Button } from 'react-bootstrap';
import type { ReadEntry } from '../../core/log';
import { formatExactMass } from '../../core/quantity';
import { useBench } from '../bench/context';
import { localParts } from './when';

/** Weighings of before the clay went on are not fitted: they are asked about. */
export function BeforeTheClay({
  onStrike,
  onCorrect,
}: {
  onStrike: (e: ReadEntry) => void;
  onCorrect: (e: ReadEntry) => void;
}) {
  const units = useBench((s) => s.units);
  const before = useBench((s) => s.report?.logged.before);
  const firstClay = useBench((s) => s.report?.logged.firstClay ?? 0);
  if (!before || before.length === 0) return null;
  const on = localParts(new Date(firstClay * 1000).toISOString());
  return (
    <div className="cautions" role="status">
      <strong>Weighed before the clay went on?</strong> By the log the first clay was laid on {on.day} at {on.time}.
      These weighings are older and say nothing of how it dries:
      <ul className="mb-0">
        {before.map((e) => (
          <li key={e.id}>
            {formatExactMass(e.data.gross - e.data.tare, units)}, {localParts(e.at).day} {localParts(e.at).time}{' '}
            <Button size="sm" variant="quiet" onClick={() => onCorrect(e as unknown as ReadEntry)}>
              Its time was another
            </Button>{' '}
            <Button size="sm" variant="quiet" onClick={() => onStrike(e as unknown as ReadEntry)}>
              Strike it
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
