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
  /** Edges at each node, in the order they were added. */
  private readonly at = new Map<string, JoinEdge[]>();
  /** Component of each node and the nodes of each component; null until somebody asks. */
  private known: { readonly of: Map<string, number>; readonly nodes: Map<number, string[]>; next: number } | null =
    null;

  add(edge: JoinEdge): void {
    for (const node of new Set([edge.a, edge.b])) {
      const here = this.at.get(node);
      if (here) here.push(edge);
      else this.at.set(node, [edge]);
    }
    if (this.known) this.merge(this.componentFor(edge.a), this.componentFor(edge.b));
  }

  /** Takes every edge at a node out. */
  detach(node: string): void {
    const gone = this.at.get(node);
    if (!gone) return;
    this.at.delete(node);
    for (const edge of gone) {
      const far = edge.a === node ? edge.b : edge.a;
      if (far === node) continue;
      const left = this.at.get(far)!.filter((e) => e !== edge);
      if (left.length > 0) this.at.set(far, left);
      else this.at.delete(far);
    }
    this.known = null;
  }

  joined(a: string, b: string): boolean {
    return a === b || (this.component(a) !== null && this.component(a) === this.component(b));
  }

  /** Number of the component of a node; null for one without edges. */
  component(node: string): number | null {
    if (!this.known) this.build();
    return this.known!.of.get(node) ?? null;
  }

  /** The facts on the shortest chain of edges between two joined nodes, each once. */
  chain(from: string, to: string): readonly string[] {
    const came = new Map<string, JoinEdge | null>([[from, null]]);
    const queue = [from];
    for (let node = queue.shift(); node !== undefined && node !== to; node = queue.shift()) {
      for (const edge of this.at.get(node) ?? []) {
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

  private build(): void {
    this.known = { of: new Map(), nodes: new Map(), next: 0 };
    for (const edges of this.at.values())
      for (const { a, b } of edges) this.merge(this.componentFor(a), this.componentFor(b));
  }

  private componentFor(node: string): number {
    const known = this.known!;
    const found = known.of.get(node);
    if (found !== undefined) return found;
    known.of.set(node, known.next);
    known.nodes.set(known.next, [node]);
    return known.next++;
  }

  /** The smaller becomes part of the larger: each node moves at most log(n) times. */
  private merge(a: number, b: number): void {
    if (a === b) return;
    const { of, nodes } = this.known!;
    const [from, into] = nodes.get(a)!.length < nodes.get(b)!.length ? [a, b] : [b, a];
    for (const node of nodes.get(from)!) {
      of.set(node, into);
      nodes.get(into)!.push(node);
    }
    nodes.delete(from);
  }
}
