import { isCapacitor } from '../device';
import type { Device } from '../device';
import { formatQuantity } from '../quantity';
import { crestVolts } from './crest';
import { Course, alternatingPart, still, voltsAt } from './course';
import type { Moment, Swing } from './course';
import type { NodeSum } from './hanging';
import { wattsByPart } from './heat';
import { sine } from './modelled';
import { modelledConverters } from './modelledConverters';
import { NodePlaces, isPlaced } from './nodePlaces';
import type { Modelled } from './modelled';
import type { Operation } from './operate';
import { seriesAmps } from './seriesLoad';
import type { RunningCell } from './unitCircuit';
import { spikeOf } from './spike';
import type { Spike } from './spike';
import { windingNames } from './unit';
import { waveformOf } from './waveform';
import { flowsOf } from './workDevice';

/** Courses of a cell over one of its periods: with its rails at their means, and at the crest of their ripple. */
interface CellCourses {
  readonly own: RunningCell;
  readonly usual: Course;
  readonly crest: Course;
}

/** Volts at a moment of a course. */
type Read = (m: Moment) => number;

/**
 * What the parts of a unit at work bear and carry: volts between any two nodes and amperes through any device over a period of
 * the switching or of the mains.
 */
export class Strains {
  private readonly cells: readonly CellCourses[];
  private readonly modelled: readonly Modelled[];
  /** Amperes rms of parts in the way of a load in series with the source. */
  readonly series: ReadonlyMap<string, number>;
  private readonly line: Course | null;
  private readonly crestVolts: Float64Array;
  private readonly touching: ReadonlyMap<number, readonly Device[]>;
  private readonly places: NodePlaces;

  constructor(readonly operation: Operation) {
    const { unit, state, volts } = operation;
    this.crestVolts = crestVolts(operation);
    const result = unit.line?.result;
    this.series = seriesAmps(unit);
    this.modelled = modelledConverters(operation, this.crestVolts);
    this.cells = unit.cells.flatMap((own, i): CellCourses[] => {
      if (!own?.result || !state.running.has(i)) return [];
      const crest = result ? course(own, this.crestVolts) : null;
      const usual = course(own, volts);
      return [{ own, usual, crest: crest ?? usual }];
    });
    this.line = null;
    if (unit.line && result) {
      const line = new Course();
      unit.line.follow((h, run, given) => line.take(h, run, given));
      this.line = line;
    }
    const touching = new Map<number, Device[]>();
    for (const d of unit.circuit.devices) for (const n of d.nodes) touching.set(n, [...(touching.get(n) ?? []), d]);
    this.touching = touching;
    this.places = new NodePlaces(
      operation,
      this.cells.map((c) => c.own),
      this.modelled,
    );
  }

  /**
   * Volts between two nodes over a period; NaN where nobody can tell, as of a gate that floats. What a switch takes while it
   * gives way counts for its mean alone.
   */
  across(a: number, b: number): Swing {
    if (a === b || a < 0 || b < 0) return still(0);
    for (const model of this.modelled) {
      const known = model.across(a, b);
      if (known) return known;
    }
    if (!this.places.isKnown(a, b)) return still(NaN);
    const sum = this.places.difference(a, b);
    const { volts, unit } = this.operation;
    if (sum.terms.some(([n]) => this.places.statesOf(n))) return this.betweenStates(sum);
    for (const { own, usual, crest } of this.cells) {
      if (!sum.terms.some(([n]) => isPlaced(own, n))) continue;
      const read = this.cellRead(own, sum);
      const passes = (m: Moment): boolean => givesWay(own, m);
      const [mean, most] = [usual.of(read(volts), passes), crest.of(read(this.crestVolts), passes)];
      return { ...mean, high: Math.max(mean.high, most.high), low: Math.min(mean.low, most.low) };
    }
    const { line } = unit;
    if (line && this.line && sum.terms.some(([n]) => line.lineNodes.has(n))) {
      const spots = sum.terms.map(([n, w]) => [line.spotOf.get(n), w] as const);
      if (spots.every(([s]) => s))
        return this.line.of((m) => spots.reduce((v, [s, w]) => v + w * voltsAt(m, s!), sum.more));
    }
    const at = (x: Float64Array): number => sum.terms.reduce((v, [n, w]) => v + w * x[n]!, sum.more);
    const [mean, crest] = [at(volts), at(this.crestVolts)];
    return { ...still(mean), high: Math.max(mean, crest), low: Math.min(mean, crest) };
  }

