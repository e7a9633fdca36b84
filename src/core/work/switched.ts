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

/**
 * Steps a switched circuit through time by the implicit Euler rule (exact for the straight ramps of a switching period),
 * finding the states of its diodes. All buffers are its own.
 */
export class SwitchedRun {
  readonly amps: Float64Array;
  readonly capVolts: Float64Array;
  readonly diodeOn: boolean[];
  readonly switchOn: boolean[];
  /** Amperes of each diode and switch after the last step, volts of the unknowns. */
  readonly diodeAmps: Float64Array;
  readonly switchAmps: Float64Array;
  readonly volts: Float64Array;
  private readonly size: number;
  private readonly matrix: Float64Array;
  private readonly x: Float64Array;
  private readonly first: readonly number[];

  constructor(readonly circuit: SwitchedCircuit) {
    let n = circuit.unknowns;
    this.first = circuit.windings.map((w) => {
      const at = n;
      n += w.ohms.length;
      return at;
    });
    this.size = n;
    this.amps = new Float64Array(n - circuit.unknowns);
    this.capVolts = new Float64Array(circuit.capacitors.length);
    this.diodeOn = circuit.diodes.map(() => false);
    this.switchOn = circuit.switches.map(() => false);
    this.diodeAmps = new Float64Array(circuit.diodes.length);
    this.switchAmps = new Float64Array(circuit.switches.length);
    this.volts = new Float64Array(circuit.unknowns);
    this.matrix = new Float64Array(n * n);
    this.x = new Float64Array(n);
  }

  /** Volts of a spot in the last solution. */
  at(spot: Spot, given: Float64Array): number {
    return (spot.unknown < 0 ? 0 : this.x[spot.unknown]!) + (spot.given < 0 ? 0 : given[spot.given]!);
  }

  /**
   * Solves one step of h seconds without taking it: states of switches as set, diodes as found. False where the circuit
   * has no solution. start: the states of the diodes to begin with are kept for the first try, so that a caller can see
   * what would cross within the step: `crossing` is then the share of the step at which the first one does (1: none).
   */
  try(h: number, given: Float64Array): boolean {
    const { diodes } = this.circuit;
    this.crossing = 1;
    for (let round = 0; round < 40; round++) {
      if (!this.solve(h, given)) return false;
      let worst = -1;
      let most = 0;
      for (let d = 0; d < diodes.length; d++) {
        const { a, k, volts, ohms } = diodes[d]!;
        const over = this.at(a, given) - this.at(k, given) - volts;
        const amps = this.diodeOn[d] ? over / ohms : LEAK * over;
        if (round === 0 && this.diodeOn[d] && amps < 0) {
          const before = this.diodeAmps[d]!;
          if (before > 0) this.crossing = Math.min(this.crossing, before / (before - amps));
        }
        const wrong = this.diodeOn[d] ? amps < -1e-9 : over > 1e-9;
        if (!wrong) continue;
        // Early all that are wrong flip at once; later the worst alone, so that no circle is run.
        if (round < 3) this.diodeOn[d] = !this.diodeOn[d];
        const size = Math.abs(over);
        if (size > most) [most, worst] = [size, d];
      }
      if (worst < 0) return true;
      if (round >= 3) this.diodeOn[worst] = !this.diodeOn[worst];
    }
    return true;
  }
  crossing = 1;

  /** Takes the step that was tried last. */
  take(h: number, given: Float64Array): void {
    const { circuit } = this;
    circuit.windings.forEach((w, i) => {
      for (let k = 0; k < w.ohms.length; k++) {
        const at = this.first[i]! + k;
        this.amps[at - circuit.unknowns] = this.x[at]!;
      }
    });
    circuit.diodes.forEach(({ a, k, volts, ohms }, d) => {
      const over = this.at(a, given) - this.at(k, given) - volts;
      this.diodeAmps[d] = this.diodeOn[d] ? over / ohms : 0;
    });
    circuit.switches.forEach(({ high, low, ohms }, s) => {
      this.switchAmps[s] = this.switchOn[s] ? (this.at(high, given) - this.at(low, given)) / ohms : 0;
    });
    circuit.capacitors.forEach(({ a, b, farads, ohms }, c) => {
      const across = this.at(a, given) - this.at(b, given);
      this.capVolts[c] = this.capVolts[c]! + ((across - this.capVolts[c]!) * h) / (h + farads * ohms);
    });
    for (let i = 0; i < circuit.unknowns; i++) this.volts[i] = this.x[i]!;
  }

