'use client';
import { Button, Form } from 'react-bootstrap';
import { processList } from '../../../core/catalogue';
import { useBench, useController } from '../../bench/context';
import { QuantityInput } from '../../parts/fields';
import { Plumb } from '../../parts/plumb';

/** What the piece goes through, and what does not get on; what the last change brought comes first. */
export function GettingOn() {
  const controller = useController();
  const conflicts = useBench((s) => s.report?.conflicts) ?? [];
  const came = useBench((s) => s.newConflicts);
  const processes = useBench((s) => s.build.finish.processes);
  // What the brief says stands outdoors is judged in rain and sun, ticked here or not.
  const outdoors = useBench((s) => s.build.brief.outdoors !== null);
  const set = (next: typeof processes, label: string) =>
    controller.edit({ label, changes: [{ path: ['finish', 'processes'], value: next }] })?.message ?? null;
  const fresh = came.filter((c) => conflicts.some((k) => k.id === c.id));
  return (
    <>
      <h3>Does it get on</h3>
      {fresh.length > 0 && (
        <div className="cautions" role="status">
          <strong>New with the last change</strong>
          <ul>
            {fresh.map((c) => (
              <li key={c.id}>
                {c.left} and {c.right}: {c.why}. Instead: {c.instead}.
              </li>
            ))}
          </ul>
          <Button size="sm" variant="quiet" onClick={() => controller.dismissConflicts()}>
            Seen
          </Button>
        </div>
      )}
      {conflicts.length === 0 ? (
        <p>Nothing in it quarrels with its neighbours, or with what it goes through.</p>
      ) : (
        <ul className="conflicts" aria-label="What does not get on">
          {conflicts.map((c) => (
            <li key={c.id}>
              <Plumb status={c.status} size={20} />
              <span>
                <strong>{c.left}</strong> and <strong>{c.right}</strong>
                {c.regions.length > 0 ? ` (${c.regions.join(', ').replaceAll('-', ' ')})` : ''}: {c.why}.{' '}
                <span className="muted">Instead: {c.instead}.</span>
              </span>
            </li>
          ))}
        </ul>
      )}
      <fieldset>
        <legend className="h6">What it goes through</legend>
        <div className="ticks">
          {processList.map((p) => {
            const at = processes.findIndex((x) => x.kind === p.id);
            const byBrief = outdoors && p.id === 'outdoors';
            return (
              <div key={p.id}>
                <Form.Check
                  id={`process-${p.id}`}
                  type="checkbox"
                  label={byBrief ? `${p.name}, as the brief says` : p.name}
                  checked={byBrief || at >= 0}
                  disabled={byBrief}
                  onChange={(e) =>
                    set(
                      e.target.checked ? [...processes, { kind: p.id }] : processes.filter((x) => x.kind !== p.id),
                      `${p.name}: ${e.target.checked ? 'yes' : 'no'}`,
                    )
                  }
                />
                {at >= 0 && p.heat !== null && (
                  <QuantityInput
                    label="At"
                    kind="temperature"
                    value={processes[at]?.temperature ?? p.heat}
                    onCommit={(v) =>
                      v === null
                        ? 'A temperature.'
                        : set(
                            processes.map((x, k) => (k === at ? { ...x, temperature: v } : x)),
                            `${p.name}: temperature`,
                          )
                    }
                  />
                )}
              </div>
            );
          })}
        </div>
      </fieldset>
    </>
  );
}
