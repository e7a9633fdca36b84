import type { Board } from '../circuit';
import type { Result } from '../problem';
import type { Change } from './change';
import { railStress } from '../stress';
import type { StressRow } from '../stress';
import { lockOutStress, planLockOut } from './lockOut';
import { planOutputVoltage } from './outputVoltage';
import type { Plan, PlanProblem } from './plan';
import { planStartOnLoad, startOnLoadStress } from './startOnLoad';

/** Works a change out on a board: parts, ratings that it touches, and the sweep that proves it. */
export function planChange(board: Board, change: Change): Result<Plan, PlanProblem> {
  switch (change.kind) {
    case 'output-voltage':
      return planOutputVoltage(board, change);
    case 'lock-out':
      return planLockOut(board, change);
    case 'start-on-load':
      return planStartOnLoad(board, change);
  }
}

/**
 * What a kept change bears on the board as it stands now, parts fitted since then included.
 * reaches  volts of the rail that it moved; null where it moved none.
 */
export function keptStress(board: Board, change: Change, reaches: number | null): readonly StressRow[] {
  switch (change.kind) {
    case 'output-voltage':
      return railStress(board, {
        rail: change.rail,
        return: change.return,
        volts: reaches ?? change.vTarget,
        loadVolts: change.loadVolts,
      });
    case 'lock-out':
      return lockOutStress(board, change);
    case 'start-on-load':
      return startOnLoadStress(board, change);
  }
}
