'use client';
import dynamic from 'next/dynamic';
import { Form, Table } from 'react-bootstrap';
import { coverKinds } from '../../../core/drying';
import { formatDate, formatDuration, isoDateOf, secondsOf, sensible } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, NumberAt } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';

const MoistureChart = dynamic(() => import('./moisture-chart'), { ssr: false, loading: () => <div style={{ height: 210 }} className="muted">Drawing …</div> });

export default function DryingStation() {
  const controller = useController();
  const report = useBench((s) => s.report);
  const dryTime = useBench((s) => s.dryTime);
  const start = useBench((s) => s.build.brief.startDate);
  const cover = useBench((s) => s.build.room.cover);
  const longest = Math.max(1, ...(report?.regions.map((r) => r.throughDry ?? 0) ?? [])) * 1.1;
  const days = (t: number | null) => (t === null ? 'never' : formatDuration(t));
  const dries = report?.regions.some((r) => r.coats.length > 0);
  return (
    <StationPanel
      station="drying" title="Drying" cautions={dries ? ['Sanding dried clay: respirator, wet sanding where it stands it, and no sweeping dry.'] : []}
      how={<>
        <p>Water leaves the face as fast as the room takes it up, and the face cools itself while it does. Inside, water moves through the thickness ever more slowly as the clay dries. Each region is worked out in one dimension: a coat as a slab, solid clay as the ball or rod it is nearest to.</p>
        <p>The crack index adds two things. What the core holds back of the shrinkage, against the stretch the clay takes as it stiffens; and the dry skin over a wet inside. Under 0.6 is sound; from 1 cracks are likely; over 1.6 near certain.</p>
        <p className="mb-0">Ranges come from pushing diffusion, air, sorption, shrinkage and restraint to the ends of what is known. A weighing narrows them for your piece. Left out: draughts from one side, sun, seams that were not scored. Sources: Crank, <em>The Mathematics of Diffusion</em>; Incropera, <em>Fundamentals of Heat and Mass Transfer</em>; Buck (1981); Hutchinson &amp; Suo (1992).</p>
      </>}
    >
      {dries && report && (
        <>
          <h3>Look at it on</h3>
          <Form.Range aria-label="Time since the clay went on" min={0} max={longest} step={longest / 200} value={Math.min(dryTime, longest)} onChange={(e) => controller.setDryTime(Number(e.target.value))} aria-valuetext={formatDuration(dryTime)} />
          <p className="small muted">{formatDate(isoDateOf(secondsOf(start) + dryTime))}, {formatDuration(dryTime)} after the clay went on</p>
          <MoistureChart />
          <Table size="sm" aria-label="Drying by region">
            <thead><tr><th>Region</th><th className="n">Touch-dry</th><th className="n">Leather-hard</th><th className="n">Through</th><th className="n">Cracks</th></tr></thead>
            <tbody>
              {report.regions.map((r) => (
                <tr key={r.id}>
                  <td>{r.name}</td><td className="n">{days(r.touchDry)}</td><td className="n">{days(r.leatherHard)}</td>
                  <td className="n">{days(r.throughDry)}{r.throughDryRange && <div className="muted small">{sensible(r.throughDryRange.low / 86400, 2)}–{sensible(r.throughDryRange.high / 86400, 2)}</div>}</td>
                  <td className="n">{sensible(r.crack, 2)}{r.crackRange && <div className="muted small">{sensible(r.crackRange.low, 2)}–{sensible(r.crackRange.high, 2)}</div>}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </>
      )}
      <h3>The room</h3>
      <div className="pairs">
        <NumberAt label="Temperature" path={['room', 'temperature']} kind="temperature" />
        <NumberAt label="Humidity" path={['room', 'relativeHumidity']} kind="percent" />
        <NumberAt label="Air over it" path={['room', 'airSpeed']} kind="speed" hint="0.1 still, 1.5 a fan" />
        <ChoiceAt label="Covered with" path={['room', 'cover']} choices={coverKinds} also={(id) => (id === 'none' ? [] : [{ path: ['room', 'coverHours'], value: 48 }])} />
        {cover !== 'none' && <NumberAt label="Cover comes off after" path={['room', 'coverHours']} kind="hours" />}
      </div>
    </StationPanel>
  );
}
