import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Steps in which the end of the conduction is looked for before it is refined. */
const SCAN = 4000;

/**
 * Storage behind a bridge, periodic state with a load of constant power. Source: v = Vp sin - 2 vf while it feeds, then
 * v² = v0² - 2 P t/C until the next half-wave; both solved, not approximated.
 */
export const bulkRipple: SumDefinition = {
  name: 'bulk-ripple',
  title: 'Ripple of the bulk capacitor',
  formula: 'fed: v = Vp sin - 2 vf; then v² = v0² - 2 P t/C until the next half-wave',
  source: 'energy balance of the capacitor, ideal source, load of constant power',
  inputs: [
    { key: 'vac', unit: 'V', meaning: 'mains, rms', rule: 'positive' },
    { key: 'f', unit: 'Hz', meaning: 'mains frequency', rule: 'positive' },
    { key: 'c', unit: 'F', meaning: 'capacitor', rule: 'positive' },
    { key: 'p', unit: 'W', meaning: 'power drawn', rule: 'positive' },
    { key: 'vf', unit: 'V', meaning: 'drop of one diode', rule: 'non-negative', preset: 1 },
  ],
  resultUnits: { vMax: 'V', vMin: 'V', vAvg: 'V', ripple: 'V', peakDiodeCurrent: 'A', rippleRough: 'V' },
  task: 'read-a-rail',
  words: 'reservoir smoothing hum trough mains capacitor',
  lead: ['vAvg', 'ripple'],
  resultWords: {
    holds: 'holds over the half-wave',
    vMax: 'highest',
    vMin: 'lowest',
    vAvg: 'what a meter shows',
    ripple: 'ripple, peak to peak',
    conductionAngle: 'conduction, degrees of each half-wave',
    peakDiodeCurrent: 'peak current of the diodes',
    rippleRough: 'ripple by the rough rule',
  },
  steps: ['vMax = √(2) · vac - 2 · vf', 'ripple = vMax - vMin', 'rippleRough = p / (2 · f · c · vMax)'],
  example: { vac: 230, f: 50, c: 100e-6, p: 60 },
  compute({ vac = 0, f = 0, c = 0, p = 0, vf = 0 }) {
    const peak = Math.SQRT2 * vac;
    const vMax = peak - 2 * vf;
    if (vMax <= 0) return refuse(badInput('vac', 'is all lost in the diodes'));
    const omega = 2 * Math.PI * f;
    const rippleRough = p / (2 * f * c * vMax);
    const cautions = [
      'The resistance of mains, filter and thermistor is left out: the real ripple is smaller, the pulses longer.',
    ];
    const fails = {
      holds: false,
      vMax,
      vMin: null,
      vAvg: null,
      ripple: null,
      conductionAngle: null,
      peakDiodeCurrent: null,
      rippleRough,
    };
    const source = (angle: number): number => peak * Math.sin(angle) - 2 * vf;
    const off = firstRoot(
      (angle) => omega * c * peak * Math.cos(angle) * source(angle) + p,
      Math.PI / 2,
      Math.PI - Math.asin((2 * vf) / peak),
    );
    if (off === null) return ok({ results: fails, cautions });
    const start = source(off);
    const squared = (angle: number): number => start * start - (2 * p * (angle - off)) / (omega * c);
    const meets = firstRoot(
      (angle) => Math.sqrt(Math.max(0, squared(angle))) - source(angle - Math.PI),
      Math.PI,
      1.5 * Math.PI,
    );
    if (meets === null || squared(meets) <= 0) return ok({ results: fails, cautions });
    const on = meets - Math.PI;
    const vMin = source(on);
    const fed = peak * (Math.cos(on) - Math.cos(off)) - 2 * vf * (off - on);
    const alone = ((start ** 3 - vMin ** 3) * omega * c) / (3 * p);
    const results = {
      holds: true,
      vMax,
      vMin,
      vAvg: (fed + alone) / Math.PI,
      ripple: vMax - vMin,
      conductionAngle: ((off - on) * 180) / Math.PI,
      peakDiodeCurrent: omega * c * peak * Math.cos(on) + p / vMin,
      rippleRough,
    };
    return ok({ results, cautions });
  },
};

/** The first place where a function that begins above zero reaches it, by scan and bisection; null where it does not. */
function firstRoot(g: (x: number) => number, from: number, to: number): number | null {
  for (let i = 1; i <= SCAN; i++) {
    let [low, high] = [from + ((to - from) * (i - 1)) / SCAN, from + ((to - from) * i) / SCAN];
    if (g(high) > 0) continue;
    for (let step = 0; step < 60; step++) {
      const middle = (low + high) / 2;
      if (g(middle) > 0) low = middle;
      else high = middle;
    }
    return high;
  }
  return null;
}
