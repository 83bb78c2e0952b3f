/**
 * The cheapest cut between a source and a sink. Two trees grow towards each other, what carries is filled up where they
 * meet, and what was cut off looks for another parent. Boykov and Kolmogorov (2004), *An Experimental Comparison of
 * Min-Cut/Max-Flow Algorithms for Energy Minimization in Vision*.
 */
export class MinimumCut {
  private readonly first: Int32Array;
  /** What is left of an arc; two lie side by side, there and back. */
  private readonly left: Float64Array;
  private readonly head: Int32Array;
  private readonly next: Int32Array;
  /** Above zero: from the source; below: to the sink. */
  private readonly terminal: Float64Array;
  private arcs = 0;

  constructor(
    readonly nodes: number,
    edges: number,
  ) {
    this.first = new Int32Array(nodes).fill(-1);
    this.left = new Float64Array(edges * 2);
    this.head = new Int32Array(edges * 2);
    this.next = new Int32Array(edges * 2);
    this.terminal = new Float64Array(nodes);
  }

  /** What it costs a node to end with the sink, and with the source. */
  addNode(node: number, withSink: number, withSource: number): void {
    this.terminal[node]! += withSink - withSource;
  }

  /** What it costs that `a` ends with the source and `b` with the sink, and the other way round. */
  addEdge(a: number, b: number, there: number, back: number): void {
    const i = this.arcs;
    this.head[i] = b;
    this.left[i] = there;
    this.next[i] = this.first[a]!;
    this.first[a] = i;
    this.head[i + 1] = a;
    this.left[i + 1] = back;
    this.next[i + 1] = this.first[b]!;
    this.first[b] = i + 1;
    this.arcs += 2;
  }

  /** One for each node that ends with the sink. */
  solve(): Uint8Array {
    const { nodes, terminal } = this;
    const tree = new Uint8Array(nodes);
    const parent = new Int32Array(nodes).fill(noParent);
    const stamp = new Int32Array(nodes),
      far = new Int32Array(nodes);
    // No node waits twice: a ring of as many places is never full.
    const active = new Int32Array(nodes);
    const waiting = new Uint8Array(nodes);
    let at = 0,
      end = 0,
      many = 0,
      time = 0;
    const wake = (n: number) => {
      if (waiting[n]) return;
      waiting[n] = 1;
      active[end] = n;
      end = end + 1 === nodes ? 0 : end + 1;
      many++;
    };
    const done = (n: number) => {
      waiting[n] = 0;
      at = at + 1 === nodes ? 0 : at + 1;
      many--;
    };
    for (let n = 0; n < nodes; n++) {
      if (terminal[n] === 0) continue;
      tree[n] = terminal[n]! > 0 ? ofSource : ofSink;
      parent[n] = atTerminal;
      far[n] = 1;
      wake(n);
    }
    const orphans: number[] = [];
    while (many > 0) {
      const node = active[at]!;
      if (!tree[node]) {
        done(node);
        continue;
      }
      const meeting = this.grow(node, tree, parent, stamp, far, wake);
      if (meeting < 0) {
        done(node);
        continue;
      }
      time++;
      this.augment(meeting, parent, orphans);
      while (orphans.length > 0) this.adopt(orphans.pop()!, tree, parent, stamp, far, time, orphans, wake);
    }
    return tree.map((t) => (t === ofSink ? 1 : 0));
  }

  /** The arc, from the source's tree into the sink's, at which they meet; -1 where the node has no more neighbours to win. */
  private grow(
    node: number,
    tree: Uint8Array,
    parent: Int32Array,
    stamp: Int32Array,
    far: Int32Array,
    wake: (n: number) => void,
  ): number {
    const { first, next, head, left } = this;
    const mine = tree[node]!;
    for (let arc = first[node]!; arc >= 0; arc = next[arc]!) {
      // A sink's tree grows against the flow.
      if ((mine === ofSource ? left[arc]! : left[arc ^ 1]!) <= 0) continue;
      const to = head[arc]!;
      if (!tree[to]) {
        tree[to] = mine;
        parent[to] = arc ^ 1;
        stamp[to] = stamp[node]!;
        far[to] = far[node]! + 1;
        wake(to);
      } else if (tree[to] !== mine) return mine === ofSource ? arc : arc ^ 1;
      else if (stamp[to]! <= stamp[node]! && far[to]! > far[node]! + 1) {
        parent[to] = arc ^ 1;
        stamp[to] = stamp[node]!;
        far[to] = far[node]! + 1;
      }
    }
    return -1;
  }

