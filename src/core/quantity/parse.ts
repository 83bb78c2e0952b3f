import { gaugeDiameter, type GaugeSystem } from './gauge';
import { failure, success, type Result } from './result';

export type LengthUnit = 'mm' | 'cm' | 'm' | 'in' | 'ft';
export type MassUnit = 'kg' | 'g' | 'lb' | 'oz';
export type TemperatureUnit = 'C' | 'F';

const metresPer: Record<LengthUnit, number> = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 };
const kilogramsPer: Record<MassUnit, number> = { kg: 1, g: 0.001, lb: 0.45359237, oz: 0.45359237 / 16 };

const vulgar: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
  '⅓': ' 1/3',
  '⅔': ' 2/3',
};

/** Longest text a quantity field looks at; anything longer is not a quantity. */
const longest = 60;

function tidy(text: string): string {
  let out = text.trim().toLowerCase();
  for (const [sign, plain] of Object.entries(vulgar)) out = out.replaceAll(sign, plain);
  return out.replace(/[′’]/g, "'").replace(/[″”“]/g, '"').replace(/\s+/g, ' ').trim();
}

/** "3", "2.5", "2,5", "3/16", "1 3/4", "1-3/4". Undefined when it is none of these. */
export function parseNumber(text: string): number | undefined {
  const t = text.trim();
  const mixed = /^([+-]?)(?:(\d{1,9})[ -])?(\d{1,9})\/(\d{1,9})$/.exec(t);
  if (mixed) {
    const below = Number(mixed[4]);
    if (below === 0) return undefined;
    const value = Number(mixed[2] ?? 0) + Number(mixed[3]) / below;
    return mixed[1] === '-' ? -value : value;
  }
  if (/^[+-]?(\d{1,12}([.,]\d{0,12})?|[.,]\d{1,12})$/.test(t)) return Number(t.replace(',', '.'));
  return undefined;
}

const lengthWords: Record<string, LengthUnit> = {
  mm: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  cm: 'cm',
  m: 'm',
  metre: 'm',
  metres: 'm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  ft: 'ft',
  foot: 'ft',
  feet: 'ft',
  "'": 'ft',
};
const massWords: Record<string, MassUnit> = {
  kg: 'kg',
  kilo: 'kg',
  kilos: 'kg',
  g: 'g',
  gram: 'g',
  grams: 'g',
  lb: 'lb',
  lbs: 'lb',
  pound: 'lb',
  pounds: 'lb',
  oz: 'oz',
  ounce: 'oz',
  ounces: 'oz',
};

/** Sum of "number unit" pieces, e.g. "1 lb 4 oz" or 5' 6 1/2". A bare number takes `bare`. */
function parseCompound<U extends string>(
  text: string,
  words: Record<string, U>,
  scale: Record<U, number>,
  bare: U,
  what: string,
): Result<number> {
  const t = tidy(text);
  const wanted = `Type a ${what} such as ${what === 'length' ? '12 mm, 3/16 in or 8 AWG' : '2.4 kg, 350 g or 1 lb 4 oz'}.`;
  if (t === '' || t.length > longest) return failure('not-a-quantity', text.slice(0, longest), wanted);
  const alone = parseNumber(t);
  if (alone !== undefined) return success(alone * scale[bare]);
  let total = 0;
  let rest = t;
  let pieces = 0;
  const piece = /^([+-]?[\d.,/ -]*\d[.,]?) ?([a-z]+|"|')\s*/;
  while (rest !== '') {
    const match = piece.exec(rest);
    const unit = match ? words[match[2] ?? ''] : undefined;
    const value = match ? parseNumber((match[1] ?? '').trim()) : undefined;
    if (!match || unit === undefined || value === undefined || (pieces > 0 && value < 0)) {
      return failure('not-a-quantity', text, wanted);
    }
    total += (total < 0 ? -value : value) * scale[unit];
    pieces += 1;
    rest = rest.slice(match[0].length);
  }
  return success(total);
}

/**
 * Length in metres from what people type: "12", "12 mm", "3/16 in", 1 3/4", 5' 6", "8 AWG", "SWG 8".
 * A bare number is in `bare` units. A gauge without its system fails with code `gauge-system-missing`.
 */
export function parseLength(text: string, bare: LengthUnit = 'mm'): Result<number> {
  const t = tidy(text);
  const gauge = /^(?:(awg|swg) ?(-?\d{1,2})|(-?\d{1,2}) ?(awg|swg))$/.exec(t);
  if (gauge) {
    const system = (gauge[1] ?? gauge[4] ?? '').toUpperCase() as GaugeSystem;
    const size = Number(gauge[2] ?? gauge[3]);
    const diameter = gaugeDiameter(system, size);
    if (diameter === undefined) return failure('no-such-gauge', text, `${system} has no size ${size}.`);
    return success(diameter);
  }
  if (/^-?\d{1,2} ?(ga|gauge|g\.)$|^(ga|gauge) ?-?\d{1,2}$/.test(t)) {
    return failure('gauge-system-missing', text, 'Which gauge? Write AWG or SWG after the number: they differ.');
  }
  return parseCompound(text, lengthWords, metresPer, bare, 'length');
}

/** Mass in kilograms: "2.4", "350 g", "1 lb 4 oz". */
export function parseMass(text: string, bare: MassUnit = 'kg'): Result<number> {
  return parseCompound(text, massWords, kilogramsPer, bare, 'weight');
}

/** Degrees Celsius from "20", "20 C", "68 F". */
export function parseTemperature(text: string, bare: TemperatureUnit = 'C'): Result<number> {
  const match = /^([+-]?[\d.,]+) ?°? ?(c|f)?$/.exec(tidy(text));
  const value = match ? parseNumber(match[1] ?? '') : undefined;
  if (value === undefined) return failure('not-a-quantity', text, 'Type a temperature such as 20 C or 68 F.');
  const unit = match?.[2]?.toUpperCase() ?? bare;
  return success(unit === 'F' ? ((value - 32) * 5) / 9 : value);
}

/** A share 0..1 from "50", "50 %" or "0.5 " when `asShare`; percent is what people type. */
export function parsePercent(text: string): Result<number> {
  const match = /^([+-]?[\d.,]+) ?%?$/.exec(tidy(text));
  const value = match ? parseNumber(match[1] ?? '') : undefined;
  if (value === undefined) return failure('not-a-quantity', text, 'Type a percentage such as 50.');
  return success(value / 100);
}
