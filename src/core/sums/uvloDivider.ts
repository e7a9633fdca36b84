import { ok, refuse } from '../problem';
import { nearestPreferred } from '../quantity';
import type { SeriesName } from '../quantity';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Divider of an under-voltage lock-out with hysteresis: rHyst lies across rBottom until the start. Source: Kirchhoff. */
export const uvloDivider: SumDefinition = {
  name: 'uvlo-divider',
  title: 'Under-voltage lock-out',
  formula: 'vFall = vTh (1 + rTop/rBottom); vRise the same with rHyst across rBottom',
  source: 'Ohm and Kirchhoff; series of IEC 60063',
  inputs: [
    { key: 'vTh', unit: 'V', meaning: 'threshold at the pin', rule: 'positive' },
    { key: 'vRise', unit: 'V', meaning: 'starts at', rule: 'positive' },
    { key: 'vHyst', unit: 'V', meaning: 'hysteresis', rule: 'non-negative' },
    { key: 'series', unit: '1', meaning: 'preferred values', rule: 'any', words: ['E24', 'E96'] },
    { key: 'vBrownOut', unit: 'V', meaning: 'input at which the converter falls out', rule: 'non-negative' },
    { key: 'rBottom', unit: 'ohm', meaning: 'lower resistor', rule: 'positive', optional: true },
    { key: 'rTotal', unit: 'ohm', meaning: 'or both together', rule: 'positive', optional: true },
  ],
  resultUnits: { rTop: 'ohm', rBottom: 'ohm', rHyst: 'ohm', vRise: 'V', vFall: 'V', hysteresis: 'V', margin: 'V' },
  task: 'change-a-voltage',
  words: 'under-voltage lockout brown-out battery cut off low hysteresis',
  lead: ['vRise', 'vFall'],
  resultWords: {
    rTop: 'upper resistor',
    rBottom: 'lower resistor',
    rHyst: 'hysteresis resistor',
    vRise: 'starts at',
    vFall: 'stops at',
    hysteresis: 'hysteresis',
    margin: 'above the brown-out by',
    locksOutFirst: 'locks out before it browns out',
  },
  steps: [
    'vFall = vTh · (1 + rTop / rBottom)',
    'vRise = vTh · (1 + rTop / rBottom + rTop / rHyst)',
    'hysteresis = vRise - vFall',
    'margin = vFall - vBrownOut',
  ],
  example: { vTh: 1.2, vRise: 11, vHyst: 0.8, series: 'E24', vBrownOut: 9.5, rBottom: 10e3 },
  compute({ vTh = 0, vRise = 0, vHyst = 0, vBrownOut = 0, rBottom: given, rTotal }, { words }) {
    if ((given === undefined) === (rTotal === undefined))
      return refuse(badInput('rBottom', 'give either rBottom or rTotal'));
    if (vRise <= vTh) return refuse(badInput('vRise', 'must be above vTh'));
    const wantedFall = vRise - vHyst;
    if (wantedFall <= vTh) return refuse(badInput('vHyst', 'leaves vFall at or below vTh'));
    const series = words['series'] as SeriesName;
    const rBottom = nearestPreferred(given ?? (rTotal! * vTh) / wantedFall, series);
    const rTop = nearestPreferred(rBottom * (wantedFall / vTh - 1), series);
    const parallel = rTop / (vRise / vTh - 1);
    const rHyst =
      vHyst === 0 || parallel >= rBottom ? null : nearestPreferred((parallel * rBottom) / (rBottom - parallel), series);
    const vFall = vTh * (1 + rTop / rBottom);
    const rise = vTh * (1 + rTop / rBottom + (rHyst === null ? 0 : rTop / rHyst));
    const margin = vFall - vBrownOut;
    const results = {
      rTop,
      rBottom,
      rHyst,
      vRise: rise,
      vFall,
      hysteresis: rise - vFall,
      margin,
      locksOutFirst: margin > 0,
    };
    return ok({ results, cautions: [] });
  },
};
