import { boardNets, netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import { DcSolver, buildNetwork } from '../solve';
import type { PartDraw } from '../device';
import type { NoConvergence } from '../solve';
import { probe } from './probe';
import type { ComputedReading } from './probe';
import { COLD_MODES, METER_MODES, SIGNAL_EVIDENCE } from './reading';
import type { ColdMode, UnpoweredMode } from './reading';

export type UnknownNet = Problem<'unknown-net', { readonly net: string }>;
export type ModeNotAvailable = Problem<'mode-not-available', { readonly mode: string }>;
export type UnknownMode = Problem<'unknown-mode', { readonly mode: string }>;
export type ReadProblem = UnknownNet | ModeNotAvailable | UnknownMode | NoConvergence;

/** Checks a mode's name: one that is built, one that the contract names but is not built yet, or neither. */
export function coldMode(mode: string): Result<ColdMode, ModeNotAvailable | UnknownMode> {
  const built = COLD_MODES.find((m) => m === mode);
  if (built) return ok(built);
  const details = { mode };
  return (METER_MODES as readonly string[]).includes(mode)
    ? refuse({
        code: 'mode-not-available',
        sentence: `Readings in the mode “${mode}” are not taken here.`,
        remedy: `Use one of ${COLD_MODES.join(', ')}.`,
        details,
      })
    : refuse({
        code: 'unknown-mode',
        sentence: `There is no mode “${mode}”.`,
        remedy: `Use one of ${COLD_MODES.join(', ')}.`,
        details,
      });
}

/** Checks the name of a mode in which an unpowered board is read for a diagnosis. */
export function unpoweredMode(mode: string): Result<UnpoweredMode, ModeNotAvailable | UnknownMode> {
  const signal = SIGNAL_EVIDENCE.find((m) => m === mode);
  return signal ? ok(signal) : coldMode(mode);
}

/** Solver for a board with faults, ready for any number of readings. */
export function solverFor(board: Board, faults: readonly Fault[], draw?: PartDraw): DcSolver {
  return new DcSolver(buildNetwork(board, faults, draw));
}

/**
 * What the meter shows between two nets of an unpowered board, faults included.
 *
 * Refuses with `unknown-net` or `no-convergence`.
 */
export function readBoard(
  board: Board,
  solver: DcSolver,
  mode: ColdMode,
  red: string,
  black: string,
): Result<ComputedReading, ReadProblem> {
  const { nodeOfNet } = solver.network;
  for (const net of [red, black])
    if (netKey(net) === 'nc' || !nodeOfNet.has(netKey(net))) return refuse(unknownNet(board, net));
  return probe(solver, mode, nodeOfNet.get(netKey(red))!, nodeOfNet.get(netKey(black))!);
}

/** Says that a net is not on a board, with those that are spelt alike. */
export function unknownNet(board: Board, net: string): UnknownNet {
  const near = boardNets(board).filter((n) => netKey(n).startsWith(netKey(net).slice(0, 2)));
  return {
    code: 'unknown-net',
    sentence: `There is no net “${net}” on this board.`,
    remedy: near.length > 0 ? `Did you mean ${near.slice(0, 4).join(', ')}?` : 'Check the spelling.',
    details: { net },
  };
}
