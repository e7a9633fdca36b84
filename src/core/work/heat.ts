import type { Operation } from './operate';

/**
 * Watts that a part turns into heat at work: mean volts times mean current of what conducts in the mean, and what its diodes,
 * switches and windings take of every period. 0 for a part that carries nothing.
 */
export function partWatts({ unit, volts, state }: Operation, ref: string): number {
  const own = (name: string): boolean => name === ref || name.startsWith(`${ref}/`) || name.split('+').includes(ref);
  let watts = 0;
  for (const d of unit.lastDevices) {
    if (!own(d.name.split(' ')[0]!)) continue;
    const flow = new Float64Array(d.nodes.length);
    const x = Float64Array.from(d.nodes, (n) => volts[n]!);
    d.evaluate(x, flow, new Float64Array(d.nodes.length ** 2));
    watts += flow.reduce((sum, amps, i) => sum + amps * x[i]!, 0);
  }
  unit.cells.forEach((running, i) => {
    if (!running?.result || !state.running.has(i)) return;
    const { circuit } = running.cell;
    const { mean, square } = running.result;
    circuit.diodes.forEach((d, k) => (watts += own(d.name) ? mean[k]! * d.volts + square[k]! * d.ohms : 0));
    circuit.switches.forEach((s, k) => (watts += own(s.name) ? square[circuit.diodes.length + k]! * s.ohms : 0));
  });
  return Math.max(watts, 0);
}
