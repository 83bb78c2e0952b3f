'use client';
import { Table } from 'react-bootstrap';
import { formatDuration, formatDate, isoDateOf, sensible } from '../../../core/quantity';
import type { WindowId } from '../../../core/piece';
import { useBench } from '../../bench/context';

const rows: readonly { id: WindowId; name: string; note: string }[] = [
  { id: 'smooth', name: 'Last chance to smooth', note: 'a damp finger still closes the skin' },
  { id: 'leather', name: 'Leather-hard', note: 'carves clean; half of it has shrunk' },
  { id: 'touch', name: 'Touch-dry', note: 'the skin has nearly done shrinking' },
  { id: 'hold', name: 'A hand may hold it', note: 'firm and dry to the touch' },
  { id: 'through', name: 'Dry through', note: 'to a twentieth of its water' },
  { id: 'paint', name: 'Safe to paint', note: 'water-based, thin' },
  { id: 'seal', name: 'Safe to seal', note: 'nothing left that would blister under it' },
  { id: 'mould', name: 'Safe to mould', note: 'when sealed as well' },
];

/** When a hand may do what: the piece as a whole is ready when its last region is, and too late with its first. */
export function Windows() {
  const report = useBench((s) => s.report);
  const regions = report?.regions.filter((r) => r.coats.length > 0) ?? [];
  if (regions.length === 0) return null;
  if (!report) return null;
  const { laid, plan } = report;
  const lifted = report.laying.lifted;
  const liftedAt = plan?.steps.find((s) => s.id === 'lift')?.from ?? laid.first + (lifted ?? 0);
  return (
    <>
      <h3>When a hand may</h3>
      <Table size="sm" aria-label="When a hand may do what">
        <thead>
          <tr>
            <th>State</th>
            <th className="n">After</th>
            <th>On</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((w) => {
            // A last chance passes with the first region that sets; everything else waits for the last.
            const pick = (values: readonly (number | null)[]) =>
              values.some((v) => v === null)
                ? null
                : w.id === 'smooth'
                  ? Math.min(...(values as number[]))
                  : Math.max(...(values as number[]));
            const at = pick(regions.map((r) => r.windows[w.id].at));
            // Each region from when its own last coat goes on, or went.
            const on = pick(
              regions.map((r) => {
                const own = r.windows[w.id].at;
                return own === null ? null : (laid.lastCoat[r.id] ?? laid.first) + own - r.lastStart;
              }),
            );
            const low = pick(regions.map((r) => r.windows[w.id].range?.low ?? null)),
              high = pick(regions.map((r) => r.windows[w.id].range?.high ?? null));
            return (
              <tr key={w.id}>
                <td>
                  {w.name}
                  <div className="muted small">{w.note}</div>
                </td>
                <td className="n">
                  {at === null ? 'never' : formatDuration(at)}
                  {low !== null && high !== null && (
                    <div className="muted small">
                      {days(low)} to {days(high)}
                    </div>
                  )}
                </td>
                <td className="small">{on === null ? '' : formatDate(isoDateOf(on))}</td>
              </tr>
            );
          })}
          {lifted !== null && (
            <tr>
              <td>
                Off its form<div className="muted small">before most of the shrinking, once it keeps its shape</div>
              </td>
              <td className="n">{formatDuration(lifted)}</td>
              <td className="small">{formatDate(isoDateOf(liftedAt))}</td>
            </tr>
          )}
        </tbody>
      </Table>
    </>
  );
}

/** Region by region, and what it rests on. */
export function ByRegion() {
  const report = useBench((s) => s.report);
  const regions = report?.regions.filter((r) => r.coats.length > 0) ?? [];
  if (regions.length === 0) return null;
  const told = (t: number | null) => (t === null ? 'never' : formatDuration(t));
  return (
    <Table size="sm" aria-label="Drying by region">
      <thead>
        <tr>
          <th>Region</th>
          <th className="n">Leather-hard, touch-dry</th>
          <th className="n">Through</th>
          <th className="n">Cracks</th>
        </tr>
      </thead>
      <tbody>
        {regions.map((r) => (
          <tr key={r.id}>
            <td>
              {r.name}
              <div className="muted small">{basisNames[r.basis]}</div>
            </td>
            <td className="n">
              {told(r.leatherHard)}, {told(r.touchDry)}
              <div className="muted small">to hold {told(r.windows.hold.at)}</div>
            </td>
            <td className="n">
              {told(r.throughDry)}
              {r.throughDryRange && (
                <div className="muted small">
                  {days(r.throughDryRange.low)} to {days(r.throughDryRange.high)}
                </div>
              )}
            </td>
            <td className="n">
              {sensible(r.crack, 2)}
              {r.crackRange && (
                <div className="muted small">
                  {sensible(r.crackRange.low, 2)} to {sensible(r.crackRange.high, 2)}
                </div>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

const basisNames = { quick: 'quick', corrected: 'quick, corrected', full: 'whole' } as const;

function days(t: number): string {
  return t < 2 * 86400 ? `${sensible(t / 3600, 2)} h` : `${sensible(t / 86400, 2)} d`;
}
