import { archetypeBoard } from '../archetype';
import { parseFault } from '../fault';
import { PoweredReader } from '../work';
import type { OperatingCondition } from '../work';
import { listHypotheses, weighPowered } from '.';
import type { Hypothesis, PoweredTaken } from '.';

const board = archetypeBoard('buck-module')!;
const condition: OperatingCondition = { source: 12, load: 'half' };
const LABELS = ['none', 'R3:open', 'R4:open', 'D2:open', 'L1:open', 'F1:open', 'C4:open', 'R2:open'];
const all = listHypotheses(board, []);
const some = LABELS.flatMap((label): readonly Hypothesis[] => all.filter((h) => h.label === label));

/** What a meter shows on the unit with a fault: where, and half a percent off. */
function read(label: string, off = 0.005): readonly PoweredTaken[] {
  const fault = label === 'none' ? null : parseFault(board, label);
  if (fault && !fault.ok) throw new Error(label);
  const reader = PoweredReader.at(board, condition, fault ? [fault.value] : []);
  return (
    [
      ['OUT+', 'GND'],
      ['VIN', 'GND'],
      ['FB', 'GND'],
      ['SW', 'GND'],
    ] as const
  ).map(([red, black]) => ({
    mode: 'dcv',
    red,
    black,
    value: reader.read('dcv', red, black)!.value! * (1 + off),
    condition,
  }));
}

const weighed = (readings: readonly PoweredTaken[], seconds = 60, clock = () => 0): Map<string, number> => {
  const made = weighPowered(board, some, readings, seconds, clock);
  const total = made.reduce((sum, h) => sum + h.weight, 0);
  return new Map(made.map((h) => [h.label, h.weight / total]));
};

test.each(['R3:open', 'R4:open', 'F1:open', 'L1:open'])(
  '%s is told from the others by four figures under power',
  (label) => {
    expect(some.map((h) => h.label)).toContain(label);
    const odds = weighed(read(label));
    const [first] = [...odds].sort((a, b) => b[1] - a[1])[0]!;
    expect(first).toBe(label);
    expect(odds.get('none')!).toBeLessThan(0.05);
  },
);

test('a healthy unit speaks for itself, and a single slip of the probe does not convict', () => {
  const sound = read('none');
  expect(weighed(sound).get('none')!).toBeGreaterThan(0.5);
  const slipped = sound.map((r, i) => (i === 2 ? { ...r, value: 4.2 } : r));
  const odds = weighed(slipped);
  expect(odds.get('none')! / odds.get('R4:open')!).toBeGreaterThan(1);
});

test('nothing read under power changes nothing; without time only the healthy unit is worked out', () => {
  expect(weighPowered(board, some, [], 60, () => 0)).toBe(some);
  let now = 0;
  const odds = weighed(read('R4:open'), 1, () => (now += 10));
  // The others weigh like the middle of what was worked out: nothing is told apart, nothing is lost.
  for (const h of some) expect(odds.get(h.label)!).toBeGreaterThan(0);
});

test('a fault whose unit has no steady state is no explanation for everything', () => {
  // Of these one has none: it weighs like the middle of the others, not like the best.
  const lost = {
    ...some.find((h) => h.label === 'L1:open')!,
    label: 'lost',
    faults: [{ kind: 'value', ref: 'R3', value: NaN }],
  } as Hypothesis;
  const reader = PoweredReader.at(board, condition, lost.faults);
  expect(reader.operation.found).toBe(false);
  const readings = [{ mode: 'dcv', red: 'OUT+', black: 'GND', value: 0, condition }] as const;
  const weighed = weighPowered(board, [...some, lost], readings, 1e9, () => 0);
  const factor = (label: string): number =>
    weighed.find((h) => h.label === label)!.weight / [...some, lost].find((h) => h.label === label)!.weight;
  expect(factor('L1:open')).toBeGreaterThan(3 * factor('lost'));
  expect(factor('lost')).toBeGreaterThan(0);
});
