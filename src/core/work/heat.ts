import type { Operation } from './operate';
import { wattsInto } from './workDevice';

/**
 * Watts that a part turns into heat at work: what it takes in the mean network, and what its diodes and switches take of
 * every period. 0 for a part that carries nothing.
 */
export function partWatts({ unit, volts, state }: Operation, ref: string): number {
  const own = (name: string): boolean => name === ref || name.startsWith(`${ref}/`) || name.split('+').includes(ref);
  let watts = 0;
  for (const d of unit.lastDevices) if (own(d.name.split(' ')[0]!)) watts += wattsInto(d, volts);
  unit.cells.forEach((running, i) => {
    if (!running?.result || !state.running.has(i)) return;
    const { circuit } = running.cell;
    const { mean, square } = running.result;
    circuit.diodes.forEach((d, k) => (watts += own(d.name) ? mean[k]! * d.volts + square[k]! * d.ohms : 0));
    circuit.switches.forEach((s, k) => (watts += own(s.name) ? square[circuit.diodes.length + k]! * s.ohms : 0));
  });
  return Math.max(watts, 0);
}

/** Watts that the sources of a unit and its rectified mains give. */
export function suppliedWatts({ unit, volts }: Operation): number {
  const gives = unit.lastDevices.filter((d) => d.name.startsWith('source') || d.name.startsWith('line '));
  return Math.max(
    gives.reduce((sum, d) => sum - wattsInto(d, volts), 0),
    0,
  );
}
