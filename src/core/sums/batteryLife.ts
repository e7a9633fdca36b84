import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** How long a battery lasts idle. Source: charge balance. */
export const batteryLife: SumDefinition = {
  name: 'battery-life',
  title: 'How long a battery lasts idle',
  formula: 'hours = usable capacity / idle current',
  source: 'charge balance',
  inputs: [
    { key: 'capacityMah', unit: '1', meaning: 'capacity, mAh', rule: 'positive' },
    { key: 'idleA', unit: 'A', meaning: 'idle current', rule: 'positive' },
    { key: 'usable', unit: '1', meaning: 'usable share', rule: 'fraction-above-zero', preset: 1 },
  ],
  resultUnits: { hours: '1', days: '1' },
  task: 'build-a-rig',
  words: 'runtime standby idle cell drain days',
  lead: ['hours', 'days'],
  resultWords: { hours: 'hours', days: 'days' },
  steps: ['hours = usable · capacityMah / 1000 / idleA', 'days = hours / 24'],
  example: { capacityMah: 2600, idleA: 0.012, usable: 0.8 },
  compute({ capacityMah = 0, idleA = 0, usable = 0 }) {
    const hours = (usable * capacityMah) / 1000 / idleA;
    const results = { hours, days: hours / 24 };
    return ok({ results, cautions: ['Self-discharge is not counted.'] });
  },
};
