import { useEffect } from 'react';
import { Button, ProgressBar, Table } from 'react-bootstrap';
import { castKinds, mouldChosen } from '../../../core/mould';
import {
  formatForce,
  formatLength,
  formatMass,
  formatStress,
  type UnitSystem,
  type Vec3,
} from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import type { MouldState } from '../../bench/mould-work';
import { useMould } from '../../bench/use-mould';

type Tried = NonNullable<MouldState['inHand']>;
const does = {
  across: 'Squeezed by two hands, side to side',
  'front-to-back': 'Squeezed, front to back',
  thumb: 'Pressed with a thumb, where it bears least',
  dropped: 'Dropped from a table on stone, as it falls worst',
} as const;
const verdicts = { sound: 'holds', watch: 'may crack', fails: 'cracks' } as const;

/** A hard cast taken in hand: squeezed, pressed and dropped, worked out on asking. */
export function CastInHand() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const formKey = useBench((s) => s.picture?.formKey ?? '');
  const masses = useBench((s) => s.picture?.masses);
  const parted = useMould((s) => s.parted);
  const tried = useMould((s) => s.inHand);
  const done = useMould((s) => s.inHandDone);
  const message = useMould((s) => s.inHandMessage);
  const chosen = mouldChosen(build);
  const cast = castKinds.find((c) => c.id === chosen?.cast);
  // Of another form or another cast it would be another answer.
  const key = JSON.stringify([formKey, chosen?.kind, chosen?.cast, build.armature.mount.kind]);
  useEffect(() => () => controller.mould.dropInHand(), [controller, key]);
  if (!cast?.wall || !cast.bears) return null;
  const nameAt = (at: Vec3): string => {
    if (!parted || !masses) return '';
    const { positions, owners } = parted.surface;
    let best = 0,
      least = Infinity;
    for (let i = 0; i < owners.length; i++) {
      const d = Math.hypot(positions[3 * i]! - at[0], positions[3 * i + 1]! - at[1], positions[3 * i + 2]! - at[2]);
      if (d < least) [least, best] = [d, i];
    }
    return masses[owners[best]!]?.name ?? '';
  };
  return (
    <>
      <h3>The cast in the hand</h3>
      {done !== null ? (
        <>
          <p className="small muted mb-1" role="status">
            Trying it, {Math.round(done * 100)} %
          </p>
          <ProgressBar now={done * 100} className="mb-2" aria-label="Trying the cast" />
          <Button size="sm" variant="quiet" className="mb-2" onClick={() => controller.mould.dropInHand()}>
            Stop
          </Button>
        </>
      ) : (
        <Button
          size="sm"
          variant="quiet"
          className="mb-2"
          onClick={() => controller.mould.takeInHand(controller.askedOf(build))}
        >
          {tried ? 'Try it again' : 'Squeeze it, press it, drop it'}
        </Button>
      )}
      {message !== '' && (
        <p className="small status-fails" role="alert">
          It could not be tried: {message}.
        </p>
      )}
      {tried && <Cases tried={tried} units={units} nameAt={nameAt} />}
      {tried && (
        <p className="small mt-2">
          {formatMass(tried.mass, units)} with {formatLength(cast.wall.nominal, units)} of {cast.name} all over, which
          bears {formatStress(cast.bears.strength.low, units)} to {formatStress(cast.bears.strength.high, units)} as it
          is bent. Seams, bubbles and thin places break sooner: pack it so that nothing presses on it.
        </p>
      )}
    </>
  );
}

function Cases({ tried, units, nameAt }: { tried: Tried; units: UnitSystem; nameAt: (at: Vec3) => string }) {
  return (
    <Table size="sm" aria-label="The cast in the hand">
      <thead>
        <tr>
          <th>What is done to it</th>
          <th className="n">Gives</th>
          <th className="n">Pulls at it</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {tried.cases.map((c) => (
          <tr key={c.id}>
            <td>
              {does[c.id]}, {formatForce(c.force, units)}
              {c.status !== 'sound' && <span className="small muted">: first at the {nameAt(c.cracksAt)}</span>}
            </td>
            <td className="n">{formatLength(c.gives, units)}</td>
            <td className="n">{formatStress(c.stress, units)}</td>
            <td>
              <span className={`status-${c.status}`}>{verdicts[c.status]}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
