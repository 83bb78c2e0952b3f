import { packsFor, packsMass } from './packs';

test.each<[number, readonly number[], readonly [number, number][]]>([
  [1.26, [1, 5], [[1, 2]]],
  [4.9, [1, 5], [[5, 1]]],
  [
    5.1,
    [1, 5],
    [
      [5, 1],
      [1, 1],
    ],
  ],
  [9.2, [1, 5], [[5, 2]]],
  [3.4, [5, 25], [[5, 1]]],
  [
    27,
    [5, 25],
    [
      [25, 1],
      [5, 1],
    ],
  ],
  [2, [1], [[1, 2]]],
  [0, [1, 5], []],
])('%d kg in packs of %j', (mass, sizes, wanted) => {
  const packs = packsFor(mass, sizes);
  expect(packs.map((p) => [p.each, p.count])).toEqual(wanted);
});

test('against every number of packs there could be: never too little, never more over than need be', () => {
  for (let kg = 0.05; kg < 40; kg += 0.37) {
    const bought = packsMass(packsFor(kg, [2, 7]));
    let least = Infinity;
    for (let large = 0; large < 8; large++)
      for (let small = 0; small < 25; small++) {
        const total = 7 * large + 2 * small;
        if (total >= kg) least = Math.min(least, total);
      }
    expect(bought).toBe(least);
  }
});
