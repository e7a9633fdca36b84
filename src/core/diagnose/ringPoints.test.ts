import { exampleBoard } from '../../../bench/exampleBoards';
import { readNetlist } from '../netlist';
import { SimulatedBoard, drawParts } from '../meter';
import { seededRandom } from '../quantity';
import { SignalReader } from '../signal';
import { listHypotheses, predictSignal, signalPoints } from '.';
import { figureBelow, mistakeChance, overloadChance } from './outcome';
import { ringOutcome, ringPoints } from './ringPoints';
import { placeOn } from './scale';

const BOARDS = ['shelf-lamp-led', 'fence-energiser', 'pump-aux-buck', 'sign-royer-12'] as const;

test('of the windings on one core the one that rings longest is asked for; what is held still is not', () => {
  const at = (name: Parameters<typeof exampleBoard>[0]) =>
    ringPoints(exampleBoard(name)).map((p) => `${p.red} ${p.black}`);
  // Six windings on three cores: the choke, the transformer, and L2, which its capacitors hold still.
  expect(at('lamp-supply-24v')).toEqual(['LF LX', 'HV+ DRAIN']);
  expect(at('kiln-relay-25a')).toEqual([]);
  const read = readNetlist(
    't\nL1 a b 1m dcr=1\nL2 c d 100u dcr=0.1\nK1 L1 L2 0.9\nR2 c d 10k\nL3 e f 1m dcr=1\nR1 e f 10\n',
  );
  if (!read.ok) throw new Error('no board');
  expect(ringPoints(read.value.board)).toEqual([{ mode: 'ring', red: 'a', black: 'b' }]);
});

/** A fault is worked out anew only where it changes what the tester meets: the others must ring as the sound board does. */
test.each(BOARDS)('%s: every fault is predicted as the tester shows it', (name) => {
  const board = exampleBoard(name);
  const hypotheses = listHypotheses(board);
  const points = signalPoints(board, ['ring']);
  expect(points.length).toBeGreaterThan(0);
  const wrong: unknown[] = [];
  for (const point of points) {
    const { raws, classOf } = predictSignal(board, hypotheses, point);
    hypotheses.forEach(({ label, faults }, h) => {
      const shown = new SignalReader(board, faults).read('ring', point.red, point.black) ?? 1e4;
      const said = raws[classOf[h]!]!;
      if (Math.abs(said - shown) > Math.max(1, 0.05 * shown)) wrong.push([label, point.red, said, shown]);
    });
  }
  expect(wrong).toEqual([]);
});

test('units as they come lie within what is predicted of them', () => {
  const random = seededRandom(11);
  let [asked, off] = [0, 0];
  for (const name of BOARDS) {
    const board = exampleBoard(name);
    const hypotheses = listHypotheses(board);
    for (const point of signalPoints(board, ['ring'])) {
      const { scale, spreads, classOf } = predictSignal(board, hypotheses, point);
      for (let k = 0; k < 40; k++) {
        const h = k < 10 ? 0 : Math.floor(random() * hypotheses.length);
        const unit = new SimulatedBoard(board, hypotheses[h]!.faults, drawParts(random));
        const seen = unit.read('ring', point.red, point.black, random);
        const spread = spreads[classOf[h]!]!;
        const beyond = overloadChance(spread);
        const below = (by: number): number =>
          seen.kind === 'figure' ? (1 - beyond) * figureBelow(spread, placeOn(scale, seen.value + by)) : 1 - beyond;
        asked++;
        if (below(0.5) < 0.005 || (seen.kind === 'figure' && below(-0.5) > 0.995)) off++;
      }
    }
  }
  expect(asked).toBeGreaterThan(300);
  expect(off / asked).toBeLessThan(0.02);
});

test('shorted turns are told from a sound winding, whatever its core takes; a ring near its threshold is either', () => {
  const ring = { cycles: 2862, share: 1, omega: 8e4 };
  const dead = ringOutcome(null, false);
  for (const known of [true, false]) expect(mistakeChance(ringOutcome(ring, known), dead)).toBeLessThan(1e-3);
  // Seven cycles are too few for a winding whose core is known; one that nobody knows the core of may be no better.
  const seven = ringOutcome({ ...ring, cycles: 7 }, true);
  expect(mistakeChance(ringOutcome(ring, true), seven)).toBeLessThan(1e-6);
  expect(mistakeChance(ringOutcome(ring, false), seven)).toBeGreaterThan(0.003);
  const edge = ringOutcome({ ...ring, share: 0.15 }, true);
  expect(figureBelow(edge, 1.5)).toBeCloseTo(0.5, 2);
  expect(overloadChance(ringOutcome({ ...ring, cycles: 50_000 }, true))).toBeGreaterThan(0.95);
});
