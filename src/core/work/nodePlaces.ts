import { HangingNodes } from './hanging';
import type { NodeSum } from './hanging';
import type { Modelled } from './modelled';
import type { Operation } from './operate';
import type { RunningCell } from './unitCircuit';

/** Whether a cell knows the volts of a node moment by moment. */
export function isPlaced({ cell }: RunningCell, node: number): boolean {
  const spot = cell.softSpots.get(node) ?? cell.spots.get(node);
  return spot !== undefined && spot.unknown >= 0;
}

/** By what the volts of the nodes of a unit at work are known: by themselves, by what they ride on, by what they hang between. */
export class NodePlaces {
  readonly riding: ReadonlyMap<number, number>;
  private readonly hanging: HangingNodes;

  /** cells: those that run. modelled: converters in closed form. */
  constructor(
    private readonly operation: Operation,
    private readonly cells: readonly RunningCell[],
    private readonly modelled: readonly Modelled[],
  ) {
    const { unit } = operation;
    this.riding = new Map([...unit.plan.riding].map(([a, b]) => [unit.node(a), unit.node(b)]));
    this.hanging = new HangingNodes(unit, (n) => this.stands(n) || this.riding.has(n));
  }

  /** The two volts that a node goes between, where it does. */
  statesOf(node: number): readonly [number, number] | undefined {
    for (const { states } of this.modelled) {
      const own = states.get(node);
      if (own) return own;
    }
    return undefined;
  }

  /** Whether the volts between two nodes can be told: where one moves, or nothing runs, both must be known by what they are. */
  isKnown(a: number, b: number): boolean {
    const { unit, state } = this.operation;
    const told = (n: number): boolean =>
      this.stands(n) || this.hanging.of(n) !== null || (this.riding.has(n) && state.running.size > 0);
    const moves = (n: number): boolean =>
      !unit.isSteady(n) &&
      (this.statesOf(n) !== undefined ||
        unit.line?.lineNodes.has(n) === true ||
        this.cells.some((own) => isPlaced(own, n)));
    const rests = state.running.size === 0 && (this.riding.has(a) || this.riding.has(b));
    return (told(a) && told(b)) || (!moves(a) && !moves(b) && !rests);
  }

  /** Whether the volts of a node are known by themselves. */
  private stands(n: number): boolean {
    const { unit } = this.operation;
    return (
      this.statesOf(n) !== undefined ||
      unit.isSteady(n) ||
      unit.line?.spotOf.has(n) === true ||
      this.cells.some((own) => isPlaced(own, n))
    );
  }

  /** The volts of a node by those that are known by themselves. */
  private resolved(node: number): NodeSum {
    const { volts } = this.operation;
    const base = this.stands(node) ? undefined : this.riding.get(node);
    if (base !== undefined) return { terms: [[base, 1]], more: volts[node]! - volts[base]! };
    return this.hanging.of(node) ?? { terms: [[node, 1]], more: 0 };
  }

  /** The volts from one node to another by those that are known by themselves. */
  difference(a: number, b: number): NodeSum {
    const [p, q] = [this.resolved(a), this.resolved(b)];
    const sums = new Map<number, number>();
    for (const [n, w] of p.terms) sums.set(n, (sums.get(n) ?? 0) + w);
    for (const [n, w] of q.terms) sums.set(n, (sums.get(n) ?? 0) - w);
    return { terms: [...sums].filter(([, w]) => Math.abs(w) > 1e-9), more: p.more - q.more };
  }
}
