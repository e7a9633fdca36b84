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
  compute({ vFb = 0, rTop = 0, rBottom = 0, nS = 0, nA = 0, vf = 0 }) {
    const vAux = vFb * (1 + rTop / rBottom);
    const results = { vAux, vOut: (vAux * nS) / nA - vf };
    return ok({ results, cautions: [] });
  },
};
