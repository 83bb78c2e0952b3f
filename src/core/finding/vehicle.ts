import { formatLength } from '../quantity';
import { carriedParts, itOrPart } from './carried';
import { finding, type Rule } from './finding';

/** It fits the vehicle standing up. */
export const vehicle: Rule = {
  id: 'vehicle',
  judge: ({ report, units }) => {
    const { carried } = carriedParts(report);
    const { vehicleName } = report.handling;
    if (vehicleName === null) return [];
    const stuck = carried.filter((c) => c.vehicle === false);
    return [
      finding(
        'move',
        'vehicle',
        stuck.length > 0 ? 'fails' : 'sound',
        stuck[0]?.name ?? 'whole piece',
        stuck[0]
          ? `${itOrPart(stuck[0].name)} does not fit the ${vehicleName} standing up.`
          : `${carried.length > 1 ? 'Every part fits' : 'It fits'} the ${vehicleName} standing up.`,
        `Each part is taken as a box, upright, turned either way, with ${formatLength(0.04, units)} free all round. Several parts may want several trips.`,
        { measured: stuck.length, limit: 0, unit: 'count' },
      ),
    ];
  },
};
