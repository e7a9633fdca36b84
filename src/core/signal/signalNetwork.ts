import type { Circuit, Device } from '../device';
import { invertComplex } from '../linear';
import type { Complex } from '../linear';
import { deviceBlock } from './deviceBlock';
import type { ComplexMatrix, DeviceBlock } from './deviceBlock';
import { SmallSignal } from './smallSignal';

/** The effect that one sigma of a draw has on an impedance, ohm; the draw's number, the part's, and one sigma of its log. */
export interface DrawEffect {
  readonly draw: number;
  readonly owner: number;
  readonly sigma: number;
  readonly effect: Complex;
}

/** What a board is to a small signal at one frequency. Nets by their keys. */
export interface SignalBoard {
  /** Ohm between two nets; null where nothing joins them; undefined: a net is not there. */
  impedance(red: string, black: string): Complex | null | undefined;
  /** What the draws of the parts do to it. */
  effects(red: string, black: string): readonly DrawEffect[];
}

/**
 * A board at one frequency, its matrix inverted once: any pair of nets is read from it at once, and so is every fault, by
 * the few nodes that it touches.
 *
 * With Z the inverse of Y, and a fault that adds D between the nodes T:
 * Z' = Z - Z[:,T] D (1 + Z[T,T] D)^-1 Z[T,:]. Derivatives by the adjoint: dz = -x' dY x with x = Y^-1 e.
 * Source: M. A. Woodbury, Inverting modified matrices (1950); S. W. Director and R. A. Rohrer, IEEE Trans. Circuit Theory
 * CT-16 (1969).
 */
export class SignalNetwork implements SignalBoard {
  readonly small: SmallSignal;
  readonly n: number;
  readonly z: ComplexMatrix;
  /** Unknown of each node, by the node that stands for it; -1: the reference of its piece. */
  private readonly unknowns: Int32Array;
  private readonly blocks = new Map<Device, DeviceBlock>();
  private readonly known: ReadonlySet<Device>;

  constructor(
    readonly circuit: Circuit,
    readonly omega: number,
  ) {
    this.small = new SmallSignal(circuit);
    this.unknowns = new Int32Array(circuit.nodeNames.length).fill(-1);
    const free = freeNodes(this.small);
    free.forEach((node, i) => (this.unknowns[node] = i));
    const n = (this.n = free.length);
    this.known = new Set(circuit.devices);
    const [re, im] = [new Float64Array(n * n), new Float64Array(n * n)];
    for (const device of this.small.devices) {
      const { own } = this.blockOf(device, circuit.parameters);
      const at = device.nodes.map((node) => this.unknownOf(node));
      stamp({ re, im }, n, at, own, 1);
    }
    invertComplex(re, im, n);
    this.z = { re, im };
  }

  /** The unknown of a node of the circuit; -1: its piece is told against it. */
  unknownOf(node: number): number {
    return this.unknowns[this.small.standsFor(node)]!;
  }

  blockOf(device: Device, parameters: Float64Array): DeviceBlock {
    const known = this.blocks.get(device);
    if (known) return known;
    const made = deviceBlock(device, parameters, this.omega);
    this.blocks.set(device, made);
    return made;
  }

  /** Whether a device is one of this circuit. */
  has(device: Device): boolean {
    return this.known.has(device);
  }

  /** Nodes of two nets; a word where there is nothing to read between them. */
  leads(red: string, black: string): readonly [red: number, black: number] | 'unknown' | 'apart' {
    const [a, b] = [this.small.nodeOf(red), this.small.nodeOf(black)];
    if (a === undefined || b === undefined) return 'unknown';
    return this.small.joined(a, b) ? [a, b] : 'apart';
  }

  /** Volts of every unknown for one ampere into one node and out of another. */
  voltsFor([red, black]: readonly [number, number]): ComplexMatrix {
    const { n, z } = this;
    const x = { re: new Float64Array(n), im: new Float64Array(n) };
    for (const [node, sign] of [
      [red, 1],
      [black, -1],
    ] as const) {
      const at = this.unknownOf(node);
      for (let i = 0; at >= 0 && i < n; i++) {
        x.re[i] = x.re[i]! + sign * z.re[i * n + at]!;
        x.im[i] = x.im[i]! + sign * z.im[i * n + at]!;
      }
    }
    return x;
  }

  impedance(red: string, black: string): Complex | null | undefined {
    const leads = this.leads(red, black);
    if (leads === 'unknown') return undefined;
    if (leads === 'apart') return null;
    return this.between(this.voltsFor(leads), leads);
  }

