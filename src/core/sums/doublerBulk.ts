import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

const STEPS = 20_000;
const MOST_PERIODS = 200;
/** The state is periodic when a period changes it by less than this share. */
const SETTLED = 1e-8;

/**
 * Two capacitors in a voltage doubler, periodic state with a load of constant power. Source: each follows its half-wave
 * less one drop while its diode conducts, and loses P/(v1 + v2) always; stepped until a period repeats itself.
 */
export const doublerBulk: SumDefinition = {
  name: 'doubler-bulk',
  title: 'Ripple of a voltage doubler',
  formula: 'each capacitor: C dv/dt = -P/(v1 + v2), never below its half-wave less vf',
  source: 'charge balance of the capacitors, ideal source, load of constant power',
  inputs: [
    { key: 'vac', unit: 'V', meaning: 'mains, rms', rule: 'positive' },
    { key: 'f', unit: 'Hz', meaning: 'mains frequency', rule: 'positive' },
    { key: 'c', unit: 'F', meaning: 'each capacitor', rule: 'positive' },
    { key: 'p', unit: 'W', meaning: 'power drawn', rule: 'positive' },
    { key: 'vf', unit: 'V', meaning: 'drop of one diode', rule: 'non-negative', preset: 1 },
  ],
  resultUnits: {
    vNoLoad: 'V',
    vMax: 'V',
    vMin: 'V',
    vAvg: 'V',
    ripple: 'V',
    capMin: 'V',
    capMax: 'V',
    rippleRough: 'V',
  },
  task: 'read-a-rail',
  words: 'doubler midpoint 115 reservoir ripple',
  lead: ['vAvg', 'ripple'],
  resultWords: {
    holds: 'holds over the period',
    vNoLoad: 'no load',
    vMax: 'highest',
    vMin: 'lowest',
    vAvg: 'what a meter shows',
    ripple: 'ripple, peak to peak',
    capMin: 'one capacitor, lowest',
    capMax: 'one capacitor, highest',
    rippleRough: 'ripple by the rough rule',
  },
  steps: ['vNoLoad = 2 · (√(2) · vac - vf)', 'ripple = vMax - vMin', 'rippleRough = p / (f · c · vNoLoad)'],
  example: { vac: 115, f: 60, c: 470e-6, p: 100 },
  compute({ vac = 0, f = 0, c = 0, p = 0, vf = 0 }) {
    const peak = Math.SQRT2 * vac;
    if (peak <= vf) return refuse(badInput('vac', 'is all lost in the diode'));
    const vNoLoad = 2 * (peak - vf);
    const rough = { vNoLoad, rippleRough: p / (f * c * vNoLoad) };
    const cautions = ['The resistance of mains and thermistor is left out: the real ripple is smaller.'];
    const loss = p / (f * STEPS * c);
    let [upper, lower] = [peak - vf, peak - vf];
    for (let period = 0; period < MOST_PERIODS; period++) {
      const before = upper + lower;
      let [vMax, vMin, capMin, capMax, sum] = [0, Infinity, Infinity, 0, 0];
      for (let i = 0; i < STEPS; i++) {
        const wave = peak * Math.sin((2 * Math.PI * (i + 1)) / STEPS);
        const drop = loss / (upper + lower);
        upper = Math.max(upper - drop, wave - vf);
        lower = Math.max(lower - drop, -wave - vf);
        if (upper + lower <= 0)
          return ok({
            results: {
              ...rough,
              holds: false,
              vMax: null,
              vMin: null,
              vAvg: null,
              ripple: null,
              capMin: null,
              capMax: null,
            },
            cautions,
          });
        const both = upper + lower;
        vMax = Math.max(vMax, both);
        vMin = Math.min(vMin, both);
        capMax = Math.max(capMax, upper);
        capMin = Math.min(capMin, upper);
        sum += both;
      }
      if (Math.abs(upper + lower - before) > SETTLED * before) continue;
      return ok({
        results: { ...rough, holds: true, vMax, vMin, vAvg: sum / STEPS, ripple: vMax - vMin, capMin, capMax },
        cautions,
      });
    }
    return ok({
      results: { ...rough, holds: false, vMax: null, vMin: null, vAvg: null, ripple: null, capMin: null, capMax: null },
      cautions,
    });
  },
};
