import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { isElectrolytic, partFigure, isRatedAlternating } from '../part';
import { formatQuantity } from '../quantity';
import type { Basis } from '../quantity';
import { findPowerPath, inputPole } from '../stages';
import type { PowerPath } from '../stages';
import { cellsByPair, pairKey, worstFarads } from './cells';
import type { Cell } from './cells';
import { furtherSupplies, printedOutputs, supplyOf } from './supply';

/** What nothing is known of: a bulk capacitor's highest rating, and that of one too small to be a bulk one. */
export const UNKNOWN_VOLTS = 450;
const SMALL_FARADS = 0.1e-6;
const SMALL_UNKNOWN_VOLTS = 400;

/** The most that may stand somewhere, volts, and how that is known. */
export interface Highest {
  readonly volts: number;
  readonly basis: Basis;
  readonly why: string;
}

/**
 * The highest credible volts between two nets of a board: of what its capacitors there are made for, the peak of the
 * source wherever a fault may bring it, what the nameplate prints there, and cells. What nothing is known of is taken at
 * the worst. It rests on what is fitted and printed alone, not on what a rail should be at work.
 */
export class HighestVolts {
  private path: PowerPath | null = null;

  constructor(private readonly board: Board) {}

  /** Nets by key; names inside a known IC as `chargeCells` gives them. */
  between(a: string, b: string): Highest {
    const nets = [a, b].map(netKey);
    const cells = cellsByPair(this.board).get(pairKey(nets)) ?? [];
    const found = [...ratings(cells), ...this.inputVolts(nets), ...this.printedVolts(nets), ...cellVolts(cells)];
    const bounded = cells.some(
      (c) => partFigure(c.part, 'ratedVolts') !== undefined || c.part.kind === 'voltage-source',
    );
    if (!bounded) found.push(unknownVolts(cells));
    return found.reduce((worst, one) => (one.volts > worst.volts ? one : worst));
  }

  /** The peak of the highest line on either side of the rectifier, or the highest direct voltage. */
  private inputVolts(nets: readonly string[]): readonly Highest[] {
    const { kind, highest, peak, highestBasis, highestWhy } = supplyOf(this.board);
    if (highest === null || peak === null) return [];
    this.path ??= findPowerPath(this.board);
    const poles = nets.map((n) => inputPole(this.path!, n));
    const mains = kind === 'mains';
    const atPlus = poles.some((p) => (mains ? p % 4 === 2 : p >= 0 && p % 2 === 0));
    if (!atPlus && !poles.every((p) => p >= 0)) return [];
    const line = `${Math.round(peak)} V = ${Number(highest.toPrecision(4))} V x 1.414`;
    const why = mains
      ? `${line}, the highest line behind the rectifier`
      : kind === null
        ? `${line}: what kind of source it is nobody noted`
        : highestWhy;
    return [{ volts: peak, basis: highestBasis, why }];
  }

  /** What the nameplate says of an output or a further supply that stands across it. */
  private printedVolts(nets: readonly string[]): readonly Highest[] {
    return [...printedOutputs(this.board), ...furtherSupplies(this.board)].flatMap(({ rail, return: back, peak }) =>
      rail !== null && back !== null && nets.includes(netKey(rail)) && nets.includes(netKey(back))
        ? [{ volts: peak, basis: 'seen' as const, why: `${formatQuantity(peak, 'V')} by the nameplate` }]
        : [],
    );
  }
}

/** Ratings: the largest bounds them all; X, Y and AC parts are printed in volts rms. */
function ratings(cells: readonly Cell[]): readonly Highest[] {
  return cells.flatMap(({ part }): readonly Highest[] => {
    const printed = partFigure(part, 'ratedVolts');
    if (printed === undefined) return [];
    const volts = printed * (isRatedAlternating(part) ? Math.SQRT2 : 1);
    return [{ volts, basis: 'assumed', why: `${formatQuantity(volts, 'V')} is the rating there: an upper bound` }];
  });
}

function cellVolts(cells: readonly Cell[]): readonly Highest[] {
  return cells.flatMap(({ part }): readonly Highest[] =>
    part.kind === 'voltage-source'
      ? [{ volts: Math.abs(part.value), basis: 'seen', why: `${formatQuantity(Math.abs(part.value), 'V')}, a cell` }]
      : [],
  );
}

function unknownVolts(cells: readonly Cell[]): Highest {
  const small = cells.length > 0 && cells.every((c) => worstFarads(c.part) <= SMALL_FARADS && !isElectrolytic(c.part));
  const volts = small ? SMALL_UNKNOWN_VOLTS : UNKNOWN_VOLTS;
  return { volts, basis: 'assumed', why: `no rating is known: ${volts} V taken` };
}
