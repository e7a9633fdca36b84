import { factorDense, solveDense } from '../linear';

/** Where an end of an element lies: an unknown (or -1) plus a given (or -1). Its volts are their sum. */
export interface Spot {
  readonly unknown: number;
  readonly given: number;
}

export interface SwitchedDiode {
  readonly name: string;
  readonly a: Spot;
  readonly k: Spot;
  /** Volts at which it opens and ohm beyond. */
  volts: number;
  ohms: number;
}

export interface SwitchedSwitch {
  readonly name: string;
  readonly high: Spot;
  readonly low: Spot;
  readonly ohms: number;
}

/** Windings on one core, or a choke: ends in pairs, ohm of each, matrix of henries row by row. */
export interface SwitchedWindings {
  readonly names: readonly string[];
  readonly ends: readonly Spot[];
  readonly ohms: readonly number[];
  readonly henries: readonly number[];
}

export interface SwitchedResistor {
  readonly a: Spot;
  readonly b: Spot;
  readonly ohms: number;
}

/** A capacitor whose volts follow the waveform. */
export interface SwitchedCapacitor {
  readonly a: Spot;
  readonly b: Spot;
  readonly farads: number;
  readonly ohms: number;
}

/** What flows steadily out of a node: the mean of what flows in, where the node is its ripple alone. */
export interface Drain {
  readonly node: number;
  readonly unknown: number;
  amps: number;
}

/** A circuit of ideal switches and diodes with knees: linear between two events. */
export interface SwitchedCircuit {
  readonly unknowns: number;
  readonly resistors: readonly SwitchedResistor[];
  readonly windings: readonly SwitchedWindings[];
  readonly diodes: readonly SwitchedDiode[];
  readonly switches: readonly SwitchedSwitch[];
  readonly capacitors: readonly SwitchedCapacitor[];
  readonly drains: readonly Drain[];
}

const LEAK = 1e-8;

interface Pair {
  readonly a: Spot;
  readonly b: Spot;
}

const diodePair = ({ a, k }: SwitchedDiode): Pair => ({ a, b: k });
const switchPair = ({ high, low }: SwitchedSwitch): Pair => ({ a: high, b: low });

/**
 * Steps a switched circuit through time, finding the states of its diodes: by the implicit Euler rule right after something
 * has switched, nearly by the trapezoidal rule in between, which loses no energy. All buffers are its own.
 */
export class SwitchedRun {
  readonly amps: Float64Array;
  readonly capVolts: Float64Array;
  readonly diodeOn: boolean[];
  readonly switchOn: boolean[];
  /** Volts that drive the current of each winding (L di/dt) after the last step. */
  private readonly drive: Float64Array;
  /** Share of a step that its end counts for: 1 is the implicit Euler rule. */
  weight = 1;
  /** Amperes of each diode and switch after the last step, volts of the unknowns. */
  readonly diodeAmps: Float64Array;
  readonly switchAmps: Float64Array;
  readonly volts: Float64Array;
  private readonly size: number;
  private readonly spare: Factor;
  /** The last solution, with a place behind it for what is not unknown: always nothing. */
  private readonly x: Float64Array;
  /** Volts given, with a place behind them for nothing. */
  private readonly known: Float64Array;
  private readonly first: readonly number[];
  private readonly resistorEnds: Int32Array;
  private readonly diodeEnds: Int32Array;
  private readonly switchEnds: Int32Array;
  private readonly capacitorEnds: Int32Array;
  private readonly windingEnds: readonly Int32Array[];
  /** Resistors with an end at given volts. */
  private readonly fed: Int32Array;

