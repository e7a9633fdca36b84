import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Load-detect resistor. Source: Ohm and Kirchhoff. */
export const senseStart: SumDefinition = {
  name: 'sense-start',
  title: 'Load-detect resistor',
  formula: 'rMin = vBe/iMin; rMax = vDropMax/iMax',
  source: 'Ohm and Kirchhoff',
  inputs: [
    { key: 'vBe', unit: 'V', meaning: 'base-emitter voltage', rule: 'positive' },
    { key: 'iMin', unit: 'A', meaning: 'smallest load to detect', rule: 'positive' },
    { key: 'iMax', unit: 'A', meaning: 'largest load', rule: 'positive' },
    { key: 'vDropMax', unit: 'V', meaning: 'largest drop allowed', rule: 'positive' },
  ],
  resultUnits: { rMin: 'ohm', rMax: 'ohm', dropAtMax: 'V', powerAtMax: 'W' },
  task: 'change-a-voltage',
  words: 'load detect start on load standby wake transistor shunt',
  lead: ['rMin', 'rMax'],
  resultWords: {
    rMin: 'least resistance that wakes it',
    rMax: 'most the drop allows',
    feasible: 'both can be met',
    dropAtMax: 'drop at the largest load',
    powerAtMax: 'power at the largest load',
  },
  steps: ['rMin = vBe / iMin', 'rMax = vDropMax / iMax', 'dropAtMax = iMax · rMin', 'powerAtMax = iMax² · rMin'],
  fit: { rMin: 'above', rMax: 'below' },
  example: { vBe: 0.6, iMin: 0.5, iMax: 2, vDropMax: 2.5 },
  compute({ vBe = 0, iMin = 0, iMax = 0, vDropMax = 0 }) {
    if (iMax < iMin) return refuse(badInput('iMax', 'is below iMin'));
    const rMin = vBe / iMin;
    const rMax = vDropMax / iMax;
    const results = { rMin, rMax, feasible: rMin <= rMax, dropAtMax: iMax * rMin, powerAtMax: iMax * iMax * rMin };
    return ok({ results, cautions: [] });
  },
};
