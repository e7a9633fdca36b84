import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Stress in a flyback. Source: turns ratio. */
export const flybackStress: SumDefinition = {
  name: 'flyback-stress',
  title: 'Stress in a flyback',
  formula: 'vReflected = n (vOut + vf); vDs = vBulk + vReflected + spike; piv = vOut + vBulk/n',
  source: 'turns ratio',
  inputs: [
    { key: 'vBulk', unit: 'V', meaning: 'bulk', rule: 'positive' },
    { key: 'n', unit: '1', meaning: 'primary over secondary turns', rule: 'positive' },
    { key: 'vOut', unit: 'V', meaning: 'output', rule: 'positive' },
    { key: 'vf', unit: 'V', meaning: 'drop of the output diode', rule: 'non-negative' },
    { key: 'spike', unit: 'V', meaning: 'leakage spike', rule: 'non-negative' },
  ],
  resultUnits: { vReflected: 'V', vDs: 'V', piv: 'V' },
  task: 'judge-a-part',
  words: 'drain voltage reflected peak inverse diode rating',
  lead: ['vDs', 'piv'],
  resultWords: { vReflected: 'reflected voltage', vDs: 'peak at the drain', piv: 'peak inverse at the output diode' },
  steps: ['vReflected = n · (vOut + vf)', 'vDs = vBulk + vReflected + spike', 'piv = vOut + vBulk / n'],
  example: { vBulk: 373, n: 8, vOut: 12, vf: 0.5, spike: 80 },
  compute({ vBulk = 0, n = 0, vOut = 0, vf = 0, spike = 0 }) {
    const vReflected = n * (vOut + vf);
    const results = { vReflected, vDs: vBulk + vReflected + spike, piv: vOut + vBulk / n };
    return ok({ results, cautions: ['Ringing of the output diode is not counted.'] });
  },
};
