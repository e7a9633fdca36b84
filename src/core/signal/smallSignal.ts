import { roomFor } from '../device';
import type { Circuit, Device, Evaluation } from '../device';
import { DisjointSets } from '../graph';
import { solveComplex } from '../linear';
import type { Complex } from '../linear';

/**
 * A board for small signals about zero bias: conductances G and capacities C of (G + sC) x = excitation, where x are the
 * volts of the nodes, then the states of the devices (contract, section 3).
 *
 * Unplugged supplies are open, one of 0 V a wire. One node of each conductive piece is the reference of that piece.
 */
export class SmallSignal {
  private readonly wires: DisjointSets;
  private readonly pieces: DisjointSets;
  private readonly live: readonly Device[];

  constructor(private readonly circuit: Circuit) {
    const count = circuit.nodeNames.length;
    this.wires = new DisjointSets(count);
    this.pieces = new DisjointSets(count);
    const { parameters } = circuit;
    const live: Device[] = [];
    for (const device of circuit.devices) {
      const { kind } = device.model;
      if (kind === 'current-source') continue;
      const wire = (kind === 'voltage-source' || kind === 'resistor') && parameters[device.at] === 0;
      if (wire) this.wires.union(device.nodes[0]!, device.nodes[1]!);
      else if (kind !== 'voltage-source') live.push(device);
    }
    this.live = live;
    for (const device of live) {
      const { nodes, model } = device;
      if (model.kind === 'windings') for (let k = 0; k < nodes.length; k += 2) this.join(nodes[k]!, nodes[k + 1]!);
      else for (const node of nodes) this.join(nodes[0]!, node);
    }
  }

  private join(a: number, b: number): void {
    this.pieces.union(this.wires.find(a), this.wires.find(b));
  }

  /** The node that stands for a net; undefined for a net that is not there. */
  nodeOf(net: string): number | undefined {
    const node = this.circuit.nodeOfNet.get(net);
    return node === undefined ? undefined : this.wires.find(node);
  }

  /** Devices that a small signal meets. */
  get devices(): readonly Device[] {
    return this.live;
  }

  /** The node that stands for one and all that are wired to it. */
  standsFor(node: number): number {
    return this.wires.find(node);
  }

  /** The conductive piece that a node belongs to. */
  pieceOf(node: number): number {
    return this.pieces.find(this.wires.find(node));
  }

  /** Whether anything conducts between two nodes, however little. */
  joined(red: number, black: number): boolean {
    return this.pieces.find(red) === this.pieces.find(black);
  }

  /** Everything that a signal between two nodes can reach, as matrices; `black` is the reference. */
  system(red: number, black: number, farads = 0): SignalSystem {
    const reached = this.reachedPieces(red);
    const numbers = new Map<number, number>();
    const grounds = new Set([this.pieces.find(black)]);
    const numberOf = (raw: number): number => {
      const node = this.wires.find(raw);
      if (node === black) return -1;
      const known = numbers.get(node);
      if (known !== undefined) return known;
      const piece = this.pieces.find(node);
      const made = grounds.has(piece) ? numbers.size - negatives : -1;
      if (made < 0) {
        grounds.add(piece);
        negatives++;
      }
      numbers.set(node, made);
      return made;
    };
    let negatives = 0;
    const placed = this.live.filter((d) => reached.has(this.pieces.find(this.wires.find(d.nodes[0]!))));
    const terminals = placed.map((d) => d.nodes.map(numberOf));
    let n = numbers.size - negatives;
    const rows = placed.map((d, i) => {
      const states = Array.from({ length: d.model.states }, () => n++);
      return [...terminals[i]!, ...states];
    });
    const g = new Float64Array(n * n);
    const c = new Float64Array(n * n);
    placed.forEach((device, i) => this.stamp(device, rows[i]!, n, g, c));
    const at = numberOf(red);
    if (farads > 0 && at >= 0) c[at * n + at] = c[at * n + at]! + farads;
    return { n, red: at, g, c, unknowns: numbers };
  }

  /** Pieces that a signal reaches: the leads' own, and over the coupling of windings what hangs on those. */
  private reachedPieces(red: number): ReadonlySet<number> {
    const reached = new Set([this.pieces.find(red)]);
    for (let grown = true; grown;) {
      grown = false;
      for (const { model, nodes } of this.live) {
        if (model.kind !== 'windings' || model.states < 2) continue;
        const own = nodes.map((node) => this.pieces.find(this.wires.find(node)));
        if (!own.some((p) => reached.has(p)) || own.every((p) => reached.has(p))) continue;
        for (const p of own) reached.add(p);
        grown = true;
      }
    }
    return reached;
  }

  private stamp(device: Device, rows: readonly number[], n: number, g: Float64Array, c: Float64Array): void {
    const { model, at } = device;
    const room: Evaluation = roomFor(model);
    const size = model.terminals + model.states;
    model.evaluate(this.circuit.parameters, at, new Float64Array(size), room);
    for (let i = 0; i < size; i++) {
      const row = rows[i]!;
      if (row < 0) continue;
      for (let j = 0; j < size; j++) {
        const column = rows[j]!;
        if (column < 0) continue;
        g[row * n + column] = g[row * n + column]! + room.slope[i * size + j]!;
        c[row * n + column] = c[row * n + column]! + room.capacity[i * size + j]!;
      }
    }
  }
}

/**
 * G and C, n by n and row by row, and the unknown that is the volts of the red lead against the black one (-1: the same node).
 *
 * unknowns  the unknown of each node (as `nodeOf` gives it): negative or none for one that is a reference.
 */
export interface SignalSystem {
  readonly n: number;
  readonly red: number;
  readonly g: Float64Array;
  readonly c: Float64Array;
  readonly unknowns: ReadonlyMap<number, number>;
}

/** (G + sC) x = b for complex s and real b; gives x as its two parts. */
export function solveAt(
  { n, g, c }: SignalSystem,
  s: Complex,
  b: Float64Array,
  bIm: Float64Array = new Float64Array(n),
): { readonly re: Float64Array; readonly im: Float64Array } {
  const re = new Float64Array(n * n);
  const im = new Float64Array(n * n);
  for (let i = 0; i < n * n; i++) {
    re[i] = g[i]! + s.re * c[i]!;
    im[i] = s.im * c[i]!;
  }
  const x = { re: Float64Array.from(b), im: Float64Array.from(bIm) };
  solveComplex(re, im, n, x.re, x.im);
  return x;
}

/** Impedance that the leads see at a frequency, ohm; hertz > 0. */
export function impedance(system: SignalSystem, hertz: number): Complex {
  if (system.red < 0) return { re: 0, im: 0 };
  const b = new Float64Array(system.n);
  b[system.red] = 1;
  const x = solveAt(system, { re: 0, im: 2 * Math.PI * hertz }, b);
  return { re: x.re[system.red]!, im: x.im[system.red]! };
}
