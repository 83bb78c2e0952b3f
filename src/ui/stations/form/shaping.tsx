'use client';
import { useMemo } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import {
  addMass,
  changeJoint,
  changeMass,
  changesOf,
  copyMass,
  jointChanges,
  mirrorOwn,
  newShapes,
  jointOfMesh,
  removeMass,
  resolveForm,
  rightOf,
  setApart,
  setJointApart,
  twinId,
  unpose,
  type Mass,
  type PosedJoint,
  type ResolvedForm,
} from '../../../core/form';
import type { BuildEdit } from '../../../core/document';
import type { Vec3 } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { QuantityInput } from '../../parts/fields';
import { LimbOfMesh } from './limb-of-mesh';

/** The named tree of joints and masses, and what is selected in it, by numbers. The piece view does the same by hand. */
export function useForm(): ResolvedForm | null {
  const build = useBench((s) => s.build);
  return useMemo(() => {
    const form = resolveForm(build);
    return form.ok ? form.value : null;
  }, [build]);
}

const axes = ['to its left', 'backward', 'up'] as const;
const aboutAxes = ['nod', 'lean', 'turn'] as const;
const alongAxes = ['across', 'deep', 'long'] as const;

function Three({
  labels,
  values,
  kind,
  onChange,
}: {
  labels: readonly string[];
  values: Vec3;
  kind: 'length' | 'angle' | 'percent';
  onChange: (v: [number, number, number]) => string | null;
}) {
  return (
    <div className="triplet">
      {labels.map((label, k) => (
        <QuantityInput
          key={label}
          label={label}
          kind={kind}
          value={values[k] ?? 0}
          onCommit={(v) => {
            if (v === null) return null;
            const next: [number, number, number] = [...values];
            next[k] = v;
            return onChange(next);
          }}
        />
      ))}
    </div>
  );
}

