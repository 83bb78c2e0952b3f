import { stepData, type LogKind, type PlannedStep } from '../../core/plan';
import { parseLength, parseMass, parseNumber, parseTemperature, type UnitSystem, type Vec3 } from '../../core/quantity';

/** What is being written down, before it is an entry. */
export const logForms = [
  { id: 'weigh-in', name: 'Weigh' },
  { id: 'step', name: 'Step done' },
  { id: 'photo', name: 'Photo' },
  { id: 'note', name: 'Note' },
  { id: 'crack', name: 'Damage' },
  { id: 'repair', name: 'Mended' },
  { id: 'shrink-mark', name: 'Shrinkage' },
  { id: 'room', name: 'Room' },
  { id: 'used', name: 'Used up' },
] as const satisfies readonly { id: LogKind; name: string }[];
export type FormKind = (typeof logForms)[number]['id'];

export interface Draft {
  readonly kind: FormKind;
  readonly first: string;
  readonly second: string;
  readonly text: string;
  /** Chosen from a list: a step, a kind of damage, what was mended, an item. */
  readonly pick: string;
  readonly through: boolean;
  readonly at: Vec3 | null;
  readonly corrects: string | null;
}

export function emptyDraft(kind: FormKind, tare: string): Draft {
  return {
    kind,
    first: '',
    second: kind === 'weigh-in' ? tare : '',
    text: '',
    pick: kind === 'crack' ? 'crack' : '',
    through: false,
    at: null,
    corrects: null,
  };
}

export interface DraftLists {
  readonly steps: readonly PlannedStep[];
  readonly items: readonly { readonly item: string; readonly name: string; readonly unit: string }[];
  readonly damage: readonly { readonly id: string; readonly where: string }[];
}

type ReadDraft = { readonly data: Record<string, unknown> } | { readonly wrong: string };

/** Reads the draft into log data, or says what is wrong with it. */
export function readDraft(d: Draft, units: UnitSystem, lists: DraftLists): ReadDraft {
  switch (d.kind) {
    case 'note':
      return d.text.trim() === '' ? { wrong: 'Write something first.' } : { data: { text: d.text } };
    case 'weigh-in':
      return readWeighing(d, units);
    case 'crack':
      return readDamage(d, units);
    case 'repair':
      return readRepair(d, lists);
    case 'step':
      return readStep(d, lists);
    case 'room':
      return readRoom(d, units);
    case 'used':
      return readUsed(d, lists);
    case 'shrink-mark':
      return readMarks(d, units);
    case 'photo':
      return { data: { caption: d.text } };
  }
}

function readWeighing(d: Draft, units: UnitSystem): ReadDraft {
  const bare = units === 'imperial' ? 'lb' : 'kg';
  const gross = parseMass(d.first, bare),
    tare = parseMass(d.second === '' ? '0' : d.second, bare);
  if (!gross.ok) return { wrong: gross.message };
  if (!tare.ok) return { wrong: tare.message };
  if (gross.value < tare.value) return { wrong: 'The scale shows less than the tare: check both.' };
  if (gross.value > 5000 || tare.value < 0) return { wrong: 'That is no weight a bench holds.' };
  return { data: { gross: gross.value, tare: tare.value } };
}

function readDamage(d: Draft, units: UnitSystem): ReadDraft {
  const width = parseLength(d.first, units === 'imperial' ? 'in' : 'mm');
  if (!width.ok) return { wrong: width.message };
  if (d.text.trim() === '') return { wrong: 'Say where on the piece it is.' };
  if (!(width.value >= 0 && width.value <= 0.1)) return { wrong: 'A crack is at most 100 mm wide.' };
  return {
    data: {
      where: d.text.trim(),
      width: width.value,
      through: d.through,
      what: d.pick || 'crack',
      ...(d.at ? { at: d.at } : {}),
    },
  };
}

function readRepair(d: Draft, { damage }: DraftLists): ReadDraft {
  const of = damage.find((c) => c.id === d.pick);
  const where = of?.where ?? d.first.trim();
  if (where === '') return { wrong: 'Say what was mended, or where.' };
  return { data: { of: of?.id ?? null, where, how: d.text.trim() } };
}

function readStep(d: Draft, { steps }: DraftLists): ReadDraft {
  const step = steps.find((s) => s.id === d.pick);
  if (!step) return { wrong: 'Choose the step that is done.' };
  const took = d.first.trim() === '' ? null : parseNumber(d.first.replace(/\s*h(ours?)?$/i, ''));
  if (took !== null && !(took !== undefined && took > 0 && took <= 400))
    return { wrong: 'The hours it took are a number, such as 1.5.' };
  return { data: stepData(step, took ?? null) };
}

function readRoom(d: Draft, units: UnitSystem): ReadDraft {
  const temperature = parseTemperature(d.first, units === 'imperial' ? 'F' : 'C');
  if (!temperature.ok) return { wrong: temperature.message };
  const humidity = parseNumber(d.second.replace('%', ''));
  if (humidity === undefined || !(humidity >= 0 && humidity <= 100))
    return { wrong: 'The humidity is between 0 and 100 %.' };
  if (!(temperature.value >= -20 && temperature.value <= 70)) return { wrong: 'That is no temperature of a room.' };
  return { data: { temperature: temperature.value, relativeHumidity: humidity / 100 } };
}

function readUsed(d: Draft, { items }: DraftLists): ReadDraft {
  const item = items.find((i) => i.item === d.pick);
  if (!item) return { wrong: 'Choose what was used.' };
  const amount = parseNumber(d.first.replace(/\s*(kg|m|pieces|litres|m2)$/i, ''));
  if (amount === undefined || !(amount > 0 && amount <= 1e5)) return { wrong: `How much: a number of ${item.unit}.` };
  return { data: { item: item.item, name: item.name, amount, unit: item.unit } };
}

function readMarks(d: Draft, units: UnitSystem): ReadDraft {
  const bare = units === 'imperial' ? 'in' : 'mm';
  const laid = parseLength(d.first, bare),
    now = parseLength(d.second, bare);
  if (!laid.ok) return { wrong: laid.message };
  if (!now.ok) return { wrong: now.message };
  if (!(laid.value > 0 && now.value > 0 && now.value <= laid.value * 1.1))
    return { wrong: 'Marks come closer as clay dries: check both lengths.' };
  return { data: { laid: laid.value, now: now.value, where: d.text } };
}
