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
  compute({ vBe = 0, iMin = 0, iMax = 0, vDropMax = 0 }) {
    if (iMax < iMin) return refuse(badInput('iMax', 'is below iMin'));
    const rMin = vBe / iMin;
    const rMax = vDropMax / iMax;
    const results = { rMin, rMax, feasible: rMin <= rMax, dropAtMax: iMax * rMin, powerAtMax: iMax * iMax * rMin };
    return ok({ results, cautions: [] });
  },
};
