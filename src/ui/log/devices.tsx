'use client';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { formatMass, formatTemperature, sensible } from '../../core/quantity';
import { useBench } from '../bench/context';

/** What stands on the bench, read once a second; one tap takes a reading into the log. */
interface Streamed {
  readonly id: string;
  readonly name: string;
  readonly kind: 'scale' | 'hygrometer';
  readonly simulated: boolean;
  readonly reading:
    | { readonly ok: true; readonly at: number; readonly values: Record<string, number> }
    | { readonly ok: false; readonly at: number; readonly why: string };
}

type Line = 'opening' | 'open' | 'lost';

function useDevices(buildId: string): {
  readonly line: Line;
  readonly devices: readonly Streamed[];
  readonly last: Readonly<Record<string, Record<string, number>>>;
} {
  const [line, setLine] = useState<Line>('opening');
  const [devices, setDevices] = useState<readonly Streamed[]>([]);
  const [last, setLast] = useState<Record<string, Record<string, number>>>({});
  useEffect(() => {
    const source = new EventSource(`/api/builds/${buildId}/devices`);
    source.onopen = () => setLine('open');
    source.onerror = () => setLine('lost');
    source.onmessage = (event: MessageEvent<string>) => {
      setLine('open');
      const now = JSON.parse(event.data) as Streamed[];
      setDevices(now);
      setLast((before) => now.reduce((all, d) => (d.reading.ok ? { ...all, [d.id]: d.reading.values } : all), before));
    };
    return () => source.close();
  }, [buildId]);
  return { line, devices, last };
}

export function Devices({
  buildId,
  tare,
  busy,
  onTake,
}: {
  buildId: string;
  tare: number;
  busy: boolean;
  onTake: (kind: 'weigh-in' | 'room', data: Record<string, unknown>) => void;
}) {
  const units = useBench((s) => s.units);
  const { line, devices, last } = useDevices(buildId);
  if (devices.length === 0)
    return (
      <p className="muted small" role="status">
        {line === 'lost' ? 'The devices on the bench are not answering.' : 'Looking for devices on the bench …'}
      </p>
    );
  return (
    <section aria-label="On the bench">
      {devices.map((d) => {
        const values = d.reading.ok ? d.reading.values : last[d.id];
        const silent = !d.reading.ok || line === 'lost';
        return (
          <div className="device" key={d.id} data-testid={`device-${d.kind}`}>
            <div className="row-of">
              <span>{d.name}</span>
              <span className="small muted">
                {silent
                  ? d.reading.ok
                    ? 'connection lost, trying again'
                    : d.reading.why
                  : d.kind === 'scale'
                    ? values?.['steady'] === 1
                      ? 'steady'
                      : 'settling'
                    : 'reading'}
              </span>
            </div>
            <div className="row-of">
              <span
                className="display"
                style={silent ? { color: 'var(--muted)', textDecoration: 'line-through' } : undefined}
              >
                {d.kind === 'scale'
                  ? formatMass(values?.['gross'] ?? 0, units)
                  : `${formatTemperature(values?.['temperature'] ?? 0, units)} · ${sensible((values?.['relativeHumidity'] ?? 0) * 100, 3)} %`}
              </span>
              <Button
                variant="iron"
                className="big"
                disabled={busy || silent || !values || (d.kind === 'scale' && (values['gross'] ?? 0) < tare)}
                onClick={() => {
                  if (!values) return;
                  if (d.kind === 'scale') onTake('weigh-in', { gross: values['gross'] ?? 0, tare });
                  else
                    onTake('room', {
                      temperature: values['temperature'] ?? 0,
                      relativeHumidity: values['relativeHumidity'] ?? 0,
                    });
                }}
                aria-label={d.kind === 'scale' ? 'Take this weight into the log' : 'Take this reading into the log'}
              >
                Take this
              </Button>
            </div>
          </div>
        );
      })}
    </section>
  );
}
