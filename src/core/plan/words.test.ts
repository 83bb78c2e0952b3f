import { clashSentence, dayWords, decidingSentence, planVerdict, timeWords, whenWords } from '.';
import type { BuildPlan, Link, PlannedStep } from '.';

const day = 86400,
  hour = 3600;
const noon = (d: number) => Date.parse(`2026-12-${String(d).padStart(2, '0')}T12:00:00Z`) / 1000;
const now = noon(1);

const step = (id: string, more: Partial<PlannedStep> = {}): PlannedStep =>
  ({
    id,
    name: `Do ${id}`,
    from: noon(3),
    until: noon(3) + hour,
    done: false,
    clashes: [],
    missed: 1,
    takes: 1,
    ...more,
  }) as never;
const plan = (more: Partial<BuildPlan> = {}): BuildPlan =>
  ({
    id: 'b',
    steps: [step('lay')],
    finish: { low: noon(8), nominal: noon(9), high: noon(11) },
    due: null,
    beginBy: null,
    deciding: [],
    zone: 'UTC',
    ...more,
  }) as never;
const said = (more: Partial<BuildPlan>) => planVerdict(plan(more), 'UTC', now);
/** The end of a day in December. */
const endOf = (d: number) => noon(d) + 12 * hour;

describe('the verdict', () => {
  test('nothing to plan, everything done, no time for it', () => {
    expect(said({ steps: [] })).toMatchObject({ status: 'unknown' });
    expect(said({ steps: [step('lay', { done: true })] })).toMatchObject({
      status: 'sound',
      sentence: 'Every step is done.',
    });
    expect(said({ finish: { low: noon(8), nominal: Infinity, high: Infinity } })).toMatchObject({ status: 'fails' });
  });

  test('without a deadline: the day, and its range where it has one', () => {
    expect(said({})).toEqual({
      status: 'sound',
      sentence: 'Ready on Wed 9 Dec.',
      reason: 'No deadline is set. It may be any day from Tue 8 Dec to Fri 11 Dec.',
    });
    expect(said({ finish: { low: noon(9), nominal: noon(9), high: noon(9) + hour } }).reason).toBe(
      'No deadline is set.',
    );
  });

  test.each([
    [11, 'sound', 'In time, with 2 days to spare: ready on Wed 9 Dec, wanted on Fri 11 Dec.'],
    [10, 'watch', 'Ready on Wed 9 Dec, wanted on Thu 10 Dec; if all goes slowly, not before Fri 11 Dec.'],
    [8, 'fails', 'A day late: ready on Wed 9 Dec, wanted on Tue 8 Dec.'],
    [6, 'fails', '3 days late: ready on Wed 9 Dec, wanted on Sun 6 Dec.'],
  ] as const)('wanted on the %d December: %s', (due, status, sentence) => {
    expect(said({ due: endOf(due) })).toMatchObject({ status, sentence });
  });

  test('ready on the day it is wanted is in time, with nothing to spare', () => {
    expect(said({ due: endOf(9), finish: { low: noon(9), nominal: noon(9), high: noon(9) } }).sentence).toBe(
      'In time: ready on Wed 9 Dec, wanted on Wed 9 Dec.',
    );
  });

  test('how long the next step can wait; when it should have been begun', () => {
    expect(said({ due: endOf(15), beginBy: noon(4) }).reason).toMatch(/can wait until Fri 4 Dec, 12:00/);
    expect(said({ due: endOf(6), beginBy: noon(1) - 2 * day }).reason).toMatch(/had to be begun on Sun 29 Nov/);
  });

  test('a step that breaks something is watched; a window that closes spoils the piece', () => {
    const clash = { kind: 'person', task: 'b:lay', other: 'b:smooth', by: hour } as const;
    expect(said({ steps: [step('lay', { clashes: [clash] })] })).toMatchObject({ status: 'watch' });
    const window = { kind: 'window', task: 'b:lift', other: 'b:lay', by: 5 * hour } as const;
    const late = said({ steps: [step('lay'), step('lift', { clashes: [window], from: noon(3) })], due: endOf(20) });
    expect(late.status).toBe('fails');
    expect(late.sentence).toBe('Nobody is there in time: “Do lift” has to be begun by Thu 3 Dec, 07:00.');
    expect(late.reason).toMatch(/comes 5 h after the last moment for it, counted from “Do lay”/);
    const gone = said({ steps: [step('lift', { clashes: [window], from: now + hour })] });
    expect(gone.sentence).toBe('Too late: “Do lift” had to be begun by Tue 1 Dec, 08:00.');
    // Of two that are missed the one that closed first is named, whichever is done first now.
    const cover = { ...window, task: 'b:uncover', by: 2 * hour };
    const both = [
      step('uncover', { clashes: [cover], from: now }),
      step('lift', { clashes: [window], from: now + hour }),
    ];
    expect(said({ steps: both }).sentence).toBe(gone.sentence);
    expect(said({ steps: [step('lift', { clashes: [cover, window], from: now + hour })] })).toMatchObject({
      sentence: gone.sentence,
      reason: expect.stringMatching(/comes 5 h after/),
    });
    // What is hardly missed does not spoil it.
    expect(said({ steps: [step('smooth', { clashes: [window], missed: 0.7 })] }).status).toBe('watch');
  });
});

