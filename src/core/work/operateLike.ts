import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { hiccupOf } from './hiccup';
import { operateFrom } from './measured';
import type { Operation } from './operate';
import { overloadedFuse } from './overload';
import { PoweredReader } from './readPowered';
import { isInverter } from './simpleConverter';
import { follow } from './switchOn';
import { UnitUnderPower } from './unit';
import type { OperatingCondition } from './workBoard';
import { workPlan } from './workPlan';
import type { WorkPlan } from './workPlan';

/**
 * The steady state of a unit that differs from one at rest by values of its parts alone, in the same condition, begun there
 * instead of at switch-on. null where that does not lead to rest in the same state: then it is to be switched on.
 */
export function operateLike(plan: WorkPlan, condition: OperatingCondition, near: Operation): Operation | null {
  const { unit: before, hiccup, crests, warnings, destroys } = near;
  if (!near.found || hiccup || crests || warnings.length > 0 || destroys.length > 0) return null;
  if (!isLike(plan, before.plan) || plan.converters.some(isInverter)) return null;
  takeOver(plan, before.plan);
  const unit = new UnitUnderPower(plan, condition, []);
  const made = operateFrom(near, unit, new Map());
  const { state, volts } = made;
  const same = (['powered', 'running', 'closed'] as const).every((k) => state[k].size === near.state[k].size);
  if (!made.found || !unit.settled || !same || overloadedFuse(unit, volts)) return null;
  const further = { powered: new Set(state.powered), running: new Set(state.running), closed: new Set(state.closed) };
  if (follow(unit, further, volts)) return null;
  return [...state.running].some((i) => hiccupOf(unit, state, i, volts)) ? null : made;
}

/** A unit with values and faults of its own: begun where a like one is at rest where values alone differ, else switched on. */
export function readerLike(
  board: Board,
  condition: OperatingCondition,
  faults: readonly Fault[],
  near: Operation,
): PoweredReader {
  const like = faults.length === 0 ? operateLike(workPlan(board), condition, near) : null;
  return like ? new PoweredReader(board, like) : PoweredReader.at(board, condition, faults, near);
}

/** Whether two plans are of boards with the same parts and converters. */
function isLike(a: WorkPlan, b: WorkPlan): boolean {
  const [p, q] = [a.board.parts, b.board.parts];
  return (
    p.length === q.length &&
    p.every((x, i) => x.ref === q[i]!.ref && x.kind === q[i]!.kind && x.fitted === q[i]!.fitted) &&
    a.converters.length === b.converters.length &&
    a.converters.every(
      (c, i) => c.topology === b.converters[i]!.topology && c.controller === b.converters[i]!.controller,
    )
  );
}

/** What was learnt of the healthy unit holds for one with other values. */
function takeOver(plan: WorkPlan, from: WorkPlan): void {
  if (plan === from || plan.enablesKnown.done || !from.enablesKnown.done) return;
  for (const [ref, pins] of from.idleEnables) plan.idleEnables.set(ref, pins);
  from.converters.forEach((c, i) => {
    if (from.sensed.has(c)) plan.sensed.add(plan.converters[i]!);
  });
  plan.usualBus.volts = from.usualBus.volts;
  plan.enablesKnown.done = true;
}
