import { archetypeBoard } from '../archetype';
import { operateUnit } from './operate';
import type { Operation } from './operate';
import type { SwitchedRun, Spot } from './switched';
import type { RunningCell } from './unitCircuit';
import { workPlan } from './workPlan';

/** What one period of a cell takes from its given volts, loses, and leaves in its windings more than before: joule. */
interface Balance {
  taken: number;
  turnover: number;
  lost: number;
  stored: number;
}

/**
 * Sums up power over a period by its own reckoning: every element's current times the volts at its ends. Between two steps
 * currents run straight, from where they were; where something has switched they begin anew.
 */
function balanceOf({ cell, top }: RunningCell, volts: Float64Array): Balance {
  const given = cell.given(volts);
  const sum: Balance = { taken: 0, turnover: 0, lost: 0, stored: 0 };
  let [before, first, last] = [0, NaN, NaN];
  let earlier: { readonly states: string; readonly amps: readonly number[] } | null = null;
  cell.follow(given, top, (t, run) => {
    const states = [...run.diodeOn, ...run.switchOn].join();
    const amps = [...run.amps, ...run.diodeAmps, ...run.switchAmps];
    const from = earlier?.states === states ? earlier.amps : amps;
    const { taken, turnover, lost } = powerOf(
      run,
      given,
      amps.map((i, k) => (i + from[k]!) / 2),
    );
    sum.taken += taken * (t - before);
    sum.turnover += turnover * (t - before);
    sum.lost += lost * (t - before);
    before = t;
    earlier = { states, amps };
    last = storedIn(run);
    if (Number.isNaN(first)) first = last;
  });
  sum.stored = last - first;
  return sum;
}

/** amps: of the windings, then the diodes, then the switches. */
function powerOf(
  run: SwitchedRun,
  given: Float64Array,
  amps: readonly number[],
): { taken: number; turnover: number; lost: number } {
  const { resistors, diodes, switches, windings, drains } = run.circuit;
  let [taken, turnover, lost] = [0, 0, 0];
  const held = (s: Spot): number => (s.given < 0 ? 0 : given[s.given]!);
  const element = (a: Spot, b: Spot, through: number, heat: number): void => {
    const power = through * (held(a) - held(b));
    taken += power;
    turnover += Math.max(power, 0);
    lost += heat;
  };
  const across = (a: Spot, b: Spot): number => run.at(a, given) - run.at(b, given);
  for (const { a, b, ohms } of resistors) element(a, b, across(a, b) / ohms, across(a, b) ** 2 / ohms);
  let at = 0;
  for (const { ohms, ends } of windings)
    for (let k = 0; k < ohms.length; k++, at++)
      element(ends[2 * k]!, ends[2 * k + 1]!, amps[at]!, run.amps[at]! * amps[at]! * ohms[k]!);
  for (const { a, k } of diodes) element(a, k, amps[at]!, amps[at++]! * across(a, k));
  for (const { high, low } of switches) element(high, low, amps[at]!, amps[at++]! * across(high, low));
  for (const { unknown, amps: flows } of drains) lost += run.volts[unknown]! * flows;
  return { taken, turnover, lost };
}

/** Half L I squared of all windings. */
function storedIn(run: SwitchedRun): number {
  let [sum, at] = [0, 0];
  for (const { ohms, henries } of run.circuit.windings) {
    const n = ohms.length;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) sum += 0.5 * henries[i * n + j]! * run.amps[at + i]! * run.amps[at + j]!;
    at += n;
  }
  return sum;
}

const atWork = (name: string, load: 'half' | 'full'): Operation => {
  const plan = workPlan(archetypeBoard(name)!);
  return operateUnit(plan, { source: plan.inputs.nominal, load }, []);
};

const SWITCHED = [
  'flyback-opto',
  'forward',
  'two-switch-forward',
  'half-bridge',
  'full-bridge',
  'push-pull',
  'buck-module',
  'synchronous-buck',
  'boost',
  'buck-boost',
  'flyback-primary-sensed',
];

/** Without a clamp a switch that opens takes what the leakage of its winding held: that is in no element's current. */
const SPILT: Readonly<Record<string, number>> = { forward: 0.03, 'push-pull': 0.09 };

test.each(SWITCHED)('%s: what a period takes is what it loses, and its windings end it as they began', (name) => {
  const { unit, volts, state } = atWork(name, 'full');
  const running = unit.cells.filter(
    (c, i): c is RunningCell => c !== null && state.running.has(i) && c.result !== null,
  );
  expect(running.length).toBeGreaterThan(0);
  for (const cell of running) {
    const { taken, turnover, lost, stored } = balanceOf(cell, volts);
    expect(turnover).toBeGreaterThan(0);
    expect(Math.abs(taken - lost - stored) / turnover).toBeLessThan(SPILT[name] ?? 0.005);
    expect(Math.abs(stored) / turnover).toBeLessThan(0.02);
  }
});

test.each(SWITCHED)('%s: no winding keeps volt-seconds, and what charges a rail is what leaves it', (name) => {
  const { unit, volts, state } = atWork(name, 'half');
  for (const [i, running] of unit.cells.entries()) {
    if (!running?.result || !state.running.has(i)) continue;
    const { cell, hertz } = running;
    const given = cell.given(volts);
    const sums = cell.circuit.windings.map((w) => new Float64Array(w.ohms.length));
    const swings = cell.circuit.windings.map((w) => new Float64Array(w.ohms.length));
    let before = 0;
    cell.follow(given, running.top, (t, run) => {
      let at = 0;
      cell.circuit.windings.forEach((w, n) => {
        for (let k = 0; k < w.ohms.length; k++, at++) {
          const v = run.at(w.ends[2 * k]!, given) - run.at(w.ends[2 * k + 1]!, given) - run.amps[at]! * w.ohms[k]!;
          sums[n]![k] = sums[n]![k]! + v * (t - before) * hertz;
          swings[n]![k] = swings[n]![k]! + Math.abs(v) * (t - before) * hertz;
        }
      });
      before = t;
    });
    sums.forEach((own, n) =>
      own.forEach((mean, k) => expect(Math.abs(mean)).toBeLessThan(0.01 * swings[n]![k]! + 1e-3)),
    );
  }
});

test.each(SWITCHED)('%s: every node of the mean network is in balance', (name) => {
  const { unit, volts } = atWork(name, 'half');
  const [sum, most] = [new Float64Array(volts.length), new Float64Array(volts.length).fill(1e-6)];
  for (const d of unit.lastDevices) {
    const flow = new Float64Array(d.nodes.length);
    d.evaluate(
      Float64Array.from(d.nodes, (n) => volts[n]!),
      flow,
      new Float64Array(d.nodes.length ** 2),
    );
    d.nodes.forEach((n, i) => {
      sum[n] = sum[n]! + flow[i]!;
      most[n] = Math.max(most[n]!, Math.abs(flow[i]!));
    });
  }
  const prefer = new Set(
    [unit.plan.inputs.return, ...unit.plan.references].map((n) => (n === null ? -1 : unit.node(n))),
  );
  sum.forEach((amps, n) => {
    if (!prefer.has(n)) expect(Math.abs(amps)).toBeLessThan(2e-3 * most[n]! + 1e-6);
  });
});
