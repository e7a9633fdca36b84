import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import type { ColdMode, ComputedReading } from '../meter';
import { outcomeModes, outcomeSpread, overloadChance } from './outcome';
import type { OutcomeMode, OutcomeSpread } from './outcome';
import type { KnownSolution } from './unaffected';

/** How far a resistor may have drifted, as factors of its value upwards; downwards their inverses. Evenly spread on a ratio scale. */
const FACTORS = [1.35, 1.65, 2, 2.5, 3.1, 4, 5.2, 7, 10] as const;

type DriftedReading = Pick<ComputedReading, 'raw' | 'sigma' | 'other' | 'main'>;

/** A part whose value is another now. */
export type DriftFault = Extract<Fault, { readonly kind: 'value' }>;

/**
 * What a meter shows where a resistor has drifted somewhere upwards (or downwards) of its value, not to one value.
 *
 * A reading is a bilinear function of one resistance in a linear network: r(x) = r0 + s (x - 1) / (1 + d (x - 1)), x the
 * factor, s the slope at its own value by the adjoint of the known solution, d from the reading at the one factor that
 * was solved. Junctions bend it a little; the spread covers that.
 * Source: H. W. Bode, Network Analysis and Feedback Amplifier Design (1945), chapter 10 (bilinear theorem).
 *
 * known   the solution with the resistor at its own value; the last: what is read at the drifted value of `fault`. Null where the slope is not known: then the one value stands.
 */
export function driftSpread(
  board: Board,
  known: KnownSolution,
  fault: DriftFault,
  mode: ColdMode,
  { raw, sigma, other, main }: DriftedReading,
): OutcomeSpread | null {
  const part = findPart(board, fault.ref);
  if (part?.kind !== 'resistor' || !(part.value > 0) || !Number.isFinite(raw)) return null;
  const [a = -1, b = -1] = part.nets.map((net) => known.network.nodeOfNet.get(netKey(net)) ?? -1);
  if (a < 0 || b < 0) return null;
  const scale = mode === 'diode' ? 1 : 1 / known.amps;
  const own = known.reading * scale;
  const amps = (known.volts[a]! - known.volts[b]!) / part.value;
  const slope = (known.adjoint[a]! - known.adjoint[b]!) * amps * scale;
  const solved = fault.value / part.value - 1;
  const change = raw - own;
  const bend = change === 0 ? 0 : slope / change - 1 / solved;
  const at = (factor: number): number => {
    const x = factor - 1;
    const below = 1 + bend * x;
    // Where it does not behave as a linear network would: in proportion to the logarithm of the factor.
    if (!(slope * change * solved > 0) || !(below > 0.02))
      return own + (change * Math.log(factor)) / Math.log(fault.value / part.value);
    return own + (slope * x) / below;
  };
  const factors = solved > 0 ? FACTORS : FACTORS.map((f) => 1 / f);
  const outcomes = factors.map((factor) => {
    const there = Math.max(at(factor), mode === 'diode' ? -3 : 0);
    const scaled = raw === 0 ? 1 : Math.abs(there / raw);
    const range = other && { ...other, ohms: other.ohms * scaled, sigma: other.sigma * scaled };
    return outcomeSpread(mode, there, sigma * scaled, range);
  });
  return overDrift(outcomes, outcomeSpread(mode, raw, sigma, other, main));
}

/** What may have drifted anywhere along these outcomes, each as likely; `middle` stands for it where it is told from others. */
export function overDrift(outcomes: readonly OutcomeSpread[], middle: OutcomeSpread): OutcomeSpread {
  const share = 1 / outcomes.length;
  const modes = outcomes.flatMap((o, i): readonly OutcomeMode[] => {
    const here = outcomeModes(o)[0]!.mean;
    const [before, after] = [outcomes[i - 1], outcomes[i + 1]].map((n) => (n ? outcomeModes(n)[0]!.mean : here));
    // Wide enough that between two of them nothing is left out.
    const gap = Math.abs(after! - before!) / 4;
    return outcomeModes(o).map((m) => ({ ...m, sigma: Math.hypot(m.sigma, gap), weight: m.weight * share }));
  });
  const overload = outcomes.reduce((sum, o) => sum + o.overload, 0) * share;
  const beyond = outcomes.reduce((sum, o) => sum + overloadChance(o), 0) * share;
  const mean = modes.reduce((sum, m) => sum + m.weight * m.mean, 0);
  const width = Math.max(...modes.map((m) => Math.abs(m.mean - mean) + m.sigma));
  return { mean, sigma: width, overload, modes, beyond, middle, ...(middle.main ? { main: middle.main } : {}) };
}