  /**
   * Amperes through a device over a period, from its first node to its second (a transistor: to its last); winding: of several
   * on one core.
   */
  through(device: Device, winding = 0): Swing {
    const { unit } = this.operation;
    const mean = this.meanAmps(device, winding);
    for (const model of this.modelled) {
      const known = model.through(device, mean);
      if (known) return known;
    }
    for (const { own, usual } of this.cells) {
      const { cell } = own;
      const diode = cell.diodeDevices.indexOf(device);
      if (diode >= 0) return usual.of((m) => m.diodes[diode]!);
      const at = cell.switchDevices.indexOf(device);
      if (at >= 0) return usual.of((m) => m.switches[at]!);
      const wound = windingAt(cell.windingDevices, device);
      if (wound >= 0) return usual.of((m) => m.amps[wound + winding]!);
    }
    if (device.model.kind === 'resistor' && !this.snubs(device)) {
      if (!this.places.isKnown(device.nodes[0]!, device.nodes[1]!)) return still(NaN);
      const sum = this.places.difference(device.nodes[0]!, device.nodes[1]!);
      const ohms = this.ohms(device);
      // What only ripples drives nothing through a resistor: it is known behind its capacitors alone.
      const moves = (n: number): boolean =>
        this.cells.some(({ own }) => (own.cell.spots.get(n)?.unknown ?? -1) >= 0) ||
        (unit.line?.lineNodes.has(n) ?? false);
      const hangs = sum.terms.some(([n]) => !device.nodes.includes(n));
      if (hangs || sum.terms.some(([n]) => moves(n)) || unit.line?.way.includes(device)) {
        const swing = scaled(this.swingOf(sum), 1 / ohms);
        // What the mains does not drive there is the mean's own.
        return swing.rms >= Math.abs(mean) ? swing : still(mean);
      }
    }
    const { line } = unit;
    if (line && this.line) {
      const diode = line.diodes.indexOf(device);
      if (diode >= 0) return this.line.of((m) => m.diodes[diode]!);
      const wound = windingAt(line.windingDevices, device);
      if (wound >= 0) return this.line.of((m) => m.amps[wound + winding]!);
    }
    return still(mean);
  }

  /** Amperes through a contact between two nodes; null where it is open. */
  contact(ref: string, a: number, b: number): Swing | null {
    const { unit, volts, state, alternating } = this.operation;
    if (!state.closed.has(ref)) return null;
    const flow = unit.lastDevices.find((d) => d.name === ref && d.nodes[0] === a && d.nodes[1] === b);
    const mean = flow ? flowsOf(flow, volts)[0]! : 0;
    const names = [a, b].map((n) => unit.circuit.nodeNames[n]!.toLowerCase());
    const rms = (alternating?.volts(names[0]!, names[1]!) ?? 0) / CONTACT_OHMS;
    const swing = unit.line && this.line ? this.swingOf(this.places.difference(a, b)) : null;
    if (swing && unit.line!.lineNodes.has(a)) return scaled(swing, 1 / CONTACT_OHMS);
    return rms > Math.abs(mean) ? sine(rms) : still(mean);
  }

  /** What leakage does to a switch as it opens; plateau: volts across it without that. null where it ends by itself. */
  spike(ref: string, plateau: number): Spike | null {
    for (const { own, usual } of this.cells) {
      const at = own.cell.switchDevices.findIndex((d) => d.name === ref || d.name.startsWith(`${ref}/`));
      if (at >= 0) return spikeOf(this.operation, own, usual, at, plateau);
    }
    return null;
  }

  private heat: ReadonlyMap<string, number> | null = null;

  /** Watts that a part turns into heat. */
  watts(ref: string): number {
    return Math.max((this.heat ??= wattsByPart(this.operation)).get(ref) ?? 0, 0);
  }

