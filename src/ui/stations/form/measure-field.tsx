'use client';
import { startFormOf, wearersKeys, type Measure } from '../../../core/form';
import { useBench } from '../../bench/context';
import { ChoiceAt, NumberAt, YesNoAt } from '../../parts/fields';

/** A measure of the start form, as its kind is asked for. */
export function MeasureField({ name, measure }: { name: string; measure: Measure }) {
  const path = ['form', 'start', 'measures', name] as const;
  if (measure.kind === 'choice')
    return (
      <ChoiceAt
        label={measure.label}
        path={path}
        fallback={measure.start}
        choices={measure.options}
        hint={measure.hint}
      />
    );
  if (measure.kind === 'yes-no') return <YesNoAt label={measure.label} path={path} fallback={measure.start} />;
  const kind = ({ length: 'length', count: 'number', share: 'number', angle: 'angle' } as const)[measure.kind];
  return <NumberAt label={measure.label} path={path} kind={kind} fallback={measure.start} hint={measure.hint} />;
}

/** The wearer's measures, wherever they are asked for: those of the form, which the form is made to. */
export function WearersFields() {
  const start = useBench((s) => s.build.form.start);
  const measures = startFormOf(start)?.measures ?? {};
  const own = wearersKeys.flatMap((key) => (measures[key] ? [[key, measures[key]] as const] : []));
  if (own.length === 0) return null;
  return (
    <div className="pairs">
      {own.map(([key, measure]) => (
        <MeasureField key={key} name={key} measure={measure} />
      ))}
    </div>
  );
}
