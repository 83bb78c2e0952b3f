/**
 * Cuts laid into the lengths stock is sold in, with the least left over. Each length is filled as full as it can be from
 * what remains (bounded search over the longest pieces first); the plan kept is the best of that and of first-fit by
 * falling length. One-dimensional cutting stock; every cut takes the saw's or the pliers' width.
 */
export interface Piece {
  readonly label: string;
  readonly length: number;
}

export interface Bar {
  readonly length: number;
  /** From what the maker has already. */
  readonly had: boolean;
  readonly pieces: readonly Piece[];
  readonly left: number;
}

export interface Nesting {
  readonly bars: readonly Bar[];
  /** Pieces longer than a length: joined up or ordered cut. */
  readonly tooLong: readonly Piece[];
  /** Metres of new stock, and of it how much is left over. */
  readonly bought: number;
  readonly waste: number;
}

export const kerf = 0.002;

export interface NestInputs {
  readonly pieces: readonly Piece[];
  /** Length a new piece of stock comes in. */
  readonly sold: number;
  /** Lengths there are already; used first, longest last. */
  readonly had?: readonly number[];
}

export function nest({ pieces, sold, had = [] }: NestInputs): Nesting {
  const sorted = [...pieces].sort((a, b) => b.length - a.length);
  const longest = Math.max(sold, ...had);
  const tooLong = sorted.filter((p) => p.length > longest);
  const fitting = sorted.filter((p) => p.length <= longest);
  const plans = [fillEach(fitting, sold, had), firstFit(fitting, sold, had)];
  const bars = plans.reduce((best, p) => (costOf(p) < costOf(best) ? p : best));
  const fresh = bars.filter((b) => !b.had);
  return {
    bars,
    tooLong,
    bought: fresh.reduce((s, b) => s + b.length, 0),
    waste: fresh.reduce((s, b) => s + b.left, 0),
  };
}

/** New lengths first; then that what is left over is left in one long piece rather than many short ones. */
function costOf(bars: readonly Bar[]): number {
  const fresh = bars.filter((b) => !b.had);
  return fresh.length * 1e6 - fresh.reduce((s, b) => s + b.left * b.left, 0);
}

const used = (pieces: readonly Piece[]) => pieces.reduce((s, p) => s + p.length + kerf, 0);
// The last cut needs no width of its own where it ends the bar.
const leftIn = (length: number, pieces: readonly Piece[]) => Math.max(0, length + kerf - used(pieces));

/** A length while it is being filled. */
interface Filling {
  readonly length: number;
  readonly had: boolean;
  readonly pieces: Piece[];
}

/** Each piece, the longest first, where it leaves the least; `taken` is what a bar's pieces and cuts take of it. */
function firstFit(pieces: readonly Piece[], sold: number, had: readonly number[]): Bar[] {
  const bars: (Filling & { taken: number })[] = [...had]
    .sort((a, b) => a - b)
    .map((length) => ({ length, had: true, pieces: [], taken: 0 }));
  for (const p of pieces) {
    let best: (typeof bars)[number] | undefined;
    for (const b of bars)
      if (b.taken + p.length <= b.length + 1e-9 && (!best || b.length - b.taken < best.length - best.taken)) best = b;
    if (!best) {
      best = { length: sold, had: false, pieces: [], taken: 0 };
      bars.push(best);
    }
    best.pieces.push(p);
    best.taken += p.length + kerf;
  }
  return finished(bars);
}

/** Pieces of one length, still to be cut. */
interface Alike {
  readonly length: number;
  readonly pieces: Piece[];
}

function fillEach(pieces: readonly Piece[], sold: number, had: readonly number[]): Bar[] {
  let rest: Alike[] = [];
  for (const p of pieces) {
    const last = rest[rest.length - 1];
    if (last && Math.abs(last.length - p.length) < 1e-9) last.pieces.push(p);
    else rest.push({ length: p.length, pieces: [p] });
  }
  const bars: Filling[] = [];
  /** What fills a length fullest fills it fullest again for as long as there is enough of everything in it. */
  const take = (length: number, isHad: boolean, times: number): boolean => {
    const counts = fullest(rest, length);
    if (counts.every((n) => n === 0)) return false;
    const again = rest.reduce(
      (m, r, i) => (counts[i]! > 0 ? Math.min(m, Math.floor(r.pieces.length / counts[i]!)) : m),
      times,
    );
    for (let k = 0; k < again; k++)
      bars.push({ length, had: isHad, pieces: rest.flatMap((r, i) => r.pieces.splice(0, counts[i])) });
    rest = rest.filter((r) => r.pieces.length > 0);
    return true;
  };
  for (const length of [...had].sort((a, b) => a - b)) take(length, true, 1);
  while (rest.length > 0 && take(sold, false, Infinity));
  return finished([
    ...bars,
    ...rest.flatMap((r) => r.pieces.map((p) => ({ length: Math.max(sold, p.length), had: false, pieces: [p] }))),
  ]);
}

function finished(bars: readonly Filling[]): Bar[] {
  return bars
    .filter((b) => b.pieces.length > 0)
    .map(({ length, had, pieces }) => ({ length, had, pieces, left: leftIn(length, pieces) }));
}

const mostLooked = 20_000;

/** How many of each to cut so that a length is filled best, the longest that fits always among them. */
function fullest(rest: readonly Alike[], length: number): number[] {
  const best = rest.map(() => 0);
  const first = rest.findIndex((r) => r.length <= length + 1e-9);
  if (first < 0) return best;
  const chosen = rest.map((_, i) => (i === first ? 1 : 0));
  let bestUsed = -1,
    looked = 0;
  const grow = (sum: number, from: number) => {
    looked += 1;
    if (sum > bestUsed + 1e-12) {
      chosen.forEach((n, i) => (best[i] = n));
      bestUsed = sum;
    }
    for (let i = from; i < rest.length && looked <= mostLooked && length - bestUsed >= 1e-6; i++) {
      const r = rest[i]!;
      if (chosen[i]! >= r.pieces.length || sum + kerf + r.length > length + 1e-9) continue;
      chosen[i]! += 1;
      grow(sum + kerf + r.length, i);
      chosen[i]! -= 1;
    }
  };
  grow(rest[first]!.length, first);
  return best;
}
