import { archetypeBoard } from '../archetype';
import { operateUnit } from './operate';
import type { OperatingCondition } from './workBoard';
import { PoweredReader, workPlan } from '.';

/** What the period solver finds of a typical circuit: share of the period that a phase is on, peak of its switch, A. */
function solved(name: string, load: OperatingCondition['load'], source?: number) {
  const plan = workPlan(archetypeBoard(name)!);
  const { unit, volts, state } = operateUnit(plan, { source: source ?? plan.inputs.nominal, load }, []);
  const index = [...state.running].find((i) => unit.cells[i]?.result)!;
  const { result, hertz, cell } = unit.cells[index]!;
  const v = (net: string): number => volts[unit.node(net)]!;
  return { duty: result!.duty, peak: result!.top, hertz, v, mean: (i: number) => result!.mean[i]!, cell };
}

const within = (value: number, formula: number, share: number): void =>
  expect(Math.abs(value / formula - 1)).toBeLessThan(share);

/*
 * Averaged stages in closed form, as every text book has them (volt-seconds of the choke, charge of the output), with the
 * drop of a diode and a switch as they stand on the board: duty within 3 %, peak current within 5 %.
 */
test('buck, its choke never empty', () => {
  const { duty, peak, hertz, v } = solved('buck-module', 'full');
  const [vin, vout, drop, iout] = [v('VIN'), v('OUT+'), 0.46, 2];
  // The switch inside is its 0.2 ohm, the choke 40 milliohm.
  const d = (vout + drop + iout * 0.04) / (vin + drop - iout * 0.2);
  within(duty, d, 0.03);
  within(peak, iout + ((vin - vout) * d) / hertz / 22e-6 / 2, 0.05);
});

test('boost, its choke never empty', () => {
  const { duty, peak, hertz, v } = solved('boost', 'full');
  const [vin, vout, drop, iout] = [v('VB'), v('OUT'), 0.4, 0.5];
  const d = 1 - (vin - 0.1) / (vout + drop);
  within(duty, d, 0.03);
  within(peak, iout / (1 - d) + (vin * d) / hertz / 10e-6 / 2, 0.05);
});

test('inverting stage, its choke never empty', () => {
  const { duty, peak, hertz, v } = solved('buck-boost', 'full');
  const [vin, vout, drop, iout] = [v('VB'), -v('NEG'), 0.45, 1];
  const d = (vout + drop) / (vin - 0.1 + vout + drop);
  within(duty, d, 0.03);
  within(peak, iout / (1 - d) + (vin * d) / hertz / 47e-6 / 2, 0.06);
});

test('flyback that empties: half L I squared f is what leaves it', () => {
  const { peak, hertz, v } = solved('flyback-opto', 'half');
  const watts = (v('OUT+') - v('OUT-')) * 1.25 + (24 * 24) / 4700;
  // What the clamp and the rectifier take: its leakage of two in a hundred, half a volt of 24.5.
  const stored = 0.5 * 500e-6 * peak * peak * hertz;
  expect(stored / watts).toBeGreaterThan(1.02);
  expect(stored / watts).toBeLessThan(1.12);
});

test.each([
  // Circuit, henries of primary and secondary, phases, volts across the primary, drops, ampere, times that it turns round.
  ['forward', 4e-3, 50e-6, 1, ['HV+', 'HV-', 1], 0.6, 10, 1],
  ['two-switch-forward', 3e-3, 210e-6, 1, ['HV+', 'HV-', 1], 1.1, 8, 1],
  ['half-bridge', 3e-3, 60e-6, 2, ['HV+', 'HV-', 0.5], 0.65, 15, 1],
  ['full-bridge', 4e-3, 120e-6, 2, ['HV+', 'HV-', 1], 1.2, 10, 1],
  ['push-pull', 14e-6, 30e-3, 2, ['VB', 'GND', 1], 2.4, 1, 2],
] as const)(
  '%s: duty by the turns and what the leakage takes of every pulse',
  (name, henries, secondary, phases, [high, low, part], drop, amps, turned) => {
    const { duty, hertz, v } = solved(name, 'full');
    const [plus, minus] = name === 'push-pull' ? ['HV+', 'HV-'] : ['OUT+', 'OUT-'];
    const across = (v(high) - v(low)) * part * Math.sqrt(secondary / henries);
    // The pulse must first turn the choke's current into the winding, against its leakage (k = 0.99: two in a hundred).
    const lost = (turned * (1 - 0.99 ** 2) * secondary * amps * hertz) / across;
    within(duty, (v(plus) - v(minus) + drop) / across / phases + lost, 0.05);
  },
);

