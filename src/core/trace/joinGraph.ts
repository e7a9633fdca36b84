/** One reason why two nodes are one net; `fact` is null for what the board held from the start. */
export interface JoinEdge {
  readonly a: string;
  readonly b: string;
  readonly fact: string | null;
}

/**
 * Nodes (pins and net names) joined by edges that each carry the fact behind them, so that edges can be taken out
 * again and a chain of reasons can be shown.
 */
export class JoinGraph {
  private edges: JoinEdge[] = [];
  private components: ReadonlyMap<string, number> | null = null;

  add(edge: JoinEdge): void {
    this.edges.push(edge);
    this.components = null;
  }

  /** Takes every edge at a node out. */
  detach(node: string): void {
    this.edges = this.edges.filter((e) => e.a !== node && e.b !== node);
    this.components = null;
  }

  joined(a: string, b: string): boolean {
    return a === b || (this.component(a) !== null && this.component(a) === this.component(b));
  }

  /** Number of the component of a node; null for one without edges. */
  component(node: string): number | null {
    this.components ??= this.build();
    return this.components.get(node) ?? null;
  }

  /** The facts on the shortest chain of edges between two joined nodes, each once. */
  chain(from: string, to: string): readonly string[] {
    const came = new Map<string, JoinEdge | null>([[from, null]]);
    const queue = [from];
    const at = this.neighbours();
    for (let node = queue.shift(); node !== undefined && node !== to; node = queue.shift()) {
      for (const edge of at.get(node) ?? []) {
        const next = edge.a === node ? edge.b : edge.a;
        if (came.has(next)) continue;
        came.set(next, edge);
        queue.push(next);
      }
    }
    const facts: string[] = [];
    for (let node = to, edge = came.get(node); edge; edge = came.get(node)) {
      if (edge.fact !== null && !facts.includes(edge.fact)) facts.unshift(edge.fact);
      node = edge.a === node ? edge.b : edge.a;
    }
    return facts;
  }

  private build(): ReadonlyMap<string, number> {
    const at = this.neighbours();
    const found = new Map<string, number>();
    let count = 0;
    for (const start of at.keys()) {
      if (found.has(start)) continue;
      const stack = [start];
      found.set(start, count);
      for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
        for (const edge of at.get(node)!) {
          const next = edge.a === node ? edge.b : edge.a;
          if (found.has(next)) continue;
          found.set(next, count);
          stack.push(next);
        }
      }
      count++;
    }
    return found;
  }

  private neighbours(): Map<string, JoinEdge[]> {
    const at = new Map<string, JoinEdge[]>();
    for (const edge of this.edges) {
      for (const node of [edge.a, edge.b]) {
        const here = at.get(node);
        if (here) here.push(edge);
        else at.set(node, [edge]);
      }
    }
    return at;
  }
}
