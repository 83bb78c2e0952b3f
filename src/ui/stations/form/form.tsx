'use client';
import { useState } from 'react';
import { Button, Form, Table } from 'react-bootstrap';
import { findStartForm, startFormOf, startForms, withTypeMeasures } from '../../../core/form';
import { formatLength, formatVolume } from '../../../core/quantity';
import { startBuild } from '../../../core/school';
import { useBench, useController } from '../../bench/context';
import { StationPanel } from '../../parts/judgement';
import { SizeField } from '../brief/brief';
import { LimbsTable } from './limbs';
import { MeasureField } from './measure-field';
import Meshes from './meshes';
import References from './references';
import Shaping, { useForm } from './shaping';
import Size, { HeightField } from './size';

/** Named sets of measures; what is no part of them (neck, shoulders, stand) stays as it is. */
function Types() {
  const controller = useController();
  const start = useBench((s) => s.build.form.start);
  const form = startFormOf(start);
  const [wanted, setWanted] = useState('');
  if (!form?.types) return null;
  const type = form.types.find((t) => t.id === wanted);
  return (
    <div className="field">
      <label htmlFor="measures-of">To the measures of</label>
      <div className="d-flex gap-2">
        <Form.Select id="measures-of" size="sm" value={wanted} onChange={(e) => setWanted(e.target.value)}>
          <option value="">choose …</option>
          {form.types.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </Form.Select>
        <Button
          size="sm"
          variant="iron"
          className="text-nowrap"
          disabled={!type}
          onClick={() => {
            if (!type) return;
            controller.edit({
              label: `To the measures of ${type.name}`,
              changes: [{ path: ['form', 'start', 'measures'], value: withTypeMeasures(form, type, start.measures) }],
            });
            setWanted('');
          }}
        >
          Take them
        </Button>
      </div>
    </div>
  );
}

/** A build keeps the form it was begun with; whoever wants it as it is made today says so. */
function MadeAnew() {
  const controller = useController();
  const start = useBench((s) => s.build.form.start);
  const own = startFormOf(start),
    today = findStartForm(start.kind);
  if (!own || !today || own.version === today.version) return null;
  return (
    <p className="cautions">
      This {today.name} was begun before the form was made anew, and keeps its shape.{' '}
      <Button
        size="sm"
        variant="quiet"
        onClick={() =>
          controller.edit({
            label: `The ${today.name} as it is made today`,
            changes: [
              {
                path: ['form', 'start'],
                value: {
                  ...start,
                  version: today.version,
                  measures: Object.fromEntries(Object.entries(start.measures).filter(([key]) => key in today.measures)),
                },
              },
            ],
          })
        }
      >
        Make it as today
      </Button>{' '}
      The measures that it has stay; Undo brings this shape back.
    </p>
  );
}

/** Starting over from another form: the armature goes with it, what was added and changed on this one does not. */
function OtherStart() {
  const controller = useController();
  const kind = useBench((s) => s.build.form.start.kind);
  const [wanted, setWanted] = useState('');
  const chosen = findStartForm(wanted);
  const take = async () => {
    const { build } = controller.state;
    const begun = startBuild(build.name, build.brief.startDate, wanted, chosen?.usualSize ?? 1);
    if (!begun.ok) return;
    // What a new build begins with is worked out from the form itself: fetched when it is asked for.
    const { begunToCarry } = await import('../../../core/sizing');
    const fresh = begunToCarry(begun.value);
    controller.edit({
      label: `Start again from: ${chosen?.name ?? wanted}`,
      changes: [
        { path: ['form'], value: fresh.form },
        { path: ['armature'], value: fresh.armature },
        { path: ['regions'], value: fresh.regions },
        { path: ['brief', 'clay'], value: fresh.brief.clay },
      ],
    });
    setWanted('');
  };
  return (
    <details>
      <summary>Start from another form</summary>
      <div className="field mt-2">
        <label htmlFor="other-start">Form</label>
        <Form.Select id="other-start" size="sm" value={wanted} onChange={(e) => setWanted(e.target.value)}>
          <option value="">choose …</option>
          {startForms
            .filter((f) => f.kind !== kind)
            .map((f) => (
              <option key={f.kind} value={f.kind}>
                {f.name}
              </option>
            ))}
        </Form.Select>
        {chosen && (
          <div className="hint">
            {chosen.when} Its usual armature, clay and thickness come with it; Undo brings this form back.
          </div>
        )}
      </div>
      <Button size="sm" variant="iron" disabled={!chosen} onClick={() => void take()}>
        Start again
      </Button>
    </details>
  );
}

export default function FormStation() {
  const units = useBench((s) => s.units);
  const report = useBench((s) => s.report);
  const start = useBench((s) => s.build.form.start);
  const form = startFormOf(start);
  const thickest = useBench((s) => s.cover?.thickest);
  const resolved = useForm();
  // The start form's own masses are hidden: what it would be measured by is not there.
  const meshAlone = resolved?.masses.every((m) => m.part !== undefined || m.shape.kind === 'sampled') === true;
  return (
    <StationPanel
      station="form"
      title="The form"
      how={
        <>
          <p>
            The form is a union of simple masses that melt into one another. Each hangs on a joint, so that a pose takes
            it along; the right of a pair is the reflection of its left. The surface is sampled on a grid of small
            cubes, finer where the piece is thin; each cube the surface passes through counts for the share inside.
          </p>
          <p className="mb-0">
            The core is the outer face moved inward by the thickness of the clay. Over an object the clay stands outside
            instead, and a shell is as thick as its clay. Features smaller than the clay is thick belong to the
            modelling.
          </p>
        </>
      }
    >
      <h3>Measures, at life size</h3>
      <p className="muted small mb-2">
        {meshAlone
          ? 'A mesh that was brought in: its size is all there is to measure.'
          : `${form?.name}: ${form?.when}`}
      </p>
      <div className="pairs">
        <SizeField />
        <HeightField />
      </div>
      {!meshAlone && (
        <>
          <MadeAnew />
          <Types />
          <div className="pairs">
            {form &&
              Object.entries(form.measures).map(([name, m]) => <MeasureField key={name} name={name} measure={m} />)}
          </div>
        </>
      )}
      <OtherStart />
      <Shaping />
      <Size />
      <References />
      <Meshes />
      {report && (
        <>
          <h3>What the picture shows</h3>
          <Table size="sm" aria-label="Regions of the form">
            <thead>
              <tr>
                <th>Region</th>
                <th className="n">Face</th>
                <th className="n">Clay</th>
                <th className="n">Bulk</th>
              </tr>
            </thead>
            <tbody>
              {report.regions.map((r) => (
                <tr key={r.id}>
                  <td>{r.name}</td>
                  <td className="n">{Math.round(r.area * 1e4)} cm²</td>
                  <td className="n">{formatVolume(r.clayVolume, units)}</td>
                  <td className="n">{formatVolume(r.bulkVolume, units)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
          <p className="muted small mt-2 mb-0">
            Overall {formatLength(report.size.width, units)} wide, {formatLength(report.size.depth, units)} deep,{' '}
            {formatLength(report.size.height, units)} high from the board.
            {thickest && thickest.thickness > 0
              ? ` Thickest in the ${thickest.place}: ${formatLength(thickest.thickness, units)} through.`
              : ''}
          </p>
          <LimbsTable />
        </>
      )}
    </StationPanel>
  );
}
