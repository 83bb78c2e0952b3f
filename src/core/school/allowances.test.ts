import { formFor, setOutWell, under } from '../../../tests/support/set-out';
import { pathLength, type Member } from '../armature';
import { stocks } from '../catalogue';

/** What is added to a cut, as each school's own words have it: a tail too short slips out of its clamp. */
/** Metres across one strand. */
function across(m: Pick<Member, 'stock' | 'size'>): number {
  const { section } = stocks.get(m.stock)!.sizes.find((s) => s.id === m.size)!;
  return 'diameter' in section ? section.diameter : section.width;
}

type Wanted = readonly (readonly [what: string, wanted: (m: Member) => number])[];
const tables: Readonly<Record<string, Wanted>> = {
  stuffed: [
    ['two tails under the hose clamps', () => 2 * 0.085],
    ['end loop', (m) => 10 * across(m)],
    ['twisting the strands, three turns', (m) => 3 * 8 * across(m)],
    // The girth of the half-inch pipe it stands on.
    ['one turn round the pipe', () => Math.PI * across({ stock: 'steel-pipe', size: '1-2' })],
    ['thread into the flange', () => 0.013],
  ],
  'wire-figure': [
    ['bound along the other wire', (m) => 12 * across(m)],
    ['end loop', (m) => 6 * across(m)],
    ['twisting the strands', (m) => 0.03 * pathLength(m.path)],
  ],
  jointed: [
    ['twisting the strands', (m) => 0.03 * pathLength(m.path)],
    ['end loop', (m) => 6 * across(m)],
    ['round the nut in the foot', (m) => 16 * across(m)],
  ],
  branching: [
    ['end loop', (m) => 6 * across(m)],
    ['glued into the post', (m) => 6 * across(m)],
    ['laid round the bundle', (m) => 0.04 * pathLength(m.path)],
  ],
  'board-foam-mesh': [
    ['lap at the board', () => 0.1],
    ['overlap, bound', () => 0.06],
    ['turned over at both ends', () => 0.08],
  ],
  'bent-pipe': [['threads into two fittings', () => 2 * 0.013]],
};

describe.each(Object.entries(tables))('%s', (kind, wanted) => {
  const wired = kind === 'wire-figure';
  const build = formFor(kind, wired ? 'figure' : undefined);
  const { members } = setOutWell(under(build, kind, wired ? { strands: 2 } : {})).armature;

  test.each(wanted)('%s', (what, length) => {
    const having = members.filter((m) => m.allowances.some((a) => a.what === what));
    expect(having.length).toBeGreaterThan(0);
    for (const m of having) {
      const found = m.allowances.find((a) => a.what === what)!.length;
      // A way laid round a bundle is measured along its straight parts.
      expect(found / length(m)).toBeGreaterThan(0.98);
      expect(found / length(m)).toBeLessThan(1.02);
    }
  });
});
