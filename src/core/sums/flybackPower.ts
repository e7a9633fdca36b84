import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Power of a flyback. Source: energy of an inductor, discontinuous mode. */
export const flybackPower: SumDefinition = {
  name: 'flyback-power',
  title: 'Power of a flyback',
  formula: 'energy = L I²/2; pIn = energy f; pOut = efficiency pIn',
  source: 'energy of an inductor, discontinuous mode',
  inputs: [
    { key: 'lp', unit: 'H', meaning: 'primary inductance', rule: 'positive' },
    { key: 'iPeak', unit: 'A', meaning: 'peak current', rule: 'positive' },
    { key: 'f', unit: 'Hz', meaning: 'frequency', rule: 'positive' },
    { key: 'efficiency', unit: '1', meaning: 'efficiency', rule: 'fraction-above-zero' },
  ],
  resultUnits: { energy: 'J', pIn: 'W', pOut: 'W' },
  task: 'judge-a-part',
  words: 'throughput watts transformer energy primary',
  lead: ['pOut'],
  resultWords: { energy: 'energy each cycle', pIn: 'input power', pOut: 'output power' },
  steps: ['energy = lp · iPeak² / 2', 'pIn = energy · f', 'pOut = efficiency · pIn'],
  example: { lp: 500e-6, iPeak: 1.5, f: 65e3, efficiency: 0.82 },
  compute({ lp = 0, iPeak = 0, f = 0, efficiency = 0 }) {
    const energy = (lp * iPeak * iPeak) / 2;
    const results = { energy, pIn: energy * f, pOut: efficiency * energy * f };
    return ok({ results, cautions: ['Discontinuous mode only.'] });
  },
};
