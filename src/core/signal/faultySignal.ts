import type { Circuit, Device } from '../device';
import { DisjointSets } from '../graph';
import { invertComplex } from '../linear';
import type { Complex } from '../linear';
import { deviceBlock } from './deviceBlock';
import type { ComplexMatrix, DeviceBlock } from './deviceBlock';
import { Effects, SignalNetwork, stamp } from './signalNetwork';
import type { DrawEffect, SignalBoard } from './signalNetwork';

/** A board with faults at the frequency of a sound one: by the nodes that they touch where that will do, else worked out anew. */
export function withFaults(sound: SignalNetwork, circuit: Circuit): SignalBoard {
  if (circuit === sound.circuit) return sound;
  return FaultySignal.of(sound, circuit) ?? new SignalNetwork(circuit, sound.omega);
}

/** Siemens to its reference for a node on which nothing hangs any more. */
const LOOSE_SIEMENS = 1;
/** More nodes than this and the whole matrix is inverted as quickly. */
const MOST_TOUCHED = 24;

/** A fault as what it adds between the nodes that it touches; see `SignalNetwork`. */
class FaultySignal implements SignalBoard {
  private constructor(
    private readonly sound: SignalNetwork,
    private readonly touched: readonly number[],
    private readonly removed: ReadonlySet<Device>,
    private readonly added: readonly (readonly [Device, DeviceBlock])[],
    /** Nodes of its own by their number in the faulty circuit, their volts by those of the touched ones. */
    private readonly own: { readonly nodes: ReadonlyMap<number, number>; readonly follow: ComplexMatrix },
    /** D (1 + Z[T,T] D)^-1. */
    private readonly correction: ComplexMatrix,
  ) {}

  /** Null where a fault is more than that: it joins what nothing joined before, or breaks a wire. */
  static of(sound: SignalNetwork, circuit: Circuit): FaultySignal | null {
    const now = new Set(circuit.devices);
    const removed = new Set(sound.circuit.devices.filter((d) => !now.has(d)));
    const added = circuit.devices.filter((d) => !sound.has(d));
    if ([...removed, ...added].some((d) => isWire(d, circuit.parameters))) return null;
    const before = sound.circuit.nodeNames.length;
    const places = new Map<number, number>();
    const touched: number[] = [];
    const inside = new Map<number, number>();
    for (const device of [...removed, ...added]) {
      for (const node of device.nodes) {
        if (node >= before) {
          if (!inside.has(node)) inside.set(node, inside.size);
          continue;
        }
        const at = sound.unknownOf(node);
        if (at < 0 || places.has(at)) continue;
        places.set(at, touched.push(at) - 1);
      }
    }
    if (joinsPieces(sound, added, before) || touched.length + inside.size > MOST_TOUCHED) return null;
    const [m, q] = [touched.length, inside.size];
    const size = m + q;
    const change = { re: new Float64Array(size * size), im: new Float64Array(size * size) };
    const rowOf = (node: number): number =>
      node >= before ? m + inside.get(node)! : (places.get(sound.unknownOf(node)) ?? -1);
    const blocks = added.map((device) => [device, deviceBlock(device, circuit.parameters, sound.omega)] as const);
    for (const [device, { own }] of blocks) stamp(change, size, device.nodes.map(rowOf), own, 1);
    for (const device of removed)
      stamp(change, size, device.nodes.map(rowOf), sound.blockOf(device, circuit.parameters).own, -1);
    // What hung on nothing but a part that is gone.
    const held = new Set<number>();
    for (const device of sound.small.devices)
      if (!removed.has(device)) for (const node of device.nodes) held.add(sound.unknownOf(node));
    for (const device of added) for (const node of device.nodes) if (node < before) held.add(sound.unknownOf(node));
    touched.forEach((at, i) => {
      if (!held.has(at)) change.re[i * size + i] = change.re[i * size + i]! + LOOSE_SIEMENS;
    });
    const { reduced, follow } = withoutInside(change, m, q);
    const correction = correctionOf(sound, touched, reduced);
    return correction && new FaultySignal(sound, touched, removed, blocks, { nodes: inside, follow }, correction);
  }

