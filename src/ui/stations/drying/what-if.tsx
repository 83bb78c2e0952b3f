'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Form, ProgressBar, Table } from 'react-bootstrap';
import { applyEdit, type Build, type Change } from '../../../core/document';
import { layersOf } from '../../../core/clay';
import { formatDuration, formatMass, sensible } from '../../../core/quantity';
import { dryingClient, type DryingClient } from '../../../workers/clients';
import type { VariantRow } from '../../../workers/protocol';
import { useBench, useController } from '../../bench/context';

/** Up to four ways beside each other, each worked out as a build of its own; what differs from the first is told. */
interface Way {
  readonly id: string;
  readonly name: string;
  readonly changes: (build: Build, regions: readonly string[]) => readonly Change[];
}

const coats = (build: Build, regions: readonly string[], by: (c: readonly number[]) => number[]): Change[] =>
  regions.map((r) => {
    const { stages: _, ...kept } = layersOf(build, r);
    return { path: ['regions', 'own', r], value: { ...kept, coats: by(kept.coats) } };
  });

const ways: readonly Way[] = [
  {
    id: 'cover',
    name: 'Loose plastic for three days',
    changes: () => [{ path: ['room', 'covers'], value: [{ kind: 'loose-plastic', from: 0, until: 72, regions: [] }] }],
  },
  { id: 'open', name: 'Left uncovered', changes: () => [{ path: ['room', 'covers'], value: [] }] },
  { id: 'fan', name: 'A fan on it', changes: () => [{ path: ['room', 'airSpeed'], value: 1.5 }] },
  {
    id: 'two-coats',
    name: 'In two coats',
    changes: (b, r) => coats(b, r, (c) => (c.length < 4 ? [...c, ...c].map((t) => t / 2).slice(0, 4) : [...c])),
  },
  {
    id: 'thinner',
    name: 'A third thinner',
    changes: (b, r) => coats(b, r, (c) => c.map((t) => Math.max(0.0005, t * 0.67))),
  },
  {
    id: 'soft-core',
    name: 'Over loose paper',
    changes: () => [{ path: ['armature', 'school', 'parameters', 'bulk'], value: 'paper-loose' }],
  },
  {
    id: 'cloth',
    name: 'Core wrapped in cloth',
    changes: () => [{ path: ['armature', 'school', 'parameters', 'wrap'], value: 'cloth' }],
  },
  {
    id: 'lift',
    name: 'Lifted off when leather-hard',
    changes: () => [{ path: ['stages', 'lift'], value: { when: 'leather-hard', hours: 0 } }],
  },
  { id: 'stay', name: 'Left on its form', changes: () => [{ path: ['stages', 'lift'], value: null }] },
  { id: 'apart', name: 'Sections dried apart', changes: () => [{ path: ['stages', 'apart'], value: true }] },
  { id: 'whole', name: 'All in one piece', changes: () => [{ path: ['stages', 'apart'], value: false }] },
  { id: 'paper-clay', name: 'In paper clay', changes: () => [{ path: ['brief', 'clay'], value: 'paper-clay' }] },
  { id: 'earthen', name: 'In earthen clay', changes: () => [{ path: ['brief', 'clay'], value: 'earthen-air-dry' }] },
];

