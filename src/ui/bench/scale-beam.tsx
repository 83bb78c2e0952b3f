'use client';
import type { ReactNode } from 'react';
import { formatDate, formatForce, formatMass, isoDateOf, secondsOf, sensible } from '../../core/quantity';
import { statusOf, type Status, type Summary } from '../../core/verdict';
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

/** Figures hung along one edge: they move at once, and for a moment say what they were. */
export function ScaleBeam() {
  const report = useBench((s) => s.report);
  const before = useBench((s) => s.before);
  const units = useBench((s) => s.units);
  const brief = useBench((s) => s.build.brief);
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
  const ready = (s: Summary) =>
    s.readyAfter === null ? 'not by drying' : formatDate(isoDateOf(secondsOf(brief.startDate) + s.readyAfter));
  const moved = (figure: (s: Summary) => string) =>
    before && figure(before) !== figure(summary) ? `was ${figure(before)}` : '';
  const tip = report.findings.find((f) => f.id === 'tip')?.status ?? 'unknown';
  const range = report.readyRange;
  const spread = range && summary.readyAfter !== null ? Math.round((range.high - summary.readyAfter) / 86400) : 0;
  const weightStatus = report.findings.find((f) => f.id === 'weight')?.status ?? 'sound';
  const deadline =
    report.findings.find((f) => f.id === 'deadline')?.status ?? (summary.readyAfter === null ? 'unknown' : 'sound');
  const weight = (s: Summary) => formatMass(s.wet, units),
    weakest = (s: Summary) => `${sensible(s.utilisation, 2)} ×`;
  const tips = (s: Summary) => `${sensible(s.tipAngle, 2)}°`,
    crack = (s: Summary) => sensible(s.crack, 2),
    buy = (s: Summary) => formatMass(s.clayToBuy, units);
  const pans: Pan[] = [
    {
      name: 'Weight, wet',
      status: weightStatus,
      figure: weight(summary),
      aside: `dry ${formatMass(summary.dry, units)}`,
      was: moved(weight),
    },
    {
      name: 'Weakest member',
      status: statusOf(summary.utilisation),
      figure: weakest(summary),
      aside: summary.weakest,
      was: moved(weakest),
    },
    {
      name: 'Tips at',
      status: tip,
      figure: tips(summary),
      aside: `or ${formatForce(summary.push, units)} at the crown`,
      was: moved(tips),
    },
    // A clay that is kept damp does not come to crack; what it would do if it dried is on Drying.
    report.workableDays !== null
      ? { name: 'Crack index', status: 'unknown' as const, figure: '–', aside: 'kept damp', was: '' }
      : {
          name: 'Crack index',
          status:
            stationStatus(report, 'drying') === 'unknown'
              ? 'unknown'
              : statusOf(summary.crack, Math.min(0.6, brief.limits.crack * 0.6), brief.limits.crack),
          figure: crack(summary),
          aside: summary.crack > 0 ? summary.crackRegion : '',
          was: moved(crack),
        },
    {
      name: 'Ready',
      status: deadline,
      figure: ready(summary),
      aside: spread > 0 ? `${spread} night${spread === 1 ? '' : 's'} later at worst` : '',
      was: moved(ready),
    },
    {
      name: 'Clay to buy',
      status: stationStatus(report, 'clay'),
      figure: buy(summary),
      aside: `costs ${sensible(summary.cost, 3)} with wire`,
      was: moved(buy),
    },
  ];
  return (
    <footer className="beam" aria-label="Scale beam">
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