function MassPanel({ mass, form }: { mass: Mass; form: ResolvedForm }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const changes = changesOf(build, form, mass.id);
  const edit = (e: BuildEdit | null) => (e ? (controller.edit(e)?.message ?? null) : null);
  const change = (label: string, c: Parameters<typeof changeMass>[4]) =>
    edit(changeMass(build, form, mass.id, label, c));
  const own = build.form.added.find((m) => m.id === mass.id || (m.mirrored && twinId(m.id) === mass.id));
  const isTwin = form.twinOf.has(mass.id);
  const paired = isTwin || form.twinOf.has(twinId(mass.id)) || [...form.twinOf.values()].includes(mass.id);
  const apart = build.form.edits[twinId(form.twinOf.get(mass.id) ?? mass.id)]?.apart === true;
  const locked = changes.locked === true;
  return (
    <div className="shaping" aria-label={`Shaping the ${mass.name}`} role="group">
      <h4>{mass.name}</h4>
      {paired && (
        <p className="muted small">
          {apart
            ? 'Set apart from its other side.'
            : isTwin
              ? 'Reflects its left: a change here is made there.'
              : 'Its right reflects it.'}
        </p>
      )}
      {!locked && (
        <>
          <div className="label">Moved, at life size</div>
          <Three
            labels={axes}
            kind="length"
            values={changes.moved ?? [0, 0, 0]}
            onChange={(moved) => change(`Move the ${mass.name}`, { moved })}
          />
          <div className="label">Turned</div>
          <Three
            labels={aboutAxes}
            kind="angle"
            values={changes.turned ?? [0, 0, 0]}
            onChange={(turned) => change(`Turn the ${mass.name}`, { turned })}
          />
          <div className="label">Stretched, along its own axes</div>
          <Three
            labels={alongAxes}
            kind="percent"
            values={changes.stretched ?? [1, 1, 1]}
            onChange={(stretched) =>
              stretched.every((v) => v >= 0.05 && v <= 20)
                ? change(`Stretch the ${mass.name}`, { stretched })
                : 'It must be between 5 and 2000 %'
            }
          />
          <div className="pairs">
            <QuantityInput
              label="Melts into the others over"
              kind="length"
              value={mass.blend / form.size}
              onCommit={(v) =>
                v === null
                  ? null
                  : v < 0 || v > 1
                    ? 'It must be between nothing and a metre'
                    : change(`Blend the ${mass.name}`, { blend: v })
              }
            />
            <div className="field">
              <label htmlFor="mass-region">Dries with</label>
              <Form.Select
                id="mass-region"
                size="sm"
                value={mass.region}
                onChange={(e) =>
                  change(`${mass.name}: ${e.target.value}`, {
                    region: e.target.value === '+' ? mass.id.replace(/[^a-z0-9]+/g, '-').slice(0, 40) : e.target.value,
                  })
                }
              >
                {form.regions.map((r) => (
                  <option key={r} value={r}>
                    {r.replaceAll('-', ' ')}
                  </option>
                ))}
                <option value="+">a region of its own</option>
              </Form.Select>
            </div>
          </div>
        </>
      )}
      <div className="acts">
        <Button
          size="sm"
          variant="quiet"
          aria-pressed={locked}
          active={locked}
          onClick={() => change(`${locked ? 'Unlock' : 'Lock'} the ${mass.name}`, { locked: !locked })}
        >
          {locked ? 'Unlock' : 'Lock'}
        </Button>
        {!locked && (
          <>
            <Button
              size="sm"
              variant="quiet"
              onClick={() => {
                const made = copyMass(build, form, mass.id);
                if (made && !controller.edit(made.edit)) controller.select({ kind: 'mass', id: made.id });
              }}
            >
              Copy along the limb
            </Button>
            {paired && (
              <Button size="sm" variant="quiet" onClick={() => edit(setApart(build, form, mass.id, !apart))}>
                {apart ? 'Mirror again' : 'Set sides apart'}
              </Button>
            )}
            {own && !isTwin && (
              <Button size="sm" variant="quiet" onClick={() => edit(mirrorOwn(build, own.id, own.mirrored !== true))}>
                {own.mirrored ? 'Take twin away' : 'Mirror'}
              </Button>
            )}
            <Button
              size="sm"
              variant="quiet"
              onClick={() => {
                if (!controller.edit(removeMass(build, form, mass.id))) controller.select(null);
              }}
            >
              {own ? 'Take away' : 'Hide'}
            </Button>
          </>
        )}
      </div>
    </div>
  );
}

function JointPanel({ joint, form }: { joint: PosedJoint; form: ResolvedForm }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const changes = jointChanges(build, joint);
  const planted = build.form.planted === joint.id;
  // A stance that has its sides apart makes both: neither follows the other.
  const right = rightOf(form, joint);
  const apart = build.form.pose[right ?? twinId(joint.id)]?.apart === true;
  const ofMesh = jointOfMesh(build, joint.id);
  return (
    <div className="shaping" role="group" aria-label={`Posing the ${joint.name}`}>
      <h4>{joint.name}</h4>
      <p className="muted small">
        Everything beyond it follows.{joint.twinOf && !apart ? ' It reflects its left: a turn here is made there.' : ''}
      </p>
      <div className="label">Turned, on top of the stance</div>
      <Three
        labels={aboutAxes}
        kind="angle"
        values={changes.turned ?? [0, 0, 0]}
        onChange={(turned) =>
          turned.every((t) => Math.abs(t) <= 360)
            ? (controller.edit(changeJoint(build, joint, { turned }))?.message ?? null)
            : 'It must be within a full turn'
        }
      />
      {ofMesh ? (
        <LimbOfMesh of={ofMesh} joint={joint} form={form} />
      ) : (
        <>
          <div className="label">Moved, at life size</div>
          <Three
            labels={axes}
            kind="length"
            values={changes.moved ?? [0, 0, 0]}
            onChange={(moved) => controller.edit(changeJoint(build, joint, { moved }))?.message ?? null}
          />
        </>
      )}
      <div className="acts">
        <Button
          size="sm"
          variant="quiet"
          active={planted}
          aria-pressed={planted}
          onClick={() =>
            controller.edit({
              label: planted ? 'Nothing stays put' : `The ${joint.name} stays put`,
              changes: [{ path: ['form', 'planted'], value: planted ? null : joint.id }],
            })
          }
        >
          {planted ? 'Stays put' : 'Let it stay put'}
        </Button>
        {right !== null && (
          <Button size="sm" variant="quiet" onClick={() => controller.edit(setJointApart(build, form, joint, !apart))}>
            {apart ? 'Mirror again' : 'Pose sides apart'}
          </Button>
        )}
      </div>
    </div>
  );
}

