import { valueTolerance } from '../part';
import { findDividers } from '../operate';
import type { Divider } from '../operate';
import { formatQuantity } from '../quantity';
import type { MeanNetwork } from './meanNetwork';
import type { Operation } from './operate';
import { flowsOf } from './workDevice';
import type { WorkDevice } from './workDevice';

/** A step of how a reading comes about: words with the numbers in them, and the parts they speak of. */
export interface DerivationStep {
  readonly words: string;
  readonly refs: readonly string[];
}

/** A step with how far its volts may lie off, V, of its own and for each volt that what it hangs on lies off. */
export interface Cause extends DerivationStep {
  readonly spread: number;
  readonly passes: number;
}

/** How a reading comes about, and how far a good unit may lie from it, V. */
export interface Derived {
  readonly steps: readonly DerivationStep[];
  readonly spread: number;
}

/** How far off, as a share of its volts: a meter, a source, a rectified rail, a reference, what an integrated circuit holds, a drive. */
export const OFF = {
  meter: 0.005,
  source: 0.01,
  rail: 0.02,
  reference: 0.01,
  held: 0.05,
  drive: 0.15,
  wound: 0.06,
  swing: 0.08,
  pin: 0.2,
  drop: 0.15,
};

export const volts = (v: number): string => formatQuantity(Math.abs(v) < NO_VOLTS ? 0 : v, 'V', 4);
export const amps = (v: number): string => formatQuantity(Math.abs(v), 'A');
export const ohms = (v: number): string => formatQuantity(v, 'ohm');
export const percent = (share: number): string => `${formatQuantity(100 * share, '1')} %`;

/** What lies off by itself, whatever stands before it. */
export const own = (spread: number): Pick<Cause, 'spread' | 'passes'> => ({ spread: Math.abs(spread), passes: 0 });

/** Less than this is nothing, volt. */
const NO_VOLTS = 1e-6;
/** Devices of the network that stand for no part. */
const NO_PARTS: ReadonlySet<string> = new Set(['switching', 'symmetry', 'mains', 'meter']);

/** A unit at work as derivations see it: its nets, what hangs on each, what flows there. */
export class Scene {
  readonly net: readonly string[];
  readonly at = new Map<number, WorkDevice[]>();
  readonly dividers: readonly Divider[];
  /** The network as it was solved last, for what is joined to what. */
  readonly network: MeanNetwork;
  private readonly refs: ReadonlySet<string>;

  constructor(readonly operation: Operation) {
    const { unit } = operation;
    this.net = unit.circuit.nodeNames;
    this.refs = new Set(unit.plan.board.parts.map((p) => p.ref));
    this.dividers = findDividers(unit.plan.board);
    this.network = unit.network(unit.lastDevices);
    for (const device of unit.lastDevices)
      for (const n of new Set(device.nodes)) this.at.set(n, [...(this.at.get(n) ?? []), device]);
  }

  between(a: number, b: number): number {
    return this.operation.volts[a]! - this.operation.volts[b]!;
  }

  /** Parts that a device of the network is or belongs to. */
  refsOf(name: string): readonly string[] {
    return name
      .split('+')
      .map((n) => n.split(/[ /]/u)[0]!)
      .flatMap((n) => (this.refs.has(n) ? [n] : []));
  }

  toleranceOf(name: string): number {
    const part = this.operation.unit.plan.board.parts.find((p) => p.ref === name);
    return part ? valueTolerance(part) : OFF.reference;
  }

  /** What flows out of a node through each device that leads to another node. */
  flowsAt(node: number): readonly Flow[] {
    const x = this.operation.volts;
    return (this.at.get(node) ?? []).flatMap((d): Flow[] => {
      if (NO_PARTS.has(d.name) || d.name.startsWith('line ')) return [];
      const n = d.nodes.length;
      const i = d.nodes.indexOf(node);
      const flow = flowsOf(d, x);
      const group = d.joins.find((g) => g.includes(node));
      const others = (group ?? []).filter((k) => k !== node);
      // Of several other ends, the one that the current leaves by.
      const to = [...others].sort((p, q) => flow[d.nodes.indexOf(p)]! - flow[d.nodes.indexOf(q)]!)[
        flow[i]! > 0 ? 0 : others.length - 1
      ];
      if (to === undefined) return [];
      const across = x[node]! - x[to]!;
      const straight = d.linear && n === 2 && Math.abs(flow[i]!) > 1e-12 && this.refs.has(d.name.split('+')[0]!);
      return [{ name: d.name.split(/[ /]/u)[0]!, to, amps: flow[i]!, ohms: straight ? across / flow[i]! : null }];
    });
  }
}

/** What flows out of a node through a device that leads to another one, ampere. */
export interface Flow {
  readonly name: string;
  readonly to: number;
  readonly amps: number;
  /** Of a resistance: its ohms. */
  readonly ohms: number | null;
}
