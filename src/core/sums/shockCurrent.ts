import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Current through a body. Source: Ohm and Kirchhoff. */
export const shockCurrent: SumDefinition = {
  name: 'shock-current',
  title: 'Current through a body',
  formula: 'current = V/(sourceR + bodyR)',
  source: 'Ohm and Kirchhoff',
  inputs: [
    { key: 'v', unit: 'V', meaning: 'voltage', rule: 'non-negative' },
    { key: 'sourceR', unit: 'ohm', meaning: 'resistance of the source', rule: 'non-negative' },
    { key: 'bodyR', unit: 'ohm', meaning: 'resistance of the body, your figure', rule: 'positive' },
  ],
  resultUnits: { current: 'A', bodyPower: 'W' },
  task: 'make-safe',
  words: 'leak touch body earth hurt',
  lead: ['current'],
  resultWords: { current: 'current through the body', bodyPower: 'power in the body' },
  steps: ['current = v / (sourceR + bodyR)', 'bodyPower = current² · bodyR'],
  example: { v: 230, sourceR: 0, bodyR: 1000 },
  compute({ v = 0, sourceR = 0, bodyR = 0 }) {
    const current = v / (sourceR + bodyR);
    const results = { current, bodyPower: current * current * bodyR };
    return ok({
      results,
      cautions: [
        'Body resistance varies widely with voltage, path and moisture (IEC 60479-1): this is no verdict of safety.',
      ],
    });
  },
};