/** Joints with what hangs on them, one level of indent a joint. */
function Tree({ form }: { form: ResolvedForm }) {
  const controller = useController();
  const selected = useBench((s) => s.selected);
  const build = useBench((s) => s.build);
  const loose = form.masses.filter((m) => m.joint === undefined);
  const touched = (id: string) => (build.form.edits[id] || build.form.pose[id] ? ' •' : '');
  const row = (kind: 'mass' | 'joint', id: string, name: string, depth: number) => {
    const on = selected?.kind === kind && selected.id === id;
    return (
      <li key={`${kind}/${id}`} style={{ paddingLeft: `${depth * 0.7}rem` }}>
        <button
          type="button"
          className={kind}
          aria-label={`${name}, ${kind}`}
          aria-pressed={on}
          onClick={() => controller.select(on ? null : { kind, id })}
        >
          <span aria-hidden="true">{kind === 'joint' ? '◦' : '●'}</span> {name}
          {touched(id)}
        </button>
      </li>
    );
  };
  const branch = (parent: string | null, depth: number): React.ReactNode[] =>
    form.skeleton.joints
      .filter((j) => j.parent === parent)
      .flatMap((j) => [
        row('joint', j.id, j.name, depth),
        // The parts of a mesh are taken hold of by their joints.
        ...form.masses.filter((m) => m.joint === j.id && !m.part).map((m) => row('mass', m.id, m.name, depth + 1)),
        ...branch(j.id, Math.min(depth + 1, 5)),
      ]);
  return (
    <ul className="tree" aria-label="Joints and masses">
      {branch(null, 0)}
      {loose.map((m) => row('mass', m.id, m.name, 0))}
    </ul>
  );
}

export default function Shaping() {
  const controller = useController();
  const form = useForm();
  const build = useBench((s) => s.build);
  const selected = useBench((s) => s.selected);
  if (!form) return null;
  const mass = selected?.kind === 'mass' ? form.masses.find((m) => m.id === selected.id) : undefined;
  const joint = selected?.kind === 'joint' ? form.skeleton.joints.find((j) => j.id === selected.id) : undefined;
  const posed = Object.keys(build.form.pose).length > 0 || build.form.planted !== null;
  return (
    <>
      <h3>Shaping</h3>
      <p className="muted small">
        Pick a mass or a joint here or on the piece. Arrow keys on the piece nudge what is picked.
      </p>
      <div className="acts mb-2">
        <Dropdown>
          <Dropdown.Toggle size="sm" variant="quiet" id="add-mass">
            Add a mass
          </Dropdown.Toggle>
          <Dropdown.Menu>
            {newShapes.map((s) => (
              <Dropdown.Item
                key={s.id}
                onClick={() => {
                  const made = addMass(build, form, s.id, mass?.id ?? null);
                  if (!controller.edit(made.edit)) controller.select({ kind: 'mass', id: made.id });
                }}
              >
                {s.name}
              </Dropdown.Item>
            ))}
          </Dropdown.Menu>
        </Dropdown>
        {posed && (
          <Button size="sm" variant="quiet" onClick={() => controller.edit(unpose())}>
            Back to the stance
          </Button>
        )}
        {form.hidden.map((h) => (
          <Button
            key={h.id}
            size="sm"
            variant="quiet"
            onClick={() => controller.edit(changeMass(build, form, h.id, `Show the ${h.name}`, { hidden: false }))}
          >
            Show the {h.name}
          </Button>
        ))}
      </div>
      {mass && <MassPanel mass={mass} form={form} />}
      {joint && <JointPanel joint={joint} form={form} />}
      <Tree form={form} />
    </>
  );
}
