import type { Packs } from '../../../core/mould';
import { formatMass, type UnitSystem } from '../../../core/quantity';

/** Packs as they are asked for over a counter: "1 of 5 kg and 2 of 1 kg". */
export function packWords(packs: readonly Packs[], units: UnitSystem): string {
  return packs.map((p) => `${p.count} of ${formatMass(p.each, units)}`).join(' and ');
}
