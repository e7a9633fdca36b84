import { ok, refuse } from '../problem';
import { badInput } from './sumDefinition';
import type { SumDefinition } from './sumDefinition';

/** Discharge of a capacitor through a resistor or a filament lamp. Source: v = V exp(-t/RC); lamp R = V²/W, taken as fixed. */
export const dischargeTime: SumDefinition = {
  name: 'discharge-time',
  title: 'Discharge a capacitor through a resistor or a lamp',
  formula: 'time = R C ln(vStart/vSafe); energy = C (vStart² - vSafe²)/2; lamp R = lampV²/lampW',
  source: 'exponential discharge of a capacitor',
  inputs: [
    { key: 'c', unit: 'F', meaning: 'capacitance', rule: 'positive' },
    { key: 'vStart', unit: 'V', meaning: 'voltage at the start', rule: 'positive' },
    { key: 'vSafe', unit: 'V', meaning: 'voltage to come down to', rule: 'positive' },
    { key: 'r', unit: 'ohm', meaning: 'discharge resistor', rule: 'positive', optional: true },
    { key: 'lampW', unit: 'W', meaning: 'filament lamp, watts', rule: 'positive', optional: true },
    { key: 'lampV', unit: 'V', meaning: 'filament lamp, rated volts', rule: 'positive', optional: true },
  ],
  resultUnits: { r: 'ohm', tau: 's', time: 's', peakPower: 'W', peakCurrent: 'A', energy: 'J' },
  task: 'make-safe',
  words: 'empty bleed drain wait joules bulb',
  lead: ['time', 'peakPower'],
  resultWords: {
    r: 'resistance',
    tau: 'time constant',
    time: 'time to come down',
    peakPower: 'power at the first instant',
    peakCurrent: 'current at the first instant',
    energy: 'energy into the resistor',
  },
  steps: [
    'r = lampV² / lampW',
    'tau = r · c',
    'time = max(0; r · c · ln(vStart / vSafe))',
    'peakPower = vStart² / r',
    'peakCurrent = vStart / r',
    'energy = max(0; c · (vStart² - vSafe²) / 2)',
  ],
  example: { c: 220e-6, vStart: 325, vSafe: 0.2, r: 2200 },
  compute({ c = 0, vStart = 0, vSafe = 0, r: given, lampW, lampV }) {
    const lamp = lampW !== undefined || lampV !== undefined;
    if ((given !== undefined) === lamp)
      return refuse(badInput('r', 'give either a resistor or a lamp, not both and not neither'));
    if (lamp && lampV === undefined) return refuse(badInput('lampV', 'a lamp needs its rated volts as well'));
    if (lamp && lampW === undefined) return refuse(badInput('lampW', 'a lamp needs its watts as well'));
    const r = given ?? (lampV! * lampV!) / lampW!;
    const over = vStart > vSafe;
    const results = {
      r,
      tau: r * c,
      time: over ? r * c * Math.log(vStart / vSafe) : 0,
      peakPower: (vStart * vStart) / r,
      peakCurrent: vStart / r,
      energy: over ? (c * (vStart * vStart - vSafe * vSafe)) / 2 : 0,
    };
    const cautions: string[] = lamp
      ? [
          'A cold filament is about a tenth of r: the first current is higher and the time shorter.',
          'Filament or halogen only: an LED lamp stops conducting with tens of volts left.',
        ]
      : ['The resistor needs the voltage rating and the pulse energy, not only the watts.'];
    if (lamp && vStart > Math.SQRT2 * lampV!) cautions.push("Above the lamp's rated peak: use two in series.");
    return ok({ results, cautions });
  },
};
