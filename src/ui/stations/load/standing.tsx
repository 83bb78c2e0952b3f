'use client';
import { useState } from 'react';
import { Table } from 'react-bootstrap';
import { counterweightAt, counterweightPlace, groundUnder } from '../../../core/load';
import { formatArea, formatForce, formatLength, formatMass, formatSpeed, sensible } from '../../../core/quantity';
import { useBench } from '../../bench/context';
import { QuantityInput } from '../../parts/fields';

/** Standing, stage by stage; a counterweight solved for a place, or its place for a weight. */
export function StandingTables() {
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  const standing = useBench((s) => s.picture?.armature.base.standing);
  if (!report) return null;
  const { handling, stance } = report;
  return (
    <>
      <h3>Standing</h3>
      <Table size="sm" aria-label="Standing, stage by stage">
        <thead>
          <tr>
            <th>Stage</th>
            <th className="n">Weight</th>
            <th className="n">Tips at</th>
            <th className="n">Push at the crown</th>
          </tr>
        </thead>
        <tbody>
          {report.stances.map((s) => (
            <tr key={s.stage}>
              <td>{s.name}</td>
              <td className="n">{formatMass(s.mass, units)}</td>
              <td className="n">
                {sensible(s.tipAngle, 2)}° {s.towards}
              </td>
              <td className="n">{formatForce(s.push, units)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="muted">
        {standing === 'casters'
          ? `It rolls when pushed with ${formatForce(handling.slidesAt, units)}: lock or chock its casters while you work`
          : `It slides when pushed at its foot with ${formatForce(handling.slidesAt, units)}${handling.slidesAt < stance.push ? ': it creeps before it tips, so clamp it or put rubber under it while you work' : ''}`}
        . Its {stance.towards} may stand over the edge of a table by {formatLength(handling.overhang, units)} at the
        most.
      </p>
      <Counterweight />
    </>
  );
}

function Counterweight() {
  const report = useBench((s) => s.report);
  const base = useBench((s) => s.picture?.armature.base);
  const target = useBench((s) => s.build.brief.limits.tipAngle);
  const units = useBench((s) => s.units);
  const [back, setBack] = useState<number | null>(null);
  const [kg, setKg] = useState(5);
  if (!report || !base) return null;
  const { stance } = report;
  const ground = groundUnder(base);
  const usual = (stance.towards === 'front' ? 1 : stance.towards === 'back' ? -1 : 0) * 0.42 * base.depth;
  const behind = back ?? usual;
  const needed = counterweightAt(stance, ground, [base.at[0], base.at[1] + behind, -base.thickness / 2], target);
  const away = counterweightPlace(stance, ground, kg, -base.thickness / 2, target);
  const across = stance.towards === 'front' || stance.towards === 'back' ? base.depth : base.width;
  return (
    <details className="mb-3">
      <summary>Counterweight</summary>
      <div className="pairs mt-2">
        <QuantityInput
          label="Fixed behind the board’s middle by"
          kind="length"
          value={behind}
          onCommit={(v) => {
            setBack(v);
            return null;
          }}
        />
        <QuantityInput
          label="Or a weight of"
          kind="mass"
          value={kg}
          onCommit={(v) => {
            if (v === null || !(v > 0)) return 'A weight over nothing';
            setKg(v);
            return null;
          }}
        />
      </div>
      <p className="mb-0">
        {needed === 0
          ? `It leans ${sensible(target)}° already without one.`
          : Number.isFinite(needed)
            ? `There, ${formatMass(needed, units)} more bring every side to ${sensible(target)}°.`
            : 'No weight at that place brings every side to it.'}{' '}
        {needed > 0 &&
          (away <= across
            ? `${formatMass(kg, units)} do it ${formatLength(away, units)} in from the ${stance.towards} edge or further.`
            : `${formatMass(kg, units)} would have to lie ${formatLength(away, units)} from the ${stance.towards} edge: off the board.`)}
      </p>
    </details>
  );
}

/** What the gust it must stand does to it, and what each way of holding it takes; nothing indoors. */
export function InTheWind() {
  const wind = useBench((s) => s.report?.wind);
  const held = useBench((s) => s.build.brief.outdoors?.held);
  const units = useBench((s) => s.units);
  if (!wind) return null;
  const { worst, stands, hangs } = wind;
  const rows: (readonly [string, string])[] = [
    ['Outline, from ' + worst.from, formatArea(worst.area, units)],
    ['Its middle over the ground', formatLength(wind.height, units)],
    ['Presses with', formatForce(worst.force, units)],
    ...(hangs
      ? ([
          ['Swings', `${sensible(hangs.swing, 2)}°`],
          ['Pulls on its lines', formatForce(hangs.pull, units)],
        ] as const)
      : []),
    ...(stands
      ? ([
          ['Tips it, of what its weight holds', sensible(stands.tips, 2)],
          ['Slides it, of what its weight holds', sensible(stands.slides, 2)],
          [
            'Held by a weight on the board',
            stands.ballast <= 0
              ? 'none needed'
              : Number.isFinite(stands.ballast)
                ? formatMass(stands.ballast, units)
                : 'no weight there does it',
          ],
          [`Held by guys${held === 'guyed' ? ' (chosen)' : ''}, each and its peg`, formatForce(stands.guyPull, units)],
          [
            `Held by bolts${held === 'bolted' ? ' (chosen)' : ''}, one side together`,
            stands.anchorPull > 0 ? formatForce(stands.anchorPull, units) : 'none needed',
          ],
        ] as const)
      : []),
  ];
  return (
    <>
      <h3>In a gust of {formatSpeed(wind.gust, units)}</h3>
      <Table size="sm" aria-label="In the wind">
        <tbody>
          {rows.map(([what, figure]) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td className="n">{figure}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="muted">What tips, slides, guys and bolts have half as much again in them.</p>
    </>
  );
}

/** What the finished piece would come through, whatever it is meant for. */
export function Situations() {
  const situations = useBench((s) => s.report?.situations);
  const meant = useBench((s) => s.build.brief.situation);
  if (!situations) return null;
  return (
    <>
      <h3>Finished, without props</h3>
      <Table size="sm" aria-label="In each situation">
        <thead>
          <tr>
            <th>When it</th>
            <th>Weakest</th>
            <th className="n">Of what it bears</th>
          </tr>
        </thead>
        <tbody>
          {situations.map((s) => (
            <tr key={s.id}>
              <td>
                {s.name}
                {s.id === meant ? ' (meant)' : ''}
              </td>
              <td>
                {s.bone}, {s.cause}
              </td>
              <td className={`n status-${s.status}`}>{sensible(s.utilisation, 2)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
