import { formatMass, formatMoment, sensible, type UnitSystem } from '../quantity';
import { wornStatus } from '../load';
import { finding, type Rule } from './finding';

/** Worn, it is light enough for as long as it is worn. */
export const worn: Rule = {
  id: 'worn',
  judge: ({ report, units }) => {
    const { mount } = report;
    if (mount.kind !== 'worn') return [];
    const status = wornStatus(mount, mount);
    const weight = mount.ofCast
      ? `A cast of ${formatMass(mount.mass, units)}, ${formatMass(mount.most, units)} at most,`
      : formatMass(mount.mass, units);
    return [
      finding(
        'move',
        'worn',
        status,
        'wearer',
        status === 'sound'
          ? `${weight} is light enough to wear for ${sensible(mount.hours, 2)} h.`
          : status === 'watch'
            ? `${weight} is felt after a while: rest in the ${sensible(mount.hours, 2)} h.`
            : `${weight} is too much to wear for long.`,
        `For long wear there it is watched from ${formatMass(mount.watchFrom, units)} and stops at ${formatMass(mount.failsFrom, units)}. ${leverWords(mount.leverage, mount.towards, units)}`,
        {
          measured: status === 'watch' ? mount.most : mount.mass,
          limit: mount.failsFrom,
          unit: 'kg',
          cause: 'its weight on the body',
        },
      ),
    ];
  },
};

/** A twentieth of a newton metre is less than a hand's own weight does. */
export function leverWords(leverage: number, towards: string, units: UnitSystem): string {
  return leverage < 0.05
    ? 'Its weight lies over the middle of what it sits on.'
    : `Its centre of gravity pulls to the ${towards} with ${formatMoment(leverage, units)}.`;
}
