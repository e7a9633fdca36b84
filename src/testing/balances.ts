import type { Operation } from '@/core/work';
import type { Spot, SwitchedRun } from '@/core/work/switched';
import type { RunningCell } from '@/core/work/unitCircuit';
import { flowsOf } from '@/core/work/workDevice';

/** What one period of a cell takes from its given volts, loses, and leaves in its windings more than before: joule. */
export interface Balance {
  taken: number;
  turnover: number;
  lost: number;
  stored: number;
}

/** Amperes from the first to the second end of every element, volts across it; then the volts of drained nodes. */
interface Moment {
  readonly amps: readonly number[];
  readonly volts: readonly number[];
  readonly drained: readonly number[];
}

export function momentOf(run: SwitchedRun, given: Float64Array): Moment {
  const { resistors, diodes, switches, windings, drains } = run.circuit;
  const across = (a: Spot, b: Spot): number => run.at(a, given) - run.at(b, given);
  const wound = windings.flatMap(({ ends, ohms }) => ohms.map((_, k) => across(ends[2 * k]!, ends[2 * k + 1]!)));
  const [resisted, dropped, switched] = [
    resistors.map(({ a, b }) => across(a, b)),
    diodes.map(({ a, k }) => across(a, k)),
    switches.map(({ high, low }) => across(high, low)),
  ];
  return {
    amps: [...run.amps, ...resisted.map((v, k) => v / resistors[k]!.ohms), ...run.diodeAmps, ...run.switchAmps],
    volts: [...wound, ...resisted, ...dropped, ...switched],
    drained: drains.map(({ unknown }) => run.volts[unknown]!),
  };
}

/**
 * Sums up power over a period by its own reckoning: of every element the current times the volts given at its ends, and what
 * heats it; both between the ends of a step as the engine weighs them.
 */
export function balanceOf({ cell, top }: RunningCell, mean: Float64Array): Balance {
  const given = cell.given(mean);
  const { resistors, diodes, switches, windings, drains } = cell.circuit;
  const held = (s: Spot): number => (s.given < 0 ? 0 : given[s.given]!);
  const between = [
    ...windings.flatMap(({ ends, ohms }) => ohms.map((_, k) => held(ends[2 * k]!) - held(ends[2 * k + 1]!))),
    ...resistors.map(({ a, b }) => held(a) - held(b)),
    ...diodes.map(({ a, k }) => held(a) - held(k)),
    ...switches.map(({ high, low }) => held(high) - held(low)),
  ];
  const wire = windings.flatMap(({ ohms }) => ohms);
  const sum: Balance = { taken: 0, turnover: 0, lost: 0, stored: 0 };
  let [before, first, last] = [0, NaN, NaN];
  let earlier: Moment | null = null;
  cell.follow(given, top, (t, run) => {
    const now = momentOf(run, given);
    const from: Moment = earlier ?? now;
    // What the windings held before the first step is not known here: it is left out.
    const h = earlier ? t - before : 0;
    const weighed = (own: readonly number[], was: readonly number[], k: number): number =>
      run.weight * own[k]! + (1 - run.weight) * was[k]!;
    between.forEach((volts, k) => {
      const amps = weighed(now.amps, from.amps, k);
      sum.taken += amps * volts * h;
      sum.turnover += Math.max(amps * volts, 0) * h;
      sum.lost += h * (k < wire.length ? amps * amps * wire[k]! : amps * weighed(now.volts, from.volts, k));
    });
    drains.forEach(({ amps }, k) => (sum.lost += h * amps * weighed(now.drained, from.drained, k)));
    [before, earlier, last] = [t, now, storedIn(run)];
    if (Number.isNaN(first)) first = last;
  });
  sum.stored = last - first;
  return sum;
}

/** Half L I squared of all windings. */
export function storedIn(run: SwitchedRun): number {
  let [sum, at] = [0, 0];
  for (const { ohms, henries } of run.circuit.windings) {
    const n = ohms.length;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) sum += 0.5 * henries[i * n + j]! * run.amps[at + i]! * run.amps[at + j]!;
    at += n;
  }
  return sum;
}

/** Mean volts that each winding keeps over a period as a share of what it sees, the worst of them: nothing in a steady state. */
export function voltSeconds({ cell, top, hertz }: RunningCell, volts: Float64Array): number {
  const given = cell.given(volts);
  const sums = cell.circuit.windings.map((w) => new Float64Array(w.ohms.length));
  const swings = cell.circuit.windings.map((w) => new Float64Array(w.ohms.length));
  let before = 0;
  let earlier: readonly number[] = [];
  cell.follow(given, top, (t, run) => {
    let at = 0;
    const now = momentOf(run, given).volts.slice(0, run.amps.length);
    const wire = cell.circuit.windings.flatMap(({ ohms }) => ohms);
    const drive = now.map((v, k) => v - run.amps[k]! * wire[k]!);
    cell.circuit.windings.forEach((w, n) => {
      for (let k = 0; k < w.ohms.length; k++, at++) {
        const v = run.weight * drive[at]! + (1 - run.weight) * (earlier[at] ?? drive[at]!);
        sums[n]![k] = sums[n]![k]! + v * (t - before) * hertz;
        swings[n]![k] = swings[n]![k]! + Math.abs(v) * (t - before) * hertz;
      }
    });
    before = t;
    earlier = drive;
  });
  return Math.max(
    0,
    ...sums.flatMap((own, n) => [...own].map((mean, k) => Math.abs(mean) / (swings[n]![k]! + LEAST_SWING))),
  );
}

/** Windings that see less than this see nothing, V. */
const LEAST_SWING = 0.1;

/** The worst of all nodes of a unit's mean network: amperes that are left over, as a share of the greatest that flows there. */
export function leftOver({ unit, volts }: Operation): { readonly net: string; readonly share: number } {
  const [sum, most] = [new Float64Array(volts.length), new Float64Array(volts.length).fill(LEAST_AMPS)];
  for (const d of unit.lastDevices) {
    const flow = flowsOf(d, volts);
    d.nodes.forEach((n, i) => {
      sum[n] = sum[n]! + flow[i]!;
      most[n] = Math.max(most[n]!, Math.abs(flow[i]!));
    });
  }
  const prefer = new Set(
    [unit.plan.inputs.return, ...unit.plan.references].map((n) => (n === null ? -1 : unit.node(n))),
  );
  const lost = ROUNDING * most.reduce((a, b) => Math.max(a, b), 0);
  let worst = { net: '', share: 0 };
  sum.forEach((amps, n) => {
    const share = Math.max(Math.abs(amps) - lost, 0) / most[n]!;
    if (!prefer.has(n) && share > worst.share) worst = { net: unit.circuit.nodeNames[n]!, share };
  });
  return worst;
}

/** Of the greatest current of a unit this much is lost in its last digits. */
const ROUNDING = 4e-7;
/** Nodes where less than this flows are not asked, A. */
const LEAST_AMPS = 1e-3;

/** The cells of a unit that run. */
export function runningCells({ unit, state }: Operation): readonly RunningCell[] {
  return unit.cells.filter((c, i): c is RunningCell => c !== null && state.running.has(i) && c.result !== null);
}
