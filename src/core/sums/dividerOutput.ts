import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Output of a divider. Source: Ohm and Kirchhoff. */
export const dividerOutput: SumDefinition = {
  name: 'divider-output',
  title: 'Output of a divider',
  formula: 'vOut = vRef (1 + rTop/rBottom)',
  source: 'Ohm and Kirchhoff',
  inputs: [
    { key: 'vRef', unit: 'V', meaning: 'reference', rule: 'positive' },
    { key: 'rTop', unit: 'ohm', meaning: 'upper resistor', rule: 'non-negative' },
    { key: 'rBottom', unit: 'ohm', meaning: 'lower resistor', rule: 'positive' },
    { key: 'tolRef', unit: '1', meaning: 'tolerance of the reference', rule: 'fraction-below-one', preset: 0 },
    { key: 'tolTop', unit: '1', meaning: 'tolerance of the upper', rule: 'fraction-below-one', preset: 0 },
    { key: 'tolBottom', unit: '1', meaning: 'tolerance of the lower', rule: 'fraction-below-one', preset: 0 },
  ],
  resultUnits: { vOut: 'V', vMax: 'V', vMin: 'V', current: 'A' },
  task: 'read-a-rail',
  words: 'feedback set output voltage resistors reference',
  lead: ['vOut'],
  resultWords: {
    vOut: 'output',
    vMax: 'highest by tolerance',
    vMin: 'lowest by tolerance',
    current: 'current of the divider',
  },
  steps: [
    'vOut = vRef · (1 + rTop / rBottom)',
    'vMax = vRef · (1 + tolRef) · (1 + rTop · (1 + tolTop) / (rBottom · (1 - tolBottom)))',
    'vMin = vRef · (1 - tolRef) · (1 + rTop · (1 - tolTop) / (rBottom · (1 + tolBottom)))',
    'current = vRef / rBottom',
  ],
  example: { vRef: 1.2, rTop: 31.6e3, rBottom: 10e3, tolRef: 0.01, tolTop: 0.01, tolBottom: 0.01 },
  compute({ vRef = 0, rTop = 0, rBottom = 0, tolRef = 0, tolTop = 0, tolBottom = 0 }) {
    const at = (sign: number): number =>
      vRef * (1 + sign * tolRef) * (1 + (rTop * (1 + sign * tolTop)) / (rBottom * (1 - sign * tolBottom)));
    const results = { vOut: at(0), vMax: at(1), vMin: at(-1), current: vRef / rBottom };
    return ok({ results, cautions: [] });
  },
};