  constructor(readonly circuit: SwitchedCircuit) {
    let n = circuit.unknowns;
    this.first = circuit.windings.map((w) => {
      const at = n;
      n += w.ohms.length;
      return at;
    });
    this.size = n;
    this.amps = new Float64Array(n - circuit.unknowns);
    this.drive = new Float64Array(n - circuit.unknowns);
    this.capVolts = new Float64Array(circuit.capacitors.length);
    this.diodeOn = circuit.diodes.map(() => false);
    this.switchOn = circuit.switches.map(() => false);
    this.diodeAmps = new Float64Array(circuit.diodes.length);
    this.switchAmps = new Float64Array(circuit.switches.length);
    this.volts = new Float64Array(circuit.unknowns);
    this.spare = { matrix: new Float64Array(n * n), pivots: new Int32Array(n) };
    this.x = new Float64Array(n + 1);
    const { resistors, diodes, switches, capacitors, windings } = circuit;
    const all = [...resistors, ...diodes.map(diodePair), ...switches.map(switchPair), ...capacitors];
    const pairs = windings.flatMap((w) => w.ohms.map((_, k) => ({ a: w.ends[2 * k]!, b: w.ends[2 * k + 1]! })));
    const givens = 1 + Math.max(-1, ...[...all, ...pairs].flatMap(({ a, b }) => [a.given, b.given]));
    this.known = new Float64Array(givens + 1);
    const endsOf = (list: readonly Pair[]): Int32Array =>
      Int32Array.from(
        list.flatMap(({ a, b }) =>
          [a, b].flatMap((s) => [s.unknown < 0 ? n : s.unknown, s.given < 0 ? givens : s.given]),
        ),
      );
    this.resistorEnds = endsOf(resistors);
    this.diodeEnds = endsOf(diodes.map(diodePair));
    this.switchEnds = endsOf(switches.map(switchPair));
    this.capacitorEnds = endsOf(capacitors);
    this.windingEnds = windings.map((w) =>
      endsOf(w.ohms.map((_, k) => ({ a: w.ends[2 * k]!, b: w.ends[2 * k + 1]! }))),
    );
    this.fed = Int32Array.from(resistors.flatMap(({ a, b }, i) => (a.given >= 0 || b.given >= 0 ? [i] : [])));
  }

  /** Volts of a spot in the last solution. */
  at(spot: Spot, given: Float64Array): number {
    return (spot.unknown < 0 ? 0 : this.x[spot.unknown]!) + (spot.given < 0 ? 0 : given[spot.given]!);
  }

  /** Volts across an element in the last solution; ends: its unknowns and givens, four a piece. */
  private across(ends: Int32Array, i: number): number {
    const { x, known } = this;
    const k = 4 * i;
    return x[ends[k]!]! - x[ends[k + 2]!]! + known[ends[k + 1]!]! - known[ends[k + 3]!]!;
  }

  /**
   * Solves one step of h seconds without taking it: states of switches as set, diodes as found. False where the circuit
   * has no solution. start: the states of the diodes to begin with are kept for the first try, so that a caller can see
   * what would cross within the step: `crossing` is then the share of the step at which the first one does (1: none).
   */
  try(h: number, given: Float64Array): boolean {
    const { diodes } = this.circuit;
    const { diodeOn, diodeEnds } = this;
    this.crossing = 1;
    this.known.set(given);
    for (let round = 0; round < 40; round++) {
      if (!this.solve(h)) return false;
      let worst = -1;
      let most = 0;
      for (let d = 0; d < diodes.length; d++) {
        const { volts, ohms } = diodes[d]!;
        const over = this.across(diodeEnds, d) - volts;
        const on = diodeOn[d]!;
        const amps = on ? over / ohms : LEAK * over;
        if (round === 0 && on && amps < 0) {
          const before = this.diodeAmps[d]!;
          if (before > 0) this.crossing = Math.min(this.crossing, before / (before - amps));
        }
        if (on ? amps >= -1e-9 : over <= 1e-9) continue;
        // Early all that are wrong flip at once; later the worst alone, so that no circle is run.
        if (round < 3) diodeOn[d] = !on;
        const size = Math.abs(over);
        if (size > most) [most, worst] = [size, d];
      }
      if (worst < 0) return true;
      if (round >= 3) diodeOn[worst] = !diodeOn[worst];
    }
    return true;
  }
  crossing = 1;

