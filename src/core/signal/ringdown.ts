import { eigenvalues, factorDense, solveDense } from '../linear';
import type { Complex } from '../linear';
import { solveAt } from './smallSignal';
import type { SignalSystem } from './smallSignal';

/** One way in which the network rings: pole in 1/s, and the size of its share for 1 V on the capacitor of the meter. */
export interface RingingPole {
  readonly pole: Complex;
  readonly residue: number;
}

/**
 * The oscillatory pole with the largest residue for 1 V on the capacitor across the leads; null where none oscillates.
 *
 * system  with that capacitor in it; farads: the capacitor.
 * The poles s of det(G + sC) = 0 are found as s0 - 1/μ from the eigenvalues μ of (G + s0 C)^-1 C, then refined by inverse
 * iteration; the residue of V(s) = e' (G + sC)^-1 C x0 by a step beside the pole.
 */
export function ringingPole(system: SignalSystem, farads: number): RingingPole | null {
  const { n, red } = system;
  if (red < 0 || n === 0) return null;
  let best: RingingPole | null = null;
  for (const rough of roughPoles(system, SHIFT) ?? []) {
    const pole = refine(system, rough);
    if (!pole || !(pole.im > 1e-9 * Math.abs(pole.re))) continue;
    const residue = residueAt(system, pole, farads);
    if (!best || residue > best.residue) best = { pole, residue };
  }
  return best;
}

/** Poles are looked for about here, 1/s: between the ringing of a big choke and that of a small one with 10 nF. */
const SHIFT = 2 * Math.PI * 30e3;
/** What would ring faster than this is rounding, 1/s. */
const FASTEST = 1e12;

/** Oscillatory poles, one of each pair, as the eigenvalues give them. */
function roughPoles({ n, g, c }: SignalSystem, shift: number): readonly Complex[] | null {
  const lu = Float64Array.from(g, (v, i) => v + shift * c[i]!);
  const pivots = new Int32Array(n);
  if (!factorDense(lu, pivots, n).ok) return null;
  const m = new Float64Array(n * n);
  const column = new Float64Array(n);
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < n; i++) column[i] = c[i * n + j]!;
    solveDense(lu, pivots, n, column);
    for (let i = 0; i < n; i++) m[i * n + j] = column[i]!;
  }
  const values = eigenvalues(m, n);
  if (!values) return null;
  const poles: Complex[] = [];
  for (const { re, im } of values) {
    const size = re * re + im * im;
    if (size < 1e-60 || im === 0) continue;
    // 1/(re + j im) = (re - j im)/size.
    const pole = { re: shift - re / size, im: im / size };
    if (pole.im > 0 && pole.im < FASTEST) poles.push(pole);
  }
  return poles;
}

/** Inverse iteration on (G + sC) x = 0 from an estimate of s. */
function refine(system: SignalSystem, start: Complex): Complex | null {
  const { n, c } = system;
  let pole = start;
  let re: Float64Array = Float64Array.from({ length: n }, (_, i) => 1 + ((i * 7) % 11) / 11);
  let im: Float64Array = new Float64Array(n);
  for (let round = 0; round < 6; round++) {
    const [bRe, bIm] = [times(c, re, n), times(c, im, n)];
    // Off the pole by a hair, so that the factors exist.
    const at = { re: pole.re, im: pole.im * (1 + 1e-9) };
    const y = solveAt(system, at, bRe, bIm);
    // y ≈ x / (at - s): the step is x'y* / |y|² with the largest entry as the yardstick.
    let k = 0;
    for (let i = 1; i < n; i++) if (y.re[i]! ** 2 + y.im[i]! ** 2 > y.re[k]! ** 2 + y.im[k]! ** 2) k = i;
    const norm = y.re[k]! ** 2 + y.im[k]! ** 2;
    if (!(norm > 0) || !Number.isFinite(norm)) return round > 0 ? pole : null;
    const step = {
      re: (re[k]! * y.re[k]! + im[k]! * y.im[k]!) / norm,
      im: (im[k]! * y.re[k]! - re[k]! * y.im[k]!) / norm,
    };
    if (round > 0) {
      const next = { re: at.re - step.re, im: at.im - step.im };
      const moved = Math.hypot(next.re - pole.re, next.im - pole.im);
      if (moved > 0.2 * Math.hypot(pole.re, pole.im)) return start;
      pole = next;
      if (moved < 1e-12 * Math.hypot(pole.re, pole.im)) break;
    }
    const scale = { re: y.re[k]! / norm, im: -y.im[k]! / norm };
    const yRe = y.re;
    const yIm = y.im;
    re = yRe.map((v, i) => v * scale.re - yIm[i]! * scale.im);
    im = yRe.map((v, i) => v * scale.im + yIm[i]! * scale.re);
  }
  return pole;
}

function times(c: Float64Array, x: Float64Array, n: number): Float64Array {
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let j = 0; j < n; j++) sum += c[i * n + j]! * x[j]!;
    out[i] = sum;
  }
  return out;
}

/** Size of the residue of the volts across the leads at a pole: (s - p) V(s) a little to either side of it. */
function residueAt(system: SignalSystem, pole: Complex, farads: number): number {
  const b = new Float64Array(system.n);
  b[system.red] = farads;
  const off = 1e-5 * Math.hypot(pole.re, pole.im);
  let [re, im] = [0, 0];
  for (const side of [off, -off]) {
    const x = solveAt(system, { re: pole.re + side, im: pole.im }, b);
    re += (side * x.re[system.red]!) / 2;
    im += (side * x.im[system.red]!) / 2;
  }
  return Math.hypot(re, im);
}
