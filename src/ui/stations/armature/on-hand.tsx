'use client';
import { useState } from 'react';
import { Form, Table } from 'react-bootstrap';
import { sectionGeometry } from '../../../core/armature';
import { soldLength, stocks, usualPricePerMetre } from '../../../core/catalogue';
import { formatLength, parseLength, parseNumber } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';

/** What a maker buys each stock in, and what lies in the rack already: the cut list takes that off first. */
function LengthsCell({
  label,
  value,
  placeholder,
  onCommit,
}: {
  label: string;
  value: string;
  placeholder: string;
  onCommit: (metres: number[]) => string | null;
}) {
  const units = useBench((s) => s.units);
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState('');
  const commit = () => {
    if (text === null) return;
    const parts = text
      .split(/[;,]\s*|\s{2,}/)
      .map((t) => t.trim())
      .filter((t) => t !== '');
    const lengths: number[] = [];
    for (const part of parts) {
      const read = parseLength(part, units === 'imperial' ? 'in' : 'mm');
      if (!read.ok || !(read.value > 0)) {
        setWrong(`"${part}" is no length. Write them as 1.2 m; 300 mm.`);
        return;
      }
      lengths.push(Math.round(read.value * 1e4) / 1e4);
    }
    const refused = onCommit(lengths);
    setWrong(refused ?? '');
    if (refused === null) setText(null);
  };
  return (
    <td>
      <Form.Control
        size="sm"
        aria-label={label}
        value={text ?? value}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
        }}
      />
      {wrong !== '' && (
        <div className="wrong" role="alert">
          {wrong}
        </div>
      )}
    </td>
  );
}

/** What a metre costs; empty goes back to the usual price. */
function PriceCell({
  label,
  own,
  usual,
  onCommit,
}: {
  label: string;
  own: number | undefined;
  usual: number;
  onCommit: (price: number | undefined) => string | null;
}) {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState('');
  const commit = () => {
    if (text === null) return;
    const price = text.trim() === '' ? undefined : parseNumber(text);
    if (text.trim() !== '' && (price === undefined || price < 0)) {
      setWrong('A price is a number, nought or more.');
      return;
    }
    const refused = onCommit(price);
    setWrong(refused ?? '');
    if (refused === null) setText(null);
  };
  return (
    <td>
      <Form.Control
        size="sm"
        aria-label={label}
        value={text ?? (own === undefined ? '' : String(own))}
        placeholder={usual.toFixed(2)}
        autoComplete="off"
        inputMode="decimal"
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
        }}
      />
      {wrong !== '' && (
        <div className="wrong" role="alert">
          {wrong}
        </div>
      )}
    </td>
  );
}

export function OnHand() {
  const controller = useController();
  const cuts = useBench((s) => s.report?.cuts);
  const { sold, onHand, stockPrices, currency } = useBench((s) => s.build.materials);
  const units = useBench((s) => s.units);
  if (!cuts || cuts.length === 0) return null;
  const keys = [...new Set(cuts.map((c) => c.key))];
  const long = (m: number) => formatLength(m, units);
  return (
    <details className="mt-3">
      <summary>Sold in, what a metre costs, and what is there already</summary>
      <Table size="sm" aria-label="Stock lengths" className="mt-2">
        <thead>
          <tr>
            <th>Stock</th>
            <th>Sold in</th>
            <th>A metre, {currency}</th>
            <th>On the rack</th>
          </tr>
        </thead>
        <tbody>
          {keys.map((key) => {
            const [stockId = '', sizeId = ''] = key.split('/');
            const stock = stocks.get(stockId),
              size = stock?.sizes.find((s) => s.id === sizeId);
            const name = `${stock?.name ?? stockId}, ${size?.label ?? sizeId}`;
            const usual = stock && size ? soldLength(stock, size) : 2;
            return (
              <tr key={key}>
                <td>{name}</td>
                <LengthsCell
                  label={`${name}: sold in`}
                  value={sold[key] === undefined ? '' : long(sold[key])}
                  placeholder={long(usual)}
                  onCommit={(l) =>
                    controller.edit({
                      label: `${name}: sold in`,
                      changes: [{ path: ['materials', 'sold', key], value: l[0] }],
                    })?.message ?? null
                  }
                />
                <PriceCell
                  label={`${name}: price of a metre`}
                  own={stockPrices[key]}
                  usual={stock && size ? usualPricePerMetre(stock, sectionGeometry(size.section).area) : 0}
                  onCommit={(price) =>
                    controller.edit({
                      label: `${name}: price of a metre`,
                      changes: [{ path: ['materials', 'stockPrices', key], value: price }],
                    })?.message ?? null
                  }
                />
                <LengthsCell
                  label={`${name}: on the rack`}
                  value={(onHand[key] ?? []).map(long).join('; ')}
                  placeholder="nothing"
                  onCommit={(l) =>
                    controller.edit({
                      label: `${name}: on the rack`,
                      changes: [{ path: ['materials', 'onHand', key], value: l.length > 0 ? l : undefined }],
                    })?.message ?? null
                  }
                />
              </tr>
            );
          })}
        </tbody>
      </Table>
    </details>
  );
}
