'use client';
import { useState, type ReactNode } from 'react';
import Link from 'next/link';
import { Button } from 'react-bootstrap';
import type { BuildPlan, WorkshopPlan } from '../../../core/plan';
import { formatWork } from '../../../core/quantity';
import { call } from '../../parts/http';

/** The other pieces on the go, with the hours they take before this one is ready; each can be set aside from here. */
export function OtherPieces({
  own,
  plan,
  onChanged,
}: {
  own: BuildPlan;
  plan: WorkshopPlan;
  /** Whether what is on the go could be read again. */
  onChanged: () => Promise<boolean>;
}) {
  const [aside, setAside] = useState<readonly { readonly id: string; readonly name: string }[]>([]);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState('');
  const others = plan.builds.filter((b) => b.id !== own.id);
  const shown = aside.filter((a) => !others.some((o) => o.id === a.id));
  if (others.length === 0 && shown.length === 0) return null;
  const holding = new Set(own.gaps.flatMap((g) => g.others));
  const hours = (b: BuildPlan) =>
    b.steps
      .filter((s) => !s.done && s.crew.length > 0)
      .flatMap((s) => s.sittings)
      .reduce((sum, s) => sum + Math.max(0, Math.min(s.until, own.finish.nominal) - s.from), 0);
  const put = async (b: { readonly id: string; readonly name: string }, active: boolean) => {
    setBusy(true);
    const answer = await call('PUT', `/api/builds/${b.id}/on-the-go`, { active });
    setWrong(answer.ok ? '' : answer.message);
    if (answer.ok) {
      setAside((a) => [...a.filter((x) => x.id !== b.id), ...(active ? [] : [{ id: b.id, name: b.name }])]);
      if (!(await onChanged()))
        setWrong(
          'It is kept, but the plan is still the one before: the server did not answer. It is asked again within a quarter of an hour.',
        );
    }
    setBusy(false);
  };
  return (
    <>
      <h3>Other pieces on the go</h3>
      <ul className="plain" aria-label="Other pieces on the go">
        {others.map((b) => (
          <Piece key={b.id} act="Set it aside" name={b.name} busy={busy} onAct={() => void put(b, false)}>
            <Link href={`/build/${b.id}?station=plan`}>{b.name}</Link>{' '}
            <span className="small muted">
              takes {formatWork(hours(b) / 3600)} before this one is ready
              {holding.has(b.id) ? '; it holds this one up' : ''}
            </span>
          </Piece>
        ))}
        {shown.map((b) => (
          <Piece key={b.id} act="On the go again" name={b.name} busy={busy} onAct={() => void put(b, true)}>
            {b.name} <span className="small muted">is set aside: it takes no hours</span>
          </Piece>
        ))}
      </ul>
      {wrong && (
        <p className="wrong status-fails" role="alert">
          {wrong}
        </p>
      )}
    </>
  );
}

function Piece({
  act,
  name,
  busy,
  onAct,
  children,
}: {
  act: string;
  name: string;
  busy: boolean;
  onAct: () => void;
  children: ReactNode;
}) {
  return (
    <li className="lined d-flex gap-2 align-items-center">
      <span className="flex-grow-1">{children}</span>
      <Button
        size="sm"
        variant="quiet"
        className="text-nowrap"
        disabled={busy}
        aria-label={`${act}: ${name}`}
        onClick={onAct}
      >
        {act}
      </Button>
    </li>
  );
}
