'use client';
import type { ReactNode } from 'react';
import { Button } from 'react-bootstrap';
import { formatDate, formatDuration, formatLength, formatMass, sensible, type UnitSystem } from '../../core/quantity';
import { worstStatus, type Status } from '../../core/piece';
import { type Finding, type Remedy, type StationId } from '../../core/finding';
import { type Report } from '../../core/evaluate';
import { useBench, useController } from '../bench/context';
import { Plumb, statusWord } from './plumb';

const order: Record<Status, number> = { fails: 0, watch: 1, unknown: 2, sound: 3 };

export function stationStatus(report: Report | null, station: StationId): Status {
  const own = report?.findings.filter((f) => f.station === station) ?? [];
  return own.length === 0 ? 'unknown' : worstStatus(own.map((f) => f.status));
}

/** What a remedy brings besides its own figure, told only where it moves. */
function sideEffects(
  finding: Finding,
  now: Pick<Report, 'summary' | 'dates'>,
  then: Remedy,
  units: UnitSystem,
): string {
  const parts: string[] = [];
  const { summary } = now;
  const weight = then.promised.wet - summary.wet;
  if (Math.abs(weight) > 0.005) parts.push(`${weight > 0 ? '+' : '−'}${formatMass(Math.abs(weight), units)} wet`);
  const was = now.dates.ready?.likely,
    is = then.dates?.ready?.likely;
  if (was && is && was !== is) parts.push(`ready ${formatDate(is)}`);
  if (!finding.id.startsWith('crack/') && Math.abs(then.promised.crack - summary.crack) > 0.05)
    parts.push(`cracks ${sensible(summary.crack, 2)} → ${sensible(then.promised.crack, 2)}`);
  if (!finding.id.startsWith('member/') && Math.abs(then.promised.utilisation - summary.utilisation) > 0.05)
    parts.push(`weakest ${sensible(summary.utilisation, 2)} → ${sensible(then.promised.utilisation, 2)}`);
  return parts.join(' · ');
}

/** A figure and its unit stay on one line. */
function together(text: string): string {
  return text.replace(/(\d) (mm|m|kg|g|l|ml|%|in|lb|oz|N|h|days?|nights?)(?![a-z])/g, '$1\u00a0$2');
}

function figureOf(finding: Finding, value: number, units: UnitSystem): string {
  if (finding.unit === 'kg') return formatMass(value, units);
  if (finding.unit === 'degrees') return `${sensible(value, 2)}°`;
  if (finding.unit === 'days') return Number.isFinite(value) ? formatDuration(value * 86400) : 'never';
  if (finding.unit === 'share') return `${sensible(value * 100, 2)} %`;
  if (finding.unit === 'count') return String(value);
  if (finding.unit === 'metres') return formatLength(value, units);
  return sensible(value, 2);
}

function RemedyRow({ finding, remedy, units }: { finding: Finding; remedy: Remedy; units: UnitSystem }) {
  const controller = useController();
  const now = useBench((s) => s.report);
  const extra = now ? sideEffects(finding, now, remedy, units) : '';
  const [before, after] = [remedy.before, remedy.after].map((v) => figureOf(finding, v, units));
  return (
    <li>
      <span className="what">{remedy.edit.label}</span>
      <Button
        variant="quiet"
        size="sm"
        onClick={() => controller.edit(remedy.edit)}
        aria-label={`Do it: ${remedy.edit.label}`}
      >
        Do it
      </Button>
      <span className="effect">
        {before === after ? 'still ' : `${before} → `}
        <strong className={`status-${remedy.statusAfter}`}>
          {after}, {statusWord[remedy.statusAfter].toLowerCase()}
        </strong>
        {remedy.turns ? '' : ' (helps, not enough)'}
        {extra ? ` · ${extra}` : ''} · {remedy.note}
      </span>
      {remedy.worse.length > 0 && (
        <span className="effect worse">
          Makes worse:{' '}
          {remedy.worse.map((w, i) => (
            <span key={w.finding}>
              {i > 0 ? '; ' : ''}
              <strong className={`status-${w.to}`}>{statusWord[w.to].toLowerCase()}</strong>,{' '}
              {w.sentence.replace(/\.$/, '')}
            </span>
          ))}
          .
        </span>
      )}
    </li>
  );
}

