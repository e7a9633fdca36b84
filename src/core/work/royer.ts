import { isCapacitor } from '../device';
import type { Device } from '../device';
import type { PowerConverter } from '../stages';
import type { UnitCircuit } from './unitCircuit';
import { sqrtRatio, windingsOf } from './windingsOf';
import { linearHold, transfer } from './workDevice';
import type { WorkDevice } from './workDevice';

/** Volts of a conducting base, of a saturated collector, of a diode of the rectifier. */
const BASE_VOLTS = 0.75;
const SATURATED_VOLTS = 0.15;
const DIODE_VOLTS = 0.8;
/** Share of what it takes that reaches the rectifier: the rest heats its windings, its transistors and its bases. */
const PASSED_ON = 0.87;
/** What stands before the rectifier where no capacitor does, ohm. */
const STRAIGHT_OHMS = 50;
/** A base at rest at this can start it, volt. */
const STARTS = 0.4;

/** A resonant push-pull stage that drives itself: its collectors, its tuned circuit, what it gives to a bridge. */
export interface Royer {
  readonly transistors: readonly [Device, Device];
  readonly centre: number;
  readonly low: number;
  readonly bases: readonly [number, number];
  /** Turns of one half of the drive winding over those of one half of the collectors'. */
  readonly drive: number;
  /** Henries and farads from collector to collector. */
  readonly henries: number;
  readonly farads: number;
  readonly outputs: readonly RoyerOutput[];
  /** Every winding of its core: ends, turns over those of half the collectors'. */
  readonly windings: readonly { readonly ends: readonly [number, number]; readonly turns: number }[];
}

/** What alternates between two of its nodes: volts rms without the mean and peak to peak, hertz. */
export interface RoyerSignal {
  readonly rms: number;
  readonly swing: number;
  readonly hertz: number;
}

/**
 * The sine of its tuned circuit between two nodes at mean volts x: a collector stands at a half sine of pi times the centre
 * tap's mean, from collector to collector and across every winding stands a whole one. null elsewhere.
 */
export function royerSignal(r: Royer, x: Float64Array, a: number, b: number): RoyerSignal | null {
  if (r.farads <= 0) return null;
  const volts = Math.max(x[r.centre]! - x[r.low]! - SATURATED_VOLTS, 0);
  const loads = r.outputs.reduce((sum, o) => {
    const peak = (Math.PI / 2) * volts * o.turns - o.drops * DIODE_VOLTS;
    return sum + ballastSeen(o, peak, Math.max(peak - (x[o.to]! - x[o.from]!), 0));
  }, r.farads);
  const hertz = tuned(r, loads);
  const collectors = r.transistors.map((t) => t.nodes[0]!);
  if (collectors.includes(a) && b === r.low) {
    const peak = Math.PI * volts;
    return { rms: Math.sqrt((peak / 2) ** 2 - volts ** 2), swing: peak, hertz };
  }
  const turns =
    collectors.includes(a) && collectors.includes(b)
      ? 2
      : r.windings.find((w) => w.ends.includes(a) && w.ends.includes(b))?.turns;
  if (turns === undefined || a === b) return null;
  const peak = (Math.PI / 2) * volts * turns;
  return { rms: peak / Math.SQRT2, swing: 2 * peak, hertz };
}

/** Farad that a ballast adds to the tuned circuit for the share of the time in which its bridge conducts. */
const ballastSeen = (o: RoyerOutput, peak: number, over: number): number =>
  o.ballast < Infinity ? (o.ballast * (o.turns / 2) ** 2 * over) / Math.max(peak, 1) : 0;

const tuned = (r: Royer, farads: number): number =>
  farads > 0 ? 1 / (2 * Math.PI * Math.sqrt(r.henries * farads)) : 0;

/** A winding with a bridge: turns over those of half the collectors', farads in series (none: Infinity), rails. */
interface RoyerOutput {
  readonly turns: number;
  readonly ballast: number;
  readonly drops: number;
  readonly end: number;
  readonly at: number;
  /** The end of its winding before the capacitor in series. */
  readonly start: number;
  readonly from: number;
  readonly to: number;
  /** The diodes of its bridge, each with the rail that it leads to. */
  readonly bridge: readonly { readonly device: Device; readonly rail: number }[];
}

