import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Output sensed at an auxiliary winding. Source: turns ratio and divider. */
export const auxSense: SumDefinition = {
  name: 'aux-sense',
  title: 'Output sensed at an auxiliary winding',
  formula: 'vAux = vFb (1 + rTop/rBottom); vOut = vAux nS/nA - vf',
  source: 'turns ratio and divider',
  inputs: [
    { key: 'vFb', unit: 'V', meaning: 'feedback reference', rule: 'positive' },
    { key: 'rTop', unit: 'ohm', meaning: 'upper resistor', rule: 'non-negative' },
    { key: 'rBottom', unit: 'ohm', meaning: 'lower resistor', rule: 'positive' },
    { key: 'nS', unit: '1', meaning: 'turns of the secondary', rule: 'positive' },
    { key: 'nA', unit: '1', meaning: 'turns of the auxiliary', rule: 'positive' },
    { key: 'vf', unit: 'V', meaning: 'drop of the output diode', rule: 'non-negative' },
  ],
  resultUnits: { vAux: 'V', vOut: 'V' },
  task: 'read-a-rail',
  words: 'auxiliary winding primary side turns output',
  lead: ['vOut'],
  resultWords: { vAux: 'at the auxiliary winding', vOut: 'output' },
  steps: ['vAux = vFb · (1 + rTop / rBottom)', 'vOut = vAux · nS / nA - vf'],
  example: { vFb: 2.5, rTop: 30e3, rBottom: 5.1e3, nS: 8, nA: 20, vf: 0.5 },
  compute({ vFb = 0, rTop = 0, rBottom = 0, nS = 0, nA = 0, vf = 0 }) {
    const vAux = vFb * (1 + rTop / rBottom);
    const results = { vAux, vOut: (vAux * nS) / nA - vf };
    return ok({ results, cautions: [] });
  },
};
