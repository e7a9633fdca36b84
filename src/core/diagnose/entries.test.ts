import { archetypeBoard } from '../archetype';
import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { probe, solverFor, workshopMeter } from '../meter';
import { drawnRepairs, repairMix } from '../../../bench/repairs';
import { Diagnoser, buildWholeDictionary, listHypotheses } from '.';
import type { FaultDictionary } from '.';

/** Entries of a dictionary that differ from the reading of the broken board, solved from nothing at every node. */
function off({ board, hypotheses, points }: FaultDictionary, every = 1): { entries: number; wrong: readonly string[] } {
  const { diodeOverloadVolts, ohmsOverload } = workshopMeter();
  const wrong: string[] = [];
  let entries = 0;
  hypotheses.forEach(({ label, faults }, h) => {
    if (h % every !== 0) return;
    const solver = solverFor(board, faults);
    const { nodeOfNet } = solver.network;
    for (const { mode, red, black, raws, classOf } of points) {
      const read = probe(solver, mode, nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!);
      if (!read.ok) continue;
      entries++;
      const limit = mode === 'diode' ? diodeOverloadVolts : ohmsOverload;
      const [true_, has] = [read.value.raw, raws[classOf[h]!]!].map((x) => Math.min(x, limit)) as [number, number];
      const least = mode === 'diode' ? 2e-3 : 0.05;
      if (Math.abs(true_ - has) > least + 5e-3 * Math.abs(true_))
        wrong.push(`${label} ${mode} ${red} ${black}: reads ${true_}, has ${has}`);
    }
  });
  return { entries, wrong };
}

test.each([
  // Circuits that nothing here was made for; windings without resistance join what they hold until they open.
  ['royer', 1],
  ['flyback-primary-sensed', 1],
  ['buck-boost', 1],
  ['blocking-oscillator', 1],
  ['boost-pfc', 3],
  ['push-pull', 5],
  ['solar-charger', 17],
])('%s: every entry (of each %p-th hypothesis) is what the broken board reads', (name, every) => {
  const board = archetypeBoard(name)!;
  const { entries, wrong } = off(buildWholeDictionary(board, listHypotheses(board)), every);
  expect(entries).toBeGreaterThan(3000);
  expect(wrong).toEqual([]);
});

test.each([
  ['flyback-primary-sensed', 60],
  ['buck-boost', 40],
  ['line-frequency-inverter', 40],
  ['linear', 40],
])('%s: of %p repairs drawn from the priors those that can be seen are named rightly', (name, count) => {
  const board = archetypeBoard(name)!;
  const diagnoser = new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));
  const { seen, right, wrong } = repairMix(diagnoser, drawnRepairs(diagnoser, count, 11));
  expect(seen).toBeGreaterThan(15);
  expect(right).toBeGreaterThanOrEqual(0.95);
  expect(wrong).toBeLessThanOrEqual(0.05);
});

test.each([
  ['solar-charger', 'R6:open', 'GND', 'B1', 2.547],
  ['solar-charger', 'R6:value=300k', 'GND', 'B1', 2.944],
  ['three-phase-inverter', 'U1.6:open', 'VB', 'U', 2.642],
])('%s, %s: a gate that next to nothing lifts is followed to where it turns on', (name, label, red, black, volts) => {
  const board = archetypeBoard(name)!;
  const some = listHypotheses(board).filter((h) => h.label === 'none' || h.label === label);
  const [point] = buildWholeDictionary(board, some, [{ mode: 'diode', red, black }]).points;
  // Sound, the meter's own limit is all that shows.
  expect(point!.raws[0]!).toBeGreaterThan(2.98);
  expect(point!.raws[point!.classOf[1]!]!).toBeCloseTo(volts, 2);
});

const board = (...lines: string[]): Board => {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
};

test('an opened choke without resistance opens; beside another one nothing changes', () => {
  const one = board('XJ1 a k CONN', 'L1 a b 100u', 'R1 b k 1k', 'R2 a k 10k');
  const two = board('XJ1 a k CONN', 'L1 a b 100u', 'L2 a b 100u', 'R1 b k 1k', 'R2 a k 10k');
  const ohms = (of: Board): readonly number[] => {
    const some = listHypotheses(of).filter((h) => h.label === 'none' || h.label === 'L1:open');
    const [point] = buildWholeDictionary(of, some, [{ mode: 'ohms', red: 'a', black: 'k' }]).points;
    return [0, 1].map((h) => point!.raws[point!.classOf[h]!]!);
  };
  const both = 1 / (1 / 1e3 + 1 / 1e4);
  expect(ohms(one)[0]).toBeCloseTo(both, 1);
  expect(ohms(one)[1]! / 1e4).toBeCloseTo(1, 3);
  expect(ohms(two)).toEqual([expect.closeTo(both, 1), expect.closeTo(both, 1)]);
});
