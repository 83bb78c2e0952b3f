import { formatLength } from '../quantity';
import type { CarriedReport } from '../piece';
import { carriedParts, itOrPart } from './carried';
import { finding, type Rule } from './finding';

/** It goes through the door, whole or in its parts. */
export const door: Rule = {
  id: 'door',
  judge: ({ piece, report, units }) => {
    const { carried } = carriedParts(report);

    const { doorWidth, doorHeight } = piece.build.brief.travel;
    const stuck = carried.filter((c) => !c.door);
    const first = stuck[0];
    const size = (c: CarriedReport) =>
      `${formatLength(c.size.width, units)} across, ${formatLength(c.size.depth, units)} deep and ${formatLength(c.size.height, units)} high`;
    const shown =
      first ??
      carried.reduce((w, c) => (Math.max(c.size.width, c.size.height) > Math.max(w.size.width, w.size.height) ? c : w));
    return [
      finding(
        'move',
        'door',
        stuck.length > 0 ? 'fails' : 'sound',
        shown.name,
        first
          ? `${itOrPart(first.name)} does not go through the door.`
          : `${carried.length > 1 ? 'Every part' : 'It'} goes through the door.`,
        `${shown.name === 'whole piece' ? 'It' : `"${shown.name}"`} is ${size(shown)}${shown.name === 'whole piece' && carried.length === 1 ? ', on its board where it stands on one' : ''}; the door is ${formatLength(doorWidth, units)} by ${formatLength(doorHeight, units)}, and ${formatLength(0.03, units)} is kept free.`,
        { measured: stuck.length, limit: 0, unit: 'count' },
      ),
    ];
  },
};