  /** Takes the step that was tried last. */
  take(h: number): void {
    const { circuit, x } = this;
    const { diodes, switches, capacitors, unknowns } = circuit;
    for (let i = 0; i < circuit.windings.length; i++) {
      const { ohms } = circuit.windings[i]!;
      const [at, ends] = [this.first[i]! - unknowns, this.windingEnds[i]!];
      for (let k = 0; k < ohms.length; k++)
        this.drive[at + k] = this.across(ends, k) - ohms[k]! * x[unknowns + at + k]!;
    }
    for (let i = 0; i < this.amps.length; i++) this.amps[i] = x[unknowns + i]!;
    for (let d = 0; d < diodes.length; d++) {
      const { volts, ohms } = diodes[d]!;
      this.diodeAmps[d] = this.diodeOn[d] ? (this.across(this.diodeEnds, d) - volts) / ohms : 0;
    }
    for (let s = 0; s < switches.length; s++)
      this.switchAmps[s] = this.switchOn[s] ? this.across(this.switchEnds, s) / switches[s]!.ohms : 0;
    for (let c = 0; c < capacitors.length; c++) {
      const { farads, ohms } = capacitors[c]!;
      const across = this.across(this.capacitorEnds, c);
      this.capVolts[c] = this.capVolts[c]! + ((across - this.capVolts[c]!) * h) / (h + farads * ohms);
    }
    for (let i = 0; i < unknowns; i++) this.volts[i] = x[i]!;
  }

  private solve(h: number): boolean {
    const factor = this.factorFor(h * this.weight);
    if (!factor) return false;
    this.right(h * this.weight);
    solveDense(factor.matrix, factor.pivots, this.size, this.x);
    // The place of what is not unknown.
    this.x[this.size] = 0;
    return true;
  }

  /** Factors by step and by the states of diodes and switches: steps come again period after period. */
  private readonly factors = new Map<number, Map<number, Factor | null>>();
  private kept = 0;

  /** Must be called after an element's ohms were changed. */
  changed(): void {
    this.factors.clear();
    this.kept = 0;
  }

  private factorFor(h: number): Factor | null {
    const { size, diodeOn, switchOn } = this;
    if (diodeOn.length + switchOn.length > 30) return this.factored(h, this.spare);
    let mask = 0;
    for (const on of diodeOn) mask = 2 * mask + (on ? 1 : 0);
    for (const on of switchOn) mask = 2 * mask + (on ? 1 : 0);
    let own = this.factors.get(h);
    if (!own) {
      if (++this.kept > KEPT) this.changed();
      this.factors.set(h, (own = new Map<number, Factor | null>()));
    }
    const known = own.get(mask);
    if (known) return known;
    // Most steps come but once: a factor is kept from the second time on.
    if (known === undefined) {
      own.set(mask, null);
      return this.factored(h, this.spare);
    }
    const made = this.factored(h, { matrix: new Float64Array(size * size), pivots: new Int32Array(size) });
    if (made) own.set(mask, made);
    return made;
  }

  private factored(h: number, into: Factor): Factor | null {
    const { circuit, size } = this;
    const { matrix } = into;
    matrix.fill(0);
    for (let i = 0; i < circuit.unknowns; i++) matrix[i * size + i] = 1e-9;
    const conduct = ({ unknown: i }: Spot, { unknown: j }: Spot, siemens: number): void => {
      if (i === j) return;
      if (i >= 0) matrix[i * size + i] = matrix[i * size + i]! + siemens;
      if (j >= 0) matrix[j * size + j] = matrix[j * size + j]! + siemens;
      if (i < 0 || j < 0) return;
      matrix[i * size + j] = matrix[i * size + j]! - siemens;
      matrix[j * size + i] = matrix[j * size + i]! - siemens;
    };
    for (const { a, b, ohms } of circuit.resistors) conduct(a, b, 1 / ohms);
    circuit.diodes.forEach(({ a, k, ohms }, d) => conduct(a, k, this.diodeOn[d] ? 1 / ohms : LEAK));
    circuit.switches.forEach(({ high, low, ohms }, s) => conduct(high, low, this.switchOn[s] ? 1 / ohms : LEAK));
    for (const { a, b, farads, ohms } of circuit.capacitors) conduct(a, b, farads / (h + farads * ohms));
    circuit.windings.forEach((w, i) => this.wind(w, this.first[i]!, h, matrix));
    return factorDense(matrix, into.pivots, size).ok ? into : null;
  }

