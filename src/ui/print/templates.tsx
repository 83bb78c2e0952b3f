'use client';
import Link from 'next/link';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { tilesOf, type Template, type Tile } from '../../core/armature';
import { formatLength, sensible, type UnitSystem } from '../../core/quantity';

/** Bent members at full size over as many sheets as they need, with a ruler to check the printer by. Millimetres on paper. */
const papers = [
  { id: 'a4', name: 'A4', width: 0.186, height: 0.258 },
  { id: 'a3', name: 'A3', width: 0.273, height: 0.381 },
  { id: 'letter', name: 'Letter', width: 0.192, height: 0.241 },
] as const;
const overlap = 0.012;
const margin = 0.012;
/** Room under the drawing for name and ruler. */
const foot = 0.024;

/** As a wire bends: a curve through the points, drawn finely (centripetal Catmull-Rom, as on the turntable). */
function smooth(points: Template['points']): Template['points'] {
  if (points.length < 3) return points;
  const fine = 8;
  const knot = (a: readonly [number, number], b: readonly [number, number]) =>
    Math.max(1e-6, Math.sqrt(Math.hypot(a[0] - b[0], a[1] - b[1])));
  const out: (readonly [number, number])[] = [points[0]!];
  for (let i = 0; i + 1 < points.length; i++) {
    const p1 = points[i]!,
      p2 = points[i + 1]!;
    const p0 = points[i - 1] ?? ([2 * p1[0] - p2[0], 2 * p1[1] - p2[1]] as const),
      p3 = points[i + 2] ?? ([2 * p2[0] - p1[0], 2 * p2[1] - p1[1]] as const);
    const t1 = knot(p0, p1),
      t2 = t1 + knot(p1, p2),
      t3 = t2 + knot(p2, p3);
    for (let k = 1; k <= fine; k++) {
      const t = t1 + ((t2 - t1) * k) / fine;
      out.push(
        [0, 1].map((c) => {
          const v = (p: readonly [number, number]) => p[c as 0 | 1];
          const a1 = ((t1 - t) * v(p0) + t * v(p1)) / t1,
            a2 = ((t2 - t) * v(p1) + (t - t1) * v(p2)) / (t2 - t1),
            a3 = ((t3 - t) * v(p2) + (t - t2) * v(p3)) / (t3 - t2);
          const b1 = ((t2 - t) * a1 + t * a2) / t2,
            b2 = ((t3 - t) * a2 + (t - t1) * a3) / (t3 - t1);
          return ((t2 - t) * b1 + (t - t1) * b2) / (t2 - t1);
        }) as unknown as readonly [number, number],
      );
    }
  }
  return out;
}

const sheetName = (t: Tile) => `${String.fromCharCode(65 + t.row)}${t.column + 1}`;

function Sheet({
  template,
  tile,
  tiles,
  paper,
  across,
  units,
  page,
}: {
  template: Template;
  tile: Tile;
  tiles: readonly Tile[];
  paper: (typeof papers)[number];
  across: number;
  units: UnitSystem;
  page: string;
}) {
  const mm = 1000;
  const w = paper.width * mm,
    h = (paper.height - foot) * mm;
  // Up on the paper is up on the piece: y is turned over.
  const at = ([x, y]: readonly [number, number]) =>
    `${((x - tile.x) * mm).toFixed(2)} ${(h - (y - tile.y) * mm).toFixed(2)}`;
  const path = smooth(template.points)
    .map((p, i) => `${i === 0 ? 'M' : 'L'} ${at(p)}`)
    .join(' ');
  const beside = (dc: number, dr: number) =>
    tiles.find((t) => t.column === tile.column + dc && t.row === tile.row + dr);
  const lap = overlap * mm;
  const clip = `sheet-${template.member.replaceAll('/', '-')}-${sheetName(tile)}`;
  const ends = [template.points[0], template.points[template.points.length - 1]].filter(
    (p): p is readonly [number, number] => p !== undefined,
  );
  const ruler = units === 'metric' ? 100 : 101.6;
  return (
    <svg
      className="template"
      viewBox={`0 0 ${w} ${paper.height * mm}`}
      style={{ width: `${w}mm`, height: `${paper.height * mm}mm` }}
      role="img"
      aria-label={`${template.name}, sheet ${sheetName(tile)}`}
    >
      <defs>
        <clipPath id={clip}>
          <rect x="0" y="0" width={w} height={h} />
        </clipPath>
      </defs>
      <rect x="0.2" y="0.2" width={w - 0.4} height={h - 0.4} fill="none" stroke="#000" strokeWidth="0.25" />
      <g clipPath={`url(#${clip})`}>
        <path
          d={path}
          fill="none"
          stroke="#000"
          strokeWidth={Math.max(0.4, across * mm)}
          strokeOpacity="0.16"
          strokeLinejoin="round"
          strokeLinecap="round"
        />
        <path d={path} fill="none" stroke="#000" strokeWidth="0.5" strokeLinejoin="round" />
        {ends.map((p, i) => {
          const [x, y] = at(p).split(' ').map(Number) as [number, number];
          return (
            <g key={i}>
              <circle cx={x} cy={y} r="2" fill="#fff" stroke="#000" strokeWidth="0.5" />
              <text x={x + 3} y={y - 2} fontSize="3.6">
                {i === 0 ? 'start' : 'end'}
              </text>
            </g>
          );
        })}
      </g>
      {/* Where the next sheet laps over, and what it is called. */}
      {beside(1, 0) && (
        <>
          <line x1={w - lap} x2={w - lap} y1="0" y2={h} stroke="#000" strokeWidth="0.2" strokeDasharray="2 1.5" />
          <text x={w - lap + 1} y={h / 2} fontSize="3.4" transform={`rotate(90 ${w - lap + 1} ${h / 2})`}>
            lay sheet {sheetName(beside(1, 0)!)} on this line
          </text>
        </>
      )}
      {beside(0, 1) && (
        <>
          <line y1={lap} y2={lap} x1="0" x2={w} stroke="#000" strokeWidth="0.2" strokeDasharray="2 1.5" />
          <text x={w / 2} y={lap - 1.5} fontSize="3.4" textAnchor="middle">
            lay sheet {sheetName(beside(0, 1)!)} on this line
          </text>
        </>
      )}
      <text x="0" y={h + 6} fontSize="4.4" fontWeight="700">
        {template.name}
        {tiles.length > 1 ? `, sheet ${sheetName(tile)}` : ''}
      </text>
      <text x={w} y={h + 6} fontSize="3.4" textAnchor="end">
        {page}
      </text>
      <text x="0" y={h + 11} fontSize="3.4">
        {formatLength(template.length, units)} along the bend
        {template.offPaper > 0.002
          ? `; afterwards bent up to ${formatLength(template.offPaper, units)} out of the paper`
          : ''}
      </text>
      <g transform={`translate(0 ${h + 15})`}>
        <rect x="0" y="0" width={ruler} height="3" fill="none" stroke="#000" strokeWidth="0.25" />
        {Array.from({ length: units === 'metric' ? 10 : 16 }, (_, i) => {
          const step = ruler / (units === 'metric' ? 10 : 16);
          return i % 2 === 0 ? <rect key={i} x={i * step} y="0" width={step} height="3" fill="#000" /> : null;
        })}
        <text x="0" y="7" fontSize="3.4">
          {units === 'metric' ? '100 mm' : '4 in'}: measure this; if it is off, print at full size, not fitted to the
          page
        </text>
      </g>
    </svg>
  );
}

