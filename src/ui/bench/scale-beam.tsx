'use client';
import type { ReactNode } from 'react';
import { formatDate, formatForce, formatMass, formatMoney, sensible } from '../../core/quantity';
import type { Report } from '../../core/evaluate';
import { crackStatus, type Dates } from '../../core/finding';
import { statusOf, type Status } from '../../core/piece';
import { Plumb } from '../parts/plumb';
import { stationStatus } from '../parts/judgement';
import { useBench } from './context';

interface Pan {
  readonly name: string;
  readonly status: Status;
  readonly figure: string;
  readonly aside: ReactNode;
  /** The figure as it was, when it moved. */
  readonly was: string;
}

type Figures = Pick<Report, 'summary' | 'dates'>;

/** How late it may be. */
function laterWords({ ready }: Dates): string {
  return ready && ready.latest !== ready.likely ? `${formatDate(ready.latest)} at the latest` : 'the end of the plan';
}

/** Figures hung along one edge: they move at once, and for a moment say what they were. */
export function ScaleBeam() {
  const report = useBench((s) => s.report);
  const before = useBench((s) => s.before);
  const units = useBench((s) => s.units);
  const limit = useBench((s) => s.build.brief.limits.crack);
  const currency = useBench((s) => s.build.materials.currency);
  // The figures that stand are of an earlier step until the first answer to this one has come.
  const behind = useBench((s) => s.reckoning === 'nominal');
  const summary = report?.summary;
  if (!report || !summary) {
    return (
      <footer className="beam" aria-label="Scale beam" aria-busy="true">
        {['Weight, wet', 'Weakest member', 'Tips at', 'Crack index', 'Ready', 'Clay to buy'].map((n) => (
          <div key={n}>
            <div className="name">{n}</div>
            <div className="figure muted">…</div>
          </div>
        ))}
      </footer>
    );
  }
  const { dates } = report;
  const of = (id: string) => report.findings.find((f) => f.id === id)?.status;
  const moved = (figure: (s: Figures) => string) =>
    before && figure(before) !== figure(report) ? `was ${figure(before)}` : '';
  const weight = (s: Figures) => formatMass(s.summary.wet, units),
    weakest = (s: Figures) => `${sensible(s.summary.utilisation, 2)} ×`;
  const tips = (s: Figures) => `${sensible(s.summary.tipAngle, 2)}°`,
    crack = (s: Figures) => sensible(s.summary.crack, 2),
    buy = (s: Figures) => formatMass(s.summary.clayToBuy, units);
  const ready = (s: Figures) => (s.dates.ready ? formatDate(s.dates.ready.likely) : 'never');
  const dries = report.workableDays === null && report.regions.some((r) => r.coats.length > 0);
  const pans: Pan[] = [
    {
      name: 'Weight, wet',
      status: of('weight') ?? 'sound',
      figure: weight(report),
      aside: `dry ${formatMass(summary.dry, units)}`,
      was: moved(weight),
    },
    {
      name: 'Weakest member',
      status: statusOf(summary.utilisation),
      figure: weakest(report),
      aside: report.sizing.state === 'being-chosen' ? 'being sized' : summary.weakest,
      was: moved(weakest),
    },
    {
      name: 'Tips at',
      status: of('tip') ?? 'unknown',
      figure: tips(report),
      aside: `or ${formatForce(summary.push, units)} at the crown`,
      was: moved(tips),
    },
    // A clay that is kept damp, or hardens otherwise, does not come to crack.
    dries
      ? {
          name: 'Crack index',
          status: crackStatus(summary.crack, limit),
          figure: crack(report),
          aside: summary.crack > 0 ? summary.crackRegion : '',
          was: moved(crack),
        }
      : {
          name: 'Crack index',
          status: 'unknown',
          figure: '–',
          aside: report.workableDays !== null ? 'kept damp' : 'does not dry',
          was: '',
        },
    {
      name: 'Ready',
      status: of('deadline') ?? of('plan') ?? 'unknown',
      figure: ready(report),
      aside: dates.dryThrough ? `dry through ${formatDate(dates.dryThrough.likely)}` : laterWords(dates),
      was: moved(ready),
    },
    {
      name: report.clay.mixedHere ? 'Clay to mix' : 'Clay to buy',
      status: stationStatus(report, 'clay'),
      figure: buy(report),
      aside: `${formatMoney(summary.cost, currency)} with stock`,
      was: moved(buy),
    },
  ];
  return (
    <footer className="beam" aria-label="Scale beam" aria-busy={behind || report.sizing.state === 'being-chosen'}>
      {pans.map((p) => (
        <div key={p.name}>
          <span className="string">
            <Plumb status={p.status} size={36} />
          </span>
          <div className="name">
            {p.name}
            {p.was && <span className="was">, {p.was}</span>}
          </div>
          <div className="figure" data-testid={`beam-${p.name}`}>
            {p.figure}
          </div>
          <div className="aside">{p.aside}</div>
        </div>
      ))}
    </footer>
  );
}