  impedance(red: string, black: string): Complex | null | undefined {
    const { sound } = this;
    const leads = sound.leads(red, black);
    if (typeof leads === 'string') return leads === 'unknown' ? undefined : null;
    return sound.between(this.volts(leads), leads);
  }

  /** Volts of every unknown for one ampere between two nodes, with the fault in place. */
  private volts(leads: readonly [number, number]): ComplexMatrix {
    const { sound, touched, correction } = this;
    const { n, z } = sound;
    const x = sound.voltsFor(leads);
    const m = touched.length;
    for (let i = 0; i < m; i++) {
      let [re, im] = [0, 0];
      for (let j = 0; j < m; j++) {
        const [cr, ci] = [correction.re[i * m + j]!, correction.im[i * m + j]!];
        const at = touched[j]!;
        re += cr * x.re[at]! - ci * x.im[at]!;
        im += cr * x.im[at]! + ci * x.re[at]!;
      }
      amps.re[i] = re;
      amps.im[i] = im;
    }
    for (let i = 0; i < m; i++) {
      const [ar, ai] = [amps.re[i]!, amps.im[i]!];
      if (ar === 0 && ai === 0) continue;
      const at = touched[i]!;
      for (let k = 0; k < n; k++) {
        const [zr, zi] = [z.re[k * n + at]!, z.im[k * n + at]!];
        x.re[k] = x.re[k]! - (zr * ar - zi * ai);
        x.im[k] = x.im[k]! - (zr * ai + zi * ar);
      }
    }
    return x;
  }

  effects(red: string, black: string): readonly DrawEffect[] {
    const { sound, removed, added, own, touched } = this;
    const leads = sound.leads(red, black);
    if (typeof leads === 'string') return [];
    const x = this.volts(leads);
    const felt = new Effects();
    for (const device of sound.small.devices)
      if (!removed.has(device)) felt.add(device, sound.blockOf(device, sound.circuit.parameters), x, sound);
    const [m, q] = [touched.length, own.nodes.size];
    const whole = { re: new Float64Array(sound.n + q), im: new Float64Array(sound.n + q) };
    whole.re.set(x.re);
    whole.im.set(x.im);
    for (let i = 0; i < q; i++)
      for (let j = 0; j < m; j++) {
        const [fr, fi] = [own.follow.re[i * m + j]!, own.follow.im[i * m + j]!];
        const at = touched[j]!;
        whole.re[sound.n + i] = whole.re[sound.n + i]! + fr * x.re[at]! - fi * x.im[at]!;
        whole.im[sound.n + i] = whole.im[sound.n + i]! + fr * x.im[at]! + fi * x.re[at]!;
      }
    const places = {
      unknownOf: (node: number): number => {
        const inside = own.nodes.get(node);
        return inside === undefined ? sound.unknownOf(node) : sound.n + inside;
      },
    };
    for (const [device, block] of added) felt.add(device, block, whole, places);
    return felt.list();
  }
}

const amps = { re: new Float64Array(MOST_TOUCHED), im: new Float64Array(MOST_TOUCHED) };

function isWire({ model, at }: Device, parameters: Float64Array): boolean {
  return model.kind === 'voltage-source' || (model.kind === 'resistor' && parameters[at] === 0);
}

/** Whether the devices together join pieces that nothing joined before, by way of nodes of their own perhaps. */
function joinsPieces({ small }: SignalNetwork, added: readonly Device[], before: number): boolean {
  const last = added.reduce((most, { nodes }) => Math.max(most, ...nodes), before);
  const sets = new DisjointSets(last + 1);
  for (const { model, nodes } of added)
    if (model.kind !== 'windings') for (const node of nodes) sets.union(nodes[0]!, node);
  const pieceOf = new Map<number, number>();
  return added.some(({ model, nodes }) =>
    nodes.some((node) => {
      if (model.kind === 'windings' || node >= before) return false;
      const [set, piece] = [sets.find(node), small.pieceOf(node)];
      const known = pieceOf.get(set);
      pieceOf.set(set, piece);
      return known !== undefined && known !== piece;
    }),
  );
}

