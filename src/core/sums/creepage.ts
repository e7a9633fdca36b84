import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Millimetres for working volts, basic insulation. Source: IEC 60664-1, equipment, pollution degree 2, group III. */
const ROWS: readonly (readonly [number, number])[] = [
  [125, 1.5],
  [160, 1.6],
  [200, 2],
  [250, 2.5],
  [320, 3.2],
  [400, 4],
  [500, 5],
  [630, 6.3],
  [800, 8],
  [1000, 10],
];

/** Creepage distance for a working voltage. Source: IEC 60664-1. */
export const creepage: SumDefinition = {
  name: 'creepage',
  title: 'Creepage distance at the barrier',
  formula: 'the next row up of the table; reinforced = 2 x basic',
  source: 'IEC 60664-1, pollution degree 2, material group III',
  inputs: [
    { key: 'workingV', unit: 'V', meaning: 'working voltage, rms', rule: 'positive' },
    { key: 'insulation', unit: '1', meaning: 'basic or reinforced', rule: 'any', words: ['basic', 'reinforced'] },
    { key: 'pollutionDegree', unit: '1', meaning: 'only 2', rule: 'positive', numbers: [2], preset: 2 },
    { key: 'materialGroup', unit: '1', meaning: 'only III', rule: 'any', words: ['III'], preset: 0 },
  ],
  resultUnits: { tableV: 'V' },
  task: 'judge-a-part',
  words: 'distance barrier gap slot isolation millimetres',
  lead: ['creepageMm'],
  resultWords: { tableV: 'row of the table', creepageMm: 'creepage, mm' },
  steps: [],
  example: { workingV: 250, insulation: 'reinforced' },
  compute({ workingV = 0 }, { words }) {
    const row = ROWS.find(([volts]) => volts >= workingV);
    if (!row) return refuse(badInput('workingV', 'is above 1000 V, where the table ends'));
    const [tableV, millimetres] = row;
    const results = { tableV, creepageMm: words['insulation'] === 'reinforced' ? 2 * millimetres : millimetres };
    return ok({ results, cautions: ['Clearance, altitude and product standards may ask for more.'] });
  },
};
