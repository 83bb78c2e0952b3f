'use client';
import { useEffect, useState } from 'react';
import { Form } from 'react-bootstrap';
import { formatLength, type UnitSystem } from '../../core/quantity';

/**
 * Sizes as they are, on this screen. A browser does not know how large its screen is: a card of the usual size (ISO/IEC
 * 7810, ID-1: 85.60 mm) laid on it says so, once for each device.
 */
const key = 'sostegno-pixels-per-mm',
  card = 85.6,
  usual = 96 / 25.4;

export function TrueSize({
  sizes,
  units,
}: {
  sizes: readonly { readonly name: string; readonly metres: number; readonly round: boolean }[];
  units: UnitSystem;
}) {
  const [perMm, setPerMm] = useState(usual);
  const [set, setSet] = useState(false);
  useEffect(() => {
    const kept = Number(localStorage.getItem(key));
    if (kept > 1 && kept < 40) {
      setPerMm(kept);
      setSet(true);
    }
  }, []);
  const change = (value: number) => {
    setPerMm(value);
    setSet(true);
    localStorage.setItem(key, String(value));
  };
  const shown = sizes.filter((s) => s.metres > 0 && s.metres < 0.085);
  return (
    <details className="card-part">
      <summary>True sizes on this screen</summary>
      {!set && <p className="small mt-2 mb-1">Lay a bank card on the bar and slide until they are as wide.</p>}
      <div className="true-card" style={{ width: card * perMm }} aria-hidden="true">
        a bank card
      </div>
      <Form.Range
        aria-label="Width of the bar"
        min={2}
        max={12}
        step={0.01}
        value={perMm}
        onChange={(e) => change(Number(e.target.value))}
      />
      <ul className="plain true-sizes">
        {shown.map((s) => (
          <li key={`${s.name}${s.metres}`}>
            <span
              className={s.round ? 'dot' : 'slab'}
              style={
                s.round
                  ? { width: s.metres * 1000 * perMm, height: s.metres * 1000 * perMm }
                  : { height: s.metres * 1000 * perMm }
              }
              aria-hidden="true"
            />{' '}
            {s.name}: {formatLength(s.metres, units)}
          </li>
        ))}
      </ul>
      {!set && <p className="small muted mb-0">Until then they are about right, no more.</p>}
    </details>
  );
}
