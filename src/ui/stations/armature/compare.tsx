'use client';
import { useEffect, useRef, useState } from 'react';
import { Button, Form, Modal, Table } from 'react-bootstrap';
import type { Build } from '../../../core/document';
import { formatLength, formatMass, formatMoney, sensible, type UnitSystem } from '../../../core/quantity';
import { schoolsFor, type SchoolRow } from '../../../core/improve';
import { compareClient, type CompareClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';
import { Plumb, statusWord } from '../../parts/plumb';
import { takeSchool } from './take-school';

type Cell = SchoolRow | string | null;
interface Line {
  readonly name: string;
  readonly of: (r: SchoolRow, units: UnitSystem, currency: string) => string;
  readonly best?: (r: SchoolRow) => number;
}

/** Less is better in each, where there is a best. */
const lines: readonly Line[] = [
  { name: 'Clay that goes on', of: (r, u) => formatMass(r.clayOn, u), best: (r) => r.clayOn },
  { name: 'Weight, wet', of: (r, u) => formatMass(r.summary.wet, u), best: (r) => r.summary.wet },
  { name: 'Weight, dry', of: (r, u) => formatMass(r.summary.dry, u), best: (r) => r.summary.dry },
  {
    name: 'Weakest member, of what it bears',
    of: (r) => `${sensible(r.summary.utilisation, 2)}, ${r.summary.weakest}`,
    best: (r) => r.summary.utilisation,
  },
  { name: 'Gives when the clay goes on', of: (r, u) => formatLength(r.sag, u), best: (r) => r.sag },
  { name: 'Tips at', of: (r) => `${sensible(r.summary.tipAngle, 2)}°`, best: (r) => -r.summary.tipAngle },
  {
    name: 'Nights until dry or set',
    of: (r) => (r.summary.nights === null ? 'does not dry' : String(r.summary.nights)),
    best: (r) => r.summary.nights ?? 1e9,
  },
  { name: 'Crack risk', of: (r) => sensible(r.summary.crack, 2), best: (r) => r.summary.crack },
  {
    name: 'Clay and stock cost',
    of: (r, _u, currency) => formatMoney(r.summary.cost, currency),
    best: (r) => r.summary.cost,
  },
  { name: 'Hours until the clay is on', of: (r) => sensible(r.hours.untilClay, 2), best: (r) => r.hours.untilClay },
  { name: 'Hours of work, all in all', of: (r) => sensible(r.hours.all, 2), best: (r) => r.hours.all },
  { name: 'Gives under the tool', of: (r, u) => formatLength(r.give, u), best: (r) => r.give },
  { name: 'Can be posed later', of: (r) => r.traits.posedLater },
  { name: 'Used again', of: (r) => r.traits.reused },
];

export default function CompareSchools() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const { currency } = build.materials;
  const units = useBench((s) => s.units);
  const offered = schoolsFor(build);
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  const [cells, setCells] = useState<Readonly<Record<string, Cell>>>({});
  const [of, setOf] = useState<Build | null>(null);
  const [running, setRunning] = useState(false);
  const [open, setOpen] = useState(false);
  const client = useRef<CompareClient | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  if (offered.length < 2) return null;
  const kinds = (chosen ?? offered.slice(0, 4).map((s) => s.kind)).filter((k) => offered.some((s) => s.kind === k));
  const stop = () => {
    client.current?.stop();
    setRunning(false);
  };
  const run = () => {
    stop();
    setOf(build);
    setCells({});
    setRunning(true);
    client.current = compareClient((answer) => {
      if (answer.kind === 'school') setCells((c) => ({ ...c, [answer.school]: answer.row }));
      else if (answer.kind === 'refused') setCells((c) => ({ ...c, [answer.school ?? '']: answer.why.message }));
      else if (answer.kind === 'done') setRunning(false);
    });
    client.current.ask({ kind: 'schools', asked: controller.askedOf(build), schools: kinds });
  };
  const done = kinds.filter((k) => cells[k] !== undefined).length;
  const rows = kinds.map((k) => cells[k] ?? null);
  const worked = rows.filter((r): r is SchoolRow => r !== null && typeof r !== 'string');
  return (
    <>
      <Button
        size="sm"
        variant="quiet"
        className="mb-2"
        onClick={() => {
          setOpen(true);
          if (of === null) run();
        }}
      >
        Compare schools on this form …
      </Button>
      <Modal
        show={open}
        onHide={() => {
          setOpen(false);
          stop();
        }}
        size="xl"
        scrollable
        aria-labelledby="compare-title"
        className="compare"
      >
        <Modal.Header closeButton>
          <Modal.Title id="compare-title" as="h2">
            Schools on this form, side by side
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <div className="d-flex flex-wrap column-gap-3 row-gap-1 mb-2" role="group" aria-label="Schools to compare">
            {offered.map((s) => (
              <Form.Check
                key={s.kind}
                id={`compare-${s.kind}`}
                type="checkbox"
                label={s.name}
                checked={kinds.includes(s.kind)}
                title={s.when}
                onChange={(e) => setChosen(e.target.checked ? [...kinds, s.kind] : kinds.filter((k) => k !== s.kind))}
              />
            ))}
          </div>
          <div className="d-flex gap-2 align-items-center">
            <Button size="sm" variant="quiet" onClick={run} disabled={running || kinds.length === 0}>
              {of ? 'Work it out again' : 'Work it out'}
            </Button>
            {running && (
              <>
                <progress max={kinds.length} value={done} aria-label="Schools worked out" />
                <Button size="sm" variant="quiet" onClick={stop}>
                  Stop
                </Button>
              </>
            )}
            {of !== null && of !== build && !running && <span className="muted">The build has changed since.</span>}
          </div>
          {of !== null && (
            <div className={`wide mt-2${of !== build ? ' opacity-50' : ''}`}>
              <Table size="sm" aria-label="Schools side by side" aria-busy={running}>
                <thead>
                  <tr>
                    <th scope="col">
                      <span className="visually-hidden">What</span>
                    </th>
                    {kinds.map((k) => (
                      <th key={k} scope="col">
                        {offered.find((s) => s.kind === k)?.name ?? k}
                        {k === of.armature.school.kind ? ' (now)' : ''}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  <tr>
                    <th scope="row">Holds</th>
                    {rows.map((r, i) => (
                      <td key={kinds[i]}>
                        {r === null ? (
                          <span className="muted">{running ? 'working it out …' : '–'}</span>
                        ) : typeof r === 'string' ? (
                          <span className="status-fails">{r}</span>
                        ) : (
                          <>
                            <span className={`status-${r.load}`}>
                              <Plumb status={r.load} size={16} label="" /> {statusWord[r.load]}
                            </span>
                            {r.cannot !== null && <div className="small">Cannot do this: {r.cannot}</div>}
                          </>
                        )}
                      </td>
                    ))}
                  </tr>
                  {lines.map((line) => {
                    const least = line.best && worked.length > 1 ? Math.min(...worked.map(line.best)) : NaN;
                    return (
                      <tr key={line.name}>
                        <th scope="row">{line.name}</th>
                        {rows.map((r, i) => (
                          <td key={kinds[i]}>
                            {r && typeof r !== 'string' ? (
                              line.best && line.best(r) === least ? (
                                <strong title="the least of these, or the steadiest">
                                  {line.of(r, units, currency)}
                                </strong>
                              ) : (
                                line.of(r, units, currency)
                              )
                            ) : (
                              ''
                            )}
                          </td>
                        ))}
                      </tr>
                    );
                  })}
                  <tr>
                    <th scope="row">
                      <span className="visually-hidden">Take it</span>
                    </th>
                    {kinds.map((k) => (
                      <td key={k}>
                        {k === build.armature.school.kind ? (
                          'in use'
                        ) : (
                          <Button
                            size="sm"
                            variant="quiet"
                            aria-label={`Take it: ${offered.find((s) => s.kind === k)?.name ?? k}`}
                            onClick={() => {
                              controller.edit(takeSchool(build, k));
                              setOpen(false);
                            }}
                          >
                            Take it
                          </Button>
                        )}
                      </td>
                    ))}
                  </tr>
                </tbody>
              </Table>
              <p className="hint">
                Each is sized to carry; the one in use keeps what you have set. &ldquo;Gives under the tool&rdquo; is a
                firm press with a thumb-wide tool on the fresh clay.
              </p>
            </div>
          )}
        </Modal.Body>
      </Modal>
    </>
  );
}
