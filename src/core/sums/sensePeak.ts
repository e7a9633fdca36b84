import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Peak current of a sensed switch. Source: current ramp in an inductor. */
export const sensePeak: SumDefinition = {
  name: 'sense-peak',
  title: 'Peak current of a sensed switch',
  formula: 'iLimit = vCs/rSense; iPeak = max(iLimit, iBlank) + vBulk tDelay/l',
  source: 'current ramp in an inductor',
  inputs: [
    { key: 'vCs', unit: 'V', meaning: 'threshold', rule: 'positive' },
    { key: 'rSense', unit: 'ohm', meaning: 'sense resistor', rule: 'positive' },
    { key: 'vBulk', unit: 'V', meaning: 'bulk', rule: 'positive' },
    { key: 'l', unit: 'H', meaning: 'inductance', rule: 'positive' },
    { key: 'tDelay', unit: 's', meaning: 'delay to turn off', rule: 'non-negative', preset: 0 },
    { key: 'tBlank', unit: 's', meaning: 'blanking', rule: 'non-negative', preset: 0 },
  ],
  resultUnits: { iLimit: 'A', overshoot: 'A', iBlank: 'A', iPeak: 'A' },
  task: 'judge-a-part',
  words: 'current limit shunt peak overshoot blanking',
  lead: ['iPeak'],
  resultWords: {
    iLimit: 'limit by the resistor',
    overshoot: 'overshoot by the delay',
    iBlank: 'reached while blanked',
    iPeak: 'highest current',
    blankingRules: 'the blanking decides',
  },
  steps: [
    'iLimit = vCs / rSense',
    'overshoot = vBulk · tDelay / l',
    'iBlank = vBulk · tBlank / l',
    'iPeak = max(iLimit; iBlank) + overshoot',
  ],
  example: { vCs: 0.8, rSense: 0.47, vBulk: 325, l: 500e-6, tDelay: 150e-9, tBlank: 300e-9 },
  compute({ vCs = 0, rSense = 0, vBulk = 0, l = 0, tDelay = 0, tBlank = 0 }) {
    const iLimit = vCs / rSense;
    const overshoot = (vBulk * tDelay) / l;
    const iBlank = (vBulk * tBlank) / l;
    const results = {
      iLimit,
      overshoot,
      iBlank,
      iPeak: Math.max(iLimit, iBlank) + overshoot,
      blankingRules: iBlank > iLimit,
    };
    return ok({ results, cautions: [] });
  },
};
