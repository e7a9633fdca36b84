import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Energy and charge of a capacitor. Source: W = C V²/2, Q = C V. */
export const storedEnergy: SumDefinition = {
  name: 'stored-energy',
  title: 'Energy held by a capacitor',
  formula: 'energy = C V²/2; charge = C V',
  source: 'charge and energy of a capacitor',
  inputs: [
    { key: 'c', unit: 'F', meaning: 'capacitance', rule: 'positive' },
    { key: 'v', unit: 'V', meaning: 'voltage on it', rule: 'non-negative' },
  ],
  resultUnits: { energy: 'J', charge: 'C' },
  task: 'make-safe',
  words: 'joules coulombs danger bite shock',
  lead: ['energy'],
  resultWords: { energy: 'energy stored', charge: 'charge' },
  steps: ['energy = c · v² / 2', 'charge = c · v'],
  example: { c: 220e-6, v: 325 },
  compute({ c = 0, v = 0 }) {
    const cautions = v >= 60 ? [`${v} V is above the 60 V limit for touching.`] : [];
    return ok({ results: { energy: (c * v * v) / 2, charge: c * v }, cautions });
  },
};
