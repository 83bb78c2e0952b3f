'use client';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { findClay } from '../../../core/document';
import { clayList, type ClayFamily } from '../../../core/catalogue';
import { formatLength, formatMass, sensible } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, QuantityInput } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';
import { Amounts, Heat, StayingPutTable } from './amounts';
import { GettingOn } from './getting-on';
import { LayingOrder, Painting, Seams, StackOf } from './stack';

const correctable: readonly (readonly [keyof ClayFamily, string, string])[] = [
  ['wetDensity', 'Weight as laid', 'kg/m³'],
  ['yieldStress', 'Yield stress, fresh', 'Pa'],
];
const correctableDrying: readonly (readonly [string, string, string])[] = [
  ['w0', 'Water as supplied', 'kg per kg solids'],
  ['w_sl', 'Stops shrinking at', 'kg per kg solids'],
  ['shrinkage', 'Shrinkage, dry', 'share of length'],
  ['D_wet', 'Diffusivity, wet', 'm²/s'],
  ['D_dry', 'Diffusivity, dry', 'm²/s'],
];

/** The user's own materials and corrections: kept in this build, with a note of where the figure came from. */
function OwnFigures() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const [name, setName] = useState('');
  const [wrong, setWrong] = useState('');
  const found = findClay(build, build.brief.clay);
  if (!found.ok) return null;
  const clay = found.value;
  const catalogue = clayList.find((c) => c.id === clay.id);
  const here = ['materials', 'values', 'clays', clay.id] as const;
  const correct = (path: readonly string[], label: string) => (v: number | null) => {
    if (v === null) return 'A figure is needed.';
    const whole = JSON.parse(JSON.stringify(clay)) as Record<string, unknown>;
    const target = path.length > 1 ? (whole[path[0]!] as Record<string, unknown>) : whole;
    target[path[path.length - 1]!] = v;
    return (
      controller.edit({ label: `${label} of ${clay.name} corrected`, changes: [{ path: here, value: whole }] })
        ?.message ?? null
    );
  };
  const add = () => {
    const id = name
      .trim()
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60);
    if (id === '' || clayList.some((c) => c.id === id) || Object.hasOwn(build.materials.values.clays, id)) {
      setWrong('It needs a name of its own.');
      return;
    }
    const refused = controller.edit({
      label: `Own clay: ${name.trim()}`,
      changes: [
        {
          path: ['materials', 'values', 'clays', id],
          value: { ...clay, id, name: name.trim().slice(0, 80), source: 'own' },
        },
        { path: ['brief', 'clay'], value: id },
      ],
    });
    setWrong(refused?.message ?? '');
    if (!refused) setName('');
  };
  return (
    <details className="mt-3">
      <summary>
        <strong>Your own figures</strong>
      </summary>
      <p className="muted small mt-2">
        Figures for {clay.name}, kept with this build. The bag, a kitchen scale and two scratched marks know better than
        any table.
      </p>
      <div className="pairs">
        {correctable.map(([key, label, unit]) => (
          <QuantityInput
            key={key}
            label={`${label}, ${unit}`}
            kind="number"
            value={clay[key] as number}
            onCommit={correct([key], label)}
          />
        ))}
        {clay.drying &&
          correctableDrying.map(([key, label, unit]) => (
            <QuantityInput
              key={key}
              label={`${label}, ${unit}`}
              kind="number"
              value={(clay.drying as unknown as Record<string, number>)[key] ?? 0}
              onCommit={correct(['drying', key], label)}
            />
          ))}
      </div>
      <div className="field">
        <label htmlFor="figure-source">Where the figures come from</label>
        <Form.Control
          key={clay.id + (clay.source ?? '')}
          id="figure-source"
          size="sm"
          defaultValue={clay.source ?? ''}
          placeholder="measured on a test tile"
          onBlur={(e) => {
            if (e.target.value !== (clay.source ?? ''))
              controller.edit({
                label: 'Source of the figures',
                changes: [{ path: [...here], value: { ...clay, source: e.target.value.slice(0, 300) } }],
              });
          }}
        />
      </div>
      {catalogue && Object.hasOwn(build.materials.values.clays, clay.id) && (
        <Button
          size="sm"
          variant="quiet"
          className="mb-3"
          onClick={() =>
            controller.edit({ label: 'Catalogue figures taken again', changes: [{ path: here, value: catalogue }] })
          }
        >
          Take the catalogue&rsquo;s figures again
        </Button>
      )}
      <div className="field">
        <label htmlFor="own-clay">A clay of your own, starting from these</label>
        <div className="d-flex gap-2">
          <Form.Control
            id="own-clay"
            size="sm"
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder="pulp and chalk, spring batch"
            aria-invalid={wrong !== ''}
          />
          <Button size="sm" variant="quiet" onClick={add}>
            Add
          </Button>
        </div>
        {wrong && (
          <div className="wrong" role="alert">
            {wrong}
          </div>
        )}
      </div>
    </details>
  );
}

