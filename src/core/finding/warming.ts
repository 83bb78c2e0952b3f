import { formatDuration, formatLength } from '../quantity';
import { finding, type Rule } from './finding';

/** Oil-based clay is warmed before it is laid: how long, and whether it burns. */
export const warming: Rule = {
  id: 'warming',
  judge: ({ report, units }) => {
    const w = report.heat.warming;
    if (!w) return [];
    return [
      finding(
        'clay',
        'warming',
        w.burns ? 'watch' : 'sound',
        'whole piece',
        `To warm the clay takes ${formatDuration(w.time)}, in ${w.lumps} ${w.lumps === 1 ? 'lump' : 'lumps'}.`,
        w.governs === 'lump'
          ? `Heat takes that long to reach the middle of a lump; a stronger heater does not help, thinner lumps do.`
          : `The heater takes that long; lumps up to ${formatLength(w.usefulLump, units)} are warm through by then.`,
        { measured: w.time / 86400, limit: 1, unit: 'days' },
      ),
    ];
  },
};
