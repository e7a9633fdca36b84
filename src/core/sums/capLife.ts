import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Life of an electrolytic. Source: ten-degree rule, a rule of thumb after Arrhenius. */
export const capLife: SumDefinition = {
  name: 'cap-life',
  title: 'Life of an electrolytic',
  formula: 'hours = rated 2^((ratedTemp - coreTemp)/10)',
  source: 'ten-degree rule, a rule of thumb after Arrhenius',
  inputs: [
    { key: 'ratedHours', unit: '1', meaning: 'rated hours', rule: 'positive' },
    { key: 'ratedTemp', unit: '1', meaning: 'rated temperature, °C', rule: 'any' },
    { key: 'ambient', unit: '1', meaning: 'temperature around it, °C', rule: 'any' },
    { key: 'rippleRise', unit: '1', meaning: 'rise by ripple, K', rule: 'non-negative', preset: 0 },
  ],
  resultUnits: { coreTemp: '1', hours: '1', years: '1' },
  task: 'judge-a-part',
  words: 'electrolytic hours dried age temperature ten degrees',
  lead: ['hours', 'years'],
  resultWords: { coreTemp: 'core, °C', hours: 'life, hours', years: 'life, years' },
  steps: [
    'coreTemp = ambient + rippleRise',
    'hours = ratedHours · 2^((ratedTemp - coreTemp) / 10)',
    'years = hours / 8760',
  ],
  example: { ratedHours: 2000, ratedTemp: 105, ambient: 65, rippleRise: 5 },
  compute({ ratedHours = 0, ratedTemp = 0, ambient = 0, rippleRise = 0 }) {
    const coreTemp = ambient + rippleRise;
    const hours = ratedHours * 2 ** ((ratedTemp - coreTemp) / 10);
    const results = { coreTemp, hours, years: hours / 8760 };
    const cautions: string[] = [];
    if (hours / 8760 > 15) cautions.push('Above 15 years the seal decides, not this rule.');
    if (coreTemp > ratedTemp) cautions.push('Hotter than rated: the rule no longer holds.');
    return ok({ results, cautions: cautions });
  },
};
