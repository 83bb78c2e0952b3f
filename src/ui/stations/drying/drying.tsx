'use client';
import dynamic from 'next/dynamic';
import { Form } from 'react-bootstrap';
import { nightsUntil } from '../../../core/drying';
import { formatDate, formatDuration, isoDateOf } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { StationPanel } from '../../parts/judgement';
import { Covers, Handling, RoomFields } from './room';
import { WhatIf } from './what-if';
import { WholePiece } from './whole';
import { ByRegion, Windows } from './windows';

const MoistureChart = dynamic(() => import('./moisture-chart'), {
  ssr: false,
  loading: () => (
    <div style={{ height: 210 }} className="muted">
      Drawing …
    </div>
  ),
});

/** The longest there is to look at, seconds. */
function useLongest(): number {
  const report = useBench((s) => s.report);
  const whole = useBench((s) => s.whole.whole);
  const last = whole ? Math.max(whole.last.time * 1.1, ...whole.regions.map((r) => r.throughDry ?? 0)) : 0;
  return Math.max(3600, last, ...(report?.regions.map((r) => r.throughDry ?? 0) ?? [])) * 1.08;
}

function TimeSlider() {
  const controller = useController();
  const dryTime = useBench((s) => s.dryTime);
  const first = useBench((s) => s.report?.laid.first ?? 0);
  const startHour = useBench((s) => s.build.stages.startHour);
  const longest = useLongest();
  const time = Math.min(dryTime, longest);
  return (
    <>
      <h3>Look at it on</h3>
      <div className="time-slider">
        <Form.Range
          aria-label="Time since the clay went on"
          min={0}
          max={longest}
          step={longest / 240}
          value={time}
          onChange={(e) => controller.setDryTime(Number(e.target.value))}
          aria-valuetext={formatDuration(time)}
        />
        <div className="nights" aria-hidden="true">
          {nightsUntil(startHour, longest).map((n) => (
            <i
              key={n.from}
              style={{ left: `${(n.from / longest) * 100}%`, width: `${((n.until - n.from) / longest) * 100}%` }}
            />
          ))}
        </div>
      </div>
      <p className="small muted">
        {formatDate(isoDateOf(first + time))}, {formatDuration(time)} after the clay went on; nights are marked.
      </p>
    </>
  );
}

export default function DryingStation() {
  const report = useBench((s) => s.report);
  const dries = report?.regions.some((r) => r.coats.length > 0) && report.workableDays === null;
  return (
    <StationPanel
      station="drying"
      title="Drying"
      cautions={
        dries
          ? [
              'Sanding dried clay: respirator, wet sanding where it stands it, and no sweeping dry.',
              'Heaters and fans: nothing that can fall on the piece or catch on its covers, and never left on with nobody there.',
            ]
          : []
      }
      how={
        <>
          <p>
            Water leaves the face as fast as the room takes it up, and the face cools itself while it does. Inside,
            water moves ever more slowly as the clay dries. The quick answer takes each region by itself, through its
            thickness: a coat as a slab, solid clay as the ball or rod it is nearest to. The full answer cuts all of the
            clay into small cells and follows the water from each to its neighbours and out of both faces.
          </p>
          <p>
            On a flat coat the two agree to a hundredth. On whole pieces they do not: the quick answer is corrected by
            the middle of what sixty pieces dried whole showed for clay of its kind (a first coat takes 1.2 times as
            long, a further coat or solid clay 1.9 times, a wall with two faces 0.8), and its range is widened by how
            far they lay apart. Once the piece itself has been dried whole, what that showed is used. Where they differ,
            the full answer is the one to go by.
          </p>
          <p>
            The crack index adds two things. What the core holds back of the shrinkage, against the stretch the clay
            takes as it stiffens; and a dry skin over clay that is still wet, through the thickness and, in the full
            answer, beside it: thin parts dry before thick ones. A wire close under the face holds all of it back. Under
            0.6 is sound; from 1 cracks are likely; over 1.6 near certain. It is judged over a square centimetre.
          </p>
          <p className="mb-0">
            Ranges come from pushing diffusion, air, sorption, shrinkage and restraint to the ends of what is known;
            weighing narrows them. Left out: draughts from one side, sun, water taken up by the core, seams that were
            not scored. Sources: Crank, <em>The Mathematics of Diffusion</em>; Incropera,{' '}
            <em>Fundamentals of Heat and Mass Transfer</em>; Buck (1981); Hutchinson &amp; Suo (1992); Johansen &amp;
            Colella (1998).
          </p>
        </>
      }
    >
      {dries && report && (
        <>
          <TimeSlider />
          <WholePiece />
          <MoistureChart />
          <ByRegion />
          <Windows />
          <WhatIf />
        </>
      )}
      <RoomFields />
      <Covers />
      {dries && <Handling />}
    </StationPanel>
  );
}
