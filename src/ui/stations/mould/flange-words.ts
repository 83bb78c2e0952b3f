import type { Flange } from '../../../core/mould';
import { formatLength, formatMass, type UnitSystem } from '../../../core/quantity';

export function flangeWords(f: Flange, units: UnitSystem): string {
  return `Along it the walls turn out ${formatLength(f.width, units)}, ${formatLength(f.thickness, units)} thick on either side, with ${f.keys} keys ${formatLength(f.keyAcross, units)} across: ${formatMass(f.mass, units)} more, ${formatMass(f.toBuy, units)} to buy.`;
}
