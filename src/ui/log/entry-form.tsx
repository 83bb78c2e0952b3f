'use client';
import { useState } from 'react';
import dynamic from 'next/dynamic';
import { Button, Form } from 'react-bootstrap';
import type { DraftContext, DraftField, DraftValues, EntryKind } from '../../core/log';
import { formatWork, formatMass, type Vec3 } from '../../core/quantity';
import { useBench, useController } from '../bench/context';

const PieceView = dynamic(() => import('../bench/piece-view'), {
  ssr: false,
  loading: () => <p className="muted">Setting it on the turntable …</p>,
});

/** The fields of the kind of entry that is being written, drawn from what the kind says it asks for. */
interface Props {
  readonly kind: EntryKind;
  readonly values: DraftValues;
  readonly context: DraftContext;
  readonly places: readonly string[];
  readonly onChange: (values: DraftValues) => void;
  readonly onFile: (file: File | null) => void;
}

export function EntryFields(props: Props) {
  const { kind, values } = props;
  const shown = kind.fields.filter((f) => !f.when || f.when(values));
  const short = (f: DraftField) => ['mass', 'length', 'temperature', 'number'].includes(f.ask);
  // Two short fields stand side by side.
  const pairs = shown.filter(short);
  const side = pairs.length === 2 ? pairs : [];
  return (
    <>
      {side.length > 0 && (
        <div className="pairs">
          {side.map((f) => (
            <Field key={f.key} field={f} {...props} />
          ))}
        </div>
      )}
      {shown
        .filter((f) => !side.includes(f))
        .map((f) => (
          <Field key={f.key} field={f} {...props} />
        ))}
    </>
  );
}

function Field({ field, kind, values, context, places, onChange, onFile }: Props & { readonly field: DraftField }) {
  const id = `log-${field.key}`;
  const value = values[field.key];
  const set = (v: string | boolean | Vec3 | null) => onChange({ ...values, [field.key]: v });
  const text = typeof value === 'string' ? value : '';
  switch (field.ask) {
    case 'yes-no':
      return (
        <Form.Check
          id={id}
          type="checkbox"
          className="mb-2"
          label={field.label}
          checked={value === true}
          onChange={(e) => set(e.target.checked)}
        />
      );
    case 'spot':
      return <OnThePiece at={Array.isArray(value) ? (value as unknown as Vec3) : null} onChange={set} />;
    case 'picture':
      return (
        <div className="field">
          <label htmlFor={id}>{field.label}</label>
          <Form.Control
            id={id}
            className="big"
            type="file"
            accept="image/*"
            capture="environment"
            onChange={(e) => onFile((e.target as HTMLInputElement).files?.[0] ?? null)}
          />
        </div>
      );
    case 'choice':
      return (
        <div className="field">
          <label htmlFor={id}>{field.label}</label>
          <Form.Select id={id} className="big" value={text} onChange={(e) => set(e.target.value)}>
            {field.none !== undefined && <option value="">{field.none}</option>}
            {choicesOf(field, context).map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </Form.Select>
          {field.from === 'steps' && context.steps.length === 0 && <p className="muted small">Reading the plan …</p>}
        </div>
      );
    case 'lines':
      return (
        <div className="field">
          <label htmlFor={id}>{field.label}</label>
          <Form.Control
            id={id}
            as="textarea"
            rows={kind.fields.length > 1 ? 2 : 4}
            value={text}
            maxLength={field.most ?? 1000}
            onChange={(e) => set(e.target.value)}
          />
        </div>
      );
    default: {
      const words = field.ask === 'line' || field.ask === 'place';
      return (
        <div className="field">
          <label htmlFor={id}>{labelOf(field, values, context)}</label>
          <Form.Control
            id={id}
            className="big"
            autoComplete="off"
            inputMode={words ? 'text' : 'decimal'}
            value={text}
            placeholder={hintOf(field, values, context)}
            list={field.ask === 'place' ? 'log-places' : undefined}
            maxLength={field.most ?? 80}
            onChange={(e) => set(e.target.value)}
          />
          {field.ask === 'place' && (
            <datalist id="log-places">
              {places.map((p) => (
                <option key={p} value={p} />
              ))}
            </datalist>
          )}
        </div>
      );
    }
  }
}

function choicesOf(
  field: DraftField,
  context: DraftContext,
): readonly { readonly id: string; readonly name: string }[] {
  if (field.from === 'steps') return context.steps;
  if (field.from === 'items') return context.items.map((i) => ({ id: i.item, name: i.name }));
  if (field.from === 'damage') return context.damage.map((d) => ({ id: d.id, name: d.where }));
  return field.choices ?? [];
}

/** An amount says in what. */
function labelOf(field: DraftField, values: DraftValues, context: DraftContext): string {
  const item = context.items.find((i) => i.item === values['item']);
  return field.key === 'amount' && item ? `${field.label}, ${item.unit}` : field.label;
}

function hintOf(field: DraftField, values: DraftValues, context: DraftContext): string | undefined {
  if (field.key === 'tare') return formatMass(context.tare, context.units);
  const step = context.steps.find((s) => s.id === values['step']);
  if ((field.key === 'took' || field.key === 'left') && step) return `reckoned ${formatWork(step.hours)}`;
  return field.example?.[context.units];
}

/** The piece itself, to put a finger on the place. */
function OnThePiece({ at: kept, onChange }: { at: Vec3 | null; onChange: (at: Vec3 | null) => void }) {
  const controller = useController();
  const at = useBench((s) => s.damageAt);
  const [open, setOpen] = useState(false);
  const dark = typeof document !== 'undefined' && document.documentElement.dataset['theme'] === 'evening';
  const show = () => {
    controller.pickFor(open ? null : 'damage');
    if (!open) controller.setDamageAt(kept);
    setOpen(!open);
  };
  return (
    <div className="placing mb-2">
      <Button type="button" variant="quiet" className="big w-100" aria-expanded={open} onClick={show}>
        {open ? 'Put the piece away' : 'Show it on the piece'}
      </Button>
      {open && (
        <div className="placing-view">
          <PieceView dark={dark} shows="damage" />
        </div>
      )}
      {open && (
        <p className="small muted mb-1">
          {at ? 'Marked. Touch another place to move the mark.' : 'Touch the place on the piece.'}
        </p>
      )}
      {open && at && at !== kept && (
        <Button type="button" size="sm" variant="quiet" onClick={() => onChange(at)}>
          Take this place
        </Button>
      )}
      {kept && (
        <p className="small mb-0">
          The place on the piece is kept with it.{' '}
          <button
            type="button"
            className="btn btn-link btn-sm p-0"
            onClick={() => {
              controller.setDamageAt(null);
              onChange(null);
            }}
          >
            Without a place
          </button>
        </p>
      )}
    </div>
  );
}
