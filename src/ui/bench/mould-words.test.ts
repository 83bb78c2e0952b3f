import { cavityNames, drawnWords, partNames } from './mould-words';

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
