import { formatDate, secondsOf, sensible } from '../quantity';
import type { Status } from '../piece';
import { finding, type Rule } from './finding';
import { quicker } from './through-dry';

/** Ready by the day it is needed: the end of the plan, not of the drying. Sound when even the latest keeps it. */
export const deadline: Rule = {
  id: 'deadline',
  judge: ({ piece, dates }) => {
    const { deadline: due, startDate } = piece.build.brief;
    if (due === null) return [];
    const { ready } = dates;
    const days = (iso: string) => (secondsOf(iso) - secondsOf(startDate)) / 86400;
    const available = days(due);
    if (!ready)
      return [
        finding(
          'brief',
          'deadline',
          'fails',
          'whole piece',
          `It will not be ready by ${formatDate(due)}.`,
          dates.decides || 'There is no time for all of its steps.',
          { measured: Infinity, limit: available, unit: 'days' },
        ),
      ];
    const status: Status = ready.likely > due ? 'fails' : ready.latest > due ? 'watch' : 'sound';
    const knows =
      dates.weighings > 0 ? ` It knows of ${dates.weighings} weighing${dates.weighings === 1 ? '' : 's'}.` : '';
    return [
      finding(
        'brief',
        'deadline',
        status,
        'whole piece',
        status === 'fails'
          ? `Ready on ${formatDate(ready.likely)}: after the ${formatDate(due)} you need it.`
          : status === 'watch'
            ? `Likely ready on ${formatDate(ready.likely)}, but it may run past ${formatDate(due)}.`
            : ready.likely === due
              ? `Ready on ${formatDate(due)}, the day you need it.`
              : `Ready on ${formatDate(ready.likely)}, before ${formatDate(due)}.`,
        `Counted from ${formatDate(startDate)}, the day in the brief, there are ${sensible(available)} days. ${dates.decides}${knows}`,
        {
          measured: days(ready.likely),
          limit: available,
          unit: 'days',
          range: { low: days(ready.earliest), nominal: days(ready.likely), high: days(ready.latest) },
        },
      ),
    ];
  },
  propose: ({ piece, units }) => quicker(piece, units),
};
