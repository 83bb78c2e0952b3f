'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { hasFlange } from '../../core/armature';
import { contactsOf } from '../../core/load';
import { formatDate, formatLength, formatMass, formatVolume, sensible, type UnitSystem } from '../../core/quantity';
import type { SheetContents, StockToBuy } from '../../core/sheet';

/** Cut list, kit and shopping, black on white; for one piece or a class. */
const up = (m: number, units: UnitSystem) =>
  units === 'imperial'
    ? formatLength(m, units)
    : m >= 1.9999 && Math.abs(m * 10 - Math.round(m * 10)) < 1e-6
      ? `${sensible(m, 3)} m`
      : `${Math.ceil(m * 1000 - 1e-6)} mm`;

/** The lengths to buy and the cuts in each, drawn to scale; bars cut alike are drawn once. */
function Bars({ stock, units }: { stock: StockToBuy; units: UnitSystem }) {
  const alike = new Map<string, { bar: StockToBuy['nesting']['bars'][number]; count: number }>();
  for (const bar of stock.nesting.bars) {
    const key = `${bar.had}${bar.length}:${bar.pieces.map((p) => p.length.toFixed(4)).join()}`;
    alike.set(key, { bar, count: (alike.get(key)?.count ?? 0) + 1 });
  }
  return (
    <div className="bars">
      {[...alike.values()].map(({ bar, count }, i) => {
        let x = 0;
        return (
          <div key={i} className="bar-row">
            <svg viewBox="0 0 1000 34" preserveAspectRatio="none" aria-hidden="true">
              <rect
                x="0.5"
                y="0.5"
                width="999"
                height="33"
                fill="none"
                stroke="#000"
                strokeWidth="1"
                vectorEffect="non-scaling-stroke"
                strokeDasharray={bar.had ? '4 3' : undefined}
              />
              {bar.pieces.map((p, k) => {
                const w = (p.length / bar.length) * 1000;
                x += w;
                return (
                  <g key={k}>
                    <rect x={x - w} y="1" width={w} height="32" fill={k % 2 ? '#e4e4e4' : '#cfcfcf'} />
                    <line
                      x1={x}
                      x2={x}
                      y1="0"
                      y2="34"
                      stroke="#000"
                      strokeWidth="1"
                      vectorEffect="non-scaling-stroke"
                    />
                  </g>
                );
              })}
            </svg>
            <div className="fine">
              {count > 1 ? `${count} lengths` : bar.had ? 'From what is there' : 'One length'} of{' '}
              {up(bar.length, units)}: {grouped(bar.pieces, units)}; {up(bar.left, units)} left.
            </div>
          </div>
        );
      })}
      {stock.nesting.tooLong.length > 0 && (
        <div className="fine">
          <strong>Longer than it is sold:</strong> {grouped(stock.nesting.tooLong, units)}. Order it cut, or splice with
          a sleeve.
        </div>
      )}
    </div>
  );
}

function grouped(pieces: readonly { readonly label: string; readonly length: number }[], units: UnitSystem): string {
  const counts = new Map<string, { n: number; length: number; label: string }>();
  for (const p of pieces) {
    const key = `${p.label}${p.length}`;
    counts.set(key, { n: (counts.get(key)?.n ?? 0) + 1, length: p.length, label: p.label });
  }
  return [...counts.values()].map((c) => `${c.n > 1 ? `${c.n} x ` : ''}${c.label} ${up(c.length, units)}`).join(', ');
}

