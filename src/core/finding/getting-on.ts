import { regionName } from '../piece';
import { finding, type Rule } from './finding';
import { capitalised } from './words';

/** Materials that lie against each other, and what the piece goes through, get on. */
export const gettingOn: Rule = {
  id: 'getting-on',
  judge: ({ report }) =>
    report.conflicts.map((c) =>
      finding(
        'clay',
        `getting-on/${c.id}`,
        c.status,
        c.regions.length > 0 ? c.regions.map(regionName).join(', ') : 'whole piece',
        `${capitalised(c.left)} and ${c.right} do not get on: ${c.why}.`,
        `Instead: ${c.instead}.`,
        { measured: 1, limit: 0, unit: 'count' },
      ),
    ),
};
