/**
 * Merges integers 0..n-1 into sets, with path halving and union by size.
 *
 * State is two Int32Arrays made once. `union` and `find` run in near-constant time.
 * Source: R. E. Tarjan and J. van Leeuwen, "Worst-case analysis of set union algorithms", J. ACM 31 (1984).
 */
export class DisjointSets {
  private readonly parent: Int32Array;
  private readonly size: Int32Array;

  constructor(readonly count: number) {
    this.parent = Int32Array.from({ length: count }, (_, i) => i);
    this.size = new Int32Array(count).fill(1);
  }

  /** The representative of the set that holds `item`. */
  find(item: number): number {
    let i = item;
    while (this.parent[i] !== i) {
      this.parent[i] = this.parent[this.parent[i]!]!;
      i = this.parent[i]!;
    }
    return i;
  }

  /** Merges the sets of a and b; true when they were apart. */
  union(a: number, b: number): boolean {
    const rootA = this.find(a);
    const rootB = this.find(b);
    if (rootA === rootB) return false;
    const [big, small] = this.size[rootA]! >= this.size[rootB]! ? [rootA, rootB] : [rootB, rootA];
    this.parent[small] = big;
    this.size[big] = this.size[big]! + this.size[small]!;
    return true;
  }

  /** Whether a and b are in one set. */
  joined(a: number, b: number): boolean {
    return this.find(a) === this.find(b);
  }
}
