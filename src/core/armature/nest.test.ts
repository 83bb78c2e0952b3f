import { seeded } from '../quantity';
import { kerf, nest, type Piece } from '.';

const pieces = (...lengths: readonly number[]): Piece[] => lengths.map((length, i) => ({ label: `p${i}`, length }));

/** Fewest lengths by trying every place for every piece. */
function fewest(lengths: readonly number[], sold: number): number {
  let best = lengths.length;
  const bars: number[] = [];
  const place = (i: number) => {
    if (bars.length >= best) return;
    if (i === lengths.length) {
      best = bars.length;
      return;
    }
    const tried = new Set<number>();
    for (let b = 0; b < bars.length; b++) {
      const used = bars[b]!;
      if (used + lengths[i]! > sold + 1e-9 || tried.has(used)) continue;
      tried.add(used);
      bars[b] = used + lengths[i]! + kerf;
      place(i + 1);
      bars[b] = used;
    }
    bars.push(lengths[i]! + kerf);
    place(i + 1);
    bars.pop();
  };
  place(0);
  return best;
}

describe('cuts laid into lengths', () => {
  test('every piece once, no bar overfull, what is left adds up', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(seed);
      const list = pieces(...Array.from({ length: 5 + Math.floor(random() * 40) }, () => 0.05 + random() * 1.4));
      const had = seed % 3 === 0 ? [0.5, 1.1] : [];
      const n = nest({ pieces: list, sold: 2, had });
      expect(n.bars.flatMap((b) => b.pieces.map((p) => p.label)).sort()).toEqual(list.map((p) => p.label).sort());
      for (const b of n.bars) {
        const cut = b.pieces.reduce((s, p) => s + p.length, 0) + kerf * (b.pieces.length - 1);
        expect(cut).toBeLessThanOrEqual(b.length + 1e-9);
        expect(b.left).toBeCloseTo(Math.max(0, b.length - cut), 9);
      }
      expect(n.bars.filter((b) => b.had).length).toBeLessThanOrEqual(had.length);
    }
  });
  test('as few lengths as there can be, on small cases', () => {
    let extra = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(seed * 17);
      const lengths = Array.from({ length: 9 }, () => 0.2 + random() * 0.9).sort((a, b) => b - a);
      extra += nest({ pieces: pieces(...lengths), sold: 2 }).bars.length - fewest(lengths, 2);
    }
    expect(extra).toBe(0);
  });
  test('what is there is used first and saves buying; what is longer than it is sold is told', () => {
    expect(nest({ pieces: pieces(0.4, 0.4), sold: 1, had: [1] })).toMatchObject({ bought: 0, bars: [{ had: true }] });
    const long = nest({ pieces: pieces(2.5, 0.3), sold: 2 });
    expect(long.tooLong.map((p) => p.length)).toEqual([2.5]);
    expect(long.bars).toHaveLength(1);
    expect(nest({ pieces: [], sold: 2 })).toMatchObject({ bars: [], bought: 0, waste: 0 });
  });
});

test('a class of five hundred: each way of filling a length is found once and cut as often as there is enough for it', () => {
  const many = [0.6, 0.4, 0.35].flatMap((length) =>
    Array.from({ length: 5000 }, () => ({ label: `${length}`, length })),
  );
  const { bars, bought, tooLong } = nest({ pieces: many, sold: 1.5 });
  expect(tooLong).toEqual([]);
  const counts = new Map<string, number>();
  for (const b of bars) {
    expect(b.pieces.reduce((s, p) => s + p.length + kerf, 0)).toBeLessThanOrEqual(1.5 + kerf + 1e-9);
    for (const p of b.pieces) counts.set(p.label, (counts.get(p.label) ?? 0) + 1);
  }
  expect([...counts].sort()).toEqual([
    ['0.35', 5000],
    ['0.4', 5000],
    ['0.6', 5000],
  ]);
  // Count a 600 as half a length, a 400 and a 350 as a quarter: no filling of 1.5 m counts for more than one, so that
  // fewer than 2500 + 1250 + 1250 lengths cannot do.
  expect(bars).toHaveLength(5000);
  expect(bought).toBeCloseTo(7500, 6);
});
