import type { Board } from '../circuit';
import { flatten } from '../device';
import type { Fault } from '../fault';
import { formatQuantity, weakestBasis } from '../quantity';
import {
  GOOD_CYCLES,
  LEAST_CYCLES,
  SmallSignal,
  coreAcross,
  countedCycles,
  cyclesSigma,
  isCoreKnown,
  leastCycles,
  ringAcross,
  shownCycles,
} from '../signal';
import { hasUnknownPin } from './expectReading';
import type { ExpectedReading } from './expectReading';

/**
 * What a ring tester should show between two nets of a board with these faults, which must be on it: at least `low` cycles.
 * What nobody noted of a core may take all but what a sound winding has.
 */
export function expectRing(board: Board, faults: readonly Fault[], red: string, black: string): ExpectedReading {
  const ring = ringAcross(new SmallSignal(flatten(board, faults)), red, black);
  const shown = shownCycles(ring);
  const core = coreAcross(board, red, black);
  const cycles = countedCycles(ring);
  const least = leastCycles(cycles, isCoreKnown(core));
  const low = Math.max(0, least === GOOD_CYCLES ? least : least - 2 * cyclesSigma(least));
  const basis = core.length > 0 ? weakestBasis(core.map((p) => p.basis)) : 'seen';
  const unknownInside = [red, black].some((net) => hasUnknownPin(board, net));
  const faulty = faults.length > 0;
  return {
    mode: 'ring',
    red,
    black,
    unit: 'cycles',
    nominal: shown,
    low,
    high: null,
    sigma: cyclesSigma(cycles),
    basis,
    why: whyOf(
      core.map((p) => p.ref),
      cycles,
      least,
    ),
    judged: core.length > 0 && basis !== 'assumed' && !unknownInside && (faulty || cycles >= LEAST_CYCLES),
    through: core.map((p) => p.ref),
  };
}

function whyOf(windings: readonly string[], cycles: number, least: number): string {
  const [first] = windings;
  if (first === undefined) return 'no winding is between the two nets';
  if (cycles < LEAST_CYCLES) return `${first} is held still by what is beside it: lift a leg`;
  const beside = windings.length > 1 ? ` with ${windings.slice(1, 3).join(', ')} on its core` : '';
  const own = `${first}${beside} and 10 nF`;
  return least < cycles
    ? `${own}: a sound winding rings ${formatQuantity(least, 'cycles')} or more, whatever its core takes`
    : `${own}: ${formatQuantity(Math.floor(cycles), 'cycles', 4)} by its losses`;
}