/** Finds it on a board with faults; null where something of its loop is missing. */
export function royerOf(unit: UnitCircuit, c: PowerConverter): Royer | null {
  if (c.topology !== 'royer') return null;
  const { circuit } = unit;
  const transistors = c.switches.flatMap((s) =>
    circuit.devices.filter((d) => d.model.kind === 'transistor' && d.name === s.refs[0]),
  );
  const [one, two] = transistors;
  if (!one || !two || one.nodes[2] !== two.nodes[2]) return null;
  const windings = windingsOf(circuit);
  const [c1, c2] = [one.nodes[0]!, two.nodes[0]!];
  const own = windings.find((w) => w.ends.includes(c1));
  const other = windings.find((w) => w !== own && w.core === own?.core && w.ends.includes(c2));
  if (!own || !other) return null;
  const centre = own.ends.find((n) => other.ends.includes(n));
  const bases = [one.nodes[1]!, two.nodes[1]!] as const;
  const rest = windings.filter((w) => w.core === own.core && w !== own && w !== other);
  const drives = rest.filter((w) => w.ends.some((n) => bases.includes(n)));
  const [drive] = drives;
  if (centre === undefined || !drive) return null;
  return {
    transistors: [one, two],
    centre,
    low: one.nodes[2]!,
    bases,
    drive: sqrtRatio(drive, own) * (bases.every((n) => drive.ends.includes(n)) ? 0.5 : 1),
    henries: 4 * own.henries,
    farads: unit.faradsBetween(c1, c2),
    windings: windings.flatMap((w) => (w.core === own.core ? [{ ends: w.ends, turns: sqrtRatio(w, own) }] : [])),
    outputs: rest.flatMap((w) => (drives.includes(w) ? [] : (outputOf(unit, w.ends, sqrtRatio(w, own)) ?? []))),
  };
}

/** The bridge behind a winding, by way of a capacitor in series if there is one. */
function outputOf(unit: UnitCircuit, ends: readonly [number, number], turns: number): RoyerOutput | null {
  for (const [a, b] of [ends, [ends[1], ends[0]] as const]) {
    const beyond = unit.circuit.devices
      .filter((d) => isCapacitor(d) && d.nodes.includes(a))
      .map((d) => (d.nodes[0] === a ? d.nodes[1]! : d.nodes[0]!));
    for (const at of [a, ...beyond]) {
      const legs = [at, b].map((n) => [rail(unit, n, 0), rail(unit, n, 1)] as const);
      const [[up, down], [up2, down2]] = legs as [(typeof legs)[0], (typeof legs)[0]];
      if (!up || !down || up.node !== up2?.node || down.node !== down2?.node) continue;
      const ballast = at === a ? Infinity : unit.faradsBetween(a, at);
      const bridge = legs.flatMap(([p, q]) =>
        [p!, q!].flatMap((r) => r.diodes.map((device) => ({ device, rail: r.node }))),
      );
      const drops = up.diodes.length + down.diodes.length;
      return { turns, ballast, drops, end: b, at, start: a, from: down.node, to: up.node, bridge };
    }
  }
  return null;
}

/** The rail that diodes lead to from a node: way 0 along them, 1 against them. */
function rail(
  unit: UnitCircuit,
  from: number,
  way: 0 | 1,
): { readonly node: number; readonly diodes: readonly Device[] } | null {
  let node = from;
  const diodes: Device[] = [];
  while (diodes.length < 6) {
    const next = unit.circuit.devices.find((d) => d.model.kind === 'junction' && d.nodes[way] === node);
    if (!next) return null;
    diodes.push(next);
    node = next.nodes[1 - way]!;
    if (unit.isSteady(node)) return { node, diodes };
  }
  return null;
}

/** Whether it starts at mean volts x. */
export function royerStarts(r: Royer, x: Float64Array): boolean {
  const volts = x[r.centre]! - x[r.low]!;
  return volts > 1.5 && r.drive * volts > 0.3 && r.bases.every((n) => x[n]! - x[r.low]! > STARTS);
}

/**
 * The stage as devices of the mean network. From collector to collector stands a sine of pi times the mean of the centre tap
 * (no mean volts across the feed choke); a capacitor in series with a bridge passes 4 f C (peak - output) of it; what that
 * takes is drawn from the centre tap. The bases stand below the emitters by the mean of their half sine.
 */
export function royerDevices(r: Royer): readonly WorkDevice[] {
  return [
    ...r.bases.map((base) =>
      linearHold('base', [base, r.low, r.centre], [1, -1 - r.drive, r.drive], -BASE_VOLTS, BASE_SIEMENS),
    ),
    ...r.outputs.flatMap((o) => [
      output(r, o),
      linearHold('winding', [o.end, o.from, o.to], [1, -0.5, -0.5], 0, BASE_SIEMENS),
    ]),
  ];
}

const BASE_SIEMENS = 0.2;

function output(r: Royer, o: RoyerOutput): WorkDevice {
  const currents = (volts: number, out: number): readonly [number, number] => {
    const inside = Math.max(volts - SATURATED_VOLTS, 0);
    const peak = (r.farads > 0 ? Math.PI / 2 : 1) * inside * o.turns - o.drops * DIODE_VOLTS;
    const over = Math.max(peak - out, 0);
    const hertz = r.farads > 0 ? tuned(r, r.farads + ballastSeen(o, peak, over)) : 0;
    const gives = o.ballast < Infinity ? 4 * hertz * o.ballast * over : over / STRAIGHT_OHMS;
    return [(gives * Math.max(out, 0)) / (PASSED_ON * Math.max(volts, 1)), gives];
  };
  return transfer('resonant push-pull', [r.centre, r.low, o.from, o.to], currents);
}
