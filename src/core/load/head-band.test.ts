import { bandToCut } from './head-band';

test('from ear to ear round the back: half the head, and what is turned over', () => {
  expect(bandToCut(0.57, [0.08, 0, 0.3], [-0.08, 0, 0.3], [0, 0])).toBeCloseTo(0.285 + 0.06, 9);
});

test('points further forward want a longer band, whichever is named first', () => {
  const forward = bandToCut(0.57, [0.06, -0.06, 0], [-0.06, -0.06, 0], [0, 0]);
  expect(forward).toBeCloseTo(0.57 * 0.75 + 0.06, 9);
  expect(bandToCut(0.57, [-0.06, -0.06, 0], [0.06, -0.06, 0], [0, 0])).toBeCloseTo(forward, 12);
});

test('the middle line is where it is said to be', () => {
  expect(bandToCut(0.6, [0.08, 0.05, 0], [-0.08, 0.05, 0], [0, 0.05])).toBeCloseTo(0.36, 9);
});

test('points behind the ears want less than half of it, and never the way over the face', () => {
  expect(bandToCut(0.6, [0.06, 0.06, 0], [-0.06, 0.06, 0], [0, 0])).toBeCloseTo(0.15 + 0.06, 9);
});
