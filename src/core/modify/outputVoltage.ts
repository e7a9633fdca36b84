import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { partFigure } from '../part';
import type { Part } from '../part';
import { ok } from '../problem';
import type { Result } from '../problem';
import { formatQuantity } from '../quantity';
import { railStress } from '../stress';
import { runSum } from '../sums';
import type { BadInput } from '../sums';
import type { Change } from './change';
import { findDividers, loosest, printedOutputs, supplyOf } from '../operate';
import { freeRef } from './places';
import { cannotModify, withFacts } from './plan';
import type { Plan, PlanProblem } from './plan';
import { stepOn } from './steps';

type OutputVoltage = Extract<Change, { kind: 'output-voltage' }>;

const REFERENCE_TOLERANCE = 0.02;
/** Nearer to the target than this no resistor of a series comes for certain. */
const NEAR_ENOUGH = 0.002;
const METER_SHARE = 0.005;
/** Watts of a resistor that is fitted beside one of unknown size: 0603. */
const FITTED_WATTS = 0.1;

/** Watts of a resistor fitted where `before` was, or where none was. */
export function fittedWatts(before: Part | undefined): number {
  return (before && partFigure(before, 'ratedWatts')) ?? FITTED_WATTS;
}

/**
 * Works out another output voltage: one resistor in parallel with or in series to a leg of the divider, of a
 * preferred value, and what the new volts mean for everything on the rail. Refuses with `bad-input` of the sum, or
 * `cannot-modify` where the divider is not there or already gives the target.
 */
export function planOutputVoltage(board: Board, change: OutputVoltage): Result<Plan, PlanProblem> {
  const divider = findDividers(board).find(
    (d) => netKey(d.tap) === netKey(change.tap) && netKey(d.rail) === netKey(change.rail),
  );
  if (!divider)
    return cannotModify(
      'tap',
      `There is no divider from ${change.rail} at ${change.tap}.`,
      'Trace its two resistors first.',
    );
  const { vRef, vTarget, modify, series } = change;
  const sum = runSum('divider-retarget', { vRef, rTop: divider.rTop, rBottom: divider.rBottom, vTarget, modify });
  if (!sum.ok) return sum as Result<never, BadInput>;
  const results = sum.value.results;
  const best = results[series === 'E12' ? 'e12' : series === 'E24' ? 'e24' : 'e96'] as {
    value: number | null;
    vOut: number;
  };
  const now = results['vOutNow'] as number;
  if (best.value === null || Math.abs(now / vTarget - 1) < NEAR_ENOUGH)
    return cannotModify('vTarget', `It already gives ${formatQuantity(now, 'V', 4)}.`, 'Ask for another voltage.');
  const leg = modify === 'top' ? divider.top : divider.bottom;
  const added = freeRef(board, 'R');
  const text = figure(best.value);
  const said = `${added} "${text}" is=${text} tol=1% pr=${fittedWatts(leg[0])} basis=seen`;
  const parallel = results['method'] === 'parallel';
  const [upper, lower] = modify === 'top' ? [divider.rail, divider.tap] : [divider.tap, divider.return];
  const middle = freeNet(board, `${added}A`);
  const facts = parallel
    ? [`${said} ${upper} ${lower}`]
    : [...leg.map((p) => `${p.ref} ${pinOn(p, lower)}:${middle}`), `${said} ${middle} ${lower}`];
  const done = withFacts(board, facts);
  if (done.misfits.length > 0) return cannotModify('facts', done.misfits[0]!, 'Trace what is missing first.');
  const legs = leg.map((p) => p.ref).join(' and ');
  const words = parallel
    ? `${formatQuantity(best.value, 'ohm')} 1 % in parallel with ${legs}, ${upper} to ${lower}`
    : `${formatQuantity(best.value, 'ohm')} 1 % in series with ${legs}, between it and ${lower}`;
  const band = toleranceBand(done.board, change);
  return ok({
    title: `${change.rail} set to ${formatQuantity(vTarget, 'V', 3)}`,
    facts,
    parts: [{ ref: added, words }],
    sum: sum.value,
    reaches: best.vOut,
    notes: notesOf(board, change, best.vOut, band),
    stress: railStress(done.board, {
      rail: change.rail,
      return: change.return,
      volts: best.vOut,
      loadVolts: change.loadVolts,
    }),
    steps: stepsOf(board, band),
  });
}

