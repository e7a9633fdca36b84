import { netKey } from '../circuit';
import { RESISTOR, flatten, isCapacitor } from '../device';
import type { Circuit, Device } from '../device';
import type { Fault } from '../fault';
import type { PowerConverter } from '../stages';
import { findBootstraps } from './bootstrap';
import type { Bootstrap } from './bootstrap';
import type { Cell } from './cell';
import type { PeriodResult, Slopes } from './cellPlan';
import { withSwitches } from './unknownSwitch';
import { boardAtWork } from './workBoard';
import type { OperatingCondition } from './workBoard';
import type { WorkIc, WorkPlan } from './workPlan';

/** What is switched on in a unit: which integrated circuits have their supply, which converters run, which relays are closed. */
export interface WorkState {
  readonly powered: Set<string>;
  readonly running: Set<number>;
  readonly closed: Set<string>;
}

/** A converter at work. */
export interface RunningCell {
  readonly converter: PowerConverter;
  readonly cell: Cell;
  /** Peak current of its switches, A, and how often they switch; one of the two closes its loop. */
  top: number;
  hertz: number;
  readonly by: 'top' | 'hertz';
  result: PeriodResult | null;
  /** The slopes that it was last straightened with. */
  slopes: Slopes | null;
  readonly senseOhms: number;
}

/** A rectified rail as the line side leaves it: the nodes of its reservoir, its lowest one and what a shunt joins to that. */
export interface RectifiedRail {
  readonly low: number;
  readonly nodes: readonly number[];
  readonly lows: ReadonlySet<number>;
}

/** Volts read between two nodes; held: the network is made to have them there. */
export interface TakenVolts {
  readonly a: number;
  readonly b: number;
  readonly volts: number;
  readonly held: boolean;
}

/** The circuit of a unit under power with its faults, and where everything lies in it. */
export class UnitCircuit {
  readonly circuit: Circuit;
  /** The devices of the circuit with the windings that only sense a current as the wires they are. */
  readonly powerDevices: readonly Device[];
  /** The switching part of each converter, where it has one. */
  cells: readonly (RunningCell | null)[] = [];
  /** The rails behind the rectifiers of the mains. */
  rectified: readonly RectifiedRail[] = [];
  /** What an inverter of the unit takes from its bus, ampere; set while solving. */
  alternating: { readonly amps: number } | null = null;
  readonly bootstraps: readonly Bootstrap[];
  /** Volts that were read between nodes and stand in place of the computed ones. */
  taken: readonly TakenVolts[] = [];
  /** By how much what holds a rail is off, by designator, as readings tell. */
  aims: ReadonlyMap<string, number> = new Map();
  /** Ohm of the shunts of converters, as far as they were asked for. */
  readonly shunts = new Map<PowerConverter, number>();
  private readonly steadyNodes: ReadonlySet<number>;
  private readonly partIndex: ReadonlyMap<string, number>;

  constructor(
    readonly plan: WorkPlan,
    readonly condition: OperatingCondition,
    readonly faults: readonly Fault[],
  ) {
    this.circuit = withSwitches(plan, flatten(boardAtWork(plan.board, condition), faults));
    this.powerDevices = this.circuit.devices.flatMap((d) =>
      d.model.kind === 'windings' && d.name.split('+').some((n) => plan.sensingWindings.has(n))
        ? Array.from({ length: d.model.states }, (_, k): Device => {
            const nodes = d.nodes.slice(2 * k, 2 * k + 2);
            return { ...d, model: RESISTOR, nodes, owners: d.owners.slice(2 * k, 2 * k + 2), at: d.at + k };
          })
        : [d],
    );
    this.partIndex = new Map(plan.board.parts.map((p, i) => [p.ref, i]));
    this.steadyNodes = new Set([...plan.steady].flatMap((n) => this.circuit.nodeOfNet.get(n) ?? []));
    this.bootstraps = findBootstraps(this);
  }

  /** Whether the volts of a node do not follow the switching. */
  isSteady(node: number): boolean {
    return this.steadyNodes.has(node);
  }

  node(net: string): number {
    return this.circuit.nodeOfNet.get(netKey(net)) ?? -1;
  }

  /** Nodes of a part's pins, inside what a fault has opened. */
  pinsOf(ref: string): readonly number[] {
    return this.circuit.pins[this.partIndex.get(ref)!]!;
  }

  pin(ic: WorkIc, role: string): number {
    const at = ic.roles[role]?.[0];
    return at === undefined ? -1 : this.circuit.pins[ic.index]![at]!;
  }

  ground(ic: WorkIc): number {
    return ic.ground === null ? -1 : this.circuit.pins[ic.index]![ic.ground]!;
  }

  /** Whether a device is part of the inside of an integrated circuit. */
  isInsideIc({ name }: Device): boolean {
    const slash = name.indexOf('/');
    return slash > 0 && this.plan.ics.has(name.slice(0, slash));
  }

  /** Farad between two nodes. */
  faradsBetween(a: number, b: number): number {
    const { devices, parameters } = this.circuit;
    return devices
      .filter((d) => isCapacitor(d) && d.nodes.slice(0, 2).every((n) => n === a || n === b))
      .reduce((sum, d) => sum + parameters[d.at]!, 0);
  }

  /** Farad at a node of every capacitor between it and another one that stands. */
  faradsAt(node: number): number {
    const { devices, parameters } = this.circuit;
    return devices
      .filter((d) => isCapacitor(d) && d.nodes.slice(0, 2).includes(node))
      .filter((d) => d.nodes.slice(0, 2).every((n) => this.isSteady(n)))
      .reduce((sum, d) => sum + parameters[d.at]!, 0);
  }

  /** The swinging node that a pin is divided down from, and by how much; null for a pin that stands by itself. */
  sampled(pin: number, ground: number, running: RunningCell): { readonly node: number; readonly share: number } | null {
    const { circuit } = this;
    const near = new Map<number, number>();
    for (const d of circuit.devices) {
      if (d.model.kind !== 'resistor') continue;
      const [a, b] = [d.nodes[0]!, d.nodes[1]!];
      if (a !== pin && b !== pin) continue;
      const far = this.beyondOpen(a === pin ? b : a, d);
      near.set(far.node, (near.get(far.node) ?? 0) + 1 / (circuit.parameters[d.at]! + far.ohms));
    }
    const rides = (n: number): boolean => [...this.plan.riding].some(([net]) => this.node(net) === n);
    const own = [...near.keys()].find(
      (n) => n !== ground && running.cell.unknownOf.has(n) && !this.isSteady(n) && !rides(n),
    );
    if (own === undefined) return null;
    const total = [...near.values()].reduce((sum, g) => sum + g, 0);
    return { node: own, share: near.get(own)! / total };
  }

  /** What an opened pin hides: the node beyond its break. */
  private beyondOpen(node: number, from: Device): { readonly node: number; readonly ohms: number } {
    const { circuit } = this;
    if (circuit.nodeNames[node] !== 'NC') return { node, ohms: 0 };
    const next = circuit.devices.find((d) => d !== from && d.model.kind === 'resistor' && d.nodes.includes(node));
    return next
      ? { node: next.nodes[0] === node ? next.nodes[1]! : next.nodes[0]!, ohms: circuit.parameters[next.at]! }
      : { node, ohms: Infinity };
  }
}
