import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Quality from a ring test. Source: logarithmic decrement. */
export const ringQ: SumDefinition = {
  name: 'ring-q',
  title: 'Quality from a ring test',
  formula: 'decrement = ln(1/endRatio)/rings; q = pi/decrement',
  source: 'logarithmic decrement',
  inputs: [
    { key: 'rings', unit: '1', meaning: 'cycles counted', rule: 'positive' },
    { key: 'endRatio', unit: '1', meaning: 'amplitude at the end over the start', rule: 'positive' },
  ],
  resultUnits: { decrement: '1', q: '1', qExact: '1' },
  task: 'judge-a-part',
  words: 'ring winding shorted turns transformer choke cycles',
  lead: ['q'],
  resultWords: { decrement: 'decrement', q: 'quality', qExact: 'quality, exactly' },
  steps: ['decrement = ln(1 / endRatio) / rings', 'q = π / decrement', 'qExact = √(q² + 0.25)'],
  example: { rings: 14, endRatio: 0.15 },
  compute({ rings = 0, endRatio = 0 }) {
    if (endRatio >= 1) return refuse(badInput('endRatio', 'must be below 1'));
    const decrement = Math.log(1 / endRatio) / rings;
    const q = Math.PI / decrement;
    const results = { decrement, q, qExact: Math.sqrt(q * q + 0.25) };
    return ok({ results, cautions: [] });
  },
};
