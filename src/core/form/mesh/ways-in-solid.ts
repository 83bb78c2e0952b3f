import type { Lattice } from './lattice';

const { floor, hypot } = Math;

/** The 26 neighbours of a place. */
export const around: readonly (readonly [number, number, number])[] = Array.from(
  { length: 27 },
  (_, c) => [(c % 3) - 1, (floor(c / 3) % 3) - 1, floor(c / 9) - 1] as const,
).filter(([x, y, z]) => x !== 0 || y !== 0 || z !== 0);

/**
 * Shortest ways through a solid (Dijkstra 1959), each step as long as it is times what its end costs; and the place each
 * came from, -1 at the starts, which may cost something to set out from. The border of the lattice is empty.
 */
export function wayFrom(
  starts: readonly (readonly [place: number, cost: number])[],
  inside: Uint8Array,
  { cells: [nx, ny] }: Pick<Lattice, 'cells'>,
  price: (i: number) => number,
): { readonly cost: Float64Array; readonly before: Int32Array } {
  const steps = around.map(([x, y, z]) => x + nx * (y + ny * z));
  const long = around.map(([x, y, z]) => hypot(x, y, z));
  const cost = new Float64Array(inside.length).fill(Infinity);
  const before = new Int32Array(inside.length).fill(-1);
  const heap = new Heap();
  for (const [s, c] of starts) {
    if (c >= cost[s]!) continue;
    cost[s] = c;
    heap.push(s, c);
  }
  for (;;) {
    const i = heap.pop();
    if (i < 0) return { cost, before };
    if (heap.poppedKey > cost[i]!) continue;
    for (let k = 0; k < steps.length; k++) {
      const j = i + steps[k]!;
      if (!inside[j]) continue;
      const c = cost[i]! + long[k]! * price(j);
      if (c >= cost[j]!) continue;
      cost[j] = c;
      before[j] = i;
      heap.push(j, c);
    }
  }
}

/** A binary heap of places by key, smallest first. */
class Heap {
  private readonly places: number[] = [];
  private readonly keys: number[] = [];
  poppedKey = 0;

  push(place: number, key: number): void {
    const { places, keys } = this;
    let i = places.length;
    places.push(place);
    keys.push(key);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (keys[up]! <= key) break;
      places[i] = places[up]!;
      keys[i] = keys[up]!;
      i = up;
    }
    places[i] = place;
    keys[i] = key;
  }

  pop(): number {
    const { places, keys } = this;
    if (places.length === 0) return -1;
    const out = places[0]!;
    this.poppedKey = keys[0]!;
    const place = places.pop()!,
      key = keys.pop()!;
    const n = places.length;
    if (n === 0) return out;
    let i = 0;
    for (;;) {
      let down = 2 * i + 1;
      if (down >= n) break;
      if (down + 1 < n && keys[down + 1]! < keys[down]!) down++;
      if (keys[down]! >= key) break;
      places[i] = places[down]!;
      keys[i] = keys[down]!;
      i = down;
    }
    places[i] = place;
    keys[i] = key;
    return out;
  }
}
