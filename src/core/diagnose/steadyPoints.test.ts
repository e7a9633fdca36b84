import { exampleBoard } from '../../../bench/exampleBoards';
import { netKey } from '../circuit';
import { drawParts, probe, solverFor, workshopMeter } from '../meter';
import { seededRandom } from '../quantity';
import { buildWholeDictionary, defaultPoints, listHypotheses, overloadChance, pointKey } from '.';

const DRAWN = 24;

/** How many of some drawn sound boards read a diode test, from nothing and at every node, far from what is wanted. */
function offOn(board: ReturnType<typeof exampleBoard>, points: readonly { red: string; black: string }[]) {
  const off = new Int32Array(points.length);
  const limit = workshopMeter().diodeOverloadVolts;
  for (let k = 0; k < DRAWN; k++) {
    // Seeds of its own: none of these boards was asked when the points were chosen.
    const solver = solverFor(board, [], drawParts(seededRandom(40_000 + k)));
    const node = (net: string): number => solver.network.nodeOfNet.get(netKey(net))!;
    points.forEach(({ red, black }, p) => {
      const read = probe(solver, 'diode', node(red), node(black));
      if (!read.ok || read.value.raw < limit) off[p] = off[p]! + 1;
    });
  }
  return off;
}

test.each(['weather-buck-5v', 'galley-inverter-600'])(
  '%s: what is predicted to overload does so on boards drawn anew; what jumps on one in ten is left out',
  (name) => {
    const board = exampleBoard(name);
    const { points } = buildWholeDictionary(board, listHypotheses(board).slice(0, 1));
    const kept = points.filter((p) => p.mode === 'diode' && overloadChance(p.spreads[0]!) > 0.999);
    expect(kept.length).toBeGreaterThan(20);
    // Three of 24: one board in twenty that jumps would do so on four once in twenty points and more.
    for (const off of offOn(board, kept)) expect(off).toBeLessThanOrEqual(3);
    const there = new Set(points.map(pointKey));
    const left = defaultPoints(board).filter((p) => !there.has(pointKey(p)));
    expect(left.length).toBeGreaterThan(0);
    const worst = offOn(
      board,
      left.filter((p) => p.mode === 'diode'),
    );
    expect(Math.max(...worst)).toBeGreaterThan(DRAWN / 10);
  },
);