  private augment(meeting: number, parent: Int32Array, orphans: number[]): void {
    const { head, left, terminal } = this;
    let room = left[meeting]!;
    let n = head[meeting ^ 1]!;
    for (; parent[n]! >= 0; n = head[parent[n]!]!) room = Math.min(room, left[parent[n]! ^ 1]!);
    room = Math.min(room, terminal[n]!);
    n = head[meeting]!;
    for (; parent[n]! >= 0; n = head[parent[n]!]!) room = Math.min(room, left[parent[n]!]!);
    room = Math.min(room, -terminal[n]!);
    left[meeting]! -= room;
    left[meeting ^ 1]! += room;
    n = head[meeting ^ 1]!;
    while (parent[n]! >= 0) {
      const arc = parent[n]!;
      left[arc]! += room;
      left[arc ^ 1]! -= room;
      const up = head[arc]!;
      if (left[arc ^ 1]! <= 0) {
        parent[n] = noParent;
        orphans.push(n);
      }
      n = up;
    }
    terminal[n]! -= room;
    if (terminal[n]! <= 0) {
      parent[n] = noParent;
      orphans.push(n);
    }
    n = head[meeting]!;
    while (parent[n]! >= 0) {
      const arc = parent[n]!;
      left[arc ^ 1]! += room;
      left[arc]! -= room;
      const up = head[arc]!;
      if (left[arc]! <= 0) {
        parent[n] = noParent;
        orphans.push(n);
      }
      n = up;
    }
    terminal[n]! += room;
    if (terminal[n]! >= 0) {
      parent[n] = noParent;
      orphans.push(n);
    }
  }

  private adopt(
    node: number,
    tree: Uint8Array,
    parent: Int32Array,
    stamp: Int32Array,
    far: Int32Array,
    time: number,
    orphans: number[],
    wake: (n: number) => void,
  ): void {
    const { first, next, head, left } = this;
    const mine = tree[node]!;
    let best = -1,
      nearest = Infinity;
    for (let arc = first[node]!; arc >= 0; arc = next[arc]!) {
      if ((mine === ofSource ? left[arc ^ 1]! : left[arc]!) <= 0) continue;
      const to = head[arc]!;
      if (tree[to] !== mine || parent[to] === noParent) continue;
      const d = this.toRoot(to, parent, stamp, far, time);
      if (d < nearest) {
        nearest = d;
        best = arc;
      }
    }
    if (best >= 0) {
      parent[node] = best;
      stamp[node] = time;
      far[node] = nearest + 1;
      return;
    }
    for (let arc = first[node]!; arc >= 0; arc = next[arc]!) {
      const to = head[arc]!;
      if (tree[to] !== mine) continue;
      if ((mine === ofSource ? left[arc ^ 1]! : left[arc]!) > 0) wake(to);
      if (parent[to]! >= 0 && head[parent[to]!] === node) {
        parent[to] = noParent;
        orphans.push(to);
      }
    }
    tree[node] = 0;
  }

  /** Steps to the terminal; Infinity where the way ends at what was cut off. The way is marked, so that it is gone once. */
  private toRoot(node: number, parent: Int32Array, stamp: Int32Array, far: Int32Array, time: number): number {
    const { head } = this;
    let d = 0,
      n = node;
    for (;;) {
      if (stamp[n] === time && parent[n] !== noParent) {
        d += far[n]!;
        break;
      }
      const up = parent[n]!;
      if (up === noParent) return Infinity;
      d++;
      if (up === atTerminal) {
        stamp[n] = time;
        far[n] = 1;
        break;
      }
      n = head[up]!;
    }
    for (let m = node, k = d; stamp[m] !== time; m = head[parent[m]!]!, k--) {
      stamp[m] = time;
      far[m] = k;
    }
    return d;
  }
}

const ofSource = 1,
  ofSink = 2;
const noParent = -2,
  atTerminal = -1;
