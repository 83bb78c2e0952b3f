'use client';
import Link from 'next/link';
import { useCallback, useEffect, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import type { BuildCost, StockLine } from '../../core/plan';
import { formatDate, parseNumber, sensible } from '../../core/quantity';
import { useWays, type Ways } from '../parts/appearance';
import { call } from '../parts/http';
import { newId } from '../parts/ids';
import { HouseMark } from '../parts/plumb';

/** The shelf of materials: what there is, who is to have it, what to buy, and what each piece costs. */
interface Move {
  readonly id: string;
  readonly item: string;
  readonly kind: string;
  readonly amount: number;
  readonly price: number | null;
  readonly at: string;
  readonly note: string;
}

interface StockReport {
  readonly lines: readonly StockLine[];
  readonly costs: readonly (BuildCost & { readonly build: string; readonly name: string })[];
  readonly moves: readonly Move[];
  /** Pieces whose needs are still being worked out. */
  readonly waiting: number;
}

const groups: readonly { readonly id: string; readonly name: string }[] = [
  { id: 'clay', name: 'Clay' },
  { id: 'part', name: 'To mix clay from' },
  { id: 'stock', name: 'Wire, pipe, timber' },
  { id: 'bulk', name: 'Bulk' },
  { id: 'wrap', name: 'Wraps' },
  { id: 'layer', name: 'Layers, resin, rubber and plaster' },
  { id: 'hardware', name: 'Hardware' },
];
const kinds = [
  { id: 'bought', name: 'bought' },
  { id: 'counted', name: 'counted: there is' },
  { id: 'reclaimed', name: 'reclaimed' },
  { id: 'scrapped', name: 'thrown away' },
];
const money = (v: number) => v.toFixed(2);
const amount = (v: number, unit: string) => `${unit === 'pieces' ? Math.ceil(v - 1e-9) : sensible(v, 3)} ${unit}`;

function Moves({ line, onDone }: { line: StockLine; onDone: () => void }) {
  const [kind, setKind] = useState('bought');
  const [text, setText] = useState(
    line.toBuy > 0 ? String(line.unit === 'pieces' ? Math.ceil(line.toBuy) : Math.round(line.toBuy * 100) / 100) : '',
  );
  const [price, setPrice] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const put = async () => {
    const value = parseNumber(text.replace(/[a-z2]+$/i, '')),
      paid = price.trim() === '' ? null : parseNumber(price);
    if (value === undefined || value < 0 || value > 1e5) return setWrong(`How much: a number of ${line.unit}.`);
    if (paid === undefined || (paid !== null && paid < 0)) return setWrong('The price is a number, of all of it.');
    const answer = await call('POST', '/api/stock', {
      id: newId(),
      item: line.item,
      kind,
      amount: value,
      price: kind === 'bought' ? paid : null,
      at: new Date().toISOString(),
    });
    if (!answer.ok) return setWrong(answer.message);
    onDone();
  };
  return (
    <Form
      className="stock-move"
      onSubmit={(e) => {
        e.preventDefault();
        void put();
      }}
    >
      <Form.Select size="sm" aria-label="What happened" value={kind} onChange={(e) => setKind(e.target.value)}>
        {kinds.map((k) => (
          <option key={k.id} value={k.id}>
            {k.name}
          </option>
        ))}
      </Form.Select>
      <Form.Control
        size="sm"
        aria-label={`How much, ${line.unit}`}
        placeholder={line.unit}
        inputMode="decimal"
        autoFocus
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {kind === 'bought' && (
        <Form.Control
          size="sm"
          aria-label="Paid for all of it"
          placeholder="paid for all of it"
          inputMode="decimal"
          value={price}
          onChange={(e) => setPrice(e.target.value)}
        />
      )}
      <Button size="sm" variant="iron" type="submit">
        Put it down
      </Button>
      {wrong && (
        <span className="status-fails small" role="alert">
          {wrong}
        </span>
      )}
    </Form>
  );
}

function Line({
  line,
  open,
  onOpen,
  onDone,
}: {
  line: StockLine;
  open: boolean;
  onOpen: () => void;
  onDone: () => void;
}) {
  return (
    <>
      <tr>
        <th scope="row">{line.name}</th>
        <td className="n">{amount(line.onShelf, line.unit)}</td>
        <td>
          {line.reserved.map((r) => (
            <div key={r.build} className="small">
              <span className="n">{amount(r.amount, line.unit)}</span> {r.name}
            </div>
          ))}
        </td>
        <td className="n">{line.used > 0 ? amount(line.used, line.unit) : ''}</td>
        <td className={`n${line.toBuy > 0 ? ' wanted' : ''}`}>
          {line.toBuy > 0 ? amount(line.toBuy, line.unit) : 'enough'}
        </td>
        <td className="n">{line.price === null ? '' : money(line.price)}</td>
        <td className="screen-only">
          <Button
            size="sm"
            variant="quiet"
            aria-expanded={open}
            aria-label={`Put down a change: ${line.name}`}
            onClick={onOpen}
          >
            Change
          </Button>
        </td>
      </tr>
      {open && (
        <tr className="screen-only">
          <td colSpan={7}>
            <Moves line={line} onDone={onDone} />
          </td>
        </tr>
      )}
    </>
  );
}

export default function Stock({ ways: initial }: { ways: Ways }) {
  useWays(initial);
  const [report, setReport] = useState<StockReport | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [open, setOpen] = useState<string | null>(null);
  const [only, setOnly] = useState(false);
  const load = useCallback(async () => {
    const answer = await call<StockReport>('GET', '/api/stock');
    if (answer.ok) setReport(answer.value);
    setWrong(answer.ok ? null : answer.message);
  }, []);
  useEffect(() => {
    void load();
  }, [load]);
  const waiting = report?.waiting ?? 0;
  useEffect(() => {
    if (waiting === 0) return;
    const timer = setInterval(() => void load(), 2000);
    return () => clearInterval(timer);
  }, [waiting, load]);
  const done = () => {
    setOpen(null);
    void load();
  };
  const lines = (report?.lines ?? []).filter((l) => !only || l.toBuy > 0);
  const sum = (report?.lines ?? []).reduce((s, l) => s + l.toBuy * (l.price ?? 0), 0);
  return (
    <div className="stock">
      <header>
        <Link href="/" aria-label="To the shelf">
          <HouseMark />
        </Link>
        <h1>Stock</h1>
        <span className="grow" />
        <Form.Check
          id="only-wanted"
          type="checkbox"
          label="Only what is to be bought"
          checked={only}
          onChange={(e) => setOnly(e.target.checked)}
        />
        <Button variant="quiet" size="sm" onClick={() => window.print()}>
          Print
        </Button>
      </header>
      <main>
        {wrong && (
          <p role="alert" className="status-fails">
            {wrong}
          </p>
        )}
        {!report && !wrong && (
          <p className="muted" role="status">
            Reckoning what every piece on the shelf needs …
          </p>
        )}
        {waiting > 0 && (
          <p className="muted" role="status" data-testid="stock-waiting">
            What {waiting === 1 ? 'one piece needs is' : `${waiting} pieces need is`} still being worked out; the rest
            stands here already.
          </p>
        )}
        {report && report.lines.length === 0 && waiting === 0 && (
          <p>Nothing is needed: there is no build on the shelf. Start one, and what it takes stands here.</p>
        )}
        {report && report.lines.length > 0 && (
          <>
            <p className="lead-line">
              {sum > 0
                ? `To be bought for all pieces on the shelf: ${money(sum)} for what has a price.`
                : 'Everything that has a price is there.'}{' '}
              <span className="muted">Pieces that are put away take nothing.</span>
            </p>
            {groups.map((g) => {
              const own = lines.filter((l) => l.item.startsWith(`${g.id}/`));
              if (own.length === 0) return null;
              return (
                <section key={g.id} aria-label={g.name}>
                  <h2>{g.name}</h2>
                  <div className="wide">
                    <table className="table">
                      <thead>
                        <tr>
                          <th scope="col">What</th>
                          <th scope="col" className="n">
                            On the shelf
                          </th>
                          <th scope="col">Kept for</th>
                          <th scope="col" className="n">
                            Used
                          </th>
                          <th scope="col" className="n">
                            To buy
                          </th>
                          <th scope="col" className="n">
                            A unit
                          </th>
                          <th scope="col" className="screen-only">
                            <span className="visually-hidden">Change</span>
                          </th>
                        </tr>
                      </thead>
                      <tbody>
                        {own.map((l) => (
                          <Line
                            key={l.item}
                            line={l}
                            open={open === l.item}
                            onOpen={() => setOpen(open === l.item ? null : l.item)}
                            onDone={done}
                          />
                        ))}
                      </tbody>
                    </table>
                  </div>
                </section>
              );
            })}
            <section aria-label="What each piece costs" className="screen-only">
              <h2>What each piece costs</h2>
              <div className="wide">
                <table className="table">
                  <thead>
                    <tr>
                      <th scope="col">Piece</th>
                      <th scope="col" className="n">
                        Reckoned
                      </th>
                      <th scope="col" className="n">
                        Used so far
                      </th>
                      <th scope="col" className="n">
                        Comes to
                      </th>
                      <th scope="col">Without a price</th>
                    </tr>
                  </thead>
                  <tbody>
                    {report.costs.map((c) => (
                      <tr key={c.build}>
                        <th scope="row">
                          <Link href={`/build/${c.build}`}>{c.name}</Link>
                        </th>
                        <td className="n">{money(c.planned)}</td>
                        <td className="n">{money(c.soFar)}</td>
                        <td className="n">{money(c.expected)}</td>
                        <td className="small muted">{c.unpriced.join(', ')}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              <p className="small muted">
                Used is what the logs say, at what was last paid for a unit; what is still to be used is reckoned at the
                same, or at the build’s own price.
              </p>
            </section>
            {report.moves.length > 0 && (
              <details className="screen-only">
                <summary>Last changes</summary>
                <ul className="plain small">
                  {report.moves.slice(0, 30).map((m) => (
                    <li key={m.id}>
                      {formatDate(m.at)}: {report.lines.find((l) => l.item === m.item)?.name ?? m.item}, {m.kind}{' '}
                      {sensible(m.amount, 3)}
                      {m.price === null ? '' : ` for ${money(m.price)}`}
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </>
        )}
      </main>
    </div>
  );
}
