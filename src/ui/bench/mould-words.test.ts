import { cavityNames, drawnWords, filledWords, partNames } from './mould-words';

test('two halves are front and back, or left and right', () => {
  expect(
    partNames([
      [0, 0.9, 0.4],
      [0, -0.9, -0.4],
    ]),
  ).toEqual(['back', 'front']);
  expect(
    partNames([
      [1, 0, 0],
      [-1, 0, 0],
    ]),
  ).toEqual(['left', 'right']);
});

test('two that look nearly one way are told apart', () => {
  const names = partNames([
    [0, -1, 0],
    [0.5, -0.8, 0],
    [-0.5, -0.8, 0],
  ]);
  expect(new Set(names).size).toBe(3);
});

test.each([
  [[0, 0, 1], 'up'],
  [[0, -0.8, 0.6], 'forward and up'],
  [[0.7, 0, -0.7], 'to its left and down'],
] as const)('%j is %s', (d, words) => expect(drawnWords(d)).toBe(words));

test('two cavities to either side are a left and a right; others are numbered', () => {
  expect(
    cavityNames([
      [0.1, 0, 0],
      [-0.1, 0, 0],
    ]),
  ).toEqual(['left', 'right']);
  expect(
    cavityNames([
      [0.2, 0, 0],
      [0.1, 0, 0],
    ]),
  ).toEqual(['1', '2']);
  expect(cavityNames([[0, 0, 0]])).toEqual(['1']);
});

test.each([
  [{ up: [0, 0, 1], holes: 1, vents: 0 }, 'Pour it as it stands, through one hole at the top; no vents are wanted.'],
  [
    { up: [0, 0, -1], holes: 0, vents: 1 },
    'Pour it upside down, through its open side; one vent where air would stay.',
  ],
  [
    { up: [0, -1, 0], holes: 2, vents: 3 },
    'Pour it turned so that what looks forward is on top, through 2 holes, one at the top of each cavity; 3 vents where air would stay.',
  ],
] as const)('%j', (pour, words) => expect(filledWords({ behind: null, pour }, false, false)).toBe(words));

test('what is laid on the wall is laid in through what is open, or before its parts are closed', () => {
  const pour = { up: [0, 0, 1], holes: 1, vents: 4 } as const;
  expect(filledWords({ behind: null, pour }, true, false)).toMatch(/before they are closed/);
  expect(filledWords({ behind: null, pour }, true, true)).toMatch(/through the open side/);
  expect(filledWords({ behind: 0.1, pour }, true, false)).toMatch(/through the open side/);
});
