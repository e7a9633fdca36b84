import { archetypeBoard } from '../archetype';
import type { Board } from '../circuit';
import { parseFault } from '../fault';
import { PoweredReader, startTimes, workPlan } from '.';
import type { OperatingCondition, PoweredMode } from '.';

/*
 * What one part does to a working unit by itself, and nothing else does: charge over capacitance, volt-seconds over
 * inductance, dividers, turns. Each law holds for any factor, whatever the unit's own figures are.
 */

/** A typical circuit with some of its parts' values times a factor. */
function scaled(name: string, factors: Readonly<Record<string, number>>): Board {
  const board = archetypeBoard(name)!;
  for (const ref of Object.keys(factors)) expect(board.parts.map((p) => p.ref)).toContain(ref);
  const parts = board.parts.map((p) => ('value' in p ? { ...p, value: p.value * (factors[p.ref] ?? 1) } : p));
  return { ...board, parts };
}

function at(
  name: string,
  factors: Readonly<Record<string, number>> = {},
  load: OperatingCondition['load'] = 'half',
  ...faults: readonly string[]
): PoweredReader {
  const board = scaled(name, factors);
  const parsed = faults.map((text) => {
    const fault = parseFault(board, text);
    if (!fault.ok) throw new Error(text);
    return fault.value;
  });
  return PoweredReader.at(board, { source: workPlan(board).inputs.nominal, load }, parsed);
}

const read = (r: PoweredReader, mode: PoweredMode, red: string, black: string): number =>
  r.read(mode, red, black)!.value!;

const within = (value: number, wanted: number, share: number): void =>
  expect(Math.abs(value / wanted - 1)).toBeLessThan(share);

describe('a supply pin without its winding', () => {
  const cycle = (factors: Readonly<Record<string, number>>) => {
    const { hiccup } = at('flyback-opto', factors, 'half', 'D3:open').operation;
    return { period: hiccup!.period, rises: hiccup!.period * (1 - hiccup!.onShare), onShare: hiccup!.onShare };
  };
  const own = cycle({});

  test.each([0.5, 2, 4])('its capacitor times %p: the same cycle, so many times as long', (factor) => {
    const other = cycle({ C5: factor });
    within(other.period, factor * own.period, 0.01);
    within(other.onShare, own.onShare, 0.01);
  });

  test('what its resistors bring less what it draws fills it: one over the rise is straight over one over the resistance', () => {
    const [x, y] = [1, 1.5, 2]
      .map((r) => [1 / r, 1 / cycle({ R1: r, R2: r }).rises] as const)
      .reduce(
        ([a, b], [p, q]): [number[], number[]] => [
          [...a, p],
          [...b, q],
        ],
        [[], []] as [number[], number[]],
      );
    const slope = (y[0]! - y[2]!) / (x[0]! - x[2]!);
    within(y[1]!, y[2]! + slope * (x[1]! - x[2]!), 0.01);
    // What is drawn: where nothing would be left over to fill it.
    expect(y[0]! - slope * x[0]!).toBeLessThan(0);
  });

  test('so much resistance that nothing is left over never starts it', () => {
    const { operation } = at('flyback-opto', { R1: 20, R2: 20 }, 'half');
    expect(operation.unitState).toBe('off');
    expect(operation.state.powered.size).toBe(0);
  });
});

test.each([0.5, 3])('from switch-on to the start: by the capacitor of the supply pin (times %p)', (factor) => {
  const [own, other] = [{}, { C5: factor }].map((f) => startTimes(at('flyback-opto', f).operation)['U1']!);
  within(other!, factor * own!, 0.01);
});

test.each([0.5, 2])('the ripple of a rectified mains goes with one over its capacitor (times %p)', (factor) => {
  const [own, other] = [{}, { C1: factor }].map((f) => read(at('flyback-opto', f, 'full'), 'ripple', 'HV+', 'HV-'));
  within(other!, own! / factor, 0.06);
});

test.each([
  // Circuit, upper and lower resistor of its divider, its reference, output.
  ['flyback-opto', 'R12', 'R13', 2.495, 'OUT+', 'OUT-', [0.9, 1.15, 1.3]],
  ['forward', 'R10', 'R11', 2.495, 'OUT+', 'OUT-', [0.8, 1.1, 1.2]],
  ['buck-module', 'R3', 'R4', 0.8, 'OUT+', 'GND', [0.6, 1.2, 1.4]],
  ['boost', 'R2', 'R3', 1.19, 'OUT', 'GND', [0.8, 1.1, 1.25]],
  ['synchronous-buck', 'R5', 'R6', 0.8, 'OUT', 'GND', [0.7, 1.3, 1.5]],
] as const)('%s: its output goes with its divider', (name, upper, lower, reference, red, black, factors) => {
  const own = scaled(name, {});
  const value = (ref: string): number => (own.parts.find((p) => p.ref === ref) as { value: number }).value;
  for (const factor of factors) {
    const volts = read(at(name, { [upper]: factor }), 'dcv', red, black);
    within(volts, reference * (1 + (factor * value(upper)) / value(lower)), 0.015);
    // The other resistor the other way does the same.
    within(read(at(name, { [lower]: 1 / factor }), 'dcv', red, black), volts, 0.01);
  }
});

test('the supply winding follows the output winding by their turns', () => {
  const [own, other] = [1, 1.25].map((f) => at('flyback-opto', { R12: f }));
  const winding = (r: PoweredReader): number => read(r, 'dcv', 'VCC', 'HV-') + 0.9;
  const output = (r: PoweredReader): number => read(r, 'dcv', 'OUT+', 'OUT-') + 0.45;
  within(winding(other!) / winding(own!), output(other!) / output(own!), 0.06);
  // Turns go with the root of the inductances; lightly loaded, it is charged by the leakage's peak as well.
  expect(winding(own!) / output(own!)).toBeGreaterThan(Math.sqrt(11 / 30));
  expect(winding(own!) / output(own!)).toBeLessThan(1.35 * Math.sqrt(11 / 30));
});

test.each([
  // Circuit, what its choke carries in the mean: the output's current, of the inverting one that over the time it is off.
  ['buck-module', 2],
  ['synchronous-buck', 8],
  ['buck-boost', 1 / (1 - 12.45 / 24.35)],
] as const)(
  '%s: its switch peaks at the mean of its choke and a swing that goes with one over the inductance',
  (name, mean) => {
    const top = (factor: number): number => {
      const { unit, state } = at(name, { L1: factor }, 'full').operation;
      return unit.cells[[...state.running].find((i) => unit.cells[i]?.result)!]!.result!.top;
    };
    const [one, two, four] = [top(1), top(2), top(4)];
    // Straight over one over the inductance, to the mean where there is no swing.
    within((one! - two!) / (two! - four!), 2, 0.06);
    within(two! - (one! - two!), mean, 0.05);
  },
);