/** The board from above, front at the bottom of the paper, with what is drilled and where it touches the ground. */
function BoardPlan({ data, units }: { data: SheetContents; units: UnitSystem }) {
  const { base } = data.board;
  const k = 1000;
  const w = base.width * k,
    d = base.depth * k,
    margin = Math.max(w, d) * 0.14;
  const place = (x: number, y: number): [number, number] => [x * k, -y * k];
  const [fx, fy] = place(base.flangeAt[0] - base.at[0], base.flangeAt[1] - base.at[1]);
  const text = Math.max(w, d) * 0.03;
  return (
    <svg
      className="plan"
      viewBox={`${-w / 2 - margin} ${-d / 2 - margin * 0.5} ${w + 2 * margin} ${d + margin * 1.5}`}
      role="img"
      aria-label={`Base board ${up(base.width, units)} across and ${up(base.depth, units)} deep, with its holes. The table of holes says where they are.`}
      style={{ fontSize: text }}
    >
      <rect x={-w / 2} y={-d / 2} width={w} height={d} fill="none" stroke="#000" strokeWidth={text * 0.12} />
      <path
        d={`M ${-w / 2} 0 H ${w / 2} M 0 ${-d / 2} V ${d / 2}`}
        stroke="#000"
        strokeWidth={text * 0.04}
        strokeDasharray={`${text} ${text * 0.4} ${text * 0.2} ${text * 0.4}`}
      />
      {hasFlange(base) && (
        <circle cx={fx} cy={fy} r={(base.flangeDiameter * k) / 2} fill="none" stroke="#000" strokeWidth={text * 0.08} />
      )}
      {data.holes.flatMap((h, i) =>
        (h.at ?? []).map(([x, y], n) => {
          const [cx, cy] = place(x, y);
          return (
            <g key={`${i}-${n}`}>
              <circle cx={cx} cy={cy} r={Math.max((h.diameter * k) / 2, text * 0.12)} fill="#000" />
              <title>{h.what}</title>
            </g>
          );
        }),
      )}
      {base.standing !== 'flat' &&
        contactsOf(base).map(([x, y], i) => {
          const [cx, cy] = place(x - base.at[0], y - base.at[1]);
          return (
            <rect
              key={i}
              x={cx - text * 0.6}
              y={cy - text * 0.6}
              width={text * 1.2}
              height={text * 1.2}
              fill="none"
              stroke="#000"
              strokeWidth={text * 0.08}
            />
          );
        })}
      {base.ballast > 0 &&
        (() => {
          const [bx, by] = place(base.ballastAt[0] - base.at[0], base.ballastAt[1] - base.at[1]);
          return (
            <g>
              <rect
                x={bx - text * 3}
                y={by - text}
                width={text * 6}
                height={text * 2}
                fill="#ddd"
                stroke="#000"
                strokeWidth={text * 0.06}
              />
              <text x={bx} y={by + text * 0.35} textAnchor="middle">
                {formatMass(base.ballast, units)}
              </text>
            </g>
          );
        })()}
      <text x="0" y={d / 2 + text * 1.6} textAnchor="middle">
        front · {up(base.width, units)}
      </text>
      <text
        x={w / 2 + text * 0.8}
        y="0"
        dominantBaseline="middle"
        transform={`rotate(90 ${w / 2 + text * 0.8} 0)`}
        textAnchor="middle"
      >
        {up(base.depth, units)}
      </text>
    </svg>
  );
}