test.each([
  ['too-soon', /^2 h too soon after “Do lay”/],
  ['person', /same hands are busy with “Do lay”/],
  ['tool', /in use for “Do lay”/],
  ['hold', /Every place to hold it by is wet, since “Do lay”/],
  ['hours', /outside the hours/],
  ['one-sitting', /No sitting is long enough/],
  ['never', /no time for it/],
] as const)('a clash of the kind %s is told with what would help', (kind, words) => {
  expect(clashSentence(plan(), { kind, task: 'b:x', other: 'b:lay', by: 2 * hour })).toMatch(words);
});

test('work of another piece is not named as though it were of this one', () => {
  expect(clashSentence(plan(), { kind: 'person', task: 'b:x', other: 'c:refine', by: hour })).toMatch(/other work/);
  expect(clashSentence(plan(), { kind: 'hold', task: 'b:x', other: '', by: 0 })).toMatch(/no place to hold it by/);
});

describe('what decides the date', () => {
  const link = (task: string, by: Link['by'], waited: number, more: Partial<Link> = {}): Link => ({
    task,
    by,
    other: null,
    waited: waited * hour,
    idle: 0,
    why: '',
    ...more,
  });
  const steps = [step('lay', { takes: 2 }), step('refine', { takes: 3 }), step('sand', { takes: 1 })];
  const sentence = (deciding: readonly Link[]) => decidingSentence(plan({ steps, deciding }));

  test('its two longest waits in their order, its work, and hands elsewhere', () => {
    expect(
      sentence([
        link('b:lay', 'start', 0),
        link('c:other', 'person', 0),
        link('b:refine', 'wait', 60, { why: 'the head is dry through', other: 'b:lay' }),
        link('b:sand', 'wait', 24, { why: 'the mends are dry', other: 'b:refine' }),
      ]),
    ).toBe(
      'What decides the date: 2.5 days until the head is dry through, 24 h until the mends are dry, 6 h of work in 3 steps one after another and hands that are at another piece first.',
    );
  });

  test('nobody there counts from half a day; short waits and those of other pieces are not this one’s', () => {
    expect(sentence([link('b:lay', 'hours', 0, { idle: 13 * hour })])).toMatch(/ and 13 h in which nobody is there\.$/);
    expect(sentence([link('b:lay', 'hours', 0, { idle: 11 * hour })])).not.toMatch(/nobody/);
    expect(sentence([link('b:lay', 'wait', 1)])).not.toMatch(/until/);
    expect(
      sentence([link('b:lay', 'start', 0), link('c:refine', 'wait', 90, { why: 'the chest is dry' })]),
    ).not.toMatch(/chest/);
    expect(sentence([])).toBe('');
  });

  test('no dry place to hold names what wets it', () => {
    expect(sentence([link('b:refine', 'hold', 20, { other: 'b:lay' })])).toMatch(
      /no dry place to hold until “Do lay” is 20 h old/,
    );
  });
});

test('days and times on the workshop’s clock', () => {
  const late = Date.parse('2026-12-01T23:30:00Z') / 1000;
  expect(whenWords(late, 'UTC')).toBe('Tue 1 Dec, 23:30');
  expect(whenWords(late, 'Europe/Rome')).toBe('Wed 2 Dec, 00:30');
  expect([dayWords(Infinity, 'UTC'), timeWords(Infinity, 'UTC'), whenWords(NaN, 'UTC')]).toEqual([
    'never',
    'never',
    'never',
  ]);
});
