'use client';
import dynamic from 'next/dynamic';
import { useEffect, useRef, useState } from 'react';
import { Button, Form, Table } from 'react-bootstrap';
import type { Build } from '../../../core/document';
import { formatMass, formatMoney, sensible, type UnitSystem } from '../../../core/quantity';
import type { StrengthenResult, Strengthening } from '../../../core/improve';
import { compareClient, type CompareClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';

const Front = dynamic(() => import('./trade-offs'), {
  ssr: false,
  loading: () => (
    <div style={{ height: 210 }} className="muted">
      Drawing …
    </div>
  ),
});

/** A search for the smallest set of changes that makes everything on Load sound; every one is shown before it is taken. */
type Rank = 'size' | 'weight' | 'cost' | 'effort';
const ranks: readonly { id: Rank; name: string; of: (s: Strengthening) => number }[] = [
  { id: 'size', name: 'Fewest changes', of: (s) => s.choices.length * 1e3 + s.weight },
  { id: 'weight', name: 'Least weight', of: (s) => s.weight },
  { id: 'cost', name: 'Least cost', of: (s) => s.cost },
  { id: 'effort', name: 'Least work', of: (s) => s.effort },
];

const signed = (v: number, text: string) => (Math.abs(v) < 5e-4 ? 'no more' : `${v > 0 ? '+' : '−'}${text}`);
const weightWords = (s: Strengthening, units: UnitSystem) => signed(s.weight, formatMass(Math.abs(s.weight), units));
const hoursWords = (s: Strengthening) =>
  s.effort < 0.005 ? 'no more' : s.effort < 1 ? `${sensible(s.effort * 60, 2)} min` : `${sensible(s.effort, 2)} h`;

function Shown({ set, units }: { set: Strengthening; units: UnitSystem }) {
  const controller = useController();
  const now = useBench((s) => s.report?.summary);
  return (
    <div className="proposal">
      <ul className="plain">
        {set.choices.map((c) => (
          <li key={c.id}>{c.label}</li>
        ))}
      </ul>
      {now && (
        <p className="effect mb-2">
          Weakest {sensible(now.utilisation, 2)} → <strong>{sensible(set.promised.utilisation, 2)}</strong> · tips at{' '}
          {sensible(now.tipAngle, 2)}° → {sensible(set.promised.tipAngle, 2)}° · wet {formatMass(now.wet, units)} →{' '}
          {formatMass(set.promised.wet, units)} · cracks {sensible(now.crack, 2)} → {sensible(set.promised.crack, 2)} ·
          work {hoursWords(set)}
        </p>
      )}
      <Button size="sm" variant="primary" onClick={() => controller.edit(set.edit)}>
        Do {set.choices.length === 1 ? 'it' : 'all of it'}
      </Button>
    </div>
  );
}

export default function Strengthen() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const currency = useBench((s) => s.build.materials.currency);
  const worked = useBench((s) => s.report !== null);
  const wanting = useBench(
    (s) =>
      s.report?.findings.some((f) => f.station === 'load' && (f.status === 'fails' || f.status === 'watch')) ?? false,
  );
  const [result, setResult] = useState<StrengthenResult | null>(null);
  const [of, setOf] = useState<Build | null>(null);
  const [tried, setTried] = useState<number | null>(null);
  const [problem, setProblem] = useState('');
  const [rank, setRank] = useState<Rank>('size');
  const [picked, setPicked] = useState<Strengthening | null>(null);
  const client = useRef<CompareClient | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  const run = () => {
    client.current?.stop();
    setOf(build);
    setResult(null);
    setPicked(null);
    setProblem('');
    setTried(0);
    client.current = compareClient((answer) => {
      if (answer.kind === 'tried') setTried(answer.sets);
      else if (answer.kind === 'strengthened') {
        setResult(answer.result);
        setTried(null);
      } else if (answer.kind === 'refused') {
        setProblem(answer.why.message);
        setTried(null);
      }
    });
    client.current.ask({ kind: 'strengthen', asked: controller.askedOf(build) });
  };
  const stop = () => {
    client.current?.stop();
    setTried(null);
  };
  const order = ranks.find((r) => r.id === rank) ?? ranks[0]!;
  const sets = result ? [...result.sets].sort((a, b) => order.of(a) - order.of(b)) : [];
  const shown = picked ?? sets[0] ?? result?.nearest ?? null;
  const stale = of !== null && of !== build;
  return (
    <>
      <h3>Strengthen</h3>
      <p className="muted mb-2">
        {wanting
          ? 'Searches real choices, next stock, one more strand, a splint, a prop, a lighter core, thinner clay, weight on the base, for the fewest that make everything here sound.'
          : worked
            ? 'Everything here is sound: there is nothing to strengthen.'
            : 'Working it out …'}
      </p>
      {wanting && (
        <div className="d-flex gap-2 align-items-center mb-2">
          <Button size="sm" variant="quiet" onClick={run} disabled={tried !== null}>
            {result ? 'Search again' : 'Find the smallest change'}
          </Button>
          {tried !== null && (
            <>
              <span aria-live="polite">
                {tried} {tried === 1 ? 'set' : 'sets'} tried …
              </span>
              <Button size="sm" variant="quiet" onClick={stop}>
                Stop
              </Button>
            </>
          )}
        </div>
      )}
      {problem !== '' && (
        <p className="wrong" role="alert">
          {problem}
        </p>
      )}
      {result &&
        (stale ? (
          <p className="muted">The build has changed since the search.</p>
        ) : (
          <>
            <p aria-live="polite">
              {result.sets.length > 0
                ? `${result.sets.length} ${result.sets.length === 1 ? 'set of changes makes' : 'sets of changes make'} it hold${result.exhaustive ? '; no smaller one does' : ''}.`
                : 'No set of up to four of these changes makes everything sound.'}{' '}
              {result.tried} were tried.{result.nearest ? ` The nearest leaves ${result.nearest.left} to mend:` : ''}
            </p>
            {shown && <Shown set={shown} units={units} />}
            {sets.length > 1 && (
              <>
                <Front result={result} picked={shown} onPick={setPicked} />
                <div className="field">
                  <label htmlFor="rank">In order of</label>
                  <Form.Select
                    id="rank"
                    size="sm"
                    value={rank}
                    onChange={(e) => {
                      setRank(e.target.value as Rank);
                      setPicked(null);
                    }}
                  >
                    {ranks.map((r) => (
                      <option key={r.id} value={r.id}>
                        {r.name}
                      </option>
                    ))}
                  </Form.Select>
                </div>
                <Table size="sm" aria-label="Sets of changes that hold">
                  <thead>
                    <tr>
                      <th>Changes</th>
                      <th className="n">Weight</th>
                      <th className="n">Cost</th>
                      <th className="n">Work</th>
                      <th>
                        <span className="visually-hidden">Show</span>
                      </th>
                    </tr>
                  </thead>
                  <tbody>
                    {sets.slice(0, 14).map((s) => (
                      <tr key={s.edit.label} aria-current={s === shown ? 'true' : undefined}>
                        <td>
                          {s.choices.map((c) => (
                            <div key={c.id}>{c.label}</div>
                          ))}
                        </td>
                        <td className="n">{weightWords(s, units)}</td>
                        <td className="n">{signed(s.cost, formatMoney(Math.abs(s.cost), currency))}</td>
                        <td className="n">{hoursWords(s)}</td>
                        <td className="n">
                          <Button
                            size="sm"
                            variant="quiet"
                            aria-label={`Show: ${s.edit.label}`}
                            onClick={() => setPicked(s)}
                          >
                            Show
                          </Button>
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </Table>
              </>
            )}
          </>
        ))}
    </>
  );
}
