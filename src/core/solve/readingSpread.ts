import type { ComponentSystem } from './componentSystem';

/**
 * Sum of the squared first-order effects that the spread of every part has on a reading, volts squared.
 *
 * adjoint  volts per ampere at each local node, from the transposed solve.
 */
export function spreadSquares(system: ComponentSystem, adjoint: Float64Array): number {
  const { volts } = system.work;
  let sum = 0;
  for (let r = 0; r < system.siemens.length; r++) {
    const a = system.resistorA[r]!;
    const b = system.resistorB[r]!;
    const effect =
      (adjoint[a]! - adjoint[b]!) * system.siemens[r]! * (volts[a]! - volts[b]!) * system.resistorSpread[r]!;
    sum += effect * effect;
  }
  const j = system.junctions;
  for (let d = 0; d < j.count; d++) {
    const a = j.a[d]!;
    const k = j.k[d]!;
    const v = volts[a]! - volts[k]!;
    // d i / d ln(IS) at a fixed terminal voltage is (i + IS - IS)/(1 + RS g): i scales with IS.
    const grown = junctionPerLogSaturation(v, j.saturation[d]!, j.slope[d]!, j.series[d]!);
    const effect = (adjoint[a]! - adjoint[k]!) * grown * j.spread[d]!;
    sum += effect * effect;
  }
  const q = system.bjts;
  for (let i = 0; i < q.count; i++) {
    const [c, b, e] = [q.pins[3 * i]!, q.pins[3 * i + 1]!, q.pins[3 * i + 2]!];
    const p = 8 * i;
    const sign = q.parameters[p]!;
    const is = q.parameters[p + 1]!;
    const forward = is * Math.expm1(Math.min((sign * (volts[b]! - volts[e]!)) / q.parameters[p + 4]!, 300));
    const backward = is * Math.expm1(Math.min((sign * (volts[b]! - volts[c]!)) / q.parameters[p + 5]!, 300));
    const base = (adjoint[b]! - adjoint[e]!) * (forward / q.parameters[p + 2]!);
    const reverse = (adjoint[b]! - adjoint[c]!) * (backward / q.parameters[p + 3]!);
    const transport = (adjoint[c]! - adjoint[e]!) * (forward - backward);
    const bySaturation = (transport + base + reverse) * q.parameters[p + 6]!;
    const byGain = base * q.parameters[p + 7]!;
    sum += bySaturation * bySaturation + byGain * byGain;
  }
  const m = system.mosfets;
  for (let i = 0; i < m.count; i++) {
    const amps = Math.abs(m.at[2 * i]!);
    if (amps === 0) continue;
    const [d, s] = [m.pins[3 * i]!, m.pins[3 * i + 2]!];
    // gm of a saturated channel, sqrt(2 KP Id); threshold spread is a fraction of VTO.
    const gm = Math.sqrt(2 * m.parameters[8 * i + 2]! * amps);
    const effect = (adjoint[d]! - adjoint[s]!) * gm * m.parameters[8 * i + 1]! * m.parameters[8 * i + 4]!;
    sum += effect * effect;
  }
  return sum;
}

function junctionPerLogSaturation(volts: number, saturation: number, slope: number, series: number): number {
  const ideal = saturation * Math.expm1(Math.min(volts / slope, 60));
  if (series === 0 || ideal <= 0) return ideal;
  // With the series resistance in the way the current is at most volts/series.
  const amps = Math.min(ideal, Math.max(0, volts) / series);
  return amps / (1 + (series * amps) / slope);
}
