/**
 * Sparse symmetric positive definite solve, L D L^T without pivoting. Armatures are nearly trees, and a tree
 * eliminated from its tips fills in nothing: an order of least degree over the joints, then the up-looking
 * factorisation of Davis, *Direct Methods for Sparse Linear Systems*, ch. 4.
 */

/** Elimination order of a graph by least degree, fewest neighbours first. Returns old index by new place. */
export function eliminationOrder(neighbours: readonly (readonly number[])[]): number[] {
  const n = neighbours.length;
  const links = neighbours.map((list, i) => new Set(list.filter((j) => j !== i)));
  // Joints wait in one heap per degree; a joint may stand in several, only its present degree counts.
  const byDegree: number[][] = [];
  const put = (v: number) => {
    const d = (links[v] as Set<number>).size;
    (byDegree[d] ??= []).push(v);
  };
  for (let v = n - 1; v >= 0; v--) put(v);
  const done = new Uint8Array(n);
  const order: number[] = [];
  let degree = 0;
  while (order.length < n) {
    const heap = byDegree[degree];
    const v = heap?.pop();
    if (v === undefined) {
      degree += 1;
      continue;
    }
    const own = links[v] as Set<number>;
    if (done[v] || own.size !== degree) continue;
    done[v] = 1;
    order.push(v);
    const around = [...own];
    for (const a of around) {
      const set = links[a] as Set<number>;
      set.delete(v);
      for (const b of around) if (b !== a) set.add(b);
    }
    for (const a of around) put(a);
    degree = Math.max(0, degree - 1);
    for (const a of around) degree = Math.min(degree, (links[a] as Set<number>).size);
  }
  return order;
}

/** Upper triangle by columns: column j holds its rows up to j, rising, in rows[start[j]..start[j + 1] - 1]. */
export interface SparsePattern {
  readonly order: number;
  readonly start: Int32Array;
  readonly rows: Int32Array;
}

/** Pattern from the rows that meet each column: each list rising, ending with the column itself. */
export function sparsePattern(columns: readonly (readonly number[])[]): SparsePattern {
  const start = new Int32Array(columns.length + 1);
  columns.forEach((rows, j) => {
    start[j + 1] = (start[j] as number) + rows.length;
  });
  const rows = new Int32Array(start[columns.length] as number);
  columns.forEach((list, j) => rows.set(list, start[j]));
  return { order: columns.length, start, rows };
}

export class SparseMatrix {
  readonly values: Float64Array;
  private readonly parent: Int32Array;
  private readonly lowerStart: Int32Array;
  private lowerRows = new Int32Array(0);
  private lower = new Float64Array(0);
  private readonly diagonal: Float64Array;
  private factored = false;

  constructor(readonly pattern: SparsePattern) {
    const n = pattern.order;
    this.values = new Float64Array(pattern.rows.length);
    this.parent = new Int32Array(n).fill(-1);
    this.lowerStart = new Int32Array(n + 1);
    this.diagonal = new Float64Array(n);
    const flag = new Int32Array(n).fill(-1);
    const count = new Int32Array(n);
    for (let k = 0; k < n; k++) {
      flag[k] = k;
      for (let p = pattern.start[k] as number; p < (pattern.start[k + 1] as number); p++) {
        for (let i = pattern.rows[p] as number; i < k && flag[i] !== k; i = this.parent[i] as number) {
          if (this.parent[i] === -1) this.parent[i] = k;
          (count[i] as number) += 1;
          flag[i] = k;
        }
      }
    }
    for (let k = 0; k < n; k++) this.lowerStart[k + 1] = (this.lowerStart[k] as number) + (count[k] as number);
  }

  /** Adds to K[i][j] and its mirror, which are one cell; the cell must be in the pattern. */
  add(i: number, j: number, value: number): void {
    const { start, rows } = this.pattern;
    const row = i < j ? i : j;
    const column = i < j ? j : i;
    let low = start[column] as number;
    let high = (start[column + 1] as number) - 1;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((rows[middle] as number) < row) low = middle + 1;
      else high = middle;
    }
    (this.values[low] as number) += value;
  }

  /**
   * Returns -1, or the first row whose pivot is no more than rounding of what stood there (`tolerance` of the
   * original diagonal): that unknown is free to move.
   */
  factor(tolerance = 1e-13): number {
    const { start, rows, order: n } = this.pattern;
    const { parent, lowerStart, diagonal, values } = this;
    this.lowerRows = new Int32Array(lowerStart[n] as number);
    this.lower = new Float64Array(lowerStart[n] as number);
    const { lowerRows, lower } = this;
    const y = new Float64Array(n);
    const flag = new Int32Array(n).fill(-1);
    const stack = new Int32Array(n);
    const filled = new Int32Array(n);
    for (let k = 0; k < n; k++) {
      let top = n;
      flag[k] = k;
      for (let p = start[k] as number; p < (start[k + 1] as number); p++) {
        let i = rows[p] as number;
        (y[i] as number) += values[p] as number;
        let length = 0;
        for (; flag[i] !== k; i = parent[i] as number) {
          stack[length++] = i;
          flag[i] = k;
        }
        while (length > 0) stack[--top] = stack[--length] as number;
      }
      const before = Math.abs(y[k] as number);
      let pivot = y[k] as number;
      y[k] = 0;
      for (; top < n; top++) {
        const i = stack[top] as number;
        const yi = y[i] as number;
        y[i] = 0;
        const from = lowerStart[i] as number;
        const to = from + (filled[i] as number);
        for (let p = from; p < to; p++) {
          const r = lowerRows[p] as number;
          y[r] = (y[r] as number) - (lower[p] as number) * yi;
        }
        const l = yi / (diagonal[i] as number);
        pivot -= l * yi;
        lowerRows[to] = k;
        lower[to] = l;
        (filled[i] as number) += 1;
      }
      if (!(pivot > tolerance * before)) return k;
      diagonal[k] = pivot;
    }
    this.factored = true;
    return -1;
  }

  /** Solves in place after `factor`. */
  solve(x: Float64Array): void {
    if (!this.factored) throw new Error('factor the matrix before solving with it');
    const n = this.pattern.order;
    const { lowerStart, lowerRows, lower, diagonal } = this;
    for (let j = 0; j < n; j++) {
      const xj = x[j] as number;
      for (let p = lowerStart[j] as number; p < (lowerStart[j + 1] as number); p++) {
        const r = lowerRows[p] as number;
        x[r] = (x[r] as number) - (lower[p] as number) * xj;
      }
    }
    for (let j = 0; j < n; j++) (x[j] as number) /= diagonal[j] as number;
    for (let j = n - 1; j >= 0; j--) {
      let sum = x[j] as number;
      for (let p = lowerStart[j] as number; p < (lowerStart[j + 1] as number); p++) sum -= (lower[p] as number) * (x[lowerRows[p] as number] as number);
      x[j] = sum;
    }
  }
}