function Holes({ data, units }: { data: SheetContents; units: UnitSystem }) {
  if (data.holes.length === 0) return null;
  const fine = (m: number) => (units === 'metric' ? `${sensible(m * 1000, 2)} mm` : formatLength(m, units));
  return (
    <>
      <h2>Holes to drill</h2>
      <table>
        <thead>
          <tr>
            <th aria-label="Done" />
            <th>Where</th>
            <th className="n">How many</th>
            <th className="n">Drill</th>
            <th className="n">Deep</th>
            <th>From the middle of the board, right of it and forward</th>
          </tr>
        </thead>
        <tbody>
          {data.holes.map((h) => (
            <tr key={h.what}>
              <td>
                <span className="box" />
              </td>
              <td>{h.what}</td>
              <td className="n">{h.count}</td>
              <td className="n">{fine(h.diameter)}</td>
              <td className="n">{fine(h.depth)}</td>
              <td className="fine">
                {h.at
                  ? h.at
                      .slice(0, 12)
                      .map(([x, y]) => `${sensible(-x * 1000, 3)} / ${sensible(-y * 1000, 3)}`)
                      .join(', ') + (units === 'metric' ? ' mm' : ' mm, metric drawing')
                  : 'in the part itself'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

export default function Sheet({ id, data, units: initial }: { id: string; data: SheetContents; units: UnitSystem }) {
  const [units, setUnits] = useState(initial);
  const [copies, setCopies] = useState(String(data.copies));
  const router = useRouter();
  const long = (m: number) => up(m, units);
  const times = data.copies + data.spares;
  const { base } = data.board;
  return (
    <>
      <div className="sheet-bar">
        <Button variant="iron" onClick={() => window.print()}>
          Print
        </Button>
        <Button variant="quiet" onClick={() => setUnits(units === 'metric' ? 'imperial' : 'metric')}>
          {units === 'metric' ? 'In inches' : 'In millimetres'}
        </Button>
        <form
          className="d-flex gap-2 align-items-center"
          onSubmit={(e) => {
            e.preventDefault();
            const n = Math.round(Number(copies));
            if (n >= 1 && n <= 500) router.push(`/build/${id}/print?copies=${n}`);
            else setCopies(String(data.copies));
          }}
        >
          <label htmlFor="copies">Pieces in the set</label>
          <Form.Control
            id="copies"
            size="sm"
            style={{ width: '5rem' }}
            inputMode="numeric"
            value={copies}
            onChange={(e) => setCopies(e.target.value)}
          />
          <Button type="submit" size="sm" variant="quiet">
            Work it out
          </Button>
        </form>
        <Link href={`/build/${id}/print/templates`} className="btn btn-quiet">
          Templates
        </Link>
        <Link href={`/build/${id}?station=armature`} className="btn btn-quiet">
          Back to the bench
        </Link>
      </div>
      <main className="sheet">
        <h1>{data.name}</h1>
        <p className="fine">
          {data.facts}. Clay goes on {formatDate(data.startDate)}.
          {times > 1 ? ` For ${data.copies} and ${data.spares} spare.` : ''}
        </p>
        <h2>Cut list{times > 1 ? ', one piece' : ''}</h2>
        <table>
          <thead>
            <tr>
              <th aria-label="Done" />
              <th>Member</th>
              <th>Stock</th>
              <th className="n">Pieces</th>
              <th className="n">Cut each</th>
            </tr>
          </thead>
          <tbody>
            {data.cuts.map((c) => (
              <tr key={c.member}>
                <td>
                  <span className="box" />
                </td>
                <td>
                  {c.name}
                  {c.side && <strong className="side"> {c.side === 'left' ? 'L' : 'R'}</strong>}
                  <div className="fine">
                    {long(c.netLength)} along the bend
                    {c.allowances.map((a) => `; ${a.what} ${long(a.length)}`).join('')}
                  </div>
                </td>
                <td>
                  {c.stock}, {c.sizeLabel}
                </td>
                <td className="n">{c.pieces}</td>
                <td className="n">
                  <strong>{long(c.cutLength)}</strong>
                </td>
              </tr>
            ))}
            {base.standing !== 'own' && (
              <tr>
                <td>
                  <span className="box" />
                </td>
                <td>base board</td>
                <td>{data.board.name}</td>
                <td className="n">1</td>
                <td className="n">
                  <strong>
                    {long(base.width)} x {long(base.depth)}
                  </strong>
                </td>
              </tr>
            )}
          </tbody>
        </table>
        {data.cuts.some((c) => c.side) && (
          <p className="fine">
            L and R are the sculpture&rsquo;s own left and right: bend them as mirror images and mark them at once.
          </p>
        )}
        {data.stock.length > 0 && <h2>Out of what length{times > 1 ? `, all ${times}` : ''}</h2>}
        {data.stock.map((s) => (
          <div key={s.key} className="keep">
            <p className="mb-1">
              <strong>{s.name}</strong>
            </p>
            <Bars stock={s} units={units} />
          </div>
        ))}
        {base.standing !== 'own' && (
          <div className="keep">
            <h2>Base</h2>
            <BoardPlan data={data} units={units} />
          </div>
        )}
        <Holes data={data} units={units} />
        <h2>Kit and shopping{times > 1 ? `, all ${times}` : ''}</h2>
        <table>
          <thead>
            <tr>
              <th aria-label="Bought" />
              <th>What</th>
              <th className="n">How much</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>
                <span className="box" />
              </td>
              <td>
                {data.clay.name}
                <div className="fine">
                  {formatMass(data.clay.onPiece, units)} goes on; the rest is waste
                  {data.clay.water > 0 ? `; ${formatMass(data.clay.water, units)} of water is worked in` : ''}
                </div>
              </td>
              <td className="n">
                {formatMass(data.clay.toBuy, units)}
                {data.ingredients
                  ? ' to mix'
                  : `, ${data.clay.packs === 1 ? '1 pack' : `${data.clay.packs} packs`} of ${formatMass(data.clay.packMass, units)}`}
              </td>
            </tr>
            {data.ingredients?.map((x) => (
              <tr key={x.what}>
                <td>
                  <span className="box" />
                </td>
                <td>{x.what}, for the clay</td>
                <td className="n">
                  {x.unit === 'l' ? formatVolume(x.amount / 1000, units) : formatMass(x.amount, units)}
                </td>
              </tr>
            ))}
            {data.stock.map((s) => {
              const fresh = s.nesting.bars.filter((b) => !b.had).length,
                had = s.nesting.bars.length - fresh;
              return (
                <tr key={s.key}>
                  <td>
                    <span className="box" />
                  </td>
                  <td>
                    {s.name}
                    {had > 0 && <div className="fine">{had} from what is there</div>}
                  </td>
                  <td className="n">{fresh === 0 ? 'nothing to buy' : `${fresh} x ${long(s.sold)}`}</td>
                </tr>
              );
            })}
            {data.bulk && (
              <tr>
                <td>
                  <span className="box" />
                </td>
                <td>
                  {data.bulk.name}
                  <div className="fine">about {sensible(data.bulk.litres, 2)} l in place</div>
                </td>
                <td className="n">{formatMass(data.bulk.mass, units)}</td>
              </tr>
            )}
            {data.wrap && (
              <tr>
                <td>
                  <span className="box" />
                </td>
                <td>{data.wrap.name}</td>
                <td className="n">
                  about {sensible(data.wrap.length, 2)} m
                  {units === 'imperial' ? ` (${sensible(data.wrap.length * 3.2808, 2)} ft)` : ''}
                </td>
              </tr>
            )}
            {data.putOn.map((x) => (
              <tr key={x.name}>
                <td>
                  <span className="box" />
                </td>
                <td>{x.name}</td>
                <td className="n">about {formatMass(x.mass, units)}</td>
              </tr>
            ))}
            {base.standing !== 'own' && (
              <tr>
                <td>
                  <span className="box" />
                </td>
                <td>{data.board.name}</td>
                <td className="n">
                  {times > 1 ? `${times} of ` : ''}
                  {long(base.width)} x {long(base.depth)}
                </td>
              </tr>
            )}
            {base.ballast > 0 && (
              <tr>
                <td>
                  <span className="box" />
                </td>
                <td>weight for the base</td>
                <td className="n">{formatMass(base.ballast * times, units)}</td>
              </tr>
            )}
            {data.hardware.map((h) => (
              <tr key={h.name}>
                <td>
                  <span className="box" />
                </td>
                <td>
                  {h.name}
                  <div className="fine">{h.note}</div>
                </td>
                <td className="n">{h.count}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {data.cautions.length > 0 && (
          <div className="keep">
            <h2>Mind</h2>
            <ul className="fine">
              {data.cautions.map((c) => (
                <li key={c}>{c}</li>
              ))}
            </ul>
          </div>
        )}
      </main>
    </>
  );
}