  /** Whether a node rides on another one. */
  rides(node: number): boolean {
    return this.places.riding.has(node);
  }

  /** Highest volts of a gate against its source while it is driven; null where nobody knows what drives it. */
  gateVolts(gate: number, source: number): number | null {
    const seen = waveformOf(this.operation, gate, source);
    return seen && Math.max(Math.abs(seen.high), Math.abs(seen.low));
  }

  /** Amperes of a device in the mean network. */
  private meanAmps(device: Device, winding: number): number {
    const { unit, volts } = this.operation;
    const ends = device.model.kind === 'windings' ? device.nodes.slice(2 * winding, 2 * winding + 2) : device.nodes;
    const name = device.model.kind === 'windings' ? windingNames(device)[winding] : device.name;
    const flow = unit.lastDevices.find(
      (d) => d.name === name && d.nodes[0] === ends[0] && d.nodes.at(-1) === ends.at(-1),
    );
    return flow ? flowsOf(flow, volts)[0]! : 0;
  }

  /** Alternating amperes rms of a capacitor: its share of what the switching and the mains leave at its nodes. */
  rippleAmps(device: Device): number {
    const { unit } = this.operation;
    const { parameters } = unit.circuit;
    const farads = parameters[device.at]!;
    const esr = device.model.kind === 'lossy-capacitor' ? parameters[device.at + 1]! : 0;
    const isReference = (n: number): boolean => unit.plan.references.some((r) => unit.node(r) === n);
    // As the cell has it: a capacitor counts at its first node, unless that is what everything else counts from.
    const [end] = device.nodes.slice(0, 2).filter((n) => !isReference(n));
    let square = this.modelled.reduce((sum, m) => sum + m.ripple(device) ** 2, 0);
    for (const { own, usual } of this.cells) {
      const spot = end === undefined ? undefined : own.cell.softSpots.get(end);
      if (!spot) continue;
      const siemens = 1 / (esr + 1 / (8 * own.cell.plan.hertz * farads));
      square += alternatingPart(usual.of((m) => m.volts[spot.unknown]! * siemens)) ** 2;
    }
    const { line } = unit;
    const at = line ? line.smoothing.indexOf(device) : -1;
    if (at >= 0 && this.line) {
      let before = NaN;
      const amps = this.line.of((m) => {
        const now = m.capacitors[at]!;
        const flow = Number.isNaN(before) ? 0 : (farads * (now - before)) / m.seconds;
        before = now;
        return flow;
      });
      square += alternatingPart(amps) ** 2;
    }
    return Math.sqrt(square);
  }

  /**
   * Watts that a resistor turns into heat, in words too. In series with a capacitor at a node that swings, every leap of that
   * leaves half of C V² in it.
   */
  resistorWatts(device: Device): { readonly watts: number; readonly words: string } {
    const snub = this.snubs(device);
    const own = snub && this.cells.find(({ own: c }) => isPlaced(c, snub.near) || isPlaced(c, snub.far));
    if (snub) {
      if (!own) return { watts: 0, words: 'nothing flows through it' };
      const read = this.cellRead(own.own, this.places.difference(snub.near, snub.far))(this.operation.volts);
      const passes = (m: Moment): boolean => isFree(m) || givesWay(own.own, m);
      const watts = own.usual.leapJoules(read, snub.farads, passes) * own.own.hertz;
      const figures = [formatQuantity(snub.farads, 'F'), formatQuantity(own.own.hertz, 'Hz')];
      const words = `${figures[0]} charged through it and emptied again ${figures[1]}`;
      return { watts, words: `${words}: ${formatQuantity(watts, 'W')}` };
    }
    const { rms } = this.through(device);
    const ohms = this.ohms(device);
    return {
      watts: rms ** 2 * ohms,
      words: `I² R: ${formatQuantity(rms, 'A')} rms, squared, x ${formatQuantity(ohms, 'ohm')}`,
    };
  }

  private ohms(device: Device): number {
    return Math.max(this.operation.unit.circuit.parameters[device.at]!, 1e-3);
  }