test('synchronous buck: its duty is the ratio of its volts', () => {
  const { duty, v } = solved('synchronous-buck', 'full');
  // Both switches of 12.4 milliohm and the choke carry 8 A; the lower one's diode waits for nothing.
  within(duty, (v('OUT') + 8 * 0.022) / v('VIN'), 0.03);
});

const reader = (name: string, load: OperatingCondition['load']): PoweredReader => {
  const board = archetypeBoard(name)!;
  return PoweredReader.at(board, { source: workPlan(board).inputs.nominal, load }, []);
};

test('power-factor stage: what it takes is a sine in step with the mains, its ripple twice the mains over its capacitor', () => {
  const r = reader('boost-pfc', 'full');
  const { volts, unit } = r.operation;
  const v = (net: string): number => volts[unit.node(net)]!;
  const watts = (v('HV+') - v('HV-')) ** 2 * (1.2 / 390 + 1 / 220e3 + 1 / 1.562e6);
  // Mean of the rectified current through the choke's 0.1 ohm; rms is pi / (2 root 2) times that.
  const amps = (v('BR+') - v('SW')) / 0.1;
  within(230 * amps * (Math.PI / Math.sqrt(8)), watts / 0.978, 0.03);
  // The power swings by all of itself at 100 Hz: I / (2 pi f C) with the mains' f.
  within(r.read('ripple', 'HV+', 'HV-')!.value!, watts / 390 / (2 * Math.PI * 50 * 330e-6), 0.06);
  // On for what the mean of the rectified sine lacks of the rail.
  within(r.read('dcv', 'GATE', 'HV-')!.value! / 15, 1 - (Math.SQRT2 * 230 * 2) / Math.PI / v('HV+'), 0.05);
});

test('resonant push-pull: a sine of pi times its rail at the frequency of its tank', () => {
  const r = reader('royer', 'none');
  // From collector to collector four times one half's 20 uH, 220 nF across.
  within(r.read('freq', 'CA', 'GND')!.value!, 1 / (2 * Math.PI * Math.sqrt(80e-6 * 220e-9)), 0.01);
  within(r.read('ripple', 'CA', 'GND')!.value!, Math.PI * 12, 0.03);
  within(r.read('acv', 'CA', 'CB')!.value!, (Math.PI * 12) / Math.SQRT2, 0.03);
  // 100 times the turns of one half: the root of 200 mH over 20 uH.
  within(r.read('acv', 'HVA', 'GND')!.value!, (100 * (Math.PI / 2) * 12) / Math.SQRT2, 0.03);
  expect(r.read('freq', 'VB', 'GND')!.value).toBeNull();
});

test('three-phase bridge: its legs at half the bus, its load power out of the battery', () => {
  const r = reader('three-phase-inverter', 'full');
  const { volts, unit } = r.operation;
  const v = (net: string): number => volts[unit.node(net)]! - volts[unit.node('GND')]!;
  for (const leg of ['U', 'V', 'W']) within(v(leg), v('VB') / 2, 0.01);
  for (const [a, b] of [
    ['U', 'V'],
    ['V', 'W'],
    ['W', 'U'],
  ] as const)
    within(r.read('acv', a, b)!.value!, 30, 0.02);
  // Root 3 x 30 V x 12 A over 48 V, and what it loses and draws itself, through the shunt of 5 milliohm.
  within((v('BRN') - v('GND')) / 0.005, (Math.sqrt(3) * 30 * 12) / 48, 0.06);
});
