import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Turns ratio from volts. Source: turns ratio. */
export const turnsFromVolts: SumDefinition = {
  name: 'turns-from-volts',
  title: 'Turns ratio from volts',
  formula: 'ratio = vp/vs',
  source: 'turns ratio',
  inputs: [
    { key: 'vp', unit: 'V', meaning: 'primary', rule: 'positive' },
    { key: 'vs', unit: 'V', meaning: 'secondary', rule: 'positive' },
  ],
  resultUnits: { ratio: '1', inverse: '1' },
  task: 'judge-a-part',
  words: 'transformer winding ratio turns signal generator',
  lead: ['ratio'],
  resultWords: { ratio: 'primary over secondary', inverse: 'secondary over primary' },
  steps: ['ratio = vp / vs', 'inverse = vs / vp'],
  example: { vp: 2, vs: 0.25 },
  compute({ vp = 0, vs = 0 }) {
    const results = { ratio: vp / vs, inverse: vs / vp };
    return ok({ results, cautions: [] });
  },
};
