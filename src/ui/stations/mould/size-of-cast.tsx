'use client';
import { Button, Table } from 'react-bootstrap';
import {
  castKinds,
  clayOverForm,
  growToFit,
  leftAfter,
  mouldChosen,
  mouldKinds,
  wearersGirth,
} from '../../../core/mould';
import { formatLength, sensible } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { useMould } from '../../bench/use-mould';
import { NumberAt } from '../../parts/fields';
import { WearersFields } from '../form/measure-field';
import { GirthRows, isTight, PutOnWords } from './girth-rows';
import { Inserts } from './inserts';

/** What the shrinkage does to the size, the piece made larger for it, and a mask to its wearer's girth. */
export function SizeOfCast() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const girths = useMould((s) => s.parted?.girths) ?? [];
  const narrowest = useMould((s) => s.parted?.narrowest) ?? null;
  const chosen = mouldChosen(build);
  const kind = mouldKinds.find((k) => k.id === chosen?.kind);
  const cast = castKinds.find((c) => c.id === chosen?.cast);
  if (!kind || !cast) return null;
  const left = leftAfter(kind, cast);
  const { oversize, gap } = build.mould;
  const comesOut = left.nominal * oversize;
  const girth = wearersGirth(build) ?? undefined;
  const tight = girths.some((g) => isTight(g, build.mould, cast, left));
  const clay = girth === undefined ? null : clayOverForm(girth, gap, cast, left, oversize);
  return (
    <>
      <h3>Its size</h3>
      <p className="mb-2">
        {oversize === 1
          ? `Made as large as it is, a cast of it comes out at ${sensible(comesOut * 100, 3)} % of that.`
          : `It is made ${sensible(oversize, 4)} times as large as the cast is to be, which comes out at ${sensible(comesOut * 100, 3)} % of what is wanted.`}
      </p>
      <p className="small mb-2">
        A mould taken of a cast, and a cast in that, comes out at {sensible(comesOut * left.nominal * 100, 3)} %.
      </p>
      <div className="beside mb-2">
        {Math.abs(comesOut - 1) > 0.002 && (
          <Button size="sm" variant="quiet" onClick={() => controller.edit(growToFit(build, left.nominal))}>
            Make it {sensible(1 / left.nominal, 4)} times the size of the cast
          </Button>
        )}
        {oversize !== 1 && (
          <Button size="sm" variant="quiet" onClick={() => controller.edit(growToFit(build, 1))}>
            Back to the size of the cast
          </Button>
        )}
      </div>
      {clay && girth !== undefined && (
        <>
          <WearersFields />
          <NumberAt label="Room about the wearer" path={['mould', 'gap']} kind="length" />
          <p className="small">
            Over a form as round as the wearer&rsquo;s head, {formatLength(girth, units)}, clay{' '}
            {formatLength(clay.nominal, units)} thick ({formatLength(clay.low, units)} to{' '}
            {formatLength(clay.high, units)}) lets the cast go on.
          </p>
          {girths.length > 0 && (
            <Table size="sm" aria-label="Clay round the wearer’s form">
              <GirthRows girths={girths} mould={build.mould} cast={cast} left={left} units={units} />
            </Table>
          )}
          {tight && (
            <p className="small status-fails">
              There the cast comes out tighter than the head: lay the clay on thicker, or make the piece larger.
            </p>
          )}
          <PutOnWords narrowest={narrowest} girth={girth} cast={cast} left={left} units={units} />
        </>
      )}
      <Inserts left={left} girth={girth} />
    </>
  );
}
