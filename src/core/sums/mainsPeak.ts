import { ok } from '../problem';
import type { SumDefinition } from './sumDefinition';

/** Peak of a sine and what a rectifier leaves of it. Source: peak = √2 rms; one diode drop per conducting diode. */
export const mainsPeak: SumDefinition = {
  name: 'mains-peak',
  title: 'Peak of the mains, behind the rectifier',
  formula: 'peak = √2 vrms; dcPeak = peak - drops·vf, not below 0',
  source: 'sine wave',
  inputs: [
    { key: 'vrms', unit: 'V', meaning: 'mains, rms', rule: 'non-negative' },
    { key: 'vf', unit: 'V', meaning: 'drop of one diode', rule: 'non-negative', preset: 1 },
    { key: 'drops', unit: '1', meaning: 'diodes in the way', rule: 'non-negative', numbers: [0, 1, 2], preset: 2 },
  ],
  resultUnits: { peak: 'V', dcPeak: 'V' },
  task: 'read-a-rail',
  words: 'rectified dc bus peak 325',
  lead: ['dcPeak'],
  resultWords: { peak: 'peak of the mains', dcPeak: 'rectified, no load' },
  steps: ['peak = √(2) · vrms', 'dcPeak = max(0; peak - drops · vf)'],
  example: { vrms: 230 },
  compute({ vrms = 0, vf = 1, drops = 2 }) {
    const peak = Math.SQRT2 * vrms;
    const cautions = peak >= 60 ? ['The bulk capacitor can hold this long after the plug is out.'] : [];
    return ok({ results: { peak, dcPeak: Math.max(0, peak - drops * vf) }, cautions });
  },
};
