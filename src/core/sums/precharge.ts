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
  task: 'power-up',
  words: 'inrush charge soft start resistor relay',
  lead: ['timeTo95', 'peakPower'],
  resultWords: {
    peakCurrent: 'current at the first instant',
    peakPower: 'power at the first instant',
    tau: 'time constant',
    timeTo95: 'time to 95 %',
    energyR: 'energy into the resistor, each charge',
  },
  steps: [
    'peakCurrent = vPeak / r',
    'peakPower = vPeak² / r',
    'tau = r · c',
    'timeTo95 = tau · ln(20)',
    'energyR = c · vPeak² / 2',
  ],
  example: { vPeak: 325, r: 100, c: 470e-6 },
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
