import { formatDuration } from '../quantity';
import type { Status } from '../piece';
import { finding, type Rule } from './finding';

/** Of the time its skin takes to set: it may be held a little before all of it has. Ours. */
const leastFirm = 0.7;

/** Off its form it shrinks freely: the sooner the better, once it can be held at all. */
export const liftOff: Rule = {
  id: 'lift',
  judge: ({ piece, report }) => {
    const { lifted } = report.laying;
    if (lifted === null || piece.clay.setting !== 'dries') return [];
    // Ears kept wrapped are carried by the rest: what counts is how firm most of the face is.
    const face = report.regions.reduce((sum, r) => sum + (r.windows.smooth.at === null ? 0 : r.area), 0);
    const firm = report.regions.reduce((sum, r) => sum + (r.windows.smooth.at ?? 0) * r.area, 0) / Math.max(1e-9, face);
    const late = report.regions.reduce((m, r) => Math.max(m, r.leatherHard ?? 0, r.touchDry ?? 0), 0);
    const tooLate = lifted > late,
      tooSoft = lifted < firm * leastFirm;
    const status: Status = tooLate || tooSoft ? 'watch' : 'sound';
    return [
      finding(
        'drying',
        'lift',
        status,
        'whole piece',
        tooLate
          ? `Lifted off ${formatDuration(lifted)} on, it is past leather-hard: most of the shrinking has been held.`
          : tooSoft
            ? `Lifted off ${formatDuration(lifted)} on, it is still too soft to keep its shape.`
            : `It comes off its form ${formatDuration(lifted)} after the clay goes on, and dries from both faces.`,
        `The skin is set enough to hold after about ${formatDuration(firm)}; leather-hard is over by ${formatDuration(late)}. A closed form is cut open along a seam for it, and the cut scored and slipped again.`,
        { measured: lifted / 86400, limit: late / 86400, unit: 'days' },
      ),
    ];
  },
};
