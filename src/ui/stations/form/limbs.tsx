'use client';

import { Table } from 'react-bootstrap';
import { pairKey, placesInWords } from '../../../core/finding';
import { formatLength } from '../../../core/quantity';
import { useBench } from '../../bench/context';

/** What every limb can take, before anything is chosen to go in it; both sides in one row where they are alike. */
export function LimbsTable() {
  const units = useBench((s) => s.units);
  const limbs = useBench((s) => s.report?.limbs);
  if (!limbs || limbs.length === 0) return null;
  const rows = new Map<string, { names: string[]; thinnest: number; wire: number }>();
  for (const l of limbs) {
    const key = `${pairKey(l.name)}/${l.thinnest.toFixed(4)}/${l.wire.toFixed(4)}`;
    const row = rows.get(key);
    if (row) row.names.push(l.name);
    else rows.set(key, { names: [l.name], thinnest: l.thinnest, wire: l.wire });
  }
  return (
    <details className="mt-3">
      <summary>Room for a wire, limb by limb</summary>
      <Table size="sm" aria-label="Room for a wire" className="mt-2 mb-0">
        <thead>
          <tr>
            <th>From joint to joint</th>
            <th className="n">Thinnest</th>
            <th className="n">Thickest wire</th>
          </tr>
        </thead>
        <tbody>
          {[...rows].map(([key, r]) => (
            <tr key={key}>
              <td>{placesInWords(r.names)}</td>
              <td className="n">{r.thinnest > 0 ? formatLength(r.thinnest, units) : 'outside'}</td>
              <td className="n">{r.wire > 0.0003 ? formatLength(r.wire, units) : 'none'}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="hint mb-0">
        Along the line between two joints: how thick the form is at its thinnest, and the thickest single wire that
        still has twice itself, half the clay and {formatLength(0.006, units)} over it, or a third of the limb where
        that is less.
      </p>
    </details>
  );
}