type Paper = (typeof papers)[number];

/** The paper that is printed on, and the field it is chosen in. */
export function usePaper(): { readonly paper: Paper; readonly field: React.ReactNode } {
  const [paperId, setPaper] = useState<string>('a4');
  const paper = papers.find((p) => p.id === paperId) ?? papers[0];
  const field = (
    <>
      <label htmlFor="paper">Paper</label>
      <Form.Select
        id="paper"
        size="sm"
        style={{ width: '7rem' }}
        value={paperId}
        onChange={(e) => setPaper(e.target.value)}
      >
        {papers.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </Form.Select>
    </>
  );
  return { paper, field };
}

function sheetsOn(paper: Paper, templates: readonly Template[]) {
  return templates.flatMap((t) => {
    const tiles = tilesOf(t, { width: paper.width, height: paper.height - foot }, overlap, margin);
    return tiles.map((tile) => ({ t, tile, tiles }));
  });
}

interface Papers {
  readonly templates: readonly Template[];
  readonly across: Readonly<Record<string, number>>;
  readonly paper: Paper;
  readonly name: string;
  readonly units: UnitSystem;
}

function PaperPages({ templates, across, paper, name, units }: Papers) {
  const sheets = sheetsOn(paper, templates);
  return sheets.map(({ t, tile, tiles }, i) => (
    <section key={`${t.member}-${sheetName(tile)}`} className="template-page">
      <Sheet
        template={t}
        tile={tile}
        tiles={tiles}
        paper={paper}
        across={across[t.member] ?? 0.003}
        units={units}
        page={`${name}, ${i + 1} of ${sheets.length}`}
      />
    </section>
  ));
}

/** Drawings at full size over as many sheets as they need, after what else is printed. */
export function PaperSheets(props: Papers) {
  return (
    <div className="template-sheets">
      <PaperPages {...props} />
    </div>
  );
}

export default function Templates({
  id,
  name,
  templates,
  straight,
  across,
  units,
}: {
  id: string;
  name: string;
  templates: readonly Template[];
  straight: readonly { readonly name: string; readonly length: number }[];
  across: Readonly<Record<string, number>>;
  units: UnitSystem;
}) {
  const { paper, field } = usePaper();
  const count = sheetsOn(paper, templates).length;
  return (
    <>
      <div className="sheet-bar">
        <Button variant="iron" onClick={() => window.print()}>
          Print
        </Button>
        {field}
        <span>
          {templates.length} bent {templates.length === 1 ? 'member' : 'members'} on {count}{' '}
          {count === 1 ? 'sheet' : 'sheets'}
        </span>
        <Link href={`/build/${id}/print`} className="btn btn-quiet">
          Cut list
        </Link>
        <Link href={`/build/${id}?station=armature`} className="btn btn-quiet">
          Back to the bench
        </Link>
      </div>
      <main className="template-sheets">
        <h1 className="screen-only">{name}: bending templates</h1>
        {templates.length === 0 && (
          <p>Nothing in this armature is bent: everything is cut straight, by the cut list.</p>
        )}
        {straight.length > 0 && templates.length > 0 && (
          <p className="screen-only">
            Straight, and only cut:{' '}
            {straight
              .slice(0, 10)
              .map((s) => `${s.name} ${sensible(s.length * 1000, 4)} mm`)
              .join(', ')}
            {straight.length > 10 ? ' and more' : ''}.
          </p>
        )}
        <PaperPages templates={templates} across={across} paper={paper} name={name} units={units} />
      </main>
    </>
  );
}
