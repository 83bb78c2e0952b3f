'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import type { Template } from '../../core/armature';
import {
  castKinds,
  flangeOf,
  mouldChosen,
  mouldKinds,
  mouldMaterials,
  mouldProcesses,
  packsFor,
  peelsOut,
  seatOf,
  type MouldPart,
  wearersGirth,
} from '../../core/mould';
import type { MouldRow } from '../../core/improve';
import type { Shim } from '../../core/parting';
import { castStepPrefix, whenWords, type BuildPlan } from '../../core/plan';
import {
  formatDuration,
  formatForce,
  formatLength,
  formatMass,
  sensible,
  type Range,
  type UnitSystem,
} from '../../core/quantity';
import { seamDrawing } from '../../core/sheet';
import { mouldClient } from '../../workers/clients';
import type { Asked, PartedPicture } from '../../workers/protocol';
import { BoardRows } from '../stations/mould/board-rows';
import { GirthRows, PutOnWords } from '../stations/mould/girth-rows';
import { packWords } from '../stations/mould/pack-words';
import { flangeWords } from '../stations/mould/flange-words';
import { settingOf } from '../stations/mould/setting';
import { cavityNames, drawnWords, filledWords, partNames } from '../bench/mould-words';
import { PaperSheets, usePaper } from './templates';

/** The mould on paper: what to buy, coats with their times, the box to cut, parts and seams, the shim at full size. */
interface Worked {
  readonly parted: PartedPicture | null;
  readonly row: MouldRow | null;
  readonly done: number;
  readonly wrong: string;
}

function useWorked(asked: Asked, wanted: boolean): Worked {
  const [state, setState] = useState<Worked>({ parted: null, row: null, done: 0, wrong: '' });
  useEffect(() => {
    if (!wanted) return undefined;
    const refuse = (wrong: string) => setState((s) => ({ ...s, wrong }));
    const parting = mouldClient((a) => {
      if (a.kind === 'progress') setState((s) => ({ ...s, done: a.done }));
      else if (a.kind === 'parted') setState((s) => ({ ...s, parted: a.parted, done: 1 }));
      else if (a.kind === 'refused') refuse(a.why.message);
    });
    const kinds = mouldClient((a) => {
      if (a.kind === 'kinds') setState((s) => ({ ...s, row: a.rows.find((r) => r.chosen) ?? null }));
      else if (a.kind === 'refused') refuse(a.why.message);
    });
    parting.ask({ kind: 'part', asked });
    kinds.ask({ kind: 'kinds', asked });
    return () => {
      parting.stop();
      kinds.stop();
    };
  }, [asked, wanted]);
  return state;
}

export default function MouldSheet({ asked, plan, zone }: { asked: Asked; plan: BuildPlan | null; zone: string }) {
  const { build, units } = asked;
  const chosen = mouldChosen(build);
  const kind = mouldKinds.find((k) => k.id === chosen?.kind);
  const cast = castKinds.find((c) => c.id === chosen?.cast);
  const { parted, row, done, wrong } = useWorked(asked, chosen !== null);
  const paper = usePaper();
  const shim = parted?.parting.shim ?? null;
  const ready = parted !== null && row !== null;
  return (
    <>
      <div className="sheet-bar">
        <Button variant="iron" onClick={() => window.print()} disabled={!ready}>
          Print
        </Button>
        {shim && paper.field}
        <Link className="btn btn-quiet" href={`/build/${asked.id}?station=mould`}>
          Back to the mould
        </Link>
        {chosen && !ready && wrong === '' && (
          <span role="status">Working it out, {Math.round(done * (row ? 100 : 90))} %</span>
        )}
      </div>
      <div className="sheet">
        <h1>{build.name}: mould</h1>
        {!kind || !cast ? (
          <p>No mould is taken of this piece yet: choose one on its bench, at Mould.</p>
        ) : (
          <>
            <p>
              <strong>{kind.name}</strong>, for {cast.name}.{' '}
              {build.mould.posture === 'lying' ? 'The piece lies on a bed while it is laid on.' : ''} {kind.wants}
            </p>
            <ul>
              {[...kind.cautions, cast.caution].map((c) => (
                <li key={c}>{c}</li>
              ))}
            </ul>
            {wrong !== '' && <p>It could not be worked out: {wrong}.</p>}
            {row && <Buy row={row} units={units} />}
            {row && build.mould.inserts.length > 0 && (
              <Seats inserts={build.mould.inserts} left={row.figures.left} units={units} />
            )}
            {row && parted && parted.girths.length > 0 && (
              <section className="keep">
                <h2>Clay round the wearer&rsquo;s form</h2>
                <table>
                  <GirthRows
                    girths={parted.girths}
                    mould={build.mould}
                    cast={row.figures.cast}
                    left={row.figures.left}
                    units={units}
                  />
                </table>
                <PutOnWords
                  narrowest={parted.narrowest}
                  girth={wearersGirth(build)}
                  cast={row.figures.cast}
                  left={row.figures.left}
                  units={units}
                />
              </section>
            )}
            {plan && <Coats plan={plan} zone={zone} units={units} />}
            {row?.box && <BoxBoards box={row.box} units={units} />}
            {parted && row && (
              <PartsAndSeams
                parted={parted}
                row={row}
                name={build.name}
                units={units}
                fills={!peelsOut(kind, cast.id, settingOf(build))}
              />
            )}
          </>
        )}
      </div>
      {shim && (
        <PaperSheets templates={shimTemplates(shim)} across={{}} paper={paper.paper} name={build.name} units={units} />
      )}
    </>
  );
}

