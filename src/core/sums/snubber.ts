import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Power in a snubber's resistor. Source: energy of a capacitor, charged and discharged once a period. */
export const snubber: SumDefinition = {
  name: 'snubber',
  title: 'Power in a snubber',
  formula: 'rc: C V² f; rcd: C V² f/2; tau = R C',
  source: 'energy of a capacitor',
  inputs: [
    { key: 'c', unit: 'F', meaning: 'capacitor', rule: 'positive' },
    { key: 'v', unit: 'V', meaning: 'swing', rule: 'non-negative' },
    { key: 'f', unit: 'Hz', meaning: 'frequency', rule: 'positive' },
    { key: 'r', unit: 'ohm', meaning: 'resistor', rule: 'positive' },
    {
      key: 'type',
      unit: '1',
      meaning: 'charged through the resistor, or through a diode',
      rule: 'any',
      words: ['rc', 'rcd'],
      preset: 0,
    },
  ],
  resultUnits: { power: 'W', tau: 's' },
  task: 'judge-a-part',
  words: 'damping clamp resistor heat ringing',
  lead: ['power'],
  resultWords: { power: 'power in the resistor', tau: 'time constant' },
  steps: [
    { when: { type: 'rc' }, step: 'power = c · v² · f' },
    { when: { type: 'rcd' }, step: 'power = c · v² · f / 2' },
    'tau = r · c',
  ],
  example: { c: 1e-9, v: 320, f: 65e3, r: 47 },
  compute({ c = 0, v = 0, f = 0, r = 0 }, { words }) {
    const whole = c * v * v * f;
    return ok({ results: { power: words['type'] === 'rcd' ? whole / 2 : whole, tau: r * c }, cautions: [] });
  },
};
