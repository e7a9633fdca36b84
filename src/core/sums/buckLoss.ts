import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Diode or synchronous rectifier in a buck. Source: conduction losses. */
export const buckLoss: SumDefinition = {
  name: 'buck-loss',
  title: 'Diode or synchronous rectifier in a buck',
  formula: 'D = vOut/vIn; high D I² rds; low (1-D) I² rds or (1-D) vf I',
  source: 'conduction losses',
  inputs: [
    { key: 'vIn', unit: 'V', meaning: 'input', rule: 'positive' },
    { key: 'vOut', unit: 'V', meaning: 'output', rule: 'positive' },
    { key: 'iOut', unit: 'A', meaning: 'output current', rule: 'positive' },
    { key: 'rds', unit: 'ohm', meaning: 'each switch, on', rule: 'non-negative' },
    { key: 'vf', unit: 'V', meaning: 'drop of the diode', rule: 'non-negative' },
  ],
  resultUnits: {
    duty: '1',
    highSide: 'W',
    lowSideSync: 'W',
    lowSideDiode: 'W',
    lossSync: 'W',
    lossDiode: 'W',
    effSync: '1',
    effDiode: '1',
    effGain: '1',
  },
  task: 'judge-a-part',
  words: 'synchronous diode freewheel efficiency heat compare',
  lead: ['effSync', 'effDiode'],
  resultWords: {
    duty: 'duty',
    highSide: 'upper switch',
    lowSideSync: 'lower switch',
    lowSideDiode: 'lower diode',
    lossSync: 'loss with two switches',
    lossDiode: 'loss with a diode',
    effSync: 'efficiency with two switches',
    effDiode: 'efficiency with a diode',
    effGain: 'gain in efficiency',
  },
  steps: [
    'duty = vOut / vIn',
    'highSide = duty · iOut² · rds',
    'lowSideSync = (1 - duty) · iOut² · rds',
    'lowSideDiode = (1 - duty) · vf · iOut',
    'lossSync = highSide + lowSideSync',
    'lossDiode = highSide + lowSideDiode',
    'effSync = vOut · iOut / (vOut · iOut + lossSync)',
    'effDiode = vOut · iOut / (vOut · iOut + lossDiode)',
    'effGain = effSync - effDiode',
  ],
  example: { vIn: 12, vOut: 5, iOut: 4, rds: 0.015, vf: 0.45 },
  compute({ vIn = 0, vOut = 0, iOut = 0, rds = 0, vf = 0 }) {
    if (vOut >= vIn) return refuse(badInput('vOut', 'must be below vIn'));
    const duty = vOut / vIn;
    const highSide = duty * iOut * iOut * rds;
    const lowSideSync = (1 - duty) * iOut * iOut * rds;
    const lowSideDiode = (1 - duty) * vf * iOut;
    const pOut = vOut * iOut;
    const [lossSync, lossDiode] = [highSide + lowSideSync, highSide + lowSideDiode];
    const [effSync, effDiode] = [pOut / (pOut + lossSync), pOut / (pOut + lossDiode)];
    const results = {
      duty,
      highSide,
      lowSideSync,
      lowSideDiode,
      lossSync,
      lossDiode,
      effSync,
      effDiode,
      effGain: effSync - effDiode,
    };
    return ok({ results, cautions: ['Conduction only: switching, gate and ripple losses are left out.'] });
  },
};
