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
    const d = links[v]!.size;
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
    const own = links[v]!;
    if (done[v] || own.size !== degree) continue;
    done[v] = 1;
    order.push(v);
    const around = [...own];
    for (const a of around) {
      const set = links[a]!;
      set.delete(v);
      for (const b of around) if (b !== a) set.add(b);
    }
    for (const a of around) put(a);
    degree = Math.max(0, degree - 1);
    for (const a of around) degree = Math.min(degree, links[a]!.size);
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
    start[j + 1] = start[j]! + rows.length;
  });
  const rows = new Int32Array(start[columns.length]!);
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
      for (let p = pattern.start[k]!; p < pattern.start[k + 1]!; p++) {
        for (let i = pattern.rows[p]!; i < k && flag[i] !== k; i = this.parent[i]!) {
          if (this.parent[i] === -1) this.parent[i] = k;
          count[i]! += 1;
          flag[i] = k;
        }
      }
    }
    for (let k = 0; k < n; k++) this.lowerStart[k + 1] = this.lowerStart[k]! + count[k]!;
  }

  /** Adds to K[i][j] and its mirror, which are one cell; the cell must be in the pattern. */
  add(i: number, j: number, value: number): void {
    const { start, rows } = this.pattern;
    const row = i < j ? i : j;
    const column = i < j ? j : i;
    let low = start[column]!;
    let high = start[column + 1]! - 1;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (rows[middle]! < row) low = middle + 1;
      else high = middle;
    }
    this.values[low]! += value;
  }

  /**
   * Returns -1, or the first row whose pivot is no more than rounding of what stood there (`tolerance` of the
   * original diagonal): that unknown is free to move.
   */
  factor(tolerance = 1e-13): number {
    const { start, rows, order: n } = this.pattern;
    const { parent, lowerStart, diagonal, values } = this;
    this.lowerRows = new Int32Array(lowerStart[n]!);
    this.lower = new Float64Array(lowerStart[n]!);
    const { lowerRows, lower } = this;
    const y = new Float64Array(n);
    const flag = new Int32Array(n).fill(-1);
    const stack = new Int32Array(n);
    const filled = new Int32Array(n);
    for (let k = 0; k < n; k++) {
      let top = n;
      flag[k] = k;
      for (let p = start[k]!; p < start[k + 1]!; p++) {
        let i = rows[p]!;
        y[i]! += values[p]!;
        let length = 0;
        for (; flag[i] !== k; i = parent[i]!) {
          stack[length++] = i;
          flag[i] = k;
        }
        while (length > 0) stack[--top] = stack[--length]!;
      }
      const before = Math.abs(y[k]!);
      let pivot = y[k]!;
      y[k] = 0;
      for (; top < n; top++) {
        const i = stack[top]!;
        const yi = y[i]!;
        y[i] = 0;
        const from = lowerStart[i]!;
        const to = from + filled[i]!;
        for (let p = from; p < to; p++) {
          const r = lowerRows[p]!;
          y[r] = y[r]! - lower[p]! * yi;
        }
        const l = yi / diagonal[i]!;
        pivot -= l * yi;
        lowerRows[to] = k;
        lower[to] = l;
        filled[i]! += 1;
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
      const xj = x[j]!;
      for (let p = lowerStart[j]!; p < lowerStart[j + 1]!; p++) {
        const r = lowerRows[p]!;
        x[r] = x[r]! - lower[p]! * xj;
      }
    }
    for (let j = 0; j < n; j++) x[j]! /= diagonal[j]!;
    for (let j = n - 1; j >= 0; j--) {
      let sum = x[j]!;
      for (let p = lowerStart[j]!; p < lowerStart[j + 1]!; p++) sum -= lower[p]! * x[lowerRows[p]!]!;
      x[j] = sum;
    }
  }
}
