'use client';
import { Form } from 'react-bootstrap';
import { finenesses, situations, type Build } from '../../../core/document';
import { gusts } from '../../../core/load';
import { personHoursWords } from '../../../core/plan';
import { formatSpeed } from '../../../core/quantity';
import { clayList } from '../../../core/catalogue';
import { resizeEdit } from '../../../core/finding';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, ChoiceInput, NumberAt, QuantityInput, TextAt } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';
import { NotesForNext } from '../../log/notes-for-next';

export function SizeField() {
  const controller = useController();
  const size = useBench((s) => s.build.form.start.size);
  return (
    <QuantityInput
      label="Size, of life"
      kind="percent"
      value={size}
      hint="The clay grows or thins with it; pipe and wire stay stock sizes."
      onCommit={(v) =>
        v === null || !(v >= 0.05 && v <= 5)
          ? 'It must be between 5 and 500 %.'
          : (controller.edit(resizeEdit(controller.state.build, v))?.message ?? null)
      }
    />
  );
}

/** In the open: the gust it must stand, in words or typed, and what holds it. */
function Outdoors() {
  const controller = useController();
  const outdoors = useBench((s) => s.build.brief.outdoors);
  const stands = useBench((s) => s.build.armature.mount.kind === 'stands');
  const units = useBench((s) => s.units);
  const set = (label: string, value: Build['brief']['outdoors']) =>
    controller.edit({ label, changes: [{ path: ['brief', 'outdoors'], value }] })?.message ?? null;
  const inWords = gusts.find((g) => g.speed === outdoors?.gust)?.id ?? 'own';
  return (
    <>
      <Form.Check
        id="outdoors"
        type="checkbox"
        className="mb-2"
        label="It stands or hangs outdoors"
        checked={outdoors !== null}
        onChange={(e) =>
          set(e.target.checked ? 'Outdoors' : 'Indoors', e.target.checked ? { gust: 25, held: 'weight' } : null)
        }
      />
      {outdoors && (
        <div className="pairs">
          <ChoiceInput
            label="It must stand"
            value={inWords}
            choices={[
              ...gusts.map((g) => ({ id: g.id, name: `${g.name}: ${formatSpeed(g.speed, units)}` })),
              ...(inWords === 'own' ? [{ id: 'own', name: `a gust of ${formatSpeed(outdoors.gust, units)}` }] : []),
            ]}
            onChoose={(id) =>
              set('Wind', { ...outdoors, gust: gusts.find((g) => g.id === id)?.speed ?? outdoors.gust })
            }
          />
          <NumberAt
            label="Or a gust of"
            path={['brief', 'outdoors', 'gust']}
            kind="speed"
            hint="metres a second, from 5 to 60"
          />
          {stands && (
            <ChoiceAt
              label="What holds it"
              path={['brief', 'outdoors', 'held']}
              choices={[
                { id: 'weight', name: 'its own weight' },
                { id: 'guyed', name: 'guys from the top' },
                { id: 'bolted', name: 'bolts through its base' },
              ]}
            />
          )}
        </div>
      )}
    </>
  );
}

export default function BriefStation() {
  const controller = useController();
  const own = useBench((s) => s.build.materials.values.clays);
  const choices = [...clayList, ...Object.values(own).filter((c) => !clayList.some((k) => k.id === c.id))];
  return (
    <StationPanel
      station="brief"
      title="What it is, and what it must keep to"
      how={
        <>
          <p>
            The limits you set here become findings: finished weight against the most you allow, the ready date with its
            range against the day you need it. The situation sets how much strength is kept in hand: 1.5 on the bench
            while it is made, 2 for a piece that travels, 3 for one that is worn or hangs above people.
          </p>
          <p className="mb-0">
            The date counts from the day the clay goes on; it does not include the hours of making the armature.
          </p>
        </>
      }
    >
      <h3>The piece</h3>
      <TextAt label="Name" path={['name']} />
      <div className="pairs">
        <SizeField />
        <ChoiceAt label="Clay" path={['brief', 'clay']} choices={choices.map((c) => ({ id: c.id, name: c.name }))} />
      </div>
      <ChoiceAt
        label="Once finished, it"
        path={['brief', 'situation']}
        choices={situations.map((s) => ({ id: s.id, name: s.name }))}
      />
      <ChoiceAt
        label="How fine it is to be"
        path={['plan', 'fineness']}
        choices={finenesses}
        hint="The hours of refining and detail go by it, until your own are learned from the log."
      />
      <Outdoors />
      <TextAt label="Notes" path={['brief', 'note']} long />
      <h3>Limits</h3>
      <div className="pairs">
        <NumberAt
          label="Finished, it may weigh"
          path={['brief', 'limits', 'weight']}
          kind="mass"
          optional
          placeholder="no limit"
        />
        <NumberAt
          label="It must not tip before"
          path={['brief', 'limits', 'tipAngle']}
          kind="number"
          hint="degrees of lean"
        />
        <TextAt label="Clay goes on" path={['brief', 'startDate']} type="date" />
        <TextAt label="Needed by" path={['brief', 'deadline']} type="date" />
        <NumberAt
          label="Crack index up to"
          path={['brief', 'limits', 'crack']}
          kind="number"
          hint="1 is where cracks turn likely"
        />
        <Hours />
      </div>
      <NotesForNext buildId={controller.id} />
    </StationPanel>
  );
}

/** Hours are said once, for every piece: until somebody has said when they work, a number of hours a week stands in. */
function Hours() {
  const people = useBench((s) => s.report?.workshop?.people);
  const named = (people ?? []).filter((p) => p.id !== 'me' && !p.id.includes('-group-'));
  const controller = useController();
  if (named.length === 0)
    return (
      <NumberAt
        label="Hours a week at it"
        path={['brief', 'hoursPerWeek']}
        kind="hours"
        hint="until the workshop’s hours are said, on Plan"
      />
    );
  return (
    <div className="field">
      <span className="label">Hours</span>
      {named.map((p) => (
        <div key={p.id} className="small">
          {p.name}: {personHoursWords(p)}
        </div>
      ))}
      <div className="hint">
        For all pieces, said on{' '}
        <a
          href={`/build/${controller.id}?station=plan`}
          onClick={(e) => {
            e.preventDefault();
            controller.go('plan');
          }}
        >
          Plan
        </a>
        .
      </div>
    </div>
  );
}
