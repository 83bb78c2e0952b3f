import { formatLength, formatTemperature } from '../quantity';
import type { Status } from '../piece';
import { finding, type Rule } from './finding';
import { capitalised } from './words';

/** Oven clay is baked with everything that is in it: all of it stands the heat, and nothing sags meanwhile. */
export const baking: Rule = {
  id: 'baking',
  judge: ({ report, units }) => {
    const b = report.heat.baking;
    if (!b) return [];
    const status: Status = b.cannot.length > 0 ? 'fails' : b.thickestCoat > b.holdsInOven ? 'watch' : 'sound';
    const worst = b.cannot[0];
    return [
      finding(
        'clay',
        'baking',
        status,
        'whole piece',
        worst
          ? `It cannot be baked with ${worst.name} inside.`
          : status === 'watch'
            ? 'In the oven it sags before it sets.'
            : `Baked ${b.bakes.length === 1 ? 'once' : `${b.bakes.length} times`}, ${b.minutes} minutes in all.`,
        worst
          ? `${capitalised(worst.name)} stands ${formatTemperature(worst.standsTo, units)}, the oven is ${formatTemperature(b.temperature, units)}.`
          : `${formatTemperature(b.temperature, units)}, a quarter of an hour for each quarter inch of the thickest section. Soft in the oven, an upright face holds ${formatLength(b.holdsInOven, units)}; lay it on its back on wadding, or prop it.`,
        { measured: b.cannot.length, limit: 0, unit: 'count' },
      ),
    ];
  },
};
