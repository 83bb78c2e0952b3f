'use client';
import { useEffect, useRef, useState } from 'react';
import { Button, Table } from 'react-bootstrap';
import { findClay, applyEdit, type Build } from '../../../core/document';
import { layingHours } from '../../../core/cure';
import { formatLength, formatMass, sensible } from '../../../core/quantity';
import { resizeEdit } from '../../../core/finding';
import { statusOf, type Summary } from '../../../core/piece';
import { compareClient, type CompareClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';
import { NumberAt, QuantityInput } from '../../parts/fields';
import { Plumb } from '../../parts/plumb';

/** Making the whole build larger or smaller, what that brings, and setting a large piece out from a small study. */
export function HeightField() {
  const controller = useController();
  const height = useBench((s) => s.report?.size.height ?? null);
  const at = useBench((s) => s.reportedSize);
  return (
    <QuantityInput
      label="Or by its height"
      kind="length"
      value={height}
      hint="from the board to its highest place"
      onCommit={(wanted) => {
        if (wanted === null || height === null || !(height > 0)) return null;
        const size = (at * wanted) / height;
        return size >= 0.05 && size <= 5
          ? (controller.edit(resizeEdit(controller.state.build, size))?.message ?? null)
          : `That is ${sensible(size * 100)} % of life: it must be between 5 and 500`;
      }}
    />
  );
}

interface Row {
  readonly size: number;
  readonly summary: Summary | null;
  readonly height: number;
  readonly clayOn: number;
  readonly problem: string;
}

/** Half, three quarters, as it is, half as large again, double: near what it is now, in the figures people use. */
function sizesAbout(size: number): number[] {
  const near = [0.5, 0.75, 1, 1.25, 1.5].map((f) => (f === 1 ? size : Math.round(size * f * 100) / 100));
  return [...new Set(near)].filter((s) => s >= 0.05 && s <= 5);
}

function OtherSizes() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const [rows, setRows] = useState<readonly Row[] | null>(null);
  const [of, setOf] = useState<Build | null>(null);
  const client = useRef<CompareClient | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  const clay = of && findClay(of, of.brief.clay);
  const setting = clay?.ok ? clay.value.setting : 'dries';
  const stale = rows !== null && of !== build;
  const compare = () => {
    client.current?.stop();
    const sizes = sizesAbout(build.form.start.size);
    const builds = sizes.map((s) => {
      const made = applyEdit(build, resizeEdit(build, s));
      return made.ok ? made.value : build;
    });
    setOf(build);
    setRows(sizes.map((size) => ({ size, summary: null, height: 0, clayOn: 0, problem: '' })));
    client.current = compareClient((data) => {
      if (data.kind === 'row')
        setRows(
          (all) =>
            all?.map((r, i) =>
              i === data.index ? { ...r, summary: data.summary, height: data.height, clayOn: data.clayOn } : r,
            ) ?? null,
        );
      if (data.kind === 'refused')
        setRows(
          (all) =>
            all?.map((r, i) =>
              i === data.index || (data.index === undefined && !r.summary) ? { ...r, problem: data.why.message } : r,
            ) ?? null,
        );
    });
    client.current.ask({ kind: 'builds', builds: builds.map((b) => controller.askedOf(b)) });
  };
  return (
    <>
      <Button size="sm" variant="quiet" onClick={compare}>
        {rows ? 'Work it out again' : 'What would another size bring?'}
      </Button>
      {rows && (
        <div className={stale ? 'mt-2 opacity-50' : 'mt-2'}>
          <Table size="sm" aria-label="At other sizes" aria-busy={rows.some((r) => !r.summary && !r.problem)}>
            <thead>
              <tr>
                <th>Size</th>
                <th className="n">High</th>
                <th className="n">Clay</th>
                <th className="n">Hours</th>
                <th className="n">Nights to dry</th>
                <th>Weakest</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.size}>
                  <td>
                    {r.size === of?.form.start.size ? (
                      `${sensible(r.size * 100)} %, now`
                    ) : (
                      <Button
                        size="sm"
                        variant="quiet"
                        onClick={() => controller.edit(resizeEdit(build, r.size))}
                        aria-label={`Make it ${sensible(r.size * 100)} % of life`}
                      >
                        {sensible(r.size * 100)} %
                      </Button>
                    )}
                  </td>
                  {r.problem ? (
                    <td colSpan={5}>{r.problem}</td>
                  ) : !r.summary ? (
                    <td colSpan={5} className="muted">
                      working it out …
                    </td>
                  ) : (
                    <>
                      <td className="n">{formatLength(r.height, units)}</td>
                      <td className="n">{formatMass(r.clayOn, units)}</td>
                      <td className="n">{sensible(layingHours(r.clayOn, setting), 2)}</td>
                      <td className="n">{r.summary.nights ?? '–'}</td>
                      <td>
                        <Plumb status={statusOf(r.summary.utilisation)} size={16} />{' '}
                        {sensible(r.summary.utilisation, 2)}
                      </td>
                    </>
                  )}
                </tr>
              ))}
            </tbody>
          </Table>
          <p className="muted small">
            Hours to put the clay on, with a third of it gone over again in detail. Pipe and wire stay the stock they
            are; thickness goes with the size.{stale ? ' The build has changed since.' : ''}
          </p>
        </div>
      )}
    </>
  );
}

