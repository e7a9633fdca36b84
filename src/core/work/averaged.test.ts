import { archetypeBoard } from '../archetype';
import { operateUnit } from './operate';
import type { OperatingCondition } from './workBoard';
import { workPlan } from './workPlan';

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
