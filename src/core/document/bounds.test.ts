import { applyEdit, newBust } from '.';

/** What a build may say of itself: where it begins, and the first values on either side that are refused. SI, degrees, kg. */
const bust = newBust('b', '2026-12-01');
const at = (path: string): unknown =>
  path.split('.').reduce<unknown>((v, k) => (v as Record<string, unknown>)[k], bust);
const takes = (path: string, value: unknown): boolean =>
  applyEdit(bust, { label: 't', changes: [{ path: path.split('.'), value }] }).ok;

describe('a fresh build', () => {
  test.each([
    ['brief.situation', 'bench'],
    ['brief.clay', 'paper-clay'],
    ['brief.deadline', null],
    ['brief.hoursPerWeek', 8],
    ['brief.limits', { weight: null, crack: 1, tipAngle: 15 }],
    ['brief.travel.doorWidth', 0.76],
    ['brief.travel.doorHeight', 1.98],
    ['brief.travel.vehicle', 'none'],
    ['room.temperature', 20],
    ['room.relativeHumidity', 0.5],
    // A still room.
    ['room.airSpeed', 0.1],
    ['room.covers', []],
    ['materials.waste', 0.1],
    ['materials.waterWorkedIn', 0],
    ['stages.startHour', 9],
    ['stages.lift', null],
    ['armature.mount', { kind: 'stands' }],
    ['armature.props', []],
    ['regions.everywhere', { coats: [0.01] }],
  ])('%s is %j', (path, value) => expect(at(path)).toEqual(value));

  test('smaller, its clay is thinner and its frame slimmer', () => {
    const small = newBust('s', '2026-12-01', 0.5);
    expect(small.regions.everywhere.coats).toEqual([0.005]);
    expect(small.armature.school.parameters).toMatchObject({ pipeSize: '3-8', frameSize: '2.5mm' });
    expect(newBust('s', '2026-12-01', 0.6).armature.school.parameters).toEqual({});
    expect(newBust('tiny', '2026-12-01', 0.05).regions.everywhere.coats).toEqual([0.001]);
  });
});

test.each([
  // path, the least and the most it takes, and what it does not.
  ['brief.hoursPerWeek', 0.5, 100, 0.4, 101],
  ['brief.limits.weight', 0.01, 5000, 0, 5001],
  ['brief.limits.crack', 0.1, 3, 0.05, 3.1],
  ['brief.limits.tipAngle', 1, 45, 0.5, 46],
  ['brief.travel.doorWidth', 0.3, 10, 0.2, 11],
  ['brief.travel.ramp', 0, 30, -1, 31],
  ['room.temperature', 1, 60, 0, 61],
  ['room.relativeHumidity', 0.02, 0.97, 0.01, 0.98],
  ['room.airSpeed', 0.02, 10, 0.01, 11],
  ['materials.waterWorkedIn', 0, 0.6, -0.1, 0.7],
  ['materials.waste', 0, 1, -0.1, 1.1],
  ['materials.clayOnShelf', 0, 10_000, -1, 10_001],
  ['materials.warming.to', 20, 90, 19, 91],
  ['stages.startHour', 0, 23.75, -1, 24],
] as const)('%s from %d to %d', (path, least, most, below, above) => {
  expect([least, most].map((v) => takes(path, v))).toEqual([true, true]);
  expect([below, above, NaN, 'much'].map((v) => takes(path, v))).toEqual([false, false, false, false]);
});

test.each([
  ['regions.everywhere.coats', [0.0005], [0.3, 0.3, 0.3, 0.3], [[], [0.0004], [0.31], [0.01, 0.01, 0.01, 0.01, 0.01]]],
  ['regions.everywhere.stages', [1], [8, 8, 8, 8], [[0], [9], [1.5]]],
  [
    'stages.waits',
    [],
    [{ until: 'leather-hard', hours: 2 }],
    [[{ until: 'soggy' }], [{ until: 'touch-dry', hours: -1 }]],
  ],
  [
    'armature.mount',
    { kind: 'wall' },
    { kind: 'hangs', points: [[0, 0, 1]] },
    [{ kind: 'hangs', points: [] }, { kind: 'wall', screws: 0 }, { kind: 'worn', hours: 25 }, { kind: 'floats' }],
  ],
  [
    'armature.props',
    [],
    [{ id: 'p', name: 'p', node: 'n', until: 'always' }],
    [[{ id: 'P!', name: 'p', node: 'n', until: 'always' }], [{ id: 'p', name: '', node: 'n', until: 'always' }]],
  ],
  [
    'regions.seams',
    [],
    [{ name: 'collar', regions: ['head', 'neck'], made: 'scored' }],
    [[{ name: ' ', regions: ['head', 'neck'], made: 'scored' }], [{ name: 'c', regions: ['head'], made: 'scored' }]],
  ],
  [
    'regions.painted',
    [{ at: [0, 0, 0], radius: 0.003, by: 0.1 }],
    [],
    [
      [{ at: [0, 0, 0], radius: 0.002, by: 0 }],
      [{ at: [0, 0, 0], radius: 1, by: 0.2 }],
      [{ at: [0, 30, 0], radius: 1, by: 0 }],
    ],
  ],
  [
    'room.covers',
    [{ kind: 'cloth' }],
    [{ kind: 'bagged', from: 0, until: 72, regions: ['head'] }],
    [[{ kind: 'cardboard' }], [{ kind: 'cloth', from: -1 }], [{ kind: 'cloth', regions: ['The Head'] }]],
  ],
  [
    'room.record',
    null,
    { name: 'r', startsAt: 0, stepHours: 1, temperature: [20], relativeHumidity: [0.5] },
    [
      { name: 'r', startsAt: 0, stepHours: 1, temperature: [20, 21], relativeHumidity: [0.5] },
      { name: 'r', startsAt: 0, stepHours: 0, temperature: [20], relativeHumidity: [0.5] },
    ],
  ],
  [
    'materials.packs',
    {},
    { 'paper-clay': { mass: 1000, price: 0 } },
    [
      { 'paper-clay': { mass: 0, price: 1 } },
      { 'paper-clay': { mass: 1001, price: 1 } },
      { 'paper-clay': { mass: 1, price: -1 } },
      { 'Paper Clay': { mass: 1, price: 1 } },
    ],
  ],
  ['materials.stockPrices', {}, { 'mild-steel/6mm': 1.1 }, [{ 'mild-steel/6mm': -1 }, { 'mild-steel/6mm': 'dear' }]],
  ['brief.outdoors', null, { gust: 5, held: 'guyed' }, [{ gust: 4 }, { gust: 61 }, { gust: 25, held: 'glue' }, true]],
  [
    'finish.processes',
    [],
    [{ kind: 'bake', temperature: 130 }],
    [[{ kind: 'microwave' }], [{ kind: 'bake', temperature: 2000 }]],
  ],
] as const)('%s takes what it is for, and nothing else', (path, one, other, bad) => {
  expect([takes(path, one), takes(path, other)]).toEqual([true, true]);
  for (const value of bad) expect([value, takes(path, value)]).toEqual([value, false]);
});

test('a field of no meaning is refused, not kept', () => {
  for (const path of ['brief.colour', 'room.mood', 'materials.brand', 'stages.moon'])
    expect([path, takes(path, 'x')]).toEqual([path, false]);
});
