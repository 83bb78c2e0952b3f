import type { Mass, MassRole } from '../../document';
import { subtract, type Vec3 } from '../../quantity';
import { measuresSchema, type MeasuresOf, type MeasureTable } from '../measure';
import type { Joint } from '../skeleton';
import { noTurn } from '../turn';

/** A line of proportion: a level across the form at full breadth, on the joint that carries it. Life size, unposed. */
export interface Landmark {
  readonly id: string;
  readonly name: string;
  readonly joint: string;
  readonly at: Vec3;
  /** Half its length to each side. */
  readonly half: number;
  /** Its name stands on the sculpture's own left. */
  readonly right?: boolean;
}

/** Bounds that masses of some joint, and wires there, should keep within: "wire loops wider than the skull". */
export interface Envelope {
  readonly id: string;
  readonly name: string;
  readonly joint: string;
  readonly low: Vec3;
  readonly high: Vec3;
}

/** What a start form makes, at life size and unposed; the left of a pair stands for both. */
export interface MadeForm {
  readonly joints: readonly Joint[];
  readonly masses: readonly Mass[];
  readonly landmarks: readonly Landmark[];
  readonly envelopes: readonly Envelope[];
}

export interface StartForm<T extends MeasureTable = MeasureTable> {
  readonly kind: string;
  /** Which making of this form it is; 1 where it was made once. A build keeps the one it was begun with. */
  readonly version: number;
  readonly name: string;
  /** What it is for, in a sentence. */
  readonly when: string;
  /** Height a newcomer would start with, as a share of life. */
  readonly usualSize: number;
  readonly measures: T;
  /** Made of many small masses: those of one region on one joint are counted as one. */
  readonly finelyMade?: boolean;
  /** Sets of measures to begin from, each with a name. */
  readonly types?: readonly FormType[];
  readonly make: (m: MeasuresOf<T>) => MadeForm;
}

/** A named set of measures; those it leaves out are the usual ones. */
export interface FormType {
  readonly id: string;
  readonly name: string;
  readonly measures: Readonly<Record<string, number | string | boolean>>;
}

/** Those that run softly into the rest first: what is merged late then reaches least far, and fine parts keep their edges. */
export function softestFirst(masses: readonly Mass[]): Mass[] {
  return [...masses].sort((a, b) => b.blend - a.blend);
}

/** A build's own measures with those of a type in their place; what no type speaks of stays. */
export function withTypeMeasures<V>(
  form: Pick<AnyStartForm, 'types'>,
  type: FormType,
  own: Readonly<Record<string, V>>,
): Record<string, V | number | string | boolean> {
  const spokenOf = new Set((form.types ?? []).flatMap((t) => Object.keys(t.measures)));
  return { ...Object.fromEntries(Object.entries(own).filter(([key]) => !spokenOf.has(key))), ...type.measures };
}

/** A start form with its measures' types put away, as the list of all of them holds it. */
export interface AnyStartForm extends Omit<StartForm, 'make'> {
  readonly schema: ReturnType<typeof measuresSchema>;
  readonly make: (m: never) => MadeForm;
}

export function startForm<T extends MeasureTable>(
  form: Omit<StartForm<T>, 'version'> & { readonly version?: number },
): AnyStartForm {
  return { version: 1, ...form, schema: measuresSchema(form.measures), make: form.make as (m: never) => MadeForm };
}

export function jointAt(id: string, name: string, parent: string | null, at: Vec3, ground = false): Joint {
  return { id, name, parent, at, ...(ground ? { ground } : {}) };
}

interface Common {
  readonly id: string;
  readonly name: string;
  readonly region: string;
  readonly joint: string;
  readonly blend: number;
  readonly turn?: Vec3;
  readonly role?: MassRole;
}

function common(c: Common, at: Vec3) {
  return {
    id: c.id,
    name: c.name,
    region: c.region,
    joint: c.joint,
    at: [...at] as [number, number, number],
    turn: [...(c.turn ?? noTurn)] as [number, number, number],
    blend: c.blend,
    ...(c.role ? { role: c.role } : {}),
  };
}

export function ball(c: Common, at: Vec3, radii: Vec3): Mass {
  return { ...common(c, at), shape: { kind: 'ellipsoid', radii: [...radii] as [number, number, number] } };
}

/** From one place to another, as thick as said at each end. */
export function limb(c: Common, from: Vec3, to: Vec3, radiusFrom: number, radiusTo: number): Mass {
  return {
    ...common(c, from),
    shape: { kind: 'round-cone', reach: [...subtract(to, from)] as [number, number, number], radiusFrom, radiusTo },
  };
}

export function block(c: Common, at: Vec3, half: Vec3, rounding: number): Mass {
  return { ...common(c, at), shape: { kind: 'rounded-box', half: [...half] as [number, number, number], rounding } };
}

export function drum(c: Common, at: Vec3, radius: number, half: number, rounding: number): Mass {
  return { ...common(c, at), shape: { kind: 'drum', radius, half, rounding } };
}

export function ring(c: Common, at: Vec3, radius: number, thickness: number): Mass {
  return { ...common(c, at), shape: { kind: 'ring', radius, thickness } };
}

export function shell(c: Common, at: Vec3, radii: Vec3, open: number): Mass {
  return { ...common(c, at), shape: { kind: 'shell', radii: [...radii] as [number, number, number], open } };
}
