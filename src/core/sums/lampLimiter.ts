import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Series lamp as a current limit. Source: Ohm and Kirchhoff. */
export const lampLimiter: SumDefinition = {
  name: 'lamp-limiter',
  title: 'Series lamp as a current limit',
  formula: 'hotR = lampV²/lampW; load = mainsV²/loadW in series with hotR',
  source: 'Ohm and Kirchhoff',
  inputs: [
    { key: 'lampW', unit: 'W', meaning: 'filament lamp, watts', rule: 'positive' },
    { key: 'lampV', unit: 'V', meaning: 'filament lamp, rated volts', rule: 'positive' },
    { key: 'mainsV', unit: 'V', meaning: 'mains', rule: 'positive' },
    { key: 'loadW', unit: 'W', meaning: 'load at full mains', rule: 'non-negative' },
    { key: 'coldRatio', unit: '1', meaning: 'hot over cold resistance', rule: 'positive', preset: 10 },
  ],
  resultUnits: {
    hotR: 'ohm',
    coldR: 'ohm',
    coldPeakCurrent: 'A',
    hotShortCurrent: 'A',
    loadV: 'V',
    loadPower: 'W',
    lampPower: 'W',
    maxLoadPower: 'W',
    constantPowerV: 'V',
  },
  task: 'power-up',
  words: 'bulb series current limit dim bright first power',
  lead: ['loadV', 'hotShortCurrent'],
  resultWords: {
    hotR: 'lamp, hot',
    coldR: 'lamp, cold',
    coldPeakCurrent: 'first peak into a short',
    hotShortCurrent: 'current into a short',
    loadV: 'volts left for the load',
    loadPower: 'power in the load',
    lampPower: 'power in the lamp',
    maxLoadPower: 'most power it lets through',
    constantPowerV: 'volts at a constant-power load',
  },
  steps: [
    'hotR = lampV² / lampW',
    'coldR = hotR / coldRatio',
    'coldPeakCurrent = √(2) · mainsV / coldR',
    'hotShortCurrent = mainsV / hotR',
    'loadV = mainsV / (1 + hotR · loadW / mainsV²)',
    'loadPower = loadV² · loadW / mainsV²',
    'lampPower = (mainsV - loadV)² / hotR',
    'maxLoadPower = mainsV² / (4 · hotR)',
    'constantPowerV = (mainsV + √(mainsV² - 4 · hotR · loadW)) / 2',
  ],
  example: { lampW: 60, lampV: 230, mainsV: 230, loadW: 20 },
  compute({ lampW = 0, lampV = 0, mainsV = 0, loadW = 0, coldRatio = 0 }) {
    if (coldRatio < 1) return refuse(badInput('coldRatio', 'a filament is not lower hot than cold'));
    const hotR = (lampV * lampV) / lampW;
    const coldR = hotR / coldRatio;
    // Without a load nothing flows; the whole mains stands at the open end.
    const loadR = loadW > 0 ? (mainsV * mainsV) / loadW : null;
    const current = loadR === null ? 0 : mainsV / (hotR + loadR);
    const maxLoadPower = (mainsV * mainsV) / (4 * hotR);
    const root = mainsV * mainsV - 4 * hotR * loadW;
    const results = {
      hotR,
      coldR,
      coldPeakCurrent: (Math.SQRT2 * mainsV) / coldR,
      hotShortCurrent: mainsV / hotR,
      loadV: loadR === null ? mainsV : current * loadR,
      loadPower: loadR === null ? 0 : current * current * loadR,
      lampPower: current * current * hotR,
      maxLoadPower,
      constantPowerV: root < 0 ? null : (mainsV + Math.sqrt(root)) / 2,
    };
    return ok({ results, cautions: ['Filament or halogen only: an LED lamp limits nothing.'] });
  },
};