function Remedies({ finding }: { finding: Finding }) {
  const units = useBench((s) => s.units);
  const reckoning = useBench((s) => s.reckoning);
  if (finding.status === 'sound') return null;
  if (finding.remedies.length === 0) {
    return reckoning === 'done' ? null : (
      <p className="remedies-wait" aria-live="polite">
        Trying what would change it …
      </p>
    );
  }
  return (
    <ul className="remedies" aria-label="What would change it">
      {finding.remedies.map((r) => (
        <RemedyRow key={r.id} finding={finding} remedy={r} units={units} />
      ))}
    </ul>
  );
}

function rangeText(finding: Finding, units: UnitSystem): string {
  if (!finding.range || !(finding.range.high - finding.range.low > 1e-9)) return '';
  return ` Likely between ${figureOf(finding, finding.range.low, units)} and ${figureOf(finding, finding.range.high, units)}.`;
}

/** The judgement first: worst finding in full, the others folded, then inputs, then how it is worked out. */
export function StationPanel({
  station,
  title,
  children,
  how,
  cautions = [],
}: {
  station: StationId;
  title: string;
  children: ReactNode;
  how: ReactNode;
  cautions?: readonly string[];
}) {
  const report = useBench((s) => s.report);
  const failure = useBench((s) => s.failure);
  const units = useBench((s) => s.units);
  const findings = [...(report?.findings.filter((f) => f.station === station) ?? [])].sort(
    (a, b) => order[a.status] - order[b.status],
  );
  const [first, ...others] = findings;
  return (
    <section aria-label={title}>
      {failure && (
        <div role="alert" className="cautions" style={{ borderLeftColor: 'var(--fails)' }}>
          <strong>This cannot be worked out.</strong> {failure.path}: {failure.message}. Undo the last change, or put it
          right here.
        </div>
      )}
      {first ? (
        <>
          <div className={`verdict-line status-${first.status}`}>
            <Plumb status={first.status} size={24} label="" /> {statusWord[first.status]} · {first.place}
          </div>
          <h2>{together(first.sentence)}</h2>
          <p className="reason">{together(first.reason + rangeText(first, units))}</p>
          <Remedies finding={first} />
        </>
      ) : (
        !failure && (
          <>
            <div className="verdict-line status-unknown">
              <Plumb status="unknown" size={24} label="" /> {report ? 'Nothing to judge yet' : 'Working it out …'}
            </div>
            <h2>{title}</h2>
            <p className="reason">{report ? (emptyWords[station] ?? '') : ''}</p>
          </>
        )
      )}
      {others.length > 0 && (
        <ul className="others">
          {others.map((f) => (
            <li key={f.id}>
              <details open={f.status === 'fails'}>
                <summary>
                  <Plumb status={f.status} size={20} />
                  <span>{together(f.sentence)}</span>
                </summary>
                <p className="reason mt-2 mb-2">{together(f.reason + rangeText(f, units))}</p>
                <Remedies finding={f} />
              </details>
            </li>
          ))}
        </ul>
      )}
      {children}
      {cautions.length > 0 && (
        <div className="cautions">
          <strong>Mind</strong>
          <ul>
            {cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </div>
      )}
      <details className="how">
        <summary>How this is worked out</summary>
        <div className="mt-2">{how}</div>
      </details>
    </section>
  );
}

const emptyWords: Partial<Record<StationId, string>> = {
  mould: 'Say which mould is taken of it, and whether the piece is fit for it stands here.',
  brief: 'Set a weight it may not pass, or the day you need it, and both are watched from here on.',
};
