import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Bleeder across a capacitor. Source: exponential discharge of a capacitor. */
export const bleeder: SumDefinition = {
  name: 'bleeder',
  title: 'Bleeder across a capacitor',
  formula: 'tau = R C; time to a voltage = R C ln(V/that); power = V²/R',
  source: 'exponential discharge of a capacitor',
  inputs: [
    { key: 'c', unit: 'F', meaning: 'capacitance', rule: 'positive' },
    { key: 'r', unit: 'ohm', meaning: 'bleeder', rule: 'positive' },
    { key: 'v', unit: 'V', meaning: 'voltage at the start', rule: 'positive' },
  ],
  resultUnits: { tau: 's', timeTo60: 's', timeTo5: 's', power: 'W', current: 'A' },
  task: 'make-safe',
  words: 'discharge resistor fitted wait empty hot',
  lead: ['timeTo60', 'timeTo5'],
  resultWords: {
    tau: 'time constant',
    timeTo60: 'time to 60 V',
    timeTo5: 'time to 5 V',
    power: 'power all the time',
    current: 'current',
  },
  steps: [
    'tau = r · c',
    'timeTo60 = max(0; tau · ln(v / 60))',
    'timeTo5 = max(0; tau · ln(v / 5))',
    'power = v² / r',
    'current = v / r',
  ],
  example: { c: 220e-6, r: 220e3, v: 325 },
  compute({ c = 0, r = 0, v = 0 }) {
    const tau = r * c;
    const down = (to: number): number => (v > to ? tau * Math.log(v / to) : 0);
    const results = { tau, timeTo60: down(60), timeTo5: down(5), power: (v * v) / r, current: v / r };
    return ok({ results, cautions: ['Never rely on a bleeder that nobody has read: prove it with the meter.'] });
  },
};
