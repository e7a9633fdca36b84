import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Does a resistor cook at full input?. Source: Ohm and Kirchhoff. */
export const resistorHeat: SumDefinition = {
  name: 'resistor-heat',
  title: 'Does a resistor cook at full input?',
  formula: 'power = (vIn - vz)²/r against derating pRated',
  source: 'Ohm and Kirchhoff',
  inputs: [
    { key: 'vIn', unit: 'V', meaning: 'input', rule: 'non-negative' },
    { key: 'r', unit: 'ohm', meaning: 'resistor', rule: 'positive' },
    { key: 'pRated', unit: 'W', meaning: 'rated power', rule: 'positive' },
    { key: 'vz', unit: 'V', meaning: 'LED or zener in series', rule: 'non-negative', preset: 0 },
    { key: 'derating', unit: '1', meaning: 'share of the rating to use', rule: 'fraction-above-zero', preset: 0.6 },
  ],
  resultUnits: { current: 'A', power: 'W', ratio: '1', vInMax: 'V' },
  task: 'judge-a-part',
  words: 'watts burn hot led relay dropper cook brown',
  lead: ['power', 'vInMax'],
  resultWords: {
    current: 'current',
    power: 'power',
    ratio: 'share of its rating',
    vInMax: 'highest input within the derating',
    withinDerating: 'within its derating',
  },
  steps: [
    'current = max(0; vIn - vz) / r',
    'power = max(0; vIn - vz)² / r',
    'ratio = power / pRated',
    'vInMax = vz + √(derating · pRated · r)',
  ],
  example: { vIn: 32, r: 1500, pRated: 0.25, vz: 2 },
  compute({ vIn = 0, r = 0, pRated = 0, vz = 0, derating = 0 }) {
    const volts = Math.max(0, vIn - vz);
    const power = (volts * volts) / r;
    const results = {
      current: volts / r,
      power,
      ratio: power / pRated,
      vInMax: vz + Math.sqrt(derating * pRated * r),
      withinDerating: power <= derating * pRated,
    };
    return ok({ results, cautions: [] });
  },
};