/** Lowest, nominal, highest output by the tolerances of the resistors and 2 % of the reference, with the meter's own. */
function toleranceBand(after: Board, change: OutputVoltage): readonly [number, number, number] {
  const divider = findDividers(after).find((d) => netKey(d.tap) === netKey(change.tap));
  const corner = runSum('divider-output', {
    vRef: change.vRef,
    rTop: divider?.rTop ?? 0,
    rBottom: divider?.rBottom ?? 1,
    tolRef: REFERENCE_TOLERANCE,
    tolTop: loosest(divider?.top ?? []),
    tolBottom: loosest(divider?.bottom ?? []),
  });
  if (!corner.ok || !divider) return [change.vTarget * 0.95, change.vTarget, change.vTarget * 1.05];
  const { vMin, vOut, vMax } = corner.value.results as Record<string, number>;
  return [vMin! * (1 - METER_SHARE), vOut!, vMax! * (1 + METER_SHARE)];
}

function notesOf(
  board: Board,
  change: OutputVoltage,
  reached: number,
  [low, , high]: readonly [number, number, number],
): readonly string[] {
  const notes = [
    `Tolerances (1 % resistors, 2 % reference) leave it between ${formatQuantity(low, 'V')} and ${formatQuantity(high, 'V')}.`,
  ];
  const output = printedOutputs(board).find((o) => o.rail !== null && netKey(o.rail) === netKey(change.rail));
  if (output && output.amps > 0 && reached > output.volts) {
    const amps = (output.volts * output.amps) / reached;
    notes.push(
      `The printed ${formatQuantity(output.volts * output.amps, 'W')} are reached at ${formatQuantity(amps, 'A')} now, no more at ${formatQuantity(output.amps, 'A')}.`,
    );
  }
  const { kind, lowest } = supplyOf(board);
  if (kind !== 'mains' && lowest !== null && reached > 0.9 * lowest)
    notes.push(
      `A step-down converter cannot hold ${formatQuantity(reached, 'V')} from ${formatQuantity(lowest, 'V')}.`,
    );
  notes.push('Write the new voltage on the unit: the nameplate no longer tells it.');
  return notes;
}

function stepsOf(board: Board, band: readonly [number, number, number]): Plan['steps'] {
  const { lowest, nominal, highest } = supplyOf(board);
  const inputs = [
    [lowest, 'lowest input'],
    [nominal, 'nominal input'],
    [highest, 'highest input'],
  ] as const;
  return inputs.flatMap(([volts, words]) => (volts === null ? [] : [stepOn('vin', volts, words, band)]));
}

/** A value as it is written on a resistor: `47k`, `4.7k`, `330`. */
export function figure(ohms: number): string {
  if (ohms >= 1e6) return `${Number((ohms / 1e6).toPrecision(4))}MEG`;
  return ohms >= 1e3 ? `${Number((ohms / 1e3).toPrecision(4))}k` : String(Number(ohms.toPrecision(4)));
}

/** The number of a part's pin that sits on a net. */
function pinOn(part: Part, net: string): number {
  return part.nets.findIndex((n) => netKey(n) === netKey(net)) + 1;
}

/** A net name that is not taken yet. */
export function freeNet(board: Board, wanted: string): string {
  const taken = new Set(board.parts.flatMap((p) => p.nets.map(netKey)));
  let name = wanted;
  for (let i = 2; taken.has(netKey(name)); i++) name = `${wanted}${i}`;
  return name;
}
