'use client';
import { Table } from 'react-bootstrap';
import { findClay } from '../../../core/document';
import { coatsOf, mixClay, packOf, reclaim, recipeFor, sheetsFor } from '../../../core/clay';
import {
  formatDuration,
  formatLength,
  formatMass,
  formatMoney,
  formatTemperature,
  formatVolume,
  sensible,
} from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { NumberAt, QuantityInput, TextAt, YesNoAt } from '../../parts/fields';

/** How much of everything: to buy, to roll, to mix, and what comes back. */
export function Amounts() {
  const units = useBench((s) => s.units);
  const report = useBench((s) => s.report);
  const build = useBench((s) => s.build);
  const found = findClay(build, build.brief.clay);
  if (!report || !found.ok) return null;
  const clay = found.value;
  const mixed = mixClay(clay, build.materials.waterWorkedIn);
  const volume = report.regions.reduce((sum, r) => sum + r.clayVolume, 0);
  const { mixedHere } = report.clay;
  const recipe = recipeFor(clay, mixed, mixedHere ? report.clay.toBuy : report.clay.needed);
  const back = reclaim(clay.setting, mixed, report.clay.waste);
  // What is rolled to one thickness is rolled together.
  const rolled = new Map<number, { volume: number; names: string[] }>();
  for (const r of report.regions.filter((x) => !x.solid && x.clayVolume > 0)) {
    const coats = coatsOf(build, r.id);
    const whole = coats.reduce((sum, t) => sum + t, 0);
    coats.forEach((t, k) => {
      const own = rolled.get(t) ?? { volume: 0, names: [] };
      own.volume += (r.clayVolume * t) / whole;
      own.names.push(coats.length > 1 ? `${r.name}, coat ${k + 1}` : r.name);
      rolled.set(t, own);
    });
  }
  const sheets = [...rolled].map(([t, { volume: v, names }]) => ({
    name: names.join('; '),
    ...sheetsFor(build, mixed, v, t),
  }));
  return (
    <>
      <h3>How much of it</h3>
      <div className="pairs">
        <NumberAt
          label="Water worked in"
          path={['materials', 'waterWorkedIn']}
          kind="percent"
          hint="of the clay's weight"
        />
        <NumberAt label="Bought for waste" path={['materials', 'waste']} kind="percent" />
        <PackFields />
        <NumberAt label="On the shelf already" path={['materials', 'clayOnShelf']} kind="mass" />
      </div>
      <Table size="sm" aria-label="Clay to buy">
        <tbody>
          <tr>
            <td>On the piece</td>
            <td className="n">
              {formatMass(report.clay.onPiece, units)} ({formatVolume(volume, units)})
            </td>
          </tr>
          {report.clay.fromShelf > 0 && (
            <tr>
              <td>From the shelf</td>
              <td className="n">{formatMass(report.clay.fromShelf, units)}</td>
            </tr>
          )}
          <tr>
            <td>{mixedHere ? 'To mix' : 'To buy'}</td>
            <td className="n">
              {formatMass(report.clay.toBuy, units)}
              {mixedHere
                ? ''
                : `: ${report.clay.packs === 1 ? '1 pack' : `${report.clay.packs} packs`} of ${formatMass(report.clay.packMass, units)}`}
            </td>
          </tr>
          {report.clay.water > 0 && (
            <tr>
              <td>Water to work in</td>
              <td className="n">{formatMass(report.clay.water, units)}</td>
            </tr>
          )}
          <tr>
            <td>Cost of the clay</td>
            <td className="n">{formatMoney(report.clay.cost, build.materials.currency)}</td>
          </tr>
          <tr>
            <td>Cost of wire, rod and timber</td>
            <td className="n">{formatMoney(report.wireCost, build.materials.currency)}</td>
          </tr>
          <tr>
            <td>Left over, unopened or on the shelf</td>
            <td className="n">{formatMass(report.clay.left, units)}</td>
          </tr>
          <tr>
            <td>
              Offcuts that come back<div className="muted small">{back.how}</div>
            </td>
            <td className="n">
              {formatMass(back.back, units)}
              {back.water > 0.0005 && <div className="muted small">with {formatMass(back.water, units)} of water</div>}
            </td>
          </tr>
        </tbody>
      </Table>
      {sheets.length > 0 && (
        <>
          <div className="pairs">
            <NumberAt label="A sheet is wide" path={['materials', 'sheet', 'width']} kind="length" />
            <NumberAt label="and long" path={['materials', 'sheet', 'length']} kind="length" />
          </div>
          <Table size="sm" aria-label="Sheets to roll">
            <thead>
              <tr>
                <th>Rolled to</th>
                <th>For</th>
                <th className="n">Sheets</th>
                <th className="n">Each</th>
              </tr>
            </thead>
            <tbody>
              {sheets.map((s) => (
                <tr key={s.name}>
                  <td>{formatLength(s.thickness, units)}</td>
                  <td>{s.name}</td>
                  <td className="n">{s.count}</td>
                  <td className="n">
                    {s.count === 1
                      ? formatMass(s.mass, units)
                      : `${formatMass(s.each, units)}, ${formatMass(s.mass, units)} in all`}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </>
      )}
      {recipe && (
        <>
          <h3>Mixed at home</h3>
          <YesNoAt
            label="I mix it myself: plan that, and put what goes into it on the shopping list"
            path={['materials', 'mixOwn']}
            fallback={false}
          />
          <Table size="sm" aria-label="Recipe for what is needed">
            <tbody>
              {recipe.parts.map((p) => (
                <tr key={p.what}>
                  <td>{p.what}</td>
                  <td className="n">
                    {sensible(p.amount, 3)} {recipe.unit}
                  </td>
                </tr>
              ))}
              <tr>
                <td>makes, wet</td>
                <td className="n">{formatVolume(recipe.wet, units)}</td>
              </tr>
              <tr>
                <td>once dry</td>
                <td className="n">{formatVolume(recipe.dry, units)}</td>
              </tr>
            </tbody>
          </Table>
          <p className="muted small">{recipe.recipe.note}</p>
        </>
      )}
    </>
  );
}

/** The pack this clay is bought in; what is typed is this clay's own. */
function PackFields() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const pack = packOf(build);
  const set = (label: string, next: { mass: number; price: number }) =>
    controller.edit({
      label,
      changes: [{ path: ['materials', 'packs'], value: { ...build.materials.packs, [build.brief.clay]: next } }],
    })?.message ?? null;
  return (
    <>
      <QuantityInput
        label="One pack"
        kind="mass"
        value={pack.mass}
        onCommit={(v) => (v === null ? 'Say what a pack weighs.' : set('One pack', { ...pack, mass: v }))}
      />
      <QuantityInput
        label="Price of a pack"
        kind="number"
        value={pack.price}
        hint={Object.hasOwn(build.materials.packs, build.brief.clay) ? 'your own, of this clay' : 'usual for this clay'}
        onCommit={(v) => (v === null ? 'Say what a pack costs.' : set('Price of a pack', { ...pack, price: v }))}
      />
      <TextAt label="Currency" path={['materials', 'currency']} />
    </>
  );
}

export function StayingPutTable() {
  const units = useBench((s) => s.units);
  const staying = useBench((s) => s.report?.staying) ?? [];
  const rows = staying.filter((s) => s.coat > 0);
  if (rows.length === 0) return null;
  return (
    <>
      <h3>Does it stay put</h3>
      <Table size="sm" aria-label="Soft clay against its own weight">
        <thead>
          <tr>
            <th>Region</th>
            <th className="n">Thickest coat</th>
            <th className="n">Hangs upright</th>
            <th>Slides</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((s) => (
            <tr key={s.region}>
              <td>{s.name}</td>
              <td className="n">{s.squat ? 'solid' : formatLength(s.coat, units)}</td>
              <td className="n">
                {s.squat ? `stands ${formatLength(s.squat.stands, units)}` : formatLength(s.hangs, units)}
              </td>
              <td>
                {s.slidesFrom === null
                  ? 'nowhere'
                  : `past ${sensible(s.slidesFrom, 2)}°: ${sensible(s.steep * 100, 2)} % of it`}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}

/** Warming soft clay, or baking it. */
export function Heat() {
  const units = useBench((s) => s.units);
  const heat = useBench((s) => s.report?.heat);
  if (!heat || (!heat.warming && !heat.baking)) return null;
  return (
    <>
      <h3>Heat</h3>
      {heat.warming && (
        <>
          <div className="pairs">
            <NumberAt
              label="Warmed to"
              path={['materials', 'warming', 'to']}
              kind="temperature"
              hint="works warm at 35 to 45 °C"
            />
            <NumberAt label="The heater's rating, watts" path={['materials', 'warming', 'watts']} kind="number" />
            <NumberAt label="Lumps as thick as" path={['materials', 'warming', 'lump']} kind="length" />
          </div>
          <Table size="sm" aria-label="Warming the clay">
            <tbody>
              <tr>
                <td>Warm through after</td>
                <td className="n">{formatDuration(heat.warming.time)}</td>
              </tr>
              <tr>
                <td>for the heater alone</td>
                <td className="n">{formatDuration(heat.warming.heating)}</td>
              </tr>
              <tr>
                <td>for heat to reach the middle of a lump</td>
                <td className="n">{formatDuration(heat.warming.soaking)}</td>
              </tr>
              <tr>
                <td>Energy</td>
                <td className="n">{sensible(heat.warming.energy / 3.6e6, 2)} kWh</td>
              </tr>
              <tr>
                <td>Lumps to cut</td>
                <td className="n">{heat.warming.lumps}</td>
              </tr>
            </tbody>
          </Table>
          <div className="cautions">
            <strong>Mind</strong>
            <ul>
              <li>Warm clay burns skin above 50 °C: try it on the wrist, stir nothing with bare hands.</li>
              <li>A box with a thermostat and never a naked flame; oil-based clay melts from 60 °C and can smoke.</li>
            </ul>
          </div>
        </>
      )}
      {heat.baking && (
        <>
          <Table size="sm" aria-label="Baking plan">
            <thead>
              <tr>
                <th>Bake</th>
                <th className="n">Thickest</th>
                <th className="n">Minutes</th>
              </tr>
            </thead>
            <tbody>
              {heat.baking.bakes.map((b) => (
                <tr key={b.name}>
                  <td>{b.name}</td>
                  <td className="n">{formatLength(b.thickest, units)}</td>
                  <td className="n">{b.minutes}</td>
                </tr>
              ))}
              <tr>
                <td>Oven at</td>
                <td className="n" colSpan={2}>
                  {formatTemperature(heat.baking.temperature, units)}
                </td>
              </tr>
              <tr>
                <td>Upright, soft, it holds</td>
                <td className="n" colSpan={2}>
                  {formatLength(heat.baking.holdsInOven, units)}
                </td>
              </tr>
              {heat.baking.cannot.map((c) => (
                <tr key={c.name}>
                  <td className="status-fails">{c.name} cannot stand it</td>
                  <td className="n" colSpan={2}>
                    stands {formatTemperature(c.standsTo, units)}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
          <div className="cautions">
            <strong>Mind</strong>
            <ul>
              <li>Moving air while it bakes; a thermometer in the oven, for what burns gives off acid fumes.</li>
              <li>Foam and unknown plastics never go in; nothing hot in bare hands.</li>
            </ul>
          </div>
        </>
      )}
    </>
  );
}
