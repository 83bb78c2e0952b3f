'use client';
import { useId, useState, type ReactNode } from 'react';
import { Form } from 'react-bootstrap';
import type { Build, Change } from '../../core/document';
import {
  formatLength,
  formatMass,
  formatTemperature,
  parseLength,
  parseMass,
  parseNumber,
  parsePercent,
  parseTemperature,
  sensible,
  failure,
  success,
  type Result,
  type UnitSystem,
} from '../../core/quantity';
import { useBench, useController } from '../bench/context';

export type FieldKind = 'length' | 'mass' | 'temperature' | 'percent' | 'number' | 'speed' | 'hours' | 'angle';

export function readField(kind: FieldKind, text: string, units: UnitSystem): Result<number> {
  if (kind === 'length') return parseLength(text, units === 'imperial' ? 'in' : 'mm');
  if (kind === 'mass') return parseMass(text, units === 'imperial' ? 'lb' : 'kg');
  if (kind === 'temperature') return parseTemperature(text, units === 'imperial' ? 'F' : 'C');
  if (kind === 'percent') return parsePercent(text);
  const value = parseNumber(text.replace(/\s*(m\/s|h|hours?|°|deg|degrees?)\s*$/i, ''));
  return value === undefined ? failure('not-a-number', text, 'Type a number.') : success(value);
}

export function showField(kind: FieldKind, value: number, units: UnitSystem): string {
  if (kind === 'length') return formatLength(value, units);
  if (kind === 'mass') return formatMass(value, units);
  if (kind === 'temperature') return formatTemperature(value, units);
  if (kind === 'percent') return `${sensible(value * 100)} %`;
  if (kind === 'speed') return `${sensible(value)} m/s`;
  if (kind === 'angle') return `${sensible(value)}°`;
  if (kind === 'hours') return `${sensible(value)} h`;
  return sensible(value, 4);
}

/** Where a limit is broken, the schema's sentence with the figure people typed in their own units. */
const plainer = (message: string) =>
  message.replace(
    /^Too (small|big): expected number to be (.+)$/,
    (_, which: string, rest: string) =>
      `Too ${which === 'big' ? 'large' : 'small'}: it must be ${rest.replace('>=', 'at least ').replace('<=', 'at most ').replace('>', 'more than ').replace('<', 'less than ')}`,
  );

/** How a kind of quantity is bounded in words: the schema speaks SI, people do not. */
function inOwnUnits(kind: FieldKind, message: string, units: UnitSystem): string {
  return message.replace(
    /(>=?|<=?)(-?[\d.]+)/,
    (_, sign: string, figure: string) => `${sign}${showField(kind, Number(figure), units)}`,
  );
}

interface QuantityInputProps {
  readonly label: string;
  readonly value: number | null;
  readonly kind: FieldKind;
  readonly hint?: ReactNode;
  /** Empty is allowed and means none. */
  readonly optional?: boolean;
  readonly placeholder?: string;
  /** Returns a sentence when the value is refused. */
  readonly onCommit: (value: number | null) => string | null;
}

interface Typed {
  readonly text: string;
  readonly wrong: string | null;
  /** The figure in force when it was typed. */
  readonly beside: string;
}

/** A quantity people can type in any unit. A bad entry says why and the last good value stays in force. */
export function QuantityInput({ label, value, kind, hint, optional, placeholder, onCommit }: QuantityInputProps) {
  const units = useBench((s) => s.units);
  const id = useId();
  const shown = value === null ? '' : showField(kind, value, units);
  // Kept only until it is in force, so that nothing that was typed before can be put back by leaving the field.
  const [typed, setTyped] = useState<Typed | null>(null);
  // A figure that moves elsewhere does not take away what is being typed here, but what was refused beside another one.
  const own = typed?.wrong && typed.beside !== shown ? null : typed;
  const text = own?.text ?? shown,
    wrong = own?.wrong ?? null;
  const commit = () => {
    if (own === null || own.text.trim() === shown) {
      setTyped(null);
      return;
    }
    const empty = own.text.trim() === '' && optional;
    const read: Result<number | null> = empty ? success(null) : readField(kind, own.text, units);
    const message = read.ok ? onCommit(read.value) : read.message;
    const still = value === null ? '' : ` Still ${shown}.`;
    setTyped(
      message === null
        ? null
        : {
            text: own.text,
            wrong: `${plainer(inOwnUnits(kind, message, units))}.${still}`.replace('..', '.'),
            beside: shown,
          },
    );
  };
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <Form.Control
        id={id}
        size="sm"
        value={text}
        placeholder={placeholder}
        inputMode="text"
        autoComplete="off"
        aria-invalid={wrong !== null}
        aria-describedby={wrong ? `${id}-wrong` : hint ? `${id}-hint` : undefined}
        onChange={(e) => setTyped({ text: e.target.value, wrong, beside: shown })}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          if (e.key === 'Escape') setTyped(null);
        }}
      />
      {wrong && (
        <div className="wrong" id={`${id}-wrong`} role="alert">
          {wrong}
        </div>
      )}
      {hint && !wrong && (
        <div className="hint" id={`${id}-hint`}>
          {hint}
        </div>
      )}
    </div>
  );
}

