'use client';
import { Button } from 'react-bootstrap';
import { castKinds, clayOverForm, growToFit, leftAfter, mouldChosen, mouldKinds } from '../../../core/mould';
import { formatLength, sensible } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { NumberAt } from '../../parts/fields';
import { Inserts } from './inserts';

/** What the shrinkage does to the size, the piece made larger for it, and a mask to its wearer's girth. */
export function SizeOfCast() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const regions = useBench((s) => s.report?.regions);
  const chosen = mouldChosen(build);
  const kind = mouldKinds.find((k) => k.id === chosen?.kind);
  const cast = castKinds.find((c) => c.id === chosen?.cast);
  if (!kind || !cast) return null;
  const left = leftAfter(kind, cast);
  const { oversize, gap } = build.mould;
  const comesOut = left.nominal * oversize;
  const measured = build.form.start.measures['headGirth'];
  // The wearer's, whatever the piece has been made larger by.
  const girth = typeof measured === 'number' ? (measured * build.form.start.size) / oversize : undefined;
  const coat = (regions ?? []).filter((r) => r.clayVolume > 0).map((r) => r.clayVolume / Math.max(1e-9, r.area));
  const clay = girth === undefined ? null : clayOverForm(girth, gap, cast, left);
  const thinnest = coat.length > 0 ? Math.min(...coat) : null;
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
          <NumberAt label="Room about the wearer" path={['mould', 'gap']} kind="length" />
          <p className="small">
            Over a form as round as the wearer&rsquo;s head, {formatLength(girth, units)}, clay{' '}
            {formatLength(clay.nominal, units)} thick ({formatLength(clay.low, units)} to{' '}
            {formatLength(clay.high, units)}) lets the cast go on.
            {thinnest !== null && ` At its thinnest it is ${formatLength(thinnest, units)} on average over a place.`}
          </p>
        </>
      )}
      <Inserts left={left} girth={girth} />
    </>
  );
}
