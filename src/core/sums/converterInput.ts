import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Input of a converter, and a dropper instead. Source: power balance. */
export const converterInput: SumDefinition = {
  name: 'converter-input',
  title: 'Input of a converter, and a dropper instead',
  formula: 'pIn = vOut iOut/efficiency; dropper (vIn - vOut)/iOut',
  source: 'power balance',
  inputs: [
    { key: 'vIn', unit: 'V', meaning: 'input', rule: 'positive' },
    { key: 'vOut', unit: 'V', meaning: 'output', rule: 'positive' },
    { key: 'iOut', unit: 'A', meaning: 'output current', rule: 'positive' },
    { key: 'efficiency', unit: '1', meaning: 'efficiency', rule: 'fraction-above-zero' },
  ],
  resultUnits: { pOut: 'W', pIn: 'W', iIn: 'A', loss: 'W', dropR: 'ohm', dropPower: 'W', dropEfficiency: '1' },
  task: 'power-up',
  words: 'input current bench supply limit efficiency loss dropper',
  lead: ['iIn', 'loss'],
  resultWords: {
    pOut: 'output power',
    pIn: 'input power',
    iIn: 'input current',
    loss: 'loss',
    dropR: 'dropping resistor instead',
    dropPower: 'its power',
    dropEfficiency: 'its efficiency',
  },
  steps: [
    'pOut = vOut · iOut',
    'pIn = pOut / efficiency',
    'iIn = pIn / vIn',
    'loss = pIn - pOut',
    'dropR = (vIn - vOut) / iOut',
    'dropPower = (vIn - vOut) · iOut',
    'dropEfficiency = vOut / vIn',
  ],
  fit: { dropR: 'near' },
  example: { vIn: 24, vOut: 5, iOut: 2, efficiency: 0.88 },
  compute({ vIn = 0, vOut = 0, iOut = 0, efficiency = 0 }) {
    const pOut = vOut * iOut;
    const pIn = pOut / efficiency;
    const drops = vOut < vIn;
    const results = {
      pOut,
      pIn,
      iIn: pIn / vIn,
      loss: pIn - pOut,
      dropR: drops ? (vIn - vOut) / iOut : null,
      dropPower: drops ? (vIn - vOut) * iOut : null,
      dropEfficiency: drops ? vOut / vIn : null,
    };
    return ok({ results, cautions: [] });
  },
};
