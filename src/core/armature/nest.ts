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

function firstFit(pieces: readonly Piece[], sold: number, had: readonly number[]): Bar[] {
  const bars: { length: number; had: boolean; pieces: Piece[] }[] = [...had]
    .sort((a, b) => a - b)
    .map((length) => ({ length, had: true, pieces: [] }));
  for (const p of pieces) {
    const room = (b: { length: number; pieces: Piece[] }) => used(b.pieces) + p.length <= b.length + 1e-9;
    const bar = bars.filter(room).sort((a, b) => leftIn(a.length, a.pieces) - leftIn(b.length, b.pieces))[0];
    if (bar) bar.pieces.push(p);
    else bars.push({ length: sold, had: false, pieces: [p] });
  }
  return finished(bars);
}

function fillEach(pieces: readonly Piece[], sold: number, had: readonly number[]): Bar[] {
  let rest = [...pieces];
  const bars: { length: number; had: boolean; pieces: Piece[] }[] = [];
  const take = (length: number, isHad: boolean) => {
    const chosen = fullest(rest, length);
    bars.push({ length, had: isHad, pieces: chosen.map((i) => rest[i]!) });
    const gone = new Set(chosen);
    rest = rest.filter((_, i) => !gone.has(i));
  };
  for (const length of [...had].sort((a, b) => a - b)) take(length, true);
  while (rest.length > 0 && rest[rest.length - 1]!.length <= sold) {
    const before = rest.length;
    take(sold, false);
    if (rest.length === before) break;
  }
  return finished(bars.concat(rest.map((p) => ({ length: Math.max(sold, p.length), had: false, pieces: [p] }))));
}

function finished(bars: readonly { length: number; had: boolean; pieces: Piece[] }[]): Bar[] {
  return bars.filter((b) => b.pieces.length > 0).map((b) => ({ ...b, left: leftIn(b.length, b.pieces) }));
}

const mostLooked = 20_000;

/** Indices of the pieces that fill a length best, the longest that fits always among them. */
function fullest(pieces: readonly Piece[], length: number): number[] {
  const first = pieces.findIndex((p) => p.length <= length + 1e-9);
  if (first < 0) return [];
  let best: number[] = [first],
    bestUsed = pieces[first]!.length,
    looked = 0;
  const grow = (chosen: number[], sum: number, from: number) => {
    looked += 1;
    if (sum > bestUsed + 1e-12) {
      best = [...chosen];
      bestUsed = sum;
    }
    if (looked > mostLooked || length - bestUsed < 1e-6) return;
    for (let i = from; i < pieces.length; i++) {
      const p = pieces[i]!;
      if (sum + kerf + p.length > length + 1e-9) continue;
      // Of pieces alike only the first is tried at each place.
      if (i > from && Math.abs(p.length - pieces[i - 1]!.length) < 1e-9) continue;
      chosen.push(i);
      grow(chosen, sum + kerf + p.length, i + 1);
      chosen.pop();
    }
  };
  grow([first], bestUsed, first + 1);
  return best;
}
