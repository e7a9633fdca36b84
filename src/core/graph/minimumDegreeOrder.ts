/**
 * An elimination order that keeps fill low: always the node with the fewest remaining neighbours next.
 *
 * n      number of nodes
 * edges  pairs a, b flattened: edges[2k], edges[2k+1]; self loops and repeats are allowed
 * Gives the order, n node numbers. Ties go to the lower number, so the order is deterministic.
 * Source: W. F. Tinney and J. W. Walker, "Direct solutions of sparse network equations by optimally
 * ordered triangular factorization", Proc. IEEE 55 (1967), scheme 2.
 */
export function minimumDegreeOrder(n: number, edges: Int32Array): Int32Array {
  const neighbours = Array.from({ length: n }, () => new Set<number>());
  for (let e = 0; e + 1 < edges.length; e += 2) {
    const a = edges[e]!;
    const b = edges[e + 1]!;
    if (a === b) continue;
    neighbours[a]!.add(b);
    neighbours[b]!.add(a);
  }
  const order = new Int32Array(n);
  const done = new Uint8Array(n);
  for (let k = 0; k < n; k++) {
    let pick = -1;
    for (let i = 0; i < n; i++) {
      if (done[i] === 0 && (pick < 0 || neighbours[i]!.size < neighbours[pick]!.size)) pick = i;
    }
    order[k] = pick;
    done[pick] = 1;
    const around = [...neighbours[pick]!];
    for (const a of around) {
      const set = neighbours[a]!;
      set.delete(pick);
      for (const b of around) if (b !== a) set.add(b);
    }
  }
  return order;
}
