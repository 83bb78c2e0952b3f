import { classSetOf } from '../../../tests/support/class-set';
import { changed } from '../../../tests/support/judged';
import { lamplighter } from '../../server/demo-builds';
import { asBriefed, Evaluator } from '../evaluate';
import type { Build } from '../document';
import type { LogEntry } from '../log';
import { workshopSchema } from '../plan';
import { waysToBeSooner, type Sooner } from '.';

/** Which ways there are to be ready sooner, by what is so already. */
const lamp = lamplighter('2026-12-01', '2026-12-24');
const evaluator = new Evaluator();
const surroundings = { workshop: workshopSchema.parse({ zone: 'UTC' }), paces: {}, others: [] };
const ways = (build: Build, log: readonly LogEntry[] = []): Sooner[] => {
  const question = { ...asBriefed(build), log };
  const options = { id: 'b', surroundings };
  const answer = evaluator.judge(question, { ...options, ranges: false });
  if (!answer.ok) throw new Error(answer.message);
  return [...waysToBeSooner(evaluator, question, answer.value, surroundings, options)].filter((w) => w !== null);
};
const ids = (build: Build, log?: readonly LogEntry[]) => ways(build, log).map((w) => w.id);

const covered = changed(lamp, {
  path: ['room', 'covers'],
  value: [{ kind: 'bagged', from: 0, until: 240, regions: [] }],
});

test('a bag over it for ten days: off is sooner; with a fan already, none is offered', () => {
  const found = ways(covered);
  expect(found.map((w) => w.id)).toContain('uncovered');
  const off = found.find((w) => w.id === 'uncovered')!;
  expect(off.gains).toBeGreaterThan(5 * 86400);
  expect(off.edit!.changes).toEqual([{ path: ['room', 'covers'], value: [] }]);
  expect(ids(changed(covered, { path: ['room', 'airSpeed'], value: 1.5 }))).not.toContain('fan');
  expect(ids(lamp)).not.toContain('uncovered');
});

test('only what is sooner by an hour or more is told, with how much, and each is one press', () => {
  for (const w of ways(covered)) {
    expect(w.gains).toBeGreaterThan(3600);
    expect(w.label).toMatch(/^[A-Z]/);
    expect(w.note).toMatch(/\.$/);
    if (w.id !== 'helper') expect(w.edit!.changes.length).toBeGreaterThan(0);
  }
});

test('another clay, thinner clay and the next coat are for clay that is not on yet', () => {
  const two = changed(
    covered,
    { path: ['regions', 'everywhere', 'coats'], value: [0.006, 0.006] },
    { path: ['regions', 'own'], value: {} },
  );
  const before = ids(two);
  expect(before.some((i) => i === 'thinner' || i === 'next-coat' || i.startsWith('clay/'))).toBe(true);
  const laid = {
    id: '5b0c8f8e-0d2c-4c3e-9a53-5b1f0f6f5a01',
    kind: 'step',
    at: '2026-12-01T09:30:00.000Z',
    data: { step: 'lay/chest/1', name: 'Lay', kind: 'clay', usual: 1, clay: 1 },
    corrects: null,
  } as unknown as LogEntry;
  // Laid in part is laid too.
  const part = { ...laid, kind: 'part', data: { step: 'lay/chest/1', name: 'Lay', kind: 'clay', worked: 0.5 } };
  for (const entry of [laid, part as unknown as LogEntry])
    expect(ids(two, [entry]).filter((i) => i === 'thinner' || i === 'next-coat' || i.startsWith('clay/'))).toEqual([]);
});

test('a class brings its own hands: no helper is offered it', () => {
  const set = changed(lamp, {
    path: ['plan', 'classSet'],
    value: classSetOf({ people: 12 }),
  });
  expect(ids(set)).not.toContain('helper');
});

test('what sets or never dries is not hurried by air', () => {
  for (const clay of ['epoxy-clay', 'oil-medium']) {
    const found = ids(changed(covered, { path: ['brief', 'clay'], value: clay }));
    expect(found.filter((i) => ['fan', 'uncovered'].includes(i) || i.startsWith('clay/'))).toEqual([]);
  }
});

test('with time to spare nothing is offered; where it only just may be late, it is', () => {
  const wanted = (deadline: string | null) => changed(covered, { path: ['brief', 'deadline'], value: deadline });
  expect(ids(wanted('2027-11-30'))).toEqual([]);
  expect(ids(wanted(null)).length).toBeGreaterThan(0);
  expect(ids(wanted('2026-12-20')).length).toBeGreaterThan(0);
});
