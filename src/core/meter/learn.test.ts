import { readNetlist } from '../netlist';
import { ok } from '../problem';
import type { Board } from '../circuit';
import { DEFAULT_METER, learnMeter, probe, solverFor } from '.';
import type { ColdMode, MeterProfile } from '.';

/** The three things to touch, by a model of the rectifier that is not the one the formula was made from. */
const BENCH: Board = (() => {
  const read = readNetlist(
    'three touches\nRL A B 0.15\nD1 C D RECT\nR1 E F 10k\n.model RECT D(IS=7.02767n N=1.80803 RS=0.0341512)\n',
  );
  if (!read.ok) throw new Error('netlist');
  return read.value.board;
})();

function shown(meter: MeterProfile, mode: ColdMode, red: string, black: string): number | null {
  const solver = solverFor(BENCH, []);
  const node = (net: string): number => solver.network.nodeOfNet.get(net.toLowerCase())!;
  const read = probe(solver, mode, node(red), node(black), { meter });
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value.reading.kind === 'figure' ? read.value.reading.value : null;
}

const learned = (meter: MeterProfile) =>
  learnMeter({
    short: shown(meter, 'ohms', 'A', 'B')!,
    rectifier: shown(meter, 'diode', 'C', 'D')!,
    resistor: shown(meter, 'ohms', 'E', 'F')!,
    resistorVolts: shown(meter, 'diode', 'E', 'F'),
  }).profile;

test.each([0.3e-3, 0.5e-3, 1e-3, 1.5e-3])(
  'a meter that tests diodes with %d A is told by the rectifier, within what rectifiers differ',
  (diodeAmps) => {
    // Its overload hides what 10 kohm would tell.
    const found = learned({ ...DEFAULT_METER, diodeAmps });
    expect(found.diodeAmps / diodeAmps).toBeGreaterThan(1 / 1.7);
    expect(found.diodeAmps / diodeAmps).toBeLessThan(1.7);
    expect(found.diodeLimitVolts).toBe(DEFAULT_METER.diodeLimitVolts);
    expect(found.lowRangeFloorOhms).toBeCloseTo(0.15, 6);
  },
);

test('a weak test current is what 10 kohm carry, exactly; a low limit is what they show', () => {
  expect(learned({ ...DEFAULT_METER, diodeAmps: 0.18e-3 }).diodeAmps).toBeCloseTo(0.18e-3, 9);
  const low = learned({ ...DEFAULT_METER, diodeLimitVolts: 1.8, diodeOverloadVolts: 2 });
  expect(low.diodeLimitVolts).toBeCloseTo(1.8, 2);
  expect(low.diodeOverloadVolts).toBeCloseTo(1.8, 2);
});

test('a meter that reads 3 % high is taken for no better than that', () => {
  const touches = { short: 0, rectifier: 0.57, resistor: 10.3e3, resistorVolts: null };
  const { profile, why } = learnMeter(touches);
  expect(profile.ohmsFraction).toBeCloseTo(0.03, 9);
  expect(profile.lowRangeFloorOhms).toBe(0.05);
  expect(why.join(' ')).toContain('3.0 % off');
  expect(ok(profile).value.ohmsAmps).toBe(DEFAULT_METER.ohmsAmps);
});
