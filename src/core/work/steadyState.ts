import { netKey } from '../circuit';
import { closeLoops } from './loops';
import type { UnitUnderPower } from './unit';
import type { WorkState } from './unitCircuit';

/** Solves a state without running converters, line side and mean volts in turn until they agree. */
export function solveWithLine(unit: UnitUnderPower, state: WorkState, start: Float64Array | null): Float64Array | null {
  const { line } = unit;
  let x = start;
  for (let round = 0; round < 6; round++) {
    if (line) line.settle();
    x = unit.solve(state, x);
    if (!x || !line || line.load(x) < 0.01) return x;
  }
  return x;
}

/** The steady state with every loop closed, line side included. */
export function regulate(
  unit: UnitUnderPower,
  state: WorkState,
  start: Float64Array | null = null,
): Float64Array | null {
  const { line } = unit;
  if (line && !line.result) line.settle();
  let x: Float64Array | null = start;
  let restless = 0;
  for (let round = 0; round < 5; round++) {
    x = closeLoops(unit, state, x);
    if (!x || !line) return x;
    const moved = line.load(x);
    // What never comes to rest is not asked five times over.
    if (moved < 0.01 || unit.ranDown || (!unit.settled && ++restless > 1)) return x;
    line.settle();
  }
  return x;
}

/** Settings and mean volts of a unit taken over from one that is like it but for its faults. */
export function resume(unit: UnitUnderPower, from: UnitUnderPower, volts: Float64Array): Float64Array {
  unit.cells.forEach((cell, i) => {
    const before = from.cells[i];
    if (!cell || cell.result || !before?.result) return;
    [cell.top, cell.hertz] = [before.top, before.hertz];
    cell.cell.resume(before.cell);
    if (before.slopes && cell.cell.isLike(before.cell)) cell.slopes = before.slopes;
  });
  if (from.line) unit.line?.resume(from.line);
  return Float64Array.from(unit.circuit.nodeNames, (name) => {
    const node = from.circuit.nodeOfNet.get(netKey(name));
    return node === undefined ? 0 : volts[node]!;
  });
}
