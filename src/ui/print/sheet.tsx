'use client';
import Link from 'next/link';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Cut } from '../../core/armature';
import { formatDate, formatLength, formatMass, sensible, type UnitSystem } from '../../core/quantity';
import type { SheetContents } from '../../core/verdict';

/** Stock of one kind and size, all its cuts together. */
function byStock(cuts: readonly Cut[]): { name: string; size: string; length: number }[] {
  const sums = new Map<string, { name: string; size: string; length: number }>();
  for (const c of cuts) {
    const key = `${c.stock}|${c.sizeLabel}`;
    const sum = sums.get(key) ?? { name: c.stock, size: c.sizeLabel, length: 0 };
    sum.length += c.cutLength * c.pieces;
    sums.set(key, sum);
  }
  return [...sums.values()];
}

/** Cut list and shopping, black on white. */
export default function Sheet({ id, data, units: initial }: { id: string; data: SheetContents; units: UnitSystem }) {
  const [units, setUnits] = useState(initial);
  const long = (m: number) => (units === 'metric' ? `${Math.ceil(m * 1000)} mm` : formatLength(m, units));
  return (
    <>
      <div className="sheet-bar">
        <Button variant="iron" onClick={() => window.print()}>Print</Button>
        <Button variant="quiet" onClick={() => setUnits(units === 'metric' ? 'imperial' : 'metric')}>{units === 'metric' ? 'In inches' : 'In millimetres'}</Button>
        <Link href={`/build/${id}?station=armature`} className="btn btn-quiet">Back to the bench</Link>
      </div>
      <main className="sheet">
        <h1>{data.name}</h1>
        <p className="fine">{data.facts}. Clay goes on {formatDate(data.startDate)}.</p>
        <h2>Cut list</h2>
        <table>
          <thead><tr><th aria-label="Done" /><th>Member</th><th>Stock</th><th className="n">Pieces</th><th className="n">Cut each</th></tr></thead>
          <tbody>
            {data.cuts.map((c) => (
              <tr key={c.member}>
                <td><span className="box" /></td>
                <td>{c.name}<div className="fine">{long(c.netLength)} along the bend{c.allowances.map((a) => `; ${a.what} ${long(a.length)}`).join('')}</div></td>
                <td>{c.stock}, {c.sizeLabel}</td><td className="n">{c.pieces}</td><td className="n"><strong>{long(c.cutLength)}</strong></td>
              </tr>
            ))}
            <tr><td><span className="box" /></td><td>base board</td><td>{data.board.name}</td><td className="n">1</td><td className="n"><strong>{long(data.board.width)} x {long(data.board.depth)}</strong></td></tr>
          </tbody>
        </table>
        <h2>Shopping</h2>
        <table>
          <thead><tr><th aria-label="Bought" /><th>What</th><th className="n">How much</th></tr></thead>
          <tbody>
            <tr><td><span className="box" /></td><td>{data.clay.name}<div className="fine">{formatMass(data.clay.onPiece, units)} goes on; the rest is waste{data.clay.water > 0 ? `; ${formatMass(data.clay.water, units)} of water is worked in` : ''}</div></td><td className="n">{formatMass(data.clay.toBuy, units)}, {data.clay.packs} packs of {formatMass(data.clay.packMass, units)}</td></tr>
            {byStock(data.cuts).map((s) => <tr key={s.name + s.size}><td><span className="box" /></td><td>{s.name}, {s.size}</td><td className="n">{units === 'metric' ? `${sensible(s.length, 3)} m` : formatLength(s.length, units)}</td></tr>)}
            {data.bulk && <tr><td><span className="box" /></td><td>{data.bulk.name}</td><td className="n">{formatMass(data.bulk.mass, units)}</td></tr>}
            {data.wrap && <tr><td><span className="box" /></td><td>{data.wrap.name}</td><td className="n">about {sensible(data.wrap.length, 2)} m{units === 'imperial' ? ` (${sensible(data.wrap.length * 3.2808, 2)} ft)` : ''}</td></tr>}
            <tr><td><span className="box" /></td><td>{data.board.name}</td><td className="n">{long(data.board.width)} x {long(data.board.depth)}</td></tr>
            {data.hardware.map((h) => <tr key={h.name}><td><span className="box" /></td><td>{h.name}<div className="fine">{h.note}</div></td><td className="n">{h.count}</td></tr>)}
          </tbody>
        </table>
        {data.cautions.length > 0 && <><h2>Mind</h2><ul className="fine">{data.cautions.map((c) => <li key={c}>{c}</li>)}</ul></>}
      </main>
    </>
  );
}
