'use client';
import { situations } from '../../../core/document';
import { clayList } from '../../../core/catalogue';
import { resizeEdit } from '../../../core/finding';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, NumberAt, QuantityInput, TextAt } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';

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

export default function BriefStation() {
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
        <NumberAt label="Hours a week at it" path={['brief', 'hoursPerWeek']} kind="hours" />
      </div>
    </StationPanel>
  );
}