/** The change without the fault's own nodes, and how their volts follow the touched ones. */
function withoutInside(
  change: ComplexMatrix,
  m: number,
  q: number,
): { readonly reduced: ComplexMatrix; readonly follow: ComplexMatrix } {
  const size = m + q;
  const take = (rows: number, columns: number, r0: number, c0: number): ComplexMatrix => {
    const out = { re: new Float64Array(rows * columns), im: new Float64Array(rows * columns) };
    for (let i = 0; i < rows; i++)
      for (let j = 0; j < columns; j++) {
        out.re[i * columns + j] = change.re[(r0 + i) * size + c0 + j]!;
        out.im[i * columns + j] = change.im[(r0 + i) * size + c0 + j]!;
      }
    return out;
  };
  const reduced = take(m, m, 0, 0);
  if (q === 0) return { reduced, follow: take(0, m, 0, 0) };
  const inside = take(q, q, m, m);
  for (let i = 0; i < q; i++)
    if (inside.re[i * q + i] === 0 && inside.im[i * q + i] === 0) inside.re[i * q + i] = LOOSE_SIEMENS;
  invertComplex(inside.re, inside.im, q);
  const follow = times(inside, take(q, m, m, 0), q, q, m, -1);
  const back = times(take(m, q, 0, m), follow, m, q, m, 1);
  for (let i = 0; i < m * m; i++) {
    reduced.re[i] = reduced.re[i]! + back.re[i]!;
    reduced.im[i] = reduced.im[i]! + back.im[i]!;
  }
  return { reduced, follow };
}

/** sign a b, a: rows by inner, b: inner by columns. */
function times(
  a: ComplexMatrix,
  b: ComplexMatrix,
  rows: number,
  inner: number,
  columns: number,
  sign: number,
): ComplexMatrix {
  const out = { re: new Float64Array(rows * columns), im: new Float64Array(rows * columns) };
  for (let i = 0; i < rows; i++)
    for (let k = 0; k < inner; k++) {
      const [ar, ai] = [sign * a.re[i * inner + k]!, sign * a.im[i * inner + k]!];
      if (ar === 0 && ai === 0) continue;
      for (let j = 0; j < columns; j++) {
        const [br, bi] = [b.re[k * columns + j]!, b.im[k * columns + j]!];
        out.re[i * columns + j] = out.re[i * columns + j]! + ar * br - ai * bi;
        out.im[i * columns + j] = out.im[i * columns + j]! + ar * bi + ai * br;
      }
    }
  return out;
}

/** Where the inverse grows beyond this, the difference between before and after is lost in rounding. */
const MOST_GROWN = 1e5;

/** D (1 + Z[T,T] D)^-1; null where that cannot be told sharply enough: what was taken away held two halves together. */
function correctionOf(sound: SignalNetwork, touched: readonly number[], change: ComplexMatrix): ComplexMatrix | null {
  const m = touched.length;
  const { n, z } = sound;
  const tt = { re: new Float64Array(m * m), im: new Float64Array(m * m) };
  touched.forEach((row, i) =>
    touched.forEach((column, j) => {
      tt.re[i * m + j] = z.re[row * n + column]!;
      tt.im[i * m + j] = z.im[row * n + column]!;
    }),
  );
  const inner = times(tt, change, m, m, m, 1);
  for (let i = 0; i < m; i++) inner.re[i * m + i] = inner.re[i * m + i]! + 1;
  if (!invertComplex(inner.re, inner.im, m)) return null;
  for (let i = 0; i < m * m; i++) if (!(Math.hypot(inner.re[i]!, inner.im[i]!) < MOST_GROWN)) return null;
  return times(change, inner, m, m, m, 1);
}
