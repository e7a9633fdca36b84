import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Start of a controller through its resistor. Source: exponential charge of a capacitor. */
export const startupTime: SumDefinition = {
  name: 'startup-time',
  title: 'Start of a controller through its resistor',
  formula: 'time = -R C ln(1 - vOn/vFinal); vFinal = vBulk - iStart R',
  source: 'exponential charge of a capacitor',
  inputs: [
    { key: 'r', unit: 'ohm', meaning: 'start-up resistance', rule: 'positive' },
    { key: 'c', unit: 'F', meaning: 'supply capacitor', rule: 'positive' },
    { key: 'vBulk', unit: 'V', meaning: 'bulk', rule: 'positive' },
    { key: 'vOn', unit: 'V', meaning: 'starts at', rule: 'positive' },
    { key: 'iStart', unit: 'A', meaning: 'drawn before the start', rule: 'non-negative' },
    { key: 'vRun', unit: 'V', meaning: 'supply at work', rule: 'non-negative', optional: true },
  ],
  resultUnits: { vFinal: 'V', time: 's', resistorPower: 'W', rMax: 'ohm' },
  task: 'power-up',
  words: 'start resistor supply pin hiccup vcc wait tick',
  lead: ['time'],
  resultWords: {
    vFinal: 'would charge to',
    starts: 'it starts',
    time: 'time to the start',
    resistorPower: 'power in the resistor at work',
    rMax: 'most resistance that starts it',
  },
  steps: [
    'vFinal = max(0; vBulk - iStart · r)',
    'time = -(r · c · ln(1 - vOn / vFinal))',
    'resistorPower = (vBulk - vRun)² / r',
    'rMax = (vBulk - vOn) / iStart',
  ],
  fit: { rMax: 'below' },
  example: { r: 660e3, c: 22e-6, vBulk: 325, vOn: 16, iStart: 20e-6, vRun: 13 },
  compute({ r = 0, c = 0, vBulk = 0, vOn = 0, iStart = 0, vRun }) {
    if (vOn >= vBulk) return refuse(badInput('vOn', 'must be below vBulk'));
    const running = vRun ?? vOn;
    if (running > vBulk) return refuse(badInput('vRun', 'is above vBulk'));
    const vFinal = Math.max(0, vBulk - iStart * r);
    const starts = vFinal > vOn;
    const results = {
      vFinal,
      starts,
      time: starts ? -r * c * Math.log(1 - vOn / vFinal) : null,
      resistorPower: (vBulk - running) ** 2 / r,
      rMax: iStart > 0 ? (vBulk - vOn) / iStart : null,
    };
    return ok({ results, cautions: [] });
  },
};