  /** The right side of a step: what is given, what flows steadily, what windings and capacitors bring along. */
  private right(h: number): void {
    const { circuit, x, amps, known } = this;
    const { resistors, diodes, switches, capacitors, windings, unknowns } = circuit;
    x.fill(0);
    for (const { unknown, amps: flows } of circuit.drains) x[unknown] = x[unknown]! - flows;
    for (const i of this.fed) this.push(this.resistorEnds, i, 1 / resistors[i]!.ohms, 0);
    for (let d = 0; d < diodes.length; d++)
      if (this.diodeOn[d]) this.push(this.diodeEnds, d, 1 / diodes[d]!.ohms, diodes[d]!.volts);
      else this.push(this.diodeEnds, d, LEAK, 0);
    for (let s = 0; s < switches.length; s++)
      this.push(this.switchEnds, s, this.switchOn[s] ? 1 / switches[s]!.ohms : LEAK, 0);
    for (let c = 0; c < capacitors.length; c++) {
      const { farads, ohms } = capacitors[c]!;
      this.push(this.capacitorEnds, c, farads / (h + farads * ohms), this.capVolts[c]!);
    }
    const rest = (1 - this.weight) / this.weight;
    for (let i = 0; i < windings.length; i++) {
      const { ohms, henries } = windings[i]!;
      const [first, count, ends] = [this.first[i]!, ohms.length, this.windingEnds[i]!];
      for (let k = 0; k < count; k++) {
        // va - vb = R i + L (i - i before) / (w h) - (1 - w) / w of what drove it before.
        let sum = known[ends[4 * k + 3]!]! - known[ends[4 * k + 1]!]!;
        for (let m = 0; m < count; m++) sum -= (henries[k * count + m]! / h) * amps[first + m - unknowns]!;
        x[first + k] = sum - rest * this.drive[first + k - unknowns]!;
      }
    }
  }

  /** What an element with some volts of its own pushes into its unknowns. */
  private push(ends: Int32Array, i: number, siemens: number, volts: number): void {
    const { x, known } = this;
    const k = 4 * i;
    const [a, b] = [ends[k]!, ends[k + 2]!];
    if (a === b) return;
    const flows = siemens * (known[ends[k + 1]!]! - known[ends[k + 3]!]! - volts);
    x[a] = x[a]! - flows;
    x[b] = x[b]! + flows;
  }

  private wind(w: SwitchedWindings, first: number, h: number, matrix: Float64Array): void {
    const { size } = this;
    const count = w.ohms.length;
    for (let k = 0; k < count; k++) {
      const row = first + k;
      for (const [{ unknown }, sign] of [
        [w.ends[2 * k]!, 1],
        [w.ends[2 * k + 1]!, -1],
      ] as const) {
        if (unknown < 0) continue;
        matrix[unknown * size + row] = matrix[unknown * size + row]! + sign;
        matrix[row * size + unknown] = matrix[row * size + unknown]! + sign;
      }
      matrix[row * size + row] = matrix[row * size + row]! - w.ohms[k]!;
      for (let m = 0; m < count; m++)
        matrix[row * size + first + m] = matrix[row * size + first + m]! - w.henries[k * count + m]! / h;
    }
  }
}

/** A circuit's matrix, factored. */
interface Factor {
  readonly matrix: Float64Array;
  readonly pivots: Int32Array;
}

/** So many lengths of step are kept in mind. */
const KEPT = 600;
