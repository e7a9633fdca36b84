import { ok, refuse } from '../problem';
import { E_SERIES } from '../quantity';
import type { SeriesName } from '../quantity';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** One resistor in parallel or in series that moves a divider's output. Source: vOut = vRef (1 + rTop/rBottom). */
export const dividerRetarget: SumDefinition = {
  name: 'divider-retarget',
  title: 'Set another output voltage',
  formula: "wanted R' from vRef (1 + rTop/rBottom) = vTarget; parallel R R'/(R - R') or series R' - R",
  source: 'Ohm and Kirchhoff; series of IEC 60063',
  inputs: [
    { key: 'vRef', unit: 'V', meaning: 'reference', rule: 'positive' },
    { key: 'rTop', unit: 'ohm', meaning: 'upper resistor', rule: 'positive' },
    { key: 'rBottom', unit: 'ohm', meaning: 'lower resistor', rule: 'positive' },
    { key: 'vTarget', unit: 'V', meaning: 'wanted output', rule: 'positive' },
    { key: 'modify', unit: '1', meaning: 'which resistor is changed', rule: 'any', words: ['top', 'bottom'] },
  ],
  resultUnits: { wanted: 'ohm', exact: 'ohm', vOutNow: 'V' },
  task: 'change-a-voltage',
  words: 'raise lower output parallel resistor series feedback trim',
  lead: ['exact'],
  resultWords: {
    wanted: 'resistance wanted',
    method: 'how',
    exact: 'exact resistor',
    vOutNow: 'output now',
    e12: 'E12',
    e24: 'E24',
    e96: 'E96',
  },
  steps: [
    'vOutNow = vRef · (1 + rTop / rBottom)',
    { when: { modify: 'top' }, step: 'wanted = rBottom · (vTarget / vRef - 1)' },
    { when: { modify: 'bottom' }, step: 'wanted = rTop / (vTarget / vRef - 1)' },
    { when: { modify: 'top', method: 'parallel' }, step: 'exact = rTop · wanted / (rTop - wanted)' },
    { when: { modify: 'bottom', method: 'parallel' }, step: 'exact = rBottom · wanted / (rBottom - wanted)' },
    { when: { modify: 'top', method: 'series' }, step: 'exact = wanted - rTop' },
    { when: { modify: 'bottom', method: 'series' }, step: 'exact = wanted - rBottom' },
  ],
  example: { vRef: 1.2, rTop: 31.6e3, rBottom: 10e3, vTarget: 6.2, modify: 'bottom' },
  compute({ vRef = 0, rTop = 0, rBottom = 0, vTarget = 0 }, { words }) {
    if (vTarget <= vRef) return refuse(badInput('vTarget', 'must be above vRef'));
    const top = words['modify'] === 'top';
    const k = vTarget / vRef - 1;
    const own = top ? rTop : rBottom;
    const wanted = top ? rBottom * k : rTop / k;
    const method = Math.abs(wanted / own - 1) < 1e-9 ? 'none' : wanted < own ? 'parallel' : 'series';
    const exact = method === 'none' ? null : method === 'parallel' ? (own * wanted) / (own - wanted) : wanted - own;
    const outputWith = (value: number): number => {
      const changed = method === 'parallel' ? (own * value) / (own + value) : own + value;
      return vRef * (1 + (top ? changed / rBottom : rTop / changed));
    };
    const vOutNow = vRef * (1 + rTop / rBottom);
    const nearest = (series: SeriesName): { value: number | null; vOut: number; error: number } => {
      if (exact === null) return { value: null, vOut: vOutNow, error: vOutNow / vTarget - 1 };
      const value = closest(series, exact, (r) => Math.abs(outputWith(r) - vTarget));
      const vOut = outputWith(value);
      return { value, vOut, error: vOut / vTarget - 1 };
    };
    const results = { wanted, method, exact, vOutNow, e12: nearest('E12'), e24: nearest('E24'), e96: nearest('E96') };
    return ok({ results, cautions: ['Everything on this rail sees the new voltage: capacitors, zeners, the load.'] });
  },
};

/** The preferred value of least error, over the decades around; a tie goes to the lower. */
function closest(series: SeriesName, about: number, error: (value: number) => number): number {
  const decade = Math.floor(Math.log10(about));
  const values = [-1, 0, 1].flatMap((shift) => E_SERIES[series].map((step) => Number(`${step}e${decade + shift}`)));
  return values.reduce((best, value) => (error(value) < error(best) * (1 - 1e-12) ? value : best));
}