function Study() {
  const controller = useController();
  const study = useBench((s) => s.build.form.study);
  const height = useBench((s) => s.report?.size.height ?? null);
  const units = useBench((s) => s.units);
  const put = (label: string, value: unknown) =>
    controller.edit({ label, changes: [{ path: ['form', 'study'], value }] })?.message ?? null;
  if (!study)
    return (
      <Button
        size="sm"
        variant="quiet"
        onClick={() =>
          put('Set it out from a study', {
            height: height ? height / 4 : 0.1,
            readings: [{ name: 'chin to brow', value: 0.02 }],
          })
        }
      >
        Set it out from a small study
      </Button>
    );
  const factor = height === null ? null : height / study.height;
  return (
    <div className="mt-2">
      <NumberAt
        label="The study is high"
        path={['form', 'study', 'height']}
        kind="length"
        hint={factor === null ? undefined : `every reading is taken ${sensible(factor)} times`}
      />
      <Table size="sm" aria-label="Readings on the study">
        <thead>
          <tr>
            <th>Between</th>
            <th className="n">On the study</th>
            <th className="n">On the piece</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {study.readings.map((r, i) => (
            <tr key={i}>
              <td>
                <input
                  className="form-control form-control-sm"
                  aria-label={`Name of reading ${i + 1}`}
                  defaultValue={r.name}
                  onBlur={(e) =>
                    e.target.value !== r.name &&
                    put('Name a reading', {
                      ...study,
                      readings: study.readings.map((x, k) =>
                        k === i ? { ...x, name: e.target.value.slice(0, 60) } : x,
                      ),
                    })
                  }
                />
              </td>
              <td>
                <QuantityInput
                  label={`reading ${i + 1}`}
                  kind="length"
                  value={r.value}
                  onCommit={(v) =>
                    v === null
                      ? null
                      : put(`Reading: ${r.name}`, {
                          ...study,
                          readings: study.readings.map((x, k) => (k === i ? { ...x, value: v } : x)),
                        })
                  }
                />
              </td>
              <td className="n">
                <strong>{factor === null ? '' : formatLength(r.value * factor, units)}</strong>
              </td>
              <td>
                <Button
                  size="sm"
                  variant="quiet"
                  aria-label={`Take reading ${i + 1} away`}
                  onClick={() =>
                    put('Take a reading away', { ...study, readings: study.readings.filter((_, k) => k !== i) })
                  }
                >
                  ×
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <div className="acts">
        <Button
          size="sm"
          variant="quiet"
          onClick={() => put('Another reading', { ...study, readings: [...study.readings, { name: '', value: 0.01 }] })}
        >
          Another reading
        </Button>
        <Button size="sm" variant="quiet" onClick={() => put('No study', null)}>
          No study
        </Button>
      </div>
    </div>
  );
}

export default function Size() {
  return (
    <>
      <h3>Size</h3>
      <OtherSizes />
      <div className="mt-2">
        <Study />
      </div>
    </>
  );
}
