import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Energy and power of a pulse capacitor. Source: energy of a capacitor. */
export const pulseEnergy: SumDefinition = {
  name: 'pulse-energy',
  title: 'Energy and power of a pulse capacitor',
  formula: 'energy = C V²/2; power = energy f',
  source: 'energy of a capacitor',
  inputs: [
    { key: 'c', unit: 'F', meaning: 'capacitance', rule: 'positive' },
    { key: 'v', unit: 'V', meaning: 'voltage', rule: 'non-negative' },
    { key: 'f', unit: 'Hz', meaning: 'pulses a second', rule: 'non-negative' },
  ],
  resultUnits: { energy: 'J', power: 'W' },
  task: 'judge-a-part',
  words: 'fence flash strobe joules pulse',
  lead: ['energy', 'power'],
  resultWords: { energy: 'energy of one pulse', power: 'mean power' },
  steps: ['energy = c · v² / 2', 'power = energy · f'],
  example: { c: 10e-6, v: 600, f: 0.8 },
  compute({ c = 0, v = 0, f = 0 }) {
    const energy = (c * v * v) / 2;
    const results = { energy, power: energy * f };
    return ok({ results, cautions: [] });
  },
};