function Buy({ row, units }: { row: MouldRow; units: UnitSystem }) {
  const { skin, shell, block, castMass, left } = row.figures;
  const { needs, count } = row.casts;
  const parts = [skin, shell, block].filter((p): p is MouldPart => p !== null);
  return (
    <section className="keep">
      <h2>To buy</h2>
      <table>
        <thead>
          <tr>
            <th aria-label="Bought" />
            <th>What</th>
            <th className="n">Thick</th>
            <th className="n">Coats</th>
            <th className="n">Weighs on the piece</th>
            <th className="n">Buy</th>
            <th>In packs of</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((p) => (
            <tr key={p.material}>
              <td>
                <span className="box" />
              </td>
              <td>{mouldMaterials[p.material].name}</td>
              <td className="n">{formatLength(p.thickness, units)}</td>
              <td className="n">{p.coats}</td>
              <td className="n">{formatMass(p.mass, units)}</td>
              <td className="n">{formatMass(p.toBuy, units)}</td>
              <td>{packWords(packsFor(p.toBuy, mouldMaterials[p.material].packs), units)}</td>
            </tr>
          ))}
          {needs.map((n) => (
            <tr key={`cast ${n.name}`}>
              <td>
                <span className="box" />
              </td>
              <td colSpan={4}>
                {n.name} for {count === 1 ? 'a cast' : `${count} casts`}, {formatMass(n.each, units)} each
              </td>
              <td className="n">{formatMass(n.all, units)}</td>
              <td>{packWords(n.packs, units)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="fine">
        With a tenth for bowl and brush. A cast weighs {formatMass(castMass.low, units)} to{' '}
        {formatMass(castMass.high, units)} and comes out at {sensible(left.nominal * 100, 3)} % of the piece.
      </p>
    </section>
  );
}

function Seats({
  inserts,
  left,
  units,
}: {
  inserts: Asked['build']['mould']['inserts'];
  left: Range;
  units: UnitSystem;
}) {
  return (
    <section className="keep">
      <h2>Seats in the master</h2>
      <ul>
        {inserts.map((own) => {
          const seat = seatOf(own, left);
          return (
            <li key={own.id}>
              {own.name}, {formatLength(own.size, units)}: sculpt {formatLength(seat.size.nominal, units)}
              {seat.apart && own.apart !== null
                ? `, ${formatLength(seat.apart.nominal, units)} apart where they are ${formatLength(own.apart, units)}`
                : ''}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Coats({ plan, zone, units }: { plan: BuildPlan; zone: string; units: UnitSystem }) {
  const own = [...mouldProcesses.map((p) => `${p}/`), castStepPrefix];
  const steps = plan.steps.filter((s) => own.some((p) => s.id.startsWith(p)));
  if (steps.length === 0) return null;
  return (
    <section>
      <h2>Steps, in order</h2>
      <table>
        <thead>
          <tr>
            <th aria-label="Done" />
            <th>When</th>
            <th>What</th>
            <th className="n">Work</th>
            <th className="n">Takes</th>
            <th>Not before</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((s) => (
            <tr key={s.id}>
              <td>
                <span className="box" />
              </td>
              <td>{Number.isFinite(s.from) ? whenWords(s.from, zone) : 'no evening is free'}</td>
              <td>{s.name}</td>
              <td className="n">{formatDuration(s.hours * 3600)}</td>
              <td className="n">{s.material ? formatMass(s.material.mass, units) : ''}</td>
              <td>{s.after.flatMap((w) => (w.why === '' ? [] : [w.why])).join('; ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function BoxBoards({ box, units }: { box: NonNullable<MouldRow['box']>; units: UnitSystem }) {
  return (
    <section className="keep">
      <h2>The box</h2>
      <table>
        <BoardRows box={box} units={units} />
      </table>
      <p className="fine">
        {box.straps} straps or pairs of clamps, closest at the foot: full, it presses with{' '}
        {formatForce(box.force, units)} on its largest side.
      </p>
    </section>
  );
}

const drawnFrom = ['front', 'left', 'top'] as const;

function PartsAndSeams({
  parted,
  row,
  name,
  units,
  fills,
}: {
  parted: PartedPicture;
  row: MouldRow;
  name: string;
  units: UnitSystem;
  /** What holds it does harm. */
  fills: boolean;
}) {
  const { parting } = parted;
  const hollow = row.figures.cast.wall !== null;
  const flange =
    parting.pieces.length > 1
      ? flangeOf(row.figures.kind, { shell: row.figures.shell?.thickness ?? null }, parting.partingLength)
      : null;
  const names = partNames(parting.pieces.map((p) => p.direction));
  return (
    <section className="keep">
      <h2>Parts and seams</h2>
      <ul>
        {parting.pieces.map((p, i) => (
          <li key={i}>
            {names[i]}: drawn {drawnWords(p.direction)}
          </li>
        ))}
      </ul>
      {parting.cavities.length > 1 && (
        <p>Cavities: {cavityNames(parting.cavities.map((c) => c.at)).join(', ')}. Cut that into each.</p>
      )}
      {parting.behind !== null && (
        <p>Its rim is {formatLength(parting.partingLength, units)} long; it is open behind.</p>
      )}
      {parting.pieces.length > 1 && (
        <p>
          The seam is {formatLength(parting.partingLength, units)} long. {flange ? flangeWords(flange, units) : ''}
        </p>
      )}
      <p>{filledWords(parting, hollow, parted.stands.includes(1))}</p>
      {fills && parting.locked.length > 0 && (
        <p>
          Fill before it is laid on:{' '}
          {parting.locked
            .slice(0, 6)
            .map((l) => `${formatLength(l.depth, units)} deep, ${formatLength(l.at[2], units)} up`)
            .join('; ')}
          .
        </p>
      )}
      {parting.lines.length > 0 && (
        <div className="seams">
          {drawnFrom.map((view) => (
            // Drawn here and now, of the piece's own seams.
            <img
              key={view}
              alt={`Seams from the ${view === 'top' ? 'top' : view === 'left' ? 'left side' : 'front'}`}
              src={`data:image/svg+xml,${encodeURIComponent(seamDrawing(parted, view, name))}`}
            />
          ))}
        </div>
      )}
    </section>
  );
}

/** Its outline as a bent line on paper; each loop by itself. */
function shimTemplates({ outlines, length }: Shim): Template[] {
  return outlines.map((loop, i): Template => {
    const low = [0, 1].map((k) => Math.min(...loop.map((p) => p[k as 0]))) as [number, number],
      high = [0, 1].map((k) => Math.max(...loop.map((p) => p[k as 0]))) as [number, number];
    return {
      member: `shim/${i + 1}`,
      name: outlines.length > 1 ? `The shim meets the clay here, ${i + 1}` : 'The shim meets the clay here',
      points: loop.map(([x, y]) => [x - low[0], y - low[1]] as const),
      width: high[0] - low[0],
      height: high[1] - low[1],
      offPaper: 0,
      length,
    };
  });
}