export function WhatIf() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  const [chosen, setChosen] = useState<readonly string[]>(['cover', 'two-coats']);
  const [inWhole, setInWhole] = useState(false);
  const [rows, setRows] = useState<readonly VariantRow[]>([]);
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState(0);
  const [wrong, setWrong] = useState('');
  const client = useRef<DryingClient | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  const regionKey = report?.regions.map((r) => r.id).join() ?? '';
  const builds = useMemo(() => {
    const regions = regionKey === '' ? [] : regionKey.split(',');
    const made = chosen.map((id) => {
      const way = ways.find((w) => w.id === id);
      const next = way ? applyEdit(build, { label: way.name, changes: way.changes(build, regions) }) : null;
      return next?.ok ? next.value : build;
    });
    return [build, ...made];
  }, [build, chosen, regionKey]);
  const stop = () => {
    client.current?.stop();
    setBusy(false);
  };
  const compare = () => {
    setBusy(true);
    setRows([]);
    setWrong('');
    setDone(0);
    client.current?.stop();
    client.current = dryingClient((answer) => {
      if (answer.kind === 'variant')
        setRows((old) =>
          [...old.filter((r) => r.index !== answer.row.index), answer.row].sort((a, b) => a.index - b.index),
        );
      else if (answer.kind === 'progress') setDone(answer.done);
      else if (answer.kind === 'refused') setWrong(answer.why.message);
      else if (answer.kind === 'done') setBusy(false);
    });
    client.current.ask({ kind: 'variants', asked: controller.askedOf(build), builds, whole: inWhole });
  };
  const names = ['As it is', ...chosen.map((id) => ways.find((w) => w.id === id)?.name ?? id)];
  const first = rows.find((r) => r.index === 0);
  return (
    <>
      <h3>What if</h3>
      <p className="small muted">Beside the piece as it is, up to three other ways.</p>
      <div className="ticks" role="group" aria-label="Other ways">
        {ways.map((w) => (
          <Form.Check
            key={w.id}
            id={`way-${w.id}`}
            type="checkbox"
            label={w.name}
            checked={chosen.includes(w.id)}
            disabled={busy || (!chosen.includes(w.id) && chosen.length >= 3)}
            onChange={(e) => {
              setChosen(e.target.checked ? [...chosen, w.id] : chosen.filter((c) => c !== w.id));
              setRows([]);
            }}
          />
        ))}
      </div>
      <Form.Check
        id="what-if-whole"
        type="checkbox"
        label="In three dimensions as well (some seconds each)"
        checked={inWhole}
        disabled={busy}
        onChange={(e) => setInWhole(e.target.checked)}
      />
      <div className="beside mt-2">
        <Button size="sm" variant="iron" disabled={busy || chosen.length === 0} onClick={compare}>
          Set them side by side
        </Button>
        {busy && (
          <Button size="sm" variant="quiet" onClick={stop}>
            Stop
          </Button>
        )}
      </div>
      {busy && inWhole && <ProgressBar className="my-2" now={done * 100} aria-label="Working through the ways" />}
      {wrong && <p className="wrong">{wrong}</p>}
      {rows.length > 0 && (
        <div className="scroll-x">
          <Table size="sm" aria-label="Ways side by side">
            <thead>
              <tr>
                <th>Way</th>
                <th className="n">Cracks</th>
                {inWhole && <th className="n">in 3-D</th>}
                <th className="n">Dry through</th>
                <th className="n">Weight wet</th>
                <th aria-label="Take it" />
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => {
                const through = latest(r.regions.map((x) => x.throughDry));
                const firstThrough = first ? latest(first.regions.map((x) => x.throughDry)) : null;
                const worst = r.whole ? Math.max(0, ...r.whole.map((x) => x.crack)) : null;
                return (
                  <tr key={r.index}>
                    <td>{names[r.index]}</td>
                    <td className="n">
                      {r.regions.length === 0 ? (
                        'does not dry'
                      ) : (
                        <>
                          {sensible(r.summary.crack, 2)}
                          {r.index > 0 && first && (
                            <div className="muted small">{signed(r.summary.crack - first.summary.crack)}</div>
                          )}
                        </>
                      )}
                    </td>
                    {inWhole && <td className="n">{worst === null ? (busy ? '…' : '') : sensible(worst, 2)}</td>}
                    <td className="n">
                      {through === null ? (
                        ''
                      ) : (
                        <>
                          {formatDuration(through)}
                          {r.index > 0 && firstThrough !== null && (
                            <div className="muted small">
                              {signed((through - firstThrough) / 86400).replace(/\d$/, '$& d')}
                            </div>
                          )}
                        </>
                      )}
                    </td>
                    <td className="n">{formatMass(r.summary.wet, units)}</td>
                    <td>
                      {r.index > 0 && (
                        <Button
                          size="sm"
                          variant="quiet"
                          aria-label={`Take it: ${names[r.index] ?? ''}`}
                          onClick={() => {
                            const way = ways.find((w) => w.id === chosen[r.index - 1]);
                            if (way)
                              controller.edit({ label: way.name, changes: way.changes(build, regionKey.split(',')) });
                            setRows([]);
                          }}
                        >
                          Take it
                        </Button>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Table>
        </div>
      )}
    </>
  );
}

function latest(times: readonly (number | null)[]): number | null {
  return times.length === 0 || times.some((t) => t === null) ? null : Math.max(...(times as number[]));
}

function signed(v: number): string {
  return Math.abs(v) < 0.005 ? 'the same' : `${v >= 0 ? '+' : '−'}${sensible(Math.abs(v), 2)}`;
}
