import { regionName } from '../piece';
import { parameter } from './edits';
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
  propose: ({ piece, report }, found) => {
    const conflict = report.conflicts.find((c) => `getting-on/${c.id}` === found.id);
    if (!conflict || piece.face.solid || conflict.left !== piece.bulk.name) return [];
    // What is wrong with the filling under the clay a wrap between them may put right; which does is found by trying.
    return wraps
      .filter((w) => w.id !== piece.wrap.id)
      .map(({ id, label, note }) => ({ id: `wrap-${id}`, edit: parameter(label, { wrap: id }), note }));
  },
};

const wraps = [
  { id: 'tape', label: 'Wrap the core in paper tape', note: 'laps pressed down, no bare place left' },
  { id: 'twine', label: 'Wind twine round the core', note: 'turns a finger apart, the clay grips it' },
] as const;
