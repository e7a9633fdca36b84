import type { Device } from '../device';
import { factorDense, solveDense } from '../linear';
import { sheetFact } from '../part';
import type { UnitCircuit } from './unitCircuit';

/** Volts of a node as a sum of those of others, each with its weight, and of some steady ones. */
export interface NodeSum {
  readonly terms: readonly (readonly [node: number, weight: number])[];
  readonly more: number;
}

/** Parts whose pins take no current but what their devices take. */
const PASSIVE: ReadonlySet<string> = new Set(['resistor', 'capacitor', 'connector', 'diode']);
/** Stands for a diode in reverse, siemens. */
const REVERSE_SIEMENS = 1e-8;
/** A capacitor of this at a node holds it at its mean, farad. */
const HOLDS = 100e-12;

/**
 * Nodes that hang between others by resistors alone: what a divider makes of whatever its ends do. isPlaced: whether the volts
 * of a node are known by themselves.
 */
export class HangingNodes {
  private readonly resistors: ReadonlyMap<number, readonly Device[]>;
  private readonly busy: ReadonlySet<number>;
  private readonly known = new Map<number, NodeSum | null>();

  constructor(
    private readonly unit: UnitCircuit,
    private readonly isPlaced: (node: number) => boolean,
  ) {
    const { circuit, plan } = unit;
    const resistors = new Map<number, Device[]>();
    const busy = new Set<number>();
    const diodes = new Map<number, Device[]>();
    const put = (map: Map<number, Device[]>, d: Device): void => {
      for (const n of d.nodes) map.set(n, [...(map.get(n) ?? []), d]);
    };
    for (const d of circuit.devices) {
      if (d.model.kind === 'resistor') put(resistors, d);
      else if (d.model.kind === 'junction') put(diodes, d);
      else if (!d.model.kind.endsWith('capacitor') || circuit.parameters[d.at]! >= HOLDS)
        for (const n of d.nodes) busy.add(n);
    }
    for (const [n, own] of diodes) {
      const [one, two] = own;
      // Two in a row, the same way: in reverse they share alike.
      if (own.length === 2 && one!.nodes.indexOf(n) !== two!.nodes.indexOf(n) && !unit.isSteady(n))
        for (const d of own) if (!resistors.get(n)?.includes(d)) put(resistors, d);
    }
    for (const [n, own] of diodes) if (own.some((d) => !resistors.get(n)?.includes(d))) busy.add(n);
    const names = [...plan.outputs, ...plan.supplies, { rail: plan.inputs.rail, return: plan.inputs.return }];
    for (const o of names) for (const net of [o.rail, o.return]) if (net !== null) busy.add(unit.node(net));
    plan.board.parts.forEach((p, i) => {
      if (!p.fitted || PASSIVE.has(p.kind)) return;
      // An opto with a thyristor or triac takes nothing there while it is off.
      const open = p.kind === 'opto' && sheetFact(plan.board.facts, p.ref, 'iTrigger') !== undefined;
      for (const n of open ? circuit.pins[i]!.slice(0, 2) : circuit.pins[i]!) busy.add(n);
    });
    this.resistors = resistors;
    this.busy = busy;
  }

  /** The volts of a node that hangs; null for one that does not, or whose ends nobody knows. */
  of(node: number): NodeSum | null {
    const known = this.known.get(node);
    if (known !== undefined) return known;
    const made = this.solve(node);
    this.known.set(node, made);
    return made;
  }

  private hangs(n: number): boolean {
    return !this.busy.has(n) && !this.isPlaced(n);
  }

  private solve(node: number): NodeSum | null {
    if (!this.hangs(node)) return null;
    const inside = [node];
    const ends: number[] = [];
    for (let i = 0; i < inside.length; i++)
      for (const d of this.resistors.get(inside[i]!) ?? []) {
        const far = d.nodes[0] === inside[i] ? d.nodes[1]! : d.nodes[0]!;
        if (inside.includes(far) || ends.includes(far)) continue;
        (this.hangs(far) ? inside : ends).push(far);
      }
    if (ends.length === 0 || inside.length > MOST_HANGING) return null;
    const n = inside.length;
    const { parameters } = this.unit.circuit;
    const matrix = new Float64Array(n * n);
    const fed = ends.map(() => new Float64Array(n));
    inside.forEach((at, i) => {
      for (const d of this.resistors.get(at) ?? []) {
        const far = d.nodes[0] === at ? d.nodes[1]! : d.nodes[0]!;
        const g = d.model.kind === 'resistor' ? 1 / Math.max(parameters[d.at]!, 1e-3) : REVERSE_SIEMENS;
        matrix[i * n + i] = matrix[i * n + i]! + g;
        const j = inside.indexOf(far);
        if (j >= 0) matrix[i * n + j] = matrix[i * n + j]! - g;
        else {
          const end = fed[ends.indexOf(far)]!;
          end[i] = end[i]! + g;
        }
      }
    });
    const pivots = new Int32Array(n);
    if (!factorDense(matrix, pivots, n).ok) return null;
    for (const f of fed) solveDense(matrix, pivots, n, f);
    return { terms: ends.map((e, k) => [e, fed[k]![0]!] as const), more: 0 };
  }
}

const MOST_HANGING = 40;
