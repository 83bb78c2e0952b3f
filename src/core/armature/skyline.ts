/**
 * Symmetric positive definite solve in profile storage: L D L^T without pivoting, column by column.
 * One file owns the layout: column j holds rows first[j]..j, the diagonal last, at start[j]..start[j + 1] - 1.
 */
export class SkylineMatrix {
  readonly start: Int32Array;
  readonly values: Float64Array;
  private factored = false;

  /** `first[j]` is the lowest row that column j touches. */
  constructor(readonly first: Int32Array) {
    const n = first.length;
    this.start = new Int32Array(n + 1);
    for (let j = 0; j < n; j++) this.start[j + 1] = (this.start[j] as number) + j - (first[j] as number) + 1;
    this.values = new Float64Array(this.start[n] as number);
  }

  get order(): number {
    return this.first.length;
  }

  private at(i: number, j: number): number {
    return (this.start[j] as number) + i - (this.first[j] as number);
  }

  /** Adds to both K[i][j] and its mirror, which are one cell. */
  add(i: number, j: number, value: number): void {
    const row = i < j ? i : j;
    const column = i < j ? j : i;
    (this.values[this.at(row, column)] as number) += value;
  }

  diagonal(j: number): number {
    return this.values[this.at(j, j)] as number;
  }

  /**
   * Factors in place. Returns -1, or the first row whose pivot is no more than rounding of what stood there
   * (`tolerance` of the original diagonal): that unknown is free to move.
   */
  factor(tolerance = 1e-13): number {
    const { first, start, values } = this;
    const n = this.order;
    for (let j = 0; j < n; j++) {
      const top = first[j] as number;
      const columnJ = (start[j] as number) - top;
      const before = Math.abs(values[columnJ + j] as number);
      for (let i = top + 1; i < j; i++) {
        const columnI = (start[i] as number) - (first[i] as number);
        const from = Math.max(top, first[i] as number);
        let sum = values[columnJ + i] as number;
        for (let k = from; k < i; k++) sum -= (values[columnI + k] as number) * (values[columnJ + k] as number);
        values[columnJ + i] = sum;
      }
      let pivot = values[columnJ + j] as number;
      for (let k = top; k < j; k++) {
        const g = values[columnJ + k] as number;
        const l = g / this.diagonal(k);
        values[columnJ + k] = l;
        pivot -= l * g;
      }
      if (!(pivot > tolerance * before)) return j;
      values[columnJ + j] = pivot;
    }
    this.factored = true;
    return -1;
  }

  /** Solves in place after `factor`. */
  solve(x: Float64Array): void {
    if (!this.factored) throw new Error('factor the matrix before solving with it');
    const { first, start, values } = this;
    const n = this.order;
    for (let j = 0; j < n; j++) {
      const top = first[j] as number;
      const column = (start[j] as number) - top;
      let sum = x[j] as number;
      for (let k = top; k < j; k++) sum -= (values[column + k] as number) * (x[k] as number);
      x[j] = sum;
    }
    for (let j = 0; j < n; j++) (x[j] as number) /= this.diagonal(j);
    for (let j = n - 1; j >= 0; j--) {
      const top = first[j] as number;
      const column = (start[j] as number) - top;
      const value = x[j] as number;
      for (let k = top; k < j; k++) (x[k] as number) -= (values[column + k] as number) * value;
    }
  }
}

/** Reverse Cuthill-McKee order of a graph: neighbours close together keep the profile low. Returns old index by new place. */
export function profileOrder(neighbours: readonly (readonly number[])[]): number[] {
  const n = neighbours.length;
  const seen = new Uint8Array(n);
  const order: number[] = [];
  const degree = (v: number) => neighbours[v]?.length ?? 0;
  const byDegree = Array.from({ length: n }, (_, v) => v).sort((a, b) => degree(a) - degree(b) || a - b);
  for (const root of byDegree) {
    if (seen[root]) continue;
    const queue = [farthest(neighbours, root)];
    seen[queue[0] as number] = 1;
    for (let head = 0; head < queue.length; head++) {
      const v = queue[head] as number;
      order.push(v);
      const next = [...(neighbours[v] ?? [])].filter((w) => !seen[w]).sort((a, b) => degree(a) - degree(b) || a - b);
      for (const w of next) {
        if (seen[w]) continue;
        seen[w] = 1;
        queue.push(w);
      }
    }
  }
  return order.reverse();
}

/** The node breadth-first search reaches last: an end of a long path, a good place to start numbering. */
function farthest(neighbours: readonly (readonly number[])[], root: number): number {
  let last = root;
  for (let pass = 0; pass < 2; pass++) {
    const seen = new Set([last]);
    const queue = [last];
    for (let head = 0; head < queue.length; head++) {
      for (const w of neighbours[queue[head] as number] ?? []) {
        if (!seen.has(w)) {
          seen.add(w);
          queue.push(w);
        }
      }
    }
    last = queue[queue.length - 1] as number;
  }
  return last;
}
