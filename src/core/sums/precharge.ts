import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Precharge resistor. Source: exponential charge of a capacitor. */
export const precharge: SumDefinition = {
  name: 'precharge',
  title: 'Precharge resistor',
  formula: 'peak = V/R; timeTo95 = R C ln 20; energy in R = C V²/2',
  source: 'exponential charge of a capacitor',
  inputs: [
    { key: 'vPeak', unit: 'V', meaning: 'voltage to charge to', rule: 'positive' },
    { key: 'r', unit: 'ohm', meaning: 'resistor', rule: 'positive' },
    { key: 'c', unit: 'F', meaning: 'capacitance', rule: 'positive' },
  ],
  resultUnits: { peakCurrent: 'A', peakPower: 'W', tau: 's', timeTo95: 's', energyR: 'J' },
  compute({ vPeak = 0, r = 0, c = 0 }) {
    const tau = r * c;
    const results = {
      peakCurrent: vPeak / r,
      peakPower: (vPeak * vPeak) / r,
      tau,
      timeTo95: tau * Math.log(20),
      energyR: (c * vPeak * vPeak) / 2,
    };
    return ok({
      results,
      cautions: ['The resistor must stand the pulse energy and the voltage, not only the mean power.'],
    });
  },
};
