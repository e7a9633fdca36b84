import { netKey } from '../circuit';
import type { Board } from '../circuit';
import type { DcSolver } from '../solve';

/** Time constants until a reading stands still to half a percent. */
export const CONSTANTS_TO_SETTLE = 5.3;

/**
 * Seconds until a cold reading stands still: the meter's current has to charge every capacitor it sees.
 *
 * Uses the last solution of the solver: sum of C u² over V I, the Elmore time of the driving point, times 5.3.
 * Source: W. C. Elmore, J. Appl. Phys. 19 (1948); reciprocity turns his sum into the stored charge.
 */
export function settleSeconds(board: Board, solver: DcSolver, red: number, black: number, amps: number): number {
  const volts = Math.abs(solver.voltsOf(red) - solver.voltsOf(black));
  if (volts < 1e-6) return 0;
  const { network } = solver;
  let stored = 0;
  for (const part of board.parts) {
    if (part.kind !== 'capacitor' || !part.fitted) continue;
    const [a, b] = part.nets.map((n) => network.nodeOfNet.get(netKey(n)));
    if (a === undefined || b === undefined || network.component[a] !== network.component[red]) continue;
    if (network.component[b] !== network.component[red]) continue;
    const across = solver.voltsOf(a) - solver.voltsOf(b);
    stored += part.value * across * across;
  }
  return (CONSTANTS_TO_SETTLE * stored) / (volts * amps);
}
