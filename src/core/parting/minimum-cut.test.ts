import { seeded } from '../quantity';
import { MinimumCut } from './minimum-cut';

/** Against every way to part the nodes, with edges that cost one way and not the other. */
test('a hundred small cuts, each as cheap as the cheapest there is', () => {
  for (let seed = 1; seed <= 100; seed++) {
    const random = seeded(seed);
    const nodes = 3 + (seed % 8);
    const ends = Array.from({ length: nodes }, () => [random() < 0.5 ? 0 : random(), random() < 0.5 ? 0 : random()]);
    const edges: [number, number, number, number][] = [];
    for (let a = 0; a < nodes; a++)
      for (let b = a + 1; b < nodes; b++)
        if (random() < 0.5) edges.push([a, b, random() < 0.3 ? 0 : random(), random() < 0.3 ? 0 : random()]);
    const cut = new MinimumCut(nodes, edges.length);
    ends.forEach(([sink, source], n) => cut.addNode(n, sink!, source!));
    for (const e of edges) cut.addEdge(...e);
    const cost = (side: (n: number) => number): number =>
      ends.reduce((sum, [sink, source], n) => sum + (side(n) ? sink! : source!), 0) +
      edges.reduce((sum, [a, b, there, back]) => {
        if (side(a) === side(b)) return sum;
        return sum + (side(a) === 0 ? there : back);
      }, 0);
    let cheapest = Infinity;
    for (let n = 0; n < 2 ** nodes; n++)
      cheapest = Math.min(
        cheapest,
        cost((k) => (n >> k) & 1),
      );
    const found = cut.solve();
    expect(cost((k) => found[k]!)).toBeCloseTo(cheapest, 9);
  }
});
