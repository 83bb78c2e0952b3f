import type { CastUse } from '../../../core/document';
import type { CastInUse } from '../../../core/mould';
import { formatForce, formatMass, type Range, type UnitSystem } from '../../../core/quantity';

export const useNames: Readonly<Record<CastUse, string>> = {
  table: 'on a table or plinth',
  wall: 'on a wall',
  head: 'on a head, worn',
  shoulder: 'on a shoulder, worn',
  chest: 'on a chest, worn',
  back: 'on a back, worn',
  hand: 'on a hand, worn',
};

/** What a cast's weight does where it goes, and who lifts it. */
export function useWords({ use, status, worn, hook, people }: CastInUse, mass: Range, units: UnitSystem): string {
  const lifts =
    people === 1
      ? 'One lifts it.'
      : people === Infinity
        ? 'No hands lift it: a trolley or a hoist does.'
        : `${people} people lift it.`;
  if (worn) {
    const limits = `For long wear there it is watched from ${formatMass(worn.watchFrom, units)} and stops at ${formatMass(worn.failsFrom, units)}.`;
    const own = `${formatMass(mass.low, units)} to ${formatMass(mass.high, units)}`;
    return status === 'fails'
      ? `${own} is too much to wear for long. ${limits}`
      : status === 'watch'
        ? `${own} may be felt after a while. ${limits}`
        : `${own} is light enough to wear. ${limits}`;
  }
  if (hook !== null)
    return `Hung from two hooks, each rated for ${formatForce(hook, units)} or more, in what holds that: five times its share. Above people, local rules decide. ${lifts}`;
  return use === 'table' ? lifts : '';
}
