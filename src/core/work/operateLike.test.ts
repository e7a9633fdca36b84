import { exampleBoard } from '../../../bench/exampleBoards';
import type { Board } from '../circuit';
import { operateUnit } from './operate';
import { operateLike } from './operateLike';
import { workPlan } from './workPlan';

const turned = (board: Board, ref: string, by: number): Board => ({
  ...board,
  parts: board.parts.map((p) => (p.ref === ref && 'value' in p ? { ...p, value: p.value * by } : p)),
});

test.each([
  ['lamp-supply-24v', 'R18', 1.1],
  ['bench-supply-13v8', 'R11', 0.8],
  ['dock-pushpull-48', 'R28', 1.3],
  ['ups-frontend-pfc', 'R12', 1.5],
  ['weather-buck-5v', 'R3', 1.1],
])('%s with another %s: begun at rest it comes to where switching on brings it', (name, ref, by) => {
  const board = exampleBoard(name);
  const condition = { source: board.nameplate!.inputNominal!, load: 'full' } as const;
  const sound = operateUnit(workPlan(board), condition, []);
  const other = turned(board, ref, by);
  const like = operateLike(workPlan(other), condition, sound)!;
  expect(like).not.toBeNull();
  const fresh = operateUnit(workPlan(structuredClone(other)), condition, []);
  expect(like.states).toEqual(fresh.states);
  for (const o of fresh.unit.plan.outputs) {
    const at = (op: typeof fresh): number => op.volts[op.unit.node(o.rail)]! - op.volts[op.unit.node(o.return)]!;
    expect(Math.abs(at(like) / at(fresh) - 1)).toBeLessThan(0.01);
  }
  for (const net of ['VCC', 'HV+', 'VIN', 'FB']) {
    const [a, b] = [like, fresh].map((op) => op.volts[op.unit.node(net)] ?? 0);
    expect(Math.abs(a! - b!)).toBeLessThan(0.02 * Math.abs(b!) + 0.1);
  }
});

test('what would not go on as it ran is to be switched on: another set of parts, a start-up that fails', () => {
  const board = exampleBoard('lamp-supply-24v');
  const condition = { source: 230, load: 'half' } as const;
  const sound = operateUnit(workPlan(board), condition, []);
  const fewer: Board = { ...board, parts: board.parts.slice(0, -1) };
  expect(operateLike(workPlan(fewer), condition, sound)).toBeNull();
  // Its own winding feeds its supply pin through R12: with a hundred times of that it runs down.
  expect(operateLike(workPlan(turned(board, 'R12', 2000)), condition, sound)).toBeNull();
});
