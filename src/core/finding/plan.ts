import { planVerdict } from '../plan';
import { formatDate, secondsOf, isoDateOf } from '../quantity';
import { finding, type Rule } from './finding';

/** The plan holds: everything in its time, and done by the day it is wanted. */
export const plan: Rule = {
  id: 'plan',
  judge: ({ piece, plan: own, dates, now }) => {
    if (!own)
      return [
        finding(
          'plan',
          'plan',
          'fails',
          'whole piece',
          'No plan can be made.',
          'Steps of your own wait for each other in a ring: let one of them wait for nothing.',
          { measured: Infinity, limit: 0, unit: 'days' },
        ),
      ];
    const verdict = planVerdict(own, own.zone, now);
    const { startDate } = piece.build.brief;
    const days = dates.ready ? (secondsOf(dates.ready.likely) - secondsOf(startDate)) / 86400 : Infinity;
    const due = own.due === null ? Infinity : (own.due - secondsOf(startDate)) / 86400;
    // A start that has gone by with nothing in the log: the plan goes from today.
    const late =
      own.steps.every((s) => !s.done && !s.begun) && startDate < isoDateOf(now)
        ? ` The clay was to go on on ${formatDate(startDate)}; nothing is in the log yet, so it is planned from today.`
        : '';
    return [
      finding('plan', 'plan', verdict.status, 'whole piece', verdict.sentence, `${verdict.reason}${late}`.trim(), {
        measured: days,
        limit: due,
        unit: 'days',
      }),
    ];
  },
};
