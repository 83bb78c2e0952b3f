import { failure, success, type Result } from '../quantity';

/** Takes a document of version `from` to `from + 1`. Pure; never edits what it was given. */
export interface Migration {
  readonly from: number;
  readonly up: (document: Record<string, unknown>) => Record<string, unknown>;
}

type Loose = Record<string, unknown>;

/** In order, one a version; each comes with a kept fixture. */
export const migrations: readonly Migration[] = [
  // Masses of one's own, and places and shapes set over made ones, stood at full scale; now they stand at life size.
  { from: 1, up: massesToLifeSize },
  // Two schools were catch-alls; each form now has the school it was really made by. Parameters kept their names.
  { from: 2, up: schoolsByName },
  // One cover and its hours became a list of covers; the list of stages said nothing, and now says how clay goes on and is handled.
  { from: 3, up: coversAndStages },
  // Until now a build said nothing of its plan: it takes what everyone begins with.
  { from: 4, up: (document) => ({ ...document, plan: {} }) },
  // What a clay's neighbours mind, how warmth softens it and what heat it stands hung on its name; now they are its own.
  { from: 5, up: claysTellThemselves },
  // Until now every size of an armature was as it was set.
  { from: 6, up: sizedByHand },
  // One pack and one price of wire served every clay and every stock; now each has its own.
  { from: 7, up: pricesOfTheirOwn },
  // Until now a build said of its mould only what it is made of.
  { from: 8, up: (document) => ({ ...document, mould: {} }) },
];

/** A pack that was written over is that of the clay there is; the price of wire had no place to be written. */
function pricesOfTheirOwn(document: Loose): Loose {
  const materials = document['materials'] as Loose | undefined;
  if (typeof materials !== 'object' || materials === null) return document;
  const { pack, wirePricePerMetre: _, ...rest } = materials;
  const { mass, price } = (typeof pack === 'object' && pack !== null ? pack : {}) as Loose;
  const brief = document['brief'] as Loose | undefined;
  const written = pack !== undefined && !(mass === 1 && price === 4.5);
  return {
    ...document,
    materials: written ? { packs: { [String(brief?.['clay'] ?? 'paper-clay')]: pack }, ...rest } : rest,
  };
}

function sizedByHand(document: Loose): Loose {
  const armature = document['armature'] as Loose | undefined;
  return typeof armature === 'object' && armature !== null
    ? { ...document, armature: { sizing: 'by-hand', ...armature } }
    : document;
}

const wornForms: Readonly<Record<string, string>> = { mask: 'head-form', 'worn-shell': 'shell' };

function schoolsByName(document: Loose): Loose {
  const armature = document['armature'] as Loose | undefined;
  const school = armature?.['school'] as Loose | undefined;
  const start = (document['form'] as { start?: { kind?: unknown } } | undefined)?.start?.kind;
  const kinds: Readonly<Record<string, string>> = {
    'limb-wire': 'wire-figure',
    'on-a-form': wornForms[String(start)] ?? 'object-core',
  };
  const kind = kinds[String(school?.['kind'])];
  return kind === undefined ? document : { ...document, armature: { ...armature, school: { ...school, kind } } };
}

function coversAndStages(document: Loose): Loose {
  const { stages: _, finish: __, ...rest } = document;
  const room = document['room'] as Loose | undefined;
  if (typeof room !== 'object' || room === null) return rest;
  const { cover, coverHours, ...air } = room;
  const covered = typeof cover === 'string' && cover !== 'none' && typeof coverHours === 'number' && coverHours > 0;
  return {
    ...rest,
    room: { ...air, covers: covered ? [{ kind: cover, from: 0, until: coverHours, regions: [] }] : [] },
  };
}

