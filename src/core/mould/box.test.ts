import { blockAbout, boardThickness, pourBox } from '.';

test('300 mm of rubber against a side 400 mm wide: 3384 Pa at the foot, 203 N, a third of the way up', () => {
  const box = { low: [-0.17, -0.1, 0], high: [0.17, 0.1, 0.27] } as const;
  const found = pourBox(box, 0, 0.03, 1150);
  expect(found.inside.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.4, 0.26, 0.3]);
  expect(found.pressure).toBeCloseTo(1150 * 9.81 * 0.3, 3);
  expect(found.force).toBeCloseTo((1150 * 9.81 * 0.3 ** 2 * 0.4) / 2, 3);
  expect(found.force).toBeCloseTo(203, 0);
  expect(found.actsAt).toBeCloseTo(0.1, 9);
  expect(found.straps).toBe(2);
});

test('its boards go round what is poured, and hold it', () => {
  const box = { low: [-0.05, -0.04, 0.02], high: [0.05, 0.04, 0.3] } as const;
  const { inside, boards } = pourBox(box, null, 0.015, 1150);
  const [w, d, h] = inside;
  expect(w * d * h - 0.1 * 0.08 * 0.28).toBeCloseTo(blockAbout(box, null, 0.015, 0.1 * 0.08 * 0.28), 12);
  const side = boards.find((b) => b.name === 'sides')!,
    front = boards.find((b) => b.name === 'front and back')!;
  expect(side.sides[0]).toBeCloseTo(d + 2 * boardThickness, 12);
  expect(front.sides[0]).toBeCloseTo(w, 12);
  for (const b of [side, front]) expect(b.sides[1]).toBeGreaterThan(h);
});

test('a tall one wants more straps than a low one', () => {
  const tall = pourBox({ low: [0, 0, 0], high: [0.3, 0.3, 1] }, 0, 0.03, 1150),
    low = pourBox({ low: [0, 0, 0], high: [0.3, 0.3, 0.1] }, 0, 0.03, 1150);
  expect(tall.straps).toBeGreaterThan(low.straps + 4);
});

test('a piece on a post has its floor lifted by a plinth, that and the floor as high as the mould begins', () => {
  const box = { low: [-0.1, -0.1, 0.08], high: [0.1, 0.1, 0.3] } as const;
  const boards = (board: number | null) => pourBox(box, board, 0.03, 1150).boards.filter((b) => /plinth/.test(b.name));
  expect(boards(0.08).map((b) => b.count)).toEqual([2, 2]);
  for (const b of boards(0.08)) expect(b.sides[1] + boardThickness).toBeCloseTo(0.08, 12);
  expect(boards(0.08)[0]!.sides[0]).toBeCloseTo(0.26, 12);
  expect(boards(0)).toEqual([]);
  expect(boards(null)).toEqual([]);
});
