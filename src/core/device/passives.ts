import type { DeviceModel, Evaluation } from './evaluation';

/** A resistor; parameters [ohms]. Nothing but a wire at 0 ohm: such a one joins its nodes before anything is evaluated. */
export const RESISTOR: DeviceModel = {
  kind: 'resistor',
  terminals: 2,
  states: 0,
  drawn: ['ohms'],
  evaluate(p, o, x, out) {
    const siemens = 1 / p[o]!;
    twoEnds(out.flow, siemens * (x[0]! - x[1]!));
    twoByTwo(out.slope, 2, siemens);
    twoEnds(out.flowByLog, -out.flow[0]!);
  },
};

/** A capacitor without loss; parameters [farads]. */
export const CAPACITOR: DeviceModel = {
  kind: 'capacitor',
  terminals: 2,
  states: 0,
  drawn: ['farads'],
  evaluate(p, o, x, out) {
    twoEnds(out.charge, p[o]! * (x[0]! - x[1]!));
    twoByTwo(out.capacity, 2, p[o]!);
    twoEnds(out.chargeByLog, out.charge[0]!);
  },
};

/** A capacitor behind its series resistance; parameters [farads, ohms], state: volts across the capacitance alone. */
export const LOSSY_CAPACITOR: DeviceModel = {
  kind: 'lossy-capacitor',
  terminals: 2,
  states: 1,
  drawn: ['farads', 'ohms'],
  evaluate(p, o, x, out) {
    const farads = p[o]!;
    const siemens = 1 / p[o + 1]!;
    const amps = siemens * (x[0]! - x[1]! - x[2]!);
    const { flow, slope, charge, capacity, flowByLog, chargeByLog } = out;
    // The state's equation: what the capacitance takes less what the resistance brings.
    twoEnds(flow, amps);
    flow[2] = -amps;
    twoByTwo(slope, 3, siemens);
    slope[2] = slope[6] = -siemens;
    slope[5] = slope[7] = slope[8] = siemens;
    charge[2] = farads * x[2]!;
    capacity[8] = farads;
    flowByLog[1] = -amps;
    flowByLog[3] = flowByLog[5] = amps;
    chargeByLog[4] = charge[2]!;
  },
};

const WINDINGS = new Map<number, DeviceModel>();

/**
 * Windings on one core, or a single choke: terminals a1 b1 a2 b2 …, a state for each winding's amperes (into a).
 * Parameters: ohms of each winding, then the matrix of inductances row by row. Drawn: the ohms, then the henries of
 * each winding at constant coupling factors. State equation of winding k: ohms·i - (va - vb) + d(Σ L i)/dt = 0.
 */
export function windings(count: number): DeviceModel {
  const known = WINDINGS.get(count);
  if (known) return known;
  const made: DeviceModel = {
    kind: 'windings',
    terminals: 2 * count,
    states: count,
    drawn: Array.from({ length: 2 * count }, (_, k) => (k < count ? `ohms ${k + 1}` : `henries ${k - count + 1}`)),
    evaluate: (p, o, x, out) => evaluateWindings(count, p, o, x, out),
  };
  WINDINGS.set(count, made);
  return made;
}

function evaluateWindings(count: number, p: Float64Array, o: number, x: Float64Array, out: Evaluation): void {
  const n = 3 * count;
  const m = 2 * count;
  for (let k = 0; k < count; k++) {
    const [a, b, own] = [2 * k, 2 * k + 1, m + k];
    const amps = x[own]!;
    const ohms = p[o + k]!;
    out.flow[a] = amps;
    out.flow[b] = -amps;
    out.flow[own] = ohms * amps - (x[a]! - x[b]!);
    out.slope[a * n + own] = 1;
    out.slope[b * n + own] = -1;
    out.slope[own * n + a] = -1;
    out.slope[own * n + b] = 1;
    out.slope[own * n + own] = ohms;
    out.flowByLog[own * m + k] = ohms * amps;
    out.charge[own] = 0;
    out.chargeByLog.fill(0, own * m, own * m + m);
    for (let other = 0; other < count; other++) {
      const henries = p[o + count + k * count + other]!;
      const webers = henries * x[m + other]!;
      out.charge[own] = out.charge[own]! + webers;
      out.capacity[own * n + m + other] = henries;
      // A mutual inductance goes with the root of either: half of it each, all of it on the diagonal.
      const [byOwn, byOther] = [own * m + count + k, own * m + count + other];
      out.chargeByLog[byOwn] = out.chargeByLog[byOwn]! + webers / 2;
      out.chargeByLog[byOther] = out.chargeByLog[byOther]! + webers / 2;
    }
  }
}

/** An ideal source of volts; parameters [volts], state: amperes into its first terminal. */
export const VOLTAGE_SOURCE: DeviceModel = {
  kind: 'voltage-source',
  terminals: 2,
  states: 1,
  drawn: [],
  evaluate(p, o, x, out) {
    twoEnds(out.flow, x[2]!);
    out.flow[2] = p[o]! - (x[0]! - x[1]!);
    out.slope[2] = out.slope[7] = 1;
    out.slope[5] = out.slope[6] = -1;
  },
};

/** An ideal source of amperes; parameters [amps], through it from its first terminal to its second. */
export const CURRENT_SOURCE: DeviceModel = {
  kind: 'current-source',
  terminals: 2,
  states: 0,
  drawn: [],
  evaluate(p, o, _x, out) {
    twoEnds(out.flow, p[o]!);
  },
};

/** Sets a quantity that goes in at one end and out at the other. */
export function twoEnds(into: Float64Array, amount: number): void {
  into[0] = amount;
  into[1] = -amount;
}

/** Sets the first two rows and columns of an n by n matrix for something that depends on the difference of two volts. */
export function twoByTwo(matrix: Float64Array, n: number, amount: number): void {
  matrix[0] = amount;
  matrix[1] = -amount;
  matrix[n] = -amount;
  matrix[n + 1] = amount;
}