/** By what the names of version 5 said; a clay of one's own takes what its way of hardening suggested then. */
function claysTellThemselves(document: Loose): Loose {
  const materials = document['materials'] as Loose | undefined;
  const values = materials?.['values'] as Loose | undefined;
  const clays = values?.['clays'];
  if (typeof clays !== 'object' || clays === null) return document;
  const told = (id: string, clay: unknown): unknown => {
    if (typeof clay !== 'object' || clay === null) return clay;
    const { softens, standsTo, traits, recipe } =
      oldClays.get(id) ?? claysBySetting[String((clay as Loose)['setting'])] ?? {};
    return {
      ...clay,
      softens: softens ?? null,
      standsTo: standsTo ?? 150,
      traits: traits ?? [],
      ...(recipe ? { recipe } : {}),
    };
  };
  return {
    ...document,
    materials: {
      ...materials,
      values: { ...values, clays: Object.fromEntries(Object.entries(clays).map(([id, c]) => [id, told(id, c)])) },
    },
  };
}

interface OldClay {
  readonly softens?: number;
  readonly standsTo?: number;
  readonly traits?: readonly string[];
  readonly recipe?: string;
}

const waterBorne = ['damp', 'water-borne', 'goes-back'];
const oil = (standsTo: number, ...more: string[]): OldClay => ({ softens: 8, standsTo, traits: ['oil', ...more] });
const oldClays: ReadonlyMap<string, OldClay> = new Map<string, OldClay>([
  ['earthen-air-dry', { traits: waterBorne }],
  ['paper-clay', { traits: waterBorne, recipe: 'paper-clay' }],
  ['paper-strips', { traits: waterBorne }],
  ['foam-air-dry', { traits: ['damp', 'water-borne'], standsTo: 100 }],
  ['cold-porcelain', { traits: ['damp', 'water-borne'], standsTo: 80, recipe: 'cold-porcelain' }],
  ['epoxy-clay', { traits: ['amine', 'epoxy'], standsTo: 120 }],
  ['water-based', { traits: ['damp', 'kept-damp', 'water-borne', 'goes-back'] }],
  ['oven-polymer', { traits: ['raw-polymer'] }],
  ['oven-polymer-light', { traits: ['raw-polymer'] }],
  ['oil-soft', oil(40)],
  ['oil-medium', oil(45)],
  ['oil-firm', oil(50)],
  ['oil-soft-sulphur', oil(40, 'sulphur')],
  ['oil-medium-sulphur', oil(45, 'sulphur')],
  ['oil-firm-sulphur', oil(50, 'sulphur')],
]);
const claysBySetting: Readonly<Record<string, OldClay>> = {
  dries: { traits: waterBorne },
  damp: { traits: ['damp', 'kept-damp', 'water-borne', 'goes-back'] },
  sets: { traits: ['amine', 'epoxy'] },
  never: oil(45),
  bakes: { traits: ['raw-polymer'] },
};

function massesToLifeSize(document: Loose): Loose {
  const form = document['form'];
  if (typeof form !== 'object' || form === null) return document;
  const { start, edits, added } = form as { start?: { size?: unknown }; edits?: unknown; added?: unknown };
  const size = start?.size;
  if (typeof size !== 'number' || !(size > 0)) return document;
  const mass = (m: unknown): unknown => {
    if (typeof m !== 'object' || m === null) return m;
    const out: Loose = { ...m };
    for (const key of ['at', 'blend', 'shape']) if (key in out) out[key] = divided(out[key], size);
    return out;
  };
  const isRecord = typeof edits === 'object' && edits !== null;
  return {
    ...document,
    form: {
      ...form,
      ...(isRecord ? { edits: Object.fromEntries(Object.entries(edits).map(([id, e]) => [id, mass(e)])) } : {}),
      ...(Array.isArray(added) ? { added: added.map(mass) } : {}),
    },
  };
}

/** Every number in a place or a shape is a length. */
function divided(value: unknown, by: number): unknown {
  if (typeof value === 'number') return value / by;
  if (Array.isArray(value)) return value.map((v) => divided(v, by));
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, divided(v, by)]));
  return value;
}

export function migrate(
  document: Record<string, unknown>,
  from: number,
  to: number,
  steps: readonly Migration[] = migrations,
): Result<Record<string, unknown>> {
  let current = document;
  for (let version = from; version < to; version++) {
    const step = steps.find((s) => s.from === version);
    if (!step) return failure('no-migration', 'schemaVersion', `no way from version ${version} to ${version + 1}`);
    current = { ...step.up(current), schemaVersion: version + 1 };
  }
  return success(current);
}
