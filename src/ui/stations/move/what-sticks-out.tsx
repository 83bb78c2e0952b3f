import { useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Build } from '../../../core/document';
import { mouldChosen } from '../../../core/mould';
import { knockLimits, usualKnock, type Knock, type KnockedPart } from '../../../core/piece';
import { formatForce, formatLength, formatStress, sensible, type UnitSystem } from '../../../core/quantity';
import { compareClient, type CompareClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';
import { QuantityInput } from '../../parts/fields';

/** A knock against whatever sticks out, worked out on asking. */
export function WhatSticksOut() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const [force, setForce] = useState<number>(usualKnock);
  const [knock, setKnock] = useState<Knock | null>(null);
  const [of, setOf] = useState<Build | null>(null);
  const [working, setWorking] = useState(false);
  const [problem, setProblem] = useState('');
  const client = useRef<CompareClient | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  const stop = () => {
    client.current?.stop();
    setWorking(false);
  };
  const run = () => {
    client.current?.stop();
    setOf(build);
    setKnock(null);
    setProblem('');
    setWorking(true);
    client.current = compareClient((answer) => {
      if (answer.kind === 'knocked') setKnock(answer.knock);
      else if (answer.kind === 'refused') setProblem(answer.why.message);
      setWorking(false);
    });
    client.current.ask({ kind: 'knock', asked: controller.askedOf(build), force });
  };
  const [least, most] = knockLimits;
  return (
    <>
      <h3>What sticks out</h3>
      <p className="muted mb-2">
        A knock against the end of each spike, ear, finger, branch or tail, once the clay is hard
        {mouldChosen(build) ? '; of the piece in clay, not of its casts' : ''}.
      </p>
      <div className="d-flex gap-2 align-items-end mb-2">
        <QuantityInput
          label="A knock of, N"
          kind="number"
          value={force}
          onCommit={(v) => {
            if (v === null || !(v >= least && v <= most))
              return `A knock is between ${formatForce(least, units)} and ${formatForce(most, units)}.`;
            setForce(v);
            setKnock(null);
            return null;
          }}
        />
        <Button size="sm" variant="quiet" className="mb-2" onClick={run} disabled={working}>
          {knock ? 'Try it again' : 'Try it'}
        </Button>
        {working && (
          <Button size="sm" variant="quiet" className="mb-2" onClick={stop}>
            Stop
          </Button>
        )}
      </div>
      {working && (
        <p className="small muted" role="status">
          Trying it …
        </p>
      )}
      {problem !== '' && of === build && (
        <p className="small" role="alert">
          It could not be tried: {problem}.
        </p>
      )}
      {knock && of !== build && <p className="muted">The build has changed since it was tried.</p>}
      {knock && of === build && <Knocked knock={knock} units={units} />}
    </>
  );
}

/** Shown at first: the worst. What is asked less than this of what it bears holds with ten times to spare. */
const firsts = 6,
  easily = 0.1;

function Knocked({ knock, units }: { knock: Knock; units: UnitSystem }) {
  const [all, setAll] = useState(false);
  const { strength, finest } = knock;
  const parts = knock.parts.filter((p) => p.asked.high >= easily);
  const thin = `What is thinner than ${formatLength(finest, units)} is not told.`;
  if (parts.length === 0)
    return (
      <p role="status">
        {knock.parts.length === 0
          ? 'Nothing sticks out farther than it is thick: nothing snaps off.'
          : 'All that sticks out holds, with ten times to spare.'}{' '}
        {thin}
      </p>
    );
  return (
    <>
      <ul className="list-unstyled mb-2" aria-label="What sticks out">
        {parts.slice(0, all ? undefined : firsts).map((p, i) => (
          <li key={i} className="mb-2">
            <strong>{p.name}</strong>: <span className={`status-${p.status}`}>{verdict(p)}</span>
            <div className="small muted">{told(p, units)}</div>
          </li>
        ))}
      </ul>
      {parts.length > firsts && !all && (
        <Button size="sm" variant="quiet" className="mb-2" onClick={() => setAll(true)}>
          The other {parts.length - firsts}
        </Button>
      )}
      <p className="small">
        A push of {formatForce(knock.force, units)} aside, and clay that bears {formatStress(strength.low, units)} to{' '}
        {formatStress(strength.high, units)} as it is bent.
        {parts.some((p) => p.status !== 'sound') &&
          ' A wire goes as far into what it stands on as it stands out; what points along a neighbour or lies on it gets no knock.'}{' '}
        Worn, or shown where people pass, it gets more of them. {thin}
      </p>
    </>
  );
}

function verdict({ status, asked, wire }: KnockedPart): string {
  if (status === 'fails') return 'breaks off';
  if (asked.nominal > 1 && wire) return 'cracks, and stays on';
  return status === 'watch' ? 'may crack' : 'holds';
}

/** Where it breaks, what is asked there, and what would hold it. */
function told(part: KnockedPart, units: UnitSystem): string {
  const { arm, across, asked, thicker, wants, wire } = part;
  const where = `${formatLength(arm, units)} from its end, where it is ${formatLength(across, units)} thick, ${times(asked.nominal)} what the clay bears`;
  const runs = wire ? `, ${times(wire.asked)} what the ${wire.name} in it bears` : '';
  const ways = [
    thicker === null ? '' : `${formatLength(thicker, units)} of clay there`,
    wants === null ? '' : `a wire in it (${wants})`,
  ].filter((w) => w !== '');
  return `${where}${runs}.${ways.length > 0 ? ` ${ways.join(' or ')} would hold it.` : ''}`;
}

const times = (share: number) => (share === Infinity ? 'far more than' : `${sensible(share, 2)} times`);
