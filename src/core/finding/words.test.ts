import { partIn, worstOf, type Judged, type Part } from '.';
import { finding } from './finding';
import { alike } from './group';
import { capitalised, lifeStagePhrase, pairKey, placesInWords, several } from './words';

test.each([
  [['crown'], 'crown'],
  [['crown', 'crown'], 'crown'],
  [['left forearm', 'right forearm'], 'forearm, left and right'],
  [['hip, left', 'hip, right'], 'hip, left and right'],
  [['hip, left to hock', 'hip, right to hock'], 'hip to hock, left and right'],
  [
    ['elbow, left to wrist, left', 'elbow, right to wrist, right', 'hip, left', 'hip, right'],
    'elbow to wrist and hip, left and right',
  ],
  [['hand, left', 'hand, right', 'crown'], 'hand (left and right) and crown'],
  [['hand, left', 'hand, right', 'crown', 'beak', 'tail'], 'hand (left and right), crown and 2 more'],
  [['head', 'neck'], 'head and neck'],
  [['head', 'neck', 'ear'], 'head, neck and ear'],
  [['stringer 1', 'stringer 2', 'stringer 3', 'stringer 4'], 'stringer 1, stringer 2 and 2 more'],
] as const)('%j is "%s"', (names, words) => expect(placesInWords(names)).toBe(words));

test('a left and a right are a pair, and so are the first and the seventh of a row; a cleft is not', () => {
  expect(pairKey('left forearm')).toBe(pairKey('right forearm'));
  expect(pairKey('figure/hip-left')).toBe(pairKey('figure/hip-right'));
  expect(pairKey('stringer 1')).toBe(pairKey('stringer 12'));
  expect(pairKey('cleft chin')).toBe('cleft chin');
  expect(pairKey('left arm')).not.toBe(pairKey('left leg'));
});

test('one name said twice is one thing', () => {
  expect(several(['head', 'head'])).toBe(false);
  expect(several(['head', 'neck'])).toBe(true);
});

test('stages of its life, as part of a sentence', () => {
  expect(['bare armature', 'dry', 'finished', 'on the road', 'worn or overhead', 'coat 2 on, wet'].map(lifeStagePhrase))
    // Any other stage is what was put on.
    .toEqual(['while bare', 'when dry', 'when finished', 'on the road', 'worn or overhead', 'with coat 2 on, wet']);
  expect(capitalised('oil-based clay')).toBe('Oil-based clay');
  expect(capitalised('')).toBe('');
});

const part = (id: string, status: Part['status'], measured: number): Part => ({ id, name: id, status, measured });

test('alike parts lie together by verdict, the worst of each lot first, the worst lot first', () => {
  const parts = [
    part('a1', 'watch', 0.7),
    part('b1', 'fails', 1.2),
    part('a2', 'watch', 0.9),
    part('b2', 'watch', 0.8),
    part('b3', 'fails', 1.5),
  ];
  const lots = alike(
    parts,
    (p) => p.id[0]!,
    (x, y) => x.measured - y.measured,
  );
  expect(lots.map((lot) => lot.map((p) => p.id))).toEqual([['b3', 'b1'], ['a2', 'a1'], ['b2']]);
});

const judgedAs = (id: string, station: Judged['station'], status: Judged['status'], measured: number, more = {}) =>
  finding(station, id, status, id, `${id}.`, '', { measured, limit: 1, unit: 'ratio', ...more });

test('a part is found in whichever finding tells of it', () => {
  const told = judgedAs('member', 'load', 'fails', 1.2, {
    parts: [part('member/a', 'fails', 1.2), part('member/b', 'watch', 0.9)],
  });
  expect(partIn([judgedAs('tip', 'load', 'sound', 0.1), told], 'member/b')).toMatchObject({ status: 'watch' });
  expect(partIn([told], 'member/c')).toBeNull();
  // Without parts of its own a finding is one part.
  expect(partIn([judgedAs('tip', 'load', 'watch', 0.7)], 'tip')).toMatchObject({ measured: 0.7, status: 'watch' });
});

describe('the worst of its load', () => {
  test('by verdict first, then by how far over its limit; only what bears on the load counts', () => {
    const bent = judgedAs('member', 'load', 'watch', 0.9),
      screws = judgedAs('base', 'load', 'watch', 0.7),
      cracked = judgedAs('crack', 'drying', 'fails', 9);
    expect(worstOf([screws, bent, cracked])?.finding).toBe('member');
    expect(worstOf([bent, judgedAs('wall', 'move', 'fails', 1.1)])?.finding).toBe('wall');
    expect(worstOf([cracked])).toBeNull();
  });
  test('where smaller is worse it is the limit over the figure', () => {
    const tips = judgedAs('tip', 'load', 'watch', 10, { limit: 15, smallerIsWorse: true });
    expect(worstOf([tips, judgedAs('member', 'load', 'watch', 1.4)])?.finding).toBe('tip');
    expect(worstOf([tips, judgedAs('member', 'load', 'watch', 1.6)])?.finding).toBe('member');
  });
  test('it says when and from what', () => {
    const said = worstOf([judgedAs('member', 'load', 'fails', 2, { stage: 'dry', cause: 'its own weight' })]);
    expect(said?.sentence).toBe('Worst of all: member, when dry, from its own weight. member.');
    expect(worstOf([judgedAs('member', 'load', 'sound', 0.2)])?.sentence).toMatch(
      /^Nothing is near its limit; nearest/,
    );
  });
});
