'use client';
import { useState } from 'react';
import { Form, Table } from 'react-bootstrap';
import { sectionGeometry } from '../../../core/armature';
import { soldLength, stocks, usualPricePerMetre } from '../../../core/catalogue';
import { formatLength, parseLength, parseNumber, type UnitSystem } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';

/** A cell that is typed in: what was typed is read when it is left, and stays there with why where it cannot be taken. */
function TypedCell({
  label,
  value,
  placeholder,
  onTyped,
}: {
  label: string;
  value: string;
  placeholder: string;
  /** Why it is not taken; null where it is. */
  onTyped: (text: string) => string | null;
}) {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState('');
  const commit = () => {
    if (text === null) return;
    const refused = onTyped(text.trim());
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

/** Lengths as they are written beside each other, metres; why where one of them is none. */
function readLengths(text: string, units: UnitSystem): number[] | string {
  const lengths: number[] = [];
  for (const part of text.split(/[;,]\s*|\s{2,}/).filter((t) => t.trim() !== '')) {
    const read = parseLength(part.trim(), units === 'imperial' ? 'in' : 'mm');
    if (!read.ok || !(read.value > 0)) return `"${part.trim()}" is no length. Write them as 1.2 m; 300 mm.`;
    lengths.push(Math.round(read.value * 1e4) / 1e4);
  }
  return lengths;
}

/** What a maker buys each stock in, what a metre costs, and what lies in the rack already: the cut list takes that off first. */
export function OnHand() {
  const controller = useController();
  const cuts = useBench((s) => s.report?.cuts);
  const { sold, onHand, stockPrices, currency } = useBench((s) => s.build.materials);
  const units = useBench((s) => s.units);
  if (!cuts || cuts.length === 0) return null;
  const keys = [...new Set(cuts.map((c) => c.key))];
  const long = (m: number) => formatLength(m, units);
  const set = (label: string, what: 'sold' | 'stockPrices' | 'onHand', key: string, value: unknown) =>
    controller.edit({ label, changes: [{ path: ['materials', what, key], value }] })?.message ?? null;
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
                <TypedCell
                  label={`${name}: sold in`}
                  value={sold[key] === undefined ? '' : long(sold[key])}
                  placeholder={long(usual)}
                  onTyped={(text) => {
                    const read = readLengths(text, units);
                    return typeof read === 'string' ? read : set(`${name}: sold in`, 'sold', key, read[0]);
                  }}
                />
                <TypedCell
                  label={`${name}: price of a metre`}
                  value={stockPrices[key] === undefined ? '' : String(stockPrices[key])}
                  placeholder={(stock && size
                    ? usualPricePerMetre(stock, sectionGeometry(size.section).area)
                    : 0
                  ).toFixed(2)}
                  onTyped={(text) => {
                    const price = text === '' ? undefined : parseNumber(text);
                    return text !== '' && (price === undefined || price < 0)
                      ? 'A price is a number, nought or more.'
                      : set(`${name}: price of a metre`, 'stockPrices', key, price);
                  }}
                />
                <TypedCell
                  label={`${name}: on the rack`}
                  value={(onHand[key] ?? []).map(long).join('; ')}
                  placeholder="nothing"
                  onTyped={(text) => {
                    const read = readLengths(text, units);
                    return typeof read === 'string'
                      ? read
                      : set(`${name}: on the rack`, 'onHand', key, read.length > 0 ? read : undefined);
                  }}
                />
              </tr>
            );
          })}
        </tbody>
      </Table>
    </details>
  );
}
