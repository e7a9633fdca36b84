import type { Operation } from './operate';
import { wattsInto } from './workDevice';

/**
 * Watts that each part turns into heat at work, by designator: what it takes in the mean network, and what its diodes and
 * switches take of every period. A part that carries nothing is left out.
 */
export function wattsByPart({ unit, volts, state }: Operation): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  const add = (name: string, watts: number): void => {
    for (const own of name.split(' ')[0]!.split('+')) {
      const ref = own.split('/')[0]!;
      found.set(ref, (found.get(ref) ?? 0) + watts);
    }
  };
  for (const d of unit.lastDevices) add(d.name, wattsInto(d, volts));
  unit.cells.forEach((running, i) => {
    if (!running?.result || !state.running.has(i)) return;
    const { circuit } = running.cell;
    const { mean, square } = running.result;
    circuit.diodes.forEach((d, k) => add(d.name, mean[k]! * d.volts + square[k]! * d.ohms));
    circuit.switches.forEach((s, k) => add(s.name, square[circuit.diodes.length + k]! * s.ohms));
  });
  return found;
}

/** Watts that a part turns into heat at work; 0 for one that carries nothing. */
export const partWatts = (operation: Operation, ref: string): number =>
  Math.max(wattsByPart(operation).get(ref) ?? 0, 0);

/** Watts that the sources of a unit and its rectified mains give. */
export function suppliedWatts({ unit, volts }: Operation): number {
  const gives = unit.lastDevices.filter((d) => d.name.startsWith('source') || d.name.startsWith('line '));
  return Math.max(
    gives.reduce((sum, d) => sum - wattsInto(d, volts), 0),
    0,
  );
}