export default function ClayStation() {
  const units = useBench((s) => s.units);
  const report = useBench((s) => s.report);
  const own = useBench((s) => s.build.materials.values.clays);
  const build = useBench((s) => s.build);
  const clayIs = findClay(build, build.brief.clay);
  const choices = [...clayList, ...Object.values(own).filter((c) => !clayList.some((k) => k.id === c.id))];
  return (
    <StationPanel
      station="clay"
      title="Clay"
      how={
        <>
          <p>
            Volume of the clay times its weight as laid gives what goes on; your share for waste is added, what is on
            the shelf taken off, and the rest rounded up to packs. Water you work in is weighed against the clay as
            supplied: 10 % is 100 g to the kilo. It thins the solids, and all of it has to leave again.
          </p>
          <p>
            Soft clay hangs on an upright face up to the lesser of its own yield and its grip on what is under it, over
            its weight, with half as much again in hand. Oil-based clay is taken as soft as the room makes it. Solid
            clay stands until its foot flows, at twice its yield.
          </p>
          <p>
            What gets on with what is a list of rules, read over every pair of neighbours from the armature out, over
            damp that comes inward through anything that does not shut it out, and over what the piece goes through.
          </p>
          <p className="mb-0">
            Epoxy is mixed in batches that can be placed while they work, at 25 g a minute and today&rsquo;s
            temperature. A seam takes 90 % of what whole clay does when it is scored and slipped, 75 with slip alone, 60
            scored, 40 pressed: figures of ours.
          </p>
        </>
      }
    >
      <h3>What goes on, from the core out</h3>
      <ChoiceAt label="Clay" path={['brief', 'clay']} choices={choices.map((c) => ({ id: c.id, name: c.name }))} />
      <LayingOrder />
      {report?.regions
        .filter((r) => r.clayVolume > 0)
        .map((r, i) => (
          <StackOf key={r.id} open={i === 0} region={r.id} name={r.name.charAt(0).toUpperCase() + r.name.slice(1)} />
        ))}
      <Painting />
      <Seams />
      <GettingOn />
      <StayingPutTable />
      <Amounts />
      {report?.cure && (
        <>
          <h3>Batches</h3>
          <p>
            {report.cure.batches.length === 1 ? 'One batch' : `${report.cure.batches.length} batches`} of{' '}
            {report.cure.batches.length === 1 ? '' : 'up to '}
            {formatMass(Math.max(...report.cure.batches), units)}: as much as a hand kneads at a time and places while
            it works. Each works for {Math.round(report.cure.workingMinutes)} min from when it is begun to be mixed;
            stop placing it {Math.round(report.cure.usableMinutes)} min after it is mixed.{' '}
            {sensible(report.cure.placingMinutes / 60, 2)} h of kneading and placing in all.
          </p>
        </>
      )}
      <Heat />
      <OwnFigures />
      {report && report.regions.some((r) => r.solid) && clayIs.ok && clayIs.value.setting === 'dries' && (
        <p className="muted small mt-2">
          Solid clay: the thickness of a coat has no part in it.{' '}
          {formatLength(report.regions[0]?.thickness ?? 0, units)} is how deep water has to come from.
        </p>
      )}
    </StationPanel>
  );
}