  private solve(h: number, given: Float64Array): boolean {
    const { circuit, size, matrix, x } = this;
    matrix.fill(0);
    x.fill(0);
    for (let i = 0; i < circuit.unknowns; i++) matrix[i * size + i] = 1e-9;
    for (const { unknown, amps } of circuit.drains) x[unknown] = x[unknown]! - amps;
    for (const { a, b, ohms } of circuit.resistors) this.conduct(a, b, 1 / ohms, 0, given);
    circuit.diodes.forEach(({ a, k, volts, ohms }, d) => {
      if (this.diodeOn[d]) this.conduct(a, k, 1 / ohms, volts, given);
      else this.conduct(a, k, LEAK, 0, given);
    });
    circuit.switches.forEach(({ high, low, ohms }, s) =>
      this.conduct(high, low, this.switchOn[s] ? 1 / ohms : LEAK, 0, given),
    );
    circuit.capacitors.forEach(({ a, b, farads, ohms }, c) =>
      this.conduct(a, b, farads / (h + farads * ohms), this.capVolts[c]!, given),
    );
    circuit.windings.forEach((w, i) => this.wind(w, this.first[i]!, h, given));
    return eliminate(matrix, x, size);
  }

  /** A conductance between two spots in series with some volts. */
  private conduct(a: Spot, b: Spot, siemens: number, volts: number, given: Float64Array): void {
    const { matrix, size, x } = this;
    const known = (a.given < 0 ? 0 : given[a.given]!) - (b.given < 0 ? 0 : given[b.given]!) - volts;
    const [i, j] = [a.unknown, b.unknown];
    if (i === j) return;
    if (i >= 0) {
      matrix[i * size + i] = matrix[i * size + i]! + siemens;
      x[i] = x[i]! - siemens * known;
    }
    if (j >= 0) {
      matrix[j * size + j] = matrix[j * size + j]! + siemens;
      x[j] = x[j]! + siemens * known;
    }
    if (i >= 0 && j >= 0) {
      matrix[i * size + j] = matrix[i * size + j]! - siemens;
      matrix[j * size + i] = matrix[j * size + i]! - siemens;
    }
  }

  private wind(w: SwitchedWindings, first: number, h: number, given: Float64Array): void {
    const { matrix, size, x, amps, circuit } = this;
    const count = w.ohms.length;
    for (let k = 0; k < count; k++) {
      const row = first + k;
      const [a, b] = [w.ends[2 * k]!, w.ends[2 * k + 1]!];
      if (a.unknown >= 0) {
        matrix[a.unknown * size + row] = matrix[a.unknown * size + row]! + 1;
        matrix[row * size + a.unknown] = matrix[row * size + a.unknown]! + 1;
      }
      if (b.unknown >= 0) {
        matrix[b.unknown * size + row] = matrix[b.unknown * size + row]! - 1;
        matrix[row * size + b.unknown] = matrix[row * size + b.unknown]! - 1;
      }
      // va - vb = R i + L (i - i before) / h.
      let right = -(a.given < 0 ? 0 : given[a.given]!) + (b.given < 0 ? 0 : given[b.given]!);
      matrix[row * size + row] = matrix[row * size + row]! - w.ohms[k]!;
      for (let m = 0; m < count; m++) {
        const perSecond = w.henries[k * count + m]! / h;
        matrix[row * size + first + m] = matrix[row * size + first + m]! - perSecond;
        right -= perSecond * amps[first + m - circuit.unknowns]!;
      }
      x[row] = right;
    }
  }
}

/** Solves a small dense system in place, rows exchanged by size; false where it has no solution. */
function eliminate(matrix: Float64Array, x: Float64Array, n: number): boolean {
  for (let k = 0; k < n; k++) {
    let best = k;
    let size = Math.abs(matrix[k * n + k]!);
    for (let i = k + 1; i < n; i++) {
      const other = Math.abs(matrix[i * n + k]!);
      if (other > size) {
        best = i;
        size = other;
      }
    }
    if (!(size > 1e-30)) return false;
    if (best !== k) {
      for (let j = k; j < n; j++) {
        const kept = matrix[k * n + j]!;
        matrix[k * n + j] = matrix[best * n + j]!;
        matrix[best * n + j] = kept;
      }
      const kept = x[k]!;
      x[k] = x[best]!;
      x[best] = kept;
    }
    const pivot = matrix[k * n + k]!;
    for (let i = k + 1; i < n; i++) {
      const entry = matrix[i * n + k]!;
      if (entry === 0) continue;
      const factor = entry / pivot;
      for (let j = k + 1; j < n; j++) matrix[i * n + j] = matrix[i * n + j]! - factor * matrix[k * n + j]!;
      x[i] = x[i]! - factor * x[k]!;
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = x[i]!;
    for (let j = i + 1; j < n; j++) sum -= matrix[i * n + j]! * x[j]!;
    x[i] = sum / matrix[i * n + i]!;
  }
  return true;
}
