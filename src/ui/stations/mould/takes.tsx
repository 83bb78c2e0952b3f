'use client';
import { Table } from 'react-bootstrap';
import {
  castByPlace,
  costByLog,
  mouldMaterials,
  packsFor,
  pullsOf,
  type MouldPart,
  type PourBox,
} from '../../../core/mould';
import type { MouldRow } from '../../../core/improve';
import {
  formatDuration,
  formatForce,
  formatLength,
  formatMass,
  formatMoney,
  sensible,
  type Range,
  type UnitSystem,
} from '../../../core/quantity';
import { castUses } from '../../../core/document';
import { useBench, useController } from '../../bench/context';
import { useMould } from '../../bench/use-mould';
import { ChoiceInput, NumberAt } from '../../parts/fields';
import { BoardRows } from './board-rows';
import { packWords } from './pack-words';
import { useNames, useWords } from './use-words';

/** What the chosen mould takes, and what comes out of it. */
export function WhatItTakes() {
  const rows = useMould((s) => s.rows);
  const message = useMould((s) => s.rowsMessage);
  const units = useBench((s) => s.units);
  const currency = useBench((s) => s.build.materials.currency);
  const log = useBench((s) => s.log);
  const row = rows?.find((r) => r.chosen);
  const pulls = pullsOf(log ?? []);
  if (message) return <p className="wrong status-fails">Not counted: {message}</p>;
  if (!row) return <p className="muted">Counting what it takes …</p>;
  const { skin, shell, block, cast, castMass, left } = row.figures;
  const byLog = costByLog(row.casts.needs, castMass, pulls);
  const parts = [
    ['Skin', skin],
    [skin ? 'Shell' : 'Walls', shell],
    ['Poured round it', block],
  ].filter((p): p is [string, MouldPart] => p[1] !== null);
  return (
    <>
      <Table size="sm" aria-label="What the mould takes">
        <thead>
          <tr>
            <th>Of it</th>
            <th>What</th>
            <th className="n">Thick</th>
            <th className="n">Weighs</th>
            <th className="n">Buy</th>
            <th>In packs of</th>
          </tr>
        </thead>
        <tbody>
          {parts.map(([name, p]) => (
            <tr key={name}>
              <td>{name}</td>
              <td>
                {mouldMaterials[p.material].name}
                {p.coats > 1 ? `, ${p.coats} coats` : ''}
              </td>
              <td className="n">{formatLength(p.thickness, units)}</td>
              <td className="n">{formatMass(p.mass, units)}</td>
              <td className="n">{formatMass(p.toBuy, units)}</td>
              <td>{packWords(packsFor(p.toBuy, mouldMaterials[p.material].packs), units)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {row.box && <BoxToPourIn box={row.box} units={units} />}
      <ul className="facts-list">
        <li>
          About {roughly(row.cost.nominal, currency)} of it ({roughly(row.cost.low, currency)} to{' '}
          {roughly(row.cost.high, currency)}) and {sensible(row.hours, 2)} hours of mould work.
        </li>
        {row.warms !== null && (
          <li>
            Its plaster warms by some {Math.round(row.warms)} degrees as it sets: what is under it softens. It is opened
            when it is cold, three quarters of an hour on at the earliest.
          </li>
        )}
        {row.dries !== 0 && (
          <li>
            {row.dries === null
              ? 'In this room it never dries enough for its cast: bring it somewhere drier.'
              : `Opened, it is dry enough for its cast after some ${formatDuration(row.dries)} in this room; moving air shortens that, heat above 45 °C spoils plaster.`}
          </li>
        )}
        <li>
          A cast of {cast.name} weighs {between(castMass, units)} and comes out at {sensible(left.nominal * 100, 3)} %
          of the piece&rsquo;s size ({sensible(left.low * 100, 3)} to {sensible(left.high * 100, 3)} %).
        </li>
        <li>
          A pore 0.3 mm deep lasts some {sensible(row.pulls.nominal, 1)} pulls ({sensible(row.pulls.low, 1)} to{' '}
          {sensible(row.pulls.high, 1)}); keep the first good one as a master.
        </li>
        {pulls.count > 0 && (
          <li>
            By the log: {pulls.count} taken
            {pulls.weight ? `, ${between(pulls.weight, units)} each` : ''}
            {byLog ? `, about ${roughly(byLog.nominal, currency)} of material in one` : ''}
            {pulls.goneAt !== null
              ? `; pores were gone at the ${pulls.goneAt === 1 ? 'first' : `cast ${pulls.goneAt}`}`
              : pulls.sharpUntil > 0
                ? `; as sharp as the first up to cast ${pulls.sharpUntil}`
                : ''}
            .
          </li>
        )}
      </ul>
      <CastsTake row={row} />
    </>
  );
}

/** What casts are made of: how many are wanted, what each takes and all of them, in packs. */
function CastsTake({ row: { casts, eachCost, inUse, figures } }: { row: MouldRow }) {
  const controller = useController();
  const regions = useBench((s) => s.report?.regions);
  const places = figures.cast.wall ? castByPlace(figures.castMass, regions ?? []) : [];
  const units = useBench((s) => s.units);
  const { currency } = useBench((s) => s.build.materials);
  const wanted = useBench((s) => s.build.mould.casts);
  return (
    <>
      <h3>Casts</h3>
      <NumberAt
        label="Casts wanted"
        path={['mould', 'casts']}
        kind="number"
        hint={wanted === 0 ? 'none are planned or bought for yet' : 'they are in the plan and on the shopping sheet'}
      />
      <Table size="sm" aria-label="What the casts take">
        <thead>
          <tr>
            <th>What</th>
            <th className="n">Each</th>
            <th className="n">{casts.count === 1 ? 'For one' : `For ${casts.count}`}</th>
            <th>In packs of</th>
          </tr>
        </thead>
        <tbody>
          {casts.needs.map((n) => (
            <tr key={n.name}>
              <td>{n.name}</td>
              <td className="n">{formatMass(n.each, units)}</td>
              <td className="n">{formatMass(n.all, units)}</td>
              <td>{packWords(n.packs, units)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <ChoiceInput
        label="A cast goes"
        value={inUse.use}
        choices={castUses.map((id) => ({ id, name: useNames[id] }))}
        onChoose={(id) =>
          controller.edit({ label: 'Where a cast goes', changes: [{ path: ['mould', 'castUse'], value: id }] })
            ?.message ?? null
        }
      />
      {places.length > 1 && (
        <p className="small mb-1">
          Of a cast,{' '}
          {places.map(({ id, name, mass }, i) => (
            <span key={id}>
              {i > 0 && ', '}
              {name} {formatMass(mass.nominal, units)}
            </span>
          ))}
          .
        </p>
      )}
      <p className={`small status-${inUse.status}`}>{useWords(inUse, figures.castMass, units)}</p>
      <p className="small">
        {casts.count === 1 ? 'One cast' : `Each of ${casts.count} casts`} comes to about{' '}
        {roughly(eachCost.nominal, currency)} of material ({roughly(eachCost.low, currency)} to{' '}
        {roughly(eachCost.high, currency)}), {casts.count === 1 ? 'the mould' : 'a share of the mould'} with it.
      </p>
    </>
  );
}

function BoxToPourIn({ box, units }: { box: PourBox; units: UnitSystem }) {
  return (
    <>
      <Table size="sm" aria-label="Boards of the box">
        <BoardRows box={box} units={units} />
      </Table>
      <p className="small">
        Full, it presses with {formatForce(box.force, units)} on its largest side, {formatLength(box.actsAt, units)} up:{' '}
        {box.straps} straps or pairs of clamps round it, closest at the foot, every seam sealed. It is poured in a thin
        stream at one corner, on a floor that bears it.
      </p>
    </>
  );
}

export function between(r: Range, units: UnitSystem): string {
  return `${formatMass(r.low, units)} to ${formatMass(r.high, units)}`;
}

/** Prices of a rule of thumb, to two figures. */
export function roughly(price: number, currency: string): string {
  const step = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, price))) - 1);
  return formatMoney(Math.round(price / step) * step, currency);
}
