import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Variable transformer, step-up, bridge and capacitor. Source: ideal transformer and bridge. */
export const variacRig: SumDefinition = {
  name: 'variac-rig',
  title: 'Variable transformer, step-up, bridge and capacitor',
  formula: 'dcMax = sqrt2 mains ratio - 2 vf; ripple = I/(2 f C)',
  source: 'ideal transformer and bridge',
  inputs: [
    { key: 'mainsMax', unit: 'V', meaning: 'highest setting of the variable transformer', rule: 'positive' },
    { key: 'ratio', unit: '1', meaning: 'secondary over primary', rule: 'positive' },
    { key: 'c', unit: 'F', meaning: 'capacitor', rule: 'positive' },
    { key: 'loadA', unit: 'A', meaning: 'load', rule: 'non-negative' },
    { key: 'f', unit: 'Hz', meaning: 'mains frequency', rule: 'positive' },
    { key: 'vf', unit: 'V', meaning: 'drop of one diode', rule: 'non-negative', preset: 1 },
  ],
  resultUnits: { dcMin: 'V', dcMax: 'V', deadBand: 'V', ripple: 'V', dcTrough: 'V', dcMean: 'V' },
  task: 'build-a-rig',
  words: 'high voltage dc bench variable transformer step-up battery stand-in 350',
  lead: ['dcMax', 'dcMean'],
  resultWords: {
    dcMin: 'lowest',
    dcMax: 'highest, no load',
    deadBand: 'setting below which nothing comes',
    ripple: 'ripple, at most',
    dcTrough: 'lowest under load',
    dcMean: 'mean under load',
  },
  steps: [
    'dcMax = max(0; √(2) · mainsMax · ratio - 2 · vf)',
    'deadBand = 2 · vf / (√(2) · ratio)',
    'ripple = min(dcMax; loadA / (2 · f · c))',
    'dcTrough = dcMax - ripple',
    'dcMean = dcMax - ripple / 2',
  ],
  example: { mainsMax: 250, ratio: 1, c: 100e-6, loadA: 0.1, f: 50 },
  compute({ mainsMax = 0, ratio = 0, c = 0, loadA = 0, f = 0, vf = 0 }) {
    const dcMax = Math.max(0, Math.SQRT2 * mainsMax * ratio - 2 * vf);
    const ripple = Math.min(dcMax, loadA / (2 * f * c));
    const results = {
      dcMin: 0,
      dcMax,
      deadBand: (2 * vf) / (Math.SQRT2 * ratio),
      ripple,
      dcTrough: dcMax - ripple,
      dcMean: dcMax - ripple / 2,
    };
    return ok({
      results,
      cautions: [
        'An ordinary variable transformer does not isolate.',
        'Unloaded, the capacitor stays at its peak: discharge and prove it.',
      ],
    });
  },
};