export type Path = readonly (string | number)[];

export function valueAt(build: Build, path: Path): unknown {
  let at: unknown = build;
  for (const key of path) at = (at as Record<string, unknown> | undefined)?.[key];
  return at;
}

/** A quantity that stands at one place in the build. */
export function NumberAt({
  label,
  path,
  kind,
  hint,
  fallback,
  optional,
  placeholder,
  also,
}: {
  label: string;
  path: Path;
  kind: FieldKind;
  hint?: ReactNode;
  fallback?: number;
  optional?: boolean;
  placeholder?: string;
  also?: (value: number) => readonly Change[];
}) {
  const controller = useController();
  const value = useBench((s) => (valueAt(s.build, path) as number | null | undefined) ?? fallback ?? null);
  return (
    <QuantityInput
      label={label}
      value={value}
      kind={kind}
      hint={hint}
      optional={optional}
      placeholder={placeholder}
      onCommit={(next) => {
        const refused = controller.edit({
          label,
          changes: [{ path, value: next }, ...(next !== null && also ? also(next) : [])],
        });
        return refused?.message ?? null;
      }}
    />
  );
}

export interface Choice {
  readonly id: string;
  readonly name: string;
}

export function ChoiceAt({
  label,
  path,
  choices,
  fallback,
  hint,
  also,
}: {
  label: string;
  path: Path;
  choices: readonly Choice[];
  fallback?: string;
  hint?: ReactNode;
  also?: (id: string) => readonly Change[];
}) {
  const controller = useController();
  const value = useBench((s) => (valueAt(s.build, path) as string | undefined) ?? fallback ?? '');
  return (
    <ChoiceInput
      label={label}
      value={value}
      choices={choices}
      hint={hint}
      onChoose={(id) =>
        controller.edit({
          label: `${label}: ${choices.find((c) => c.id === id)?.name ?? id}`,
          changes: [{ path, value: id }, ...(also ? also(id) : [])],
        })?.message ?? null
      }
    />
  );
}

export function ChoiceInput({
  label,
  value,
  choices,
  hint,
  onChoose,
}: {
  label: string;
  value: string;
  choices: readonly Choice[];
  hint?: ReactNode;
  onChoose: (id: string) => string | null;
}) {
  const id = useId();
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <Form.Select id={id} size="sm" value={value} onChange={(e) => setWrong(onChoose(e.target.value))}>
        {choices.map((c) => (
          <option key={c.id} value={c.id}>
            {c.name}
          </option>
        ))}
      </Form.Select>
      {wrong && (
        <div className="wrong" role="alert">
          {wrong}
        </div>
      )}
      {hint && <div className="hint">{hint}</div>}
    </div>
  );
}

export function TextAt({ label, path, long, type }: { label: string; path: Path; long?: boolean; type?: 'date' }) {
  const controller = useController();
  const value = useBench((s) => (valueAt(s.build, path) as string | null | undefined) ?? '');
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? value;
  const [wrong, setWrong] = useState<string | null>(null);
  const id = useId();
  const commit = () => {
    setTyped(null);
    if (text === value) return;
    const refused = controller.edit({
      label,
      changes: [{ path, value: text === '' && type === 'date' ? null : text }],
    });
    setWrong(refused ? 'This cannot be used; the last one stays.' : null);
  };
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <Form.Control
        id={id}
        size="sm"
        value={text}
        {...(long ? { as: 'textarea' as const, rows: 3 } : {})}
        type={type ?? 'text'}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && !long) commit();
        }}
      />
      {wrong && (
        <div className="wrong" role="alert">
          {wrong}
        </div>
      )}
    </div>
  );
}

export function YesNoAt({ label, path, fallback }: { label: string; path: Path; fallback: boolean }) {
  const controller = useController();
  const value = useBench((s) => (valueAt(s.build, path) as boolean | undefined) ?? fallback);
  const id = useId();
  return (
    <div className="field">
      <span className="label" aria-hidden="true">
        &nbsp;
      </span>
      <Form.Check
        id={id}
        type="checkbox"
        label={label}
        checked={value}
        onChange={(e) =>
          controller.edit({
            label: `${label}: ${e.target.checked ? 'yes' : 'no'}`,
            changes: [{ path, value: e.target.checked }],
          })
        }
      />
    </div>
  );
}
