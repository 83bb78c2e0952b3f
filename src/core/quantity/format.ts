import { compared } from './range';

export type UnitSystem = 'metric' | 'imperial';

/**
 * A number to about three significant figures, without trailing noise. What lies on the edge between two figures but for
 * its last bits is told as the same one on every machine.
 */
export function sensible(exact: number, figures = 3): string {
  if (!Number.isFinite(exact)) return '–';
  const value = compared(exact);
  if (value === 0) return '0';
  const decimals = Math.max(0, Math.min(6, figures - 1 - Math.floor(Math.log10(Math.abs(value)))));
  const text = value.toFixed(decimals);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

/** Inches as a mixed fraction to the nearest `parts`-th: 1 3/16. */
export function fractionOfInch(metres: number, parts = 16): string {
  const sign = metres < 0 ? '-' : '';
  const total = Math.round(compared((Math.abs(metres) / 0.0254) * parts));
  const whole = Math.floor(total / parts);
  let above = total % parts;
  let below = parts;
  while (above > 0 && above % 2 === 0) {
    above /= 2;
    below /= 2;
  }
  if (above === 0) return `${sign}${whole}`;
  return `${sign}${whole > 0 ? `${whole} ` : ''}${above}/${below}`;
}

/** Length for reading: mm below a metre, m above; inches as fractions. */
export function formatLength(metres: number, system: UnitSystem = 'metric'): string {
  if (!Number.isFinite(metres)) return '–';
  if (system === 'imperial') {
    const small = Math.abs(metres) < 0.05;
    return `${fractionOfInch(metres, small ? 64 : 16)} in`;
  }
  if (Math.abs(metres) >= 1) return `${sensible(metres)} m`;
  return `${sensible(metres * 1000, Math.abs(metres) < 0.01 ? 2 : 3)} mm`;
}

/** Width, depth and height, or the like, in one unit. */
export function formatSize(metres: readonly number[], system: UnitSystem = 'metric'): string {
  if (system === 'imperial') return metres.map((v) => formatLength(v, system)).join(' x ');
  const large = metres.some((v) => v >= 1);
  return `${metres.map((v) => sensible(large ? v : v * 1000, 3)).join(' x ')} ${large ? 'm' : 'mm'}`;
}

export function formatMass(kilograms: number, system: UnitSystem = 'metric'): string {
  if (!Number.isFinite(kilograms)) return '–';
  if (system === 'imperial') {
    const ounces = kilograms / 0.028349523125;
    if (Math.abs(ounces) < 16) return `${sensible(ounces)} oz`;
    // A bench scale shows tenths of an ounce on small things, whole ounces on large ones.
    const parts = Math.abs(ounces) < 80 ? 10 : 1;
    const tenths = Math.round(compared(ounces * parts));
    const pounds = Math.trunc(tenths / (16 * parts));
    const rest = Math.abs(tenths - pounds * 16 * parts) / parts;
    return rest === 0 ? `${pounds} lb` : `${pounds} lb ${rest} oz`;
  }
  if (Math.abs(kilograms) < 1) return `${sensible(kilograms * 1000)} g`;
  return `${sensible(kilograms)} kg`;
}

/** As it was weighed, to the gram or a tenth of an ounce: what is read off a scale is not rounded for reading. */
export function formatExactMass(kilograms: number, system: UnitSystem = 'metric'): string {
  if (!Number.isFinite(kilograms)) return '–';
  if (system === 'imperial') {
    const tenths = Math.round(compared((kilograms / 0.028349523125) * 10));
    const pounds = Math.trunc(tenths / 160);
    const rest = Math.abs(tenths - pounds * 160) / 10;
    return pounds === 0 ? `${rest} oz` : rest === 0 ? `${pounds} lb` : `${pounds} lb ${rest} oz`;
  }
  const grams = Math.round(kilograms * 1e4) / 10;
  return Math.abs(grams) < 1000 ? `${grams} g` : `${Math.round(kilograms * 1e4) / 1e4} kg`;
}

export function formatTemperature(celsius: number, system: UnitSystem = 'metric'): string {
  return system === 'imperial' ? `${sensible((celsius * 9) / 5 + 32)} °F` : `${sensible(celsius)} °C`;
}

export function formatVolume(cubicMetres: number, system: UnitSystem = 'metric'): string {
  return system === 'imperial' ? `${sensible(cubicMetres / 1.6387064e-5)} cu in` : `${sensible(cubicMetres * 1000)} l`;
}

export function formatForce(newtons: number, system: UnitSystem = 'metric'): string {
  return system === 'imperial' ? `${sensible(newtons / 4.4482216)} lbf` : `${sensible(newtons)} N`;
}

/** Of what a material bears: megapascals, or pounds on a square inch. */
export function formatStress(pascals: number, system: UnitSystem = 'metric'): string {
  return system === 'imperial' ? `${sensible(pascals / 6894.757, 2)} psi` : `${sensible(pascals / 1e6, 2)} MPa`;
}

/** Of wind: metres a second, or miles an hour. */
export function formatSpeed(metresASecond: number, system: UnitSystem = 'metric'): string {
  return system === 'imperial' ? `${sensible(metresASecond / 0.44704)} mph` : `${sensible(metresASecond)} m/s`;
}

export function formatArea(squareMetres: number, system: UnitSystem = 'metric'): string {
  return system === 'imperial' ? `${sensible(squareMetres / 0.09290304)} sq ft` : `${sensible(squareMetres)} m²`;
}

/** In the currency its prices are in, two places under a hundred. */
export function formatMoney(amount: number, currency: string): string {
  return `${amount < 100 ? amount.toFixed(2) : String(Math.round(amount))} ${currency}`;
}

/** What bends or turns: newton metres, or pounds at a foot. */
export function formatMoment(newtonMetres: number, system: UnitSystem = 'metric'): string {
  return system === 'imperial' ? `${sensible(newtonMetres / 1.3558179, 2)} lbf ft` : `${sensible(newtonMetres, 2)} Nm`;
}

/** Hours under two days, nights above. */
export function formatDuration(seconds: number): string {
  if (!Number.isFinite(seconds)) return '–';
  const hours = seconds / 3600;
  if (hours < 1) return `${Math.round(hours * 60)} min`;
  if (hours < 48) return `${sensible(hours, 2)} h`;
  return `${sensible(hours / 24, hours < 240 ? 2 : 3)} days`;
}

/** Hours at the bench: a day of work has no length of its own, so that they are never told in days. */
export function formatWork(hours: number): string {
  if (!Number.isFinite(hours)) return '–';
  return hours < 1 ? `${Math.round(hours * 60)} min` : `${sensible(hours, hours < 100 ? 2 : 3)} h`;
}

/** Nights the piece must stand: whole evenings to mornings. */
export function nightsOf(seconds: number): number {
  return Math.ceil(seconds / 86400 - 1e-9);
}

export function formatDegrees(degrees: number): string {
  return `${sensible(degrees, 2)}°`;
}
