import { listHypotheses } from '../diagnose';
import { seededRandom } from '../quantity';
import { testBoards } from '@/testing/boards';
import { balanceOf, leftOver, runningCells, voltSeconds } from '@/testing/balances';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { PoweredReader, workPlan } from '.';
import type { OperatingCondition } from '.';

const EXAMPLES = testBoards().slice(0, 18);

/** Less than this is over in a unit that idles, W: pulses so short that their edges count. */
const LEAST_WATTS = 0.03;

/** What is not in balance in a unit at work, in words; nothing where it cycles, or does not come to rest and says so. */
function unbalanced(board: Board, load: OperatingCondition['load'], faults: readonly Fault[]): readonly string[] {
  const { operation } = PoweredReader.at(board, { source: workPlan(board).inputs.nominal, load }, faults);
  if (!operation.found || !operation.unit.settled || operation.period !== null) return [];
  const words: string[] = [];
  const cycles = operation.unit.lastDevices.some((d) => d.name === 'storage');
  const { net, share } = leftOver(operation);
  if (share > 2e-3 && !cycles) words.push(`${net}: ${share.toPrecision(2)} of its current`);
  for (const cell of runningCells(operation)) {
    const { taken, turnover, lost, stored } = balanceOf(cell, operation.volts);
    const over = Math.abs(taken - lost - stored) * cell.hertz;
    if (over > 0.005 * turnover * cell.hertz + LEAST_WATTS) words.push(`${over.toPrecision(2)} W over`);
    const kept = voltSeconds(cell, operation.volts);
    if (kept > 0.02) words.push(`a winding keeps ${kept.toPrecision(2)} of its volts`);
  }
  return words;
}

test.each(EXAMPLES.map(({ name, board }) => [name, board] as const))(
  '%s: power, volt-seconds and currents balance, sound and with faults',
  (name, board) => {
    const random = seededRandom(name.length * 7 + 1);
    const single = listHypotheses(board, []).filter((h) => h.faults.length === 1);
    const some = [single[Math.floor(random() * single.length)]!];
    const found = [
      ...(['none', 'full'] as const).map((load) => ['sound', load, unbalanced(board, load, [])] as const),
      ...some.map((h) => [h.label, 'half', unbalanced(board, 'half', h.faults)] as const),
    ];
    expect(found.filter(([, , words]) => words.length > 0)).toEqual([]);
  },
);