  /** What stands between two nodes in given volts. */
  between(x: ComplexMatrix, [red, black]: readonly [number, number]): Complex {
    const [a, b] = [this.unknownOf(red), this.unknownOf(black)];
    return {
      re: (a < 0 ? 0 : x.re[a]!) - (b < 0 ? 0 : x.re[b]!),
      im: (a < 0 ? 0 : x.im[a]!) - (b < 0 ? 0 : x.im[b]!),
    };
  }

  effects(red: string, black: string): readonly DrawEffect[] {
    const leads = this.leads(red, black);
    if (typeof leads === 'string') return [];
    const x = this.voltsFor(leads);
    const felt = new Effects();
    for (const device of this.small.devices) felt.add(device, this.blockOf(device, this.circuit.parameters), x, this);
    return felt.list();
  }
}

/**
 * The nodes that something hangs on but for one of each piece, which the others are told against: where the most hangs, or all
 * else would stand on a resistance that blurs it.
 */
function freeNodes(small: SmallSignal): readonly number[] {
  const hanging = new Map<number, number>();
  for (const { nodes } of small.devices)
    for (const node of nodes) hanging.set(small.standsFor(node), (hanging.get(small.standsFor(node)) ?? 0) + 1);
  const best = new Map<number, number>();
  for (const [node, count] of hanging) {
    const known = best.get(small.pieceOf(node));
    if (known === undefined || count > hanging.get(known)!) best.set(small.pieceOf(node), node);
  }
  const references = new Set(best.values());
  return [...hanging.keys()].filter((node) => !references.has(node));
}

/** Adds a device's block into a matrix, `at` the row of each terminal, negative ones left out. */
export function stamp(
  into: ComplexMatrix,
  n: number,
  at: readonly number[],
  { re, im }: ComplexMatrix,
  sign: number,
): void {
  const t = at.length;
  for (let i = 0; i < t; i++) {
    if (at[i]! < 0) continue;
    for (let j = 0; j < t; j++) {
      if (at[j]! < 0) continue;
      const k = at[i]! * n + at[j]!;
      into.re[k] = into.re[k]! + sign * re[i * t + j]!;
      into.im[k] = into.im[k]! + sign * im[i * t + j]!;
    }
  }
}

/** Sums what each draw does to an impedance, device by device. */
export class Effects {
  private readonly byDraw = new Map<number, { owner: number; sigma: number; re: number; im: number }>();

  /** Adds those of a device, by the volts at its terminals. */
  add(device: Device, block: DeviceBlock, x: ComplexMatrix, network: { unknownOf(node: number): number }): void {
    const { model, nodes, owners, sigmas, draws } = device;
    const t = nodes.length;
    let told = false;
    for (let i = 0; i < t; i++) {
      const at = network.unknownOf(nodes[i]!);
      volts.re[i] = at < 0 ? 0 : x.re[at]!;
      volts.im[i] = at < 0 ? 0 : x.im[at]!;
      told ||= volts.re[i] !== volts.re[0] || volts.im[i] !== volts.im[0];
    }
    if (!told) return;
    for (let m = 0; m < sigmas.length; m++) {
      if (!(sigmas[m]! > 0)) continue;
      const { re, im } = block.byLog[m]!;
      let [er, ei] = [0, 0];
      for (let i = 0; i < t; i++)
        for (let j = 0; j < t; j++) {
          const [yr, yi] = [re[i * t + j]!, im[i * t + j]!];
          if (yr === 0 && yi === 0) continue;
          const pr = volts.re[i]! * volts.re[j]! - volts.im[i]! * volts.im[j]!;
          const pi = volts.re[i]! * volts.im[j]! + volts.im[i]! * volts.re[j]!;
          er -= pr * yr - pi * yi;
          ei -= pr * yi + pi * yr;
        }
      const owner = owners[model.kind === 'windings' ? 2 * (m % model.states) : 0]!;
      const kept = this.byDraw.get(draws[m]!) ?? { owner, sigma: sigmas[m]!, re: 0, im: 0 };
      kept.re += er * sigmas[m]!;
      kept.im += ei * sigmas[m]!;
      this.byDraw.set(draws[m]!, kept);
    }
  }

  list(): readonly DrawEffect[] {
    return [...this.byDraw].map(([draw, { owner, sigma, re, im }]) => ({ draw, owner, sigma, effect: { re, im } }));
  }
}

const MOST_TERMINALS = 64;
const volts = { re: new Float64Array(MOST_TERMINALS), im: new Float64Array(MOST_TERMINALS) };
