import { isCapacitor } from '../device';
import type { Course } from './course';
import type { Operation } from './operate';
import type { RunningCell } from './unitCircuit';

/** Capacitance of a switch and its winding where nothing else lies across it, farad. */
export const SWITCH_FARADS = 150e-12;

/** What leakage does to a switch as it opens: volts that it rises to; whether it gives way there, and the watts it takes then. */
export interface Spike {
  readonly volts: number;
  readonly givesWay: boolean;
  readonly watts: number;
}

/**
 * The spike of a switch that nothing but itself would end: from what it takes while it gives way follows the leakage that drives
 * it, and with the capacitor across the switch how high it rises: plateau + I sqrt(L / C). plateau: volts without it. null
 * where it does not give way.
 */
export function spikeOf(
  operation: Operation,
  own: RunningCell,
  course: Course,
  at: number,
  plateau: number,
): Spike | null {
  const { cell } = own;
  const index = cell.diodeDevices.length + at;
  const { volts, ohms } = cell.circuit.diodes[index]!;
  const takes = course.of((m) => m.diodes[index]! * (volts + ohms * m.diodes[index]!));
  const peak = course.peak((m) => m.diodes[index]!);
  const joules = takes.mean / own.hertz;
  if (!(peak > 0) || !(joules > 0)) return null;
  const henries = (2 * joules * Math.max(1 - plateau / volts, 0)) / peak ** 2;
  const [high] = cell.ends[index] ?? [-1];
  const [straight, damped] = [snubFarads(operation, high!, false), snubFarads(operation, high!, true)];
  const farads = Math.max(damped, SWITCH_FARADS);
  // Through its resistor a capacitor takes the spike down to about half.
  const rises = plateau + (straight > 0 || damped === 0 ? 1 : DAMPED) * peak * Math.sqrt(henries / farads);
  return { volts: Math.min(rises, volts), givesWay: rises > volts, watts: rises > volts ? takes.mean : 0 };
}

/** A spike with a capacitor and a resistor in series across the switch, over that with the capacitor alone. */
const DAMPED = 0.5;

/** Farads across the switch of a node, by way of a resistor as well where that is asked for. */
export function snubFarads({ unit }: Operation, node: number, damped = true): number {
  const { devices, parameters } = unit.circuit;
  const near = new Set([node]);
  for (const d of devices)
    if (damped && d.model.kind === 'resistor' && d.nodes.includes(node) && parameters[d.at]! < SNUBBER_OHMS)
      for (const n of d.nodes) if (!unit.isSteady(n)) near.add(n);
  return devices
    .filter((d) => isCapacitor(d) && d.nodes.slice(0, 2).some((n) => near.has(n)) && parameters[d.at]! < MOST_SNUBBER)
    .reduce((sum, d) => sum + parameters[d.at]!, 0);
}

const SNUBBER_OHMS = 470;
/** A capacitor of more than this is no snubber: it clamps or couples, farad. */
const MOST_SNUBBER = 22e-9;