  /** A sum of nodes some of which go between two volts. */
  private betweenStates({ terms, more }: NodeSum): Swing {
    const { volts } = this.operation;
    let [high, low, mean] = [more, more, more];
    for (const [n, w] of terms) {
      const [p, q] = this.places.statesOf(n) ?? [this.crestVolts[n]!, this.crestVolts[n]!];
      high += Math.max(w * p, w * q);
      low += Math.min(w * p, w * q);
      mean += w * volts[n]!;
    }
    return { mean, rms: Math.max(Math.abs(mean), (high - low) / 2), high, low };
  }

  /** A sum of node volts over a period, nothing left out. */
  private swingOf(sum: NodeSum): Swing {
    const { unit, volts } = this.operation;
    for (const { own, usual } of this.cells)
      if (sum.terms.some(([n]) => isPlaced(own, n))) return usual.of(this.cellRead(own, sum)(volts));
    const { line } = unit;
    const spots = sum.terms.map(([n, w]) => [line?.spotOf.get(n), w] as const);
    if (this.line && spots.every(([s]) => s))
      return this.line.of((m) => spots.reduce((v, [s, w]) => v + w * voltsAt(m, s!), sum.more));
    return still(sum.terms.reduce((v, [n, w]) => v + w * volts[n]!, sum.more));
  }

  /** A resistor whose far end hangs on one capacitor alone: its near node, the capacitor's far one, farads. */
  private snubs(device: Device): Snub | null {
    for (const [near, hung] of [device.nodes.slice(0, 2), device.nodes.slice(0, 2).reverse()] as [number, number][]) {
      const others = this.touching.get(hung)!.filter((d) => d !== device);
      const [only] = others;
      if (others.length !== 1 || !only || !isCapacitor(only)) continue;
      const far = only.nodes[0] === hung ? only.nodes[1]! : only.nodes[0]!;
      return { near, far, farads: this.operation.unit.circuit.parameters[only.at]! };
    }
    return null;
  }

  /** A sum as a moment of a cell shows it: nodes that take no part stand at given volts. */
  private cellRead(own: RunningCell, { terms, more }: NodeSum): (volts: Float64Array) => Read {
    const { softSpots, spots } = own.cell;
    return (volts) => {
      const reads = terms.map(([n, w]): Read => {
        const spot = softSpots.get(n) ?? spots.get(n);
        return spot && spot.unknown >= 0 ? (m) => w * voltsAt(m, spot) : () => w * volts[n]!;
      });
      return (m) => reads.reduce((sum, read) => sum + read(m), more);
    };
  }
}

/** A resistor in series with a capacitor: its own end, the capacitor's, farads. */
export interface Snub {
  readonly near: number;
  readonly far: number;
  readonly farads: number;
}

const scaled = ({ mean, rms, high, low }: Swing, by: number): Swing => ({
  mean: mean * by,
  rms: rms * by,
  high: high * by,
  low: low * by,
});

/** A closed contact (contract, section 5). */
const CONTACT_OHMS = 0.02;

/** Whether nothing of a cell conducts at a moment: its nodes ring, left to themselves. */
function isFree(m: Moment): boolean {
  return m.diodes.every((a) => Math.abs(a) < 1e-6) && m.switches.every((a) => a === 0);
}

/** Whether a switch of a cell gives way at a moment. */
function givesWay({ cell }: RunningCell, m: Moment): boolean {
  for (let i = cell.diodeDevices.length; i < m.diodes.length; i++) if (m.diodes[i]! > 1e-6) return true;
  return false;
}

/** Place of the current of a winding's device among those of a run. */
function windingAt(devices: readonly Device[], device: Device): number {
  let at = 0;
  for (const d of devices) {
    if (d === device) return at;
    at += d.model.states;
  }
  return -1;
}

function course({ cell, top }: RunningCell, volts: Float64Array): Course {
  const made = new Course();
  const given = cell.given(volts);
  let before = 0;
  cell.follow(given, top, (t, run) => {
    made.take(t - before, run, given);
    before = t;
  });
  return made;
}
