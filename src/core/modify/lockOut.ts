import { findPart, netKey } from '../circuit';
import { parallelOhms, partFigure } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { ok } from '../problem';
import type { Result } from '../problem';
import { formatQuantity } from '../quantity';
import { judgeStress, workshopDerating } from '../stress';
import type { StressRow } from '../stress';
import { runSum } from '../sums';
import type { BadInput } from '../sums';
import type { Change } from './change';
import { figure, fittedWatts, freeNet } from './outputVoltage';
import { findDividers, printedOutputs, resistorsBetween, supplyOf } from '../operate';
import { VOLTS_UNKNOWN, findLockPins, freeRef, heldVolts } from './places';
import { cannotModify, withFacts } from './plan';
import type { Plan, PlanProblem } from './plan';
import { stepOff, stepOn } from './steps';
import type { ExpectedStep } from './steps';

type LockOut = Extract<Change, { kind: 'lock-out' }>;

/**
 * Works out an under-voltage lock-out at an enable pin: the divider is moved where there is one, added where not, and
 * the pin lifted where it lay on its rail. Refuses with `bad-input` of the sum or `cannot-modify`.
 */
export function planLockOut(board: Board, change: LockOut): Result<Plan, PlanProblem> {
  const place = findLockPins(board).find((p) => p.ref === change.ref && p.pin === change.pin);
  if (!place)
    return cannotModify('pin', `${change.ref} has no pin ${change.pin} that enables it.`, 'Trace the pin first.');
  const { vTh, vRise, vHyst, vBrownOut, rBottom: wanted, series, hystNet } = change;
  const sum = runSum('uvlo-divider', { vTh, vRise, vHyst, vBrownOut, rBottom: wanted, series });
  if (!sum.ok) return sum as Result<never, BadInput>;
  const {
    rTop,
    rBottom,
    rHyst,
    vFall,
    margin,
    vRise: rises,
  } = sum.value.results as Record<string, number> & { rHyst: number | null };
  if (rHyst !== null && hystNet === undefined)
    return cannotModify(
      'hystNet',
      'The hysteresis resistor needs a net that is at the return until the start.',
      'Name that net, or ask for no hysteresis and leave it to the part itself.',
    );
  const joined = netKey(place.net) === netKey(place.rail) || netKey(place.net) === 'nc';
  const tap = joined ? freeNet(board, `${place.ref}EN`) : place.net;
  const facts: string[] = joined ? [`${place.ref} ${place.pin}:${tap}`] : [];
  const parts: { ref: string; words: string }[] = joined
    ? [{ ref: place.ref, words: `lift pin ${place.pin} off ${place.net}` }]
    : [];
  let taken = 0;
  const fit = (old: readonly Part[], ohms: number, upper: string, lower: string): void => {
    const [first, ...others] = old;
    if (first?.kind === 'resistor' && others.length === 0 && Math.abs(first.value / ohms - 1) < 1e-6) return;
    const ref = first?.ref ?? freeRef(board, 'R', taken++);
    facts.push(
      `${ref} "${figure(ohms)}" is=${figure(ohms)} tol=1% pr=${fittedWatts(first)} basis=seen ${upper} ${lower}`,
    );
    for (const other of others) facts.push(`drop ${other.ref}`);
    const now = formatQuantity(ohms, 'ohm');
    const was = first?.kind === 'resistor' ? ` instead of ${formatQuantity(first.value, 'ohm')}` : '';
    const gone = others.length > 0 ? `; take ${others.map((o) => o.ref).join(' and ')} off` : '';
    parts.push({ ref, words: `${now} 1 %, ${upper} to ${lower}${was}${gone}` });
  };
  fit(place.top, rTop!, place.rail, tap);
  fit(place.bottom, rBottom!, tap, place.return);
  if (rHyst !== null && hystNet !== undefined) fit([], rHyst, tap, hystNet);
  const done = withFacts(board, facts);
  if (done.misfits.length > 0) return cannotModify('facts', done.misfits[0]!, 'Trace what is missing first.');
  const volts = outputVolts(board, change.ref);
  const notes = [
    margin! > 0
      ? `It lets go ${formatQuantity(margin!, 'V')} above where the converter browns out.`
      : `It lets go ${formatQuantity(-margin!, 'V')} below where the converter browns out: it locks out too late.`,
    'The pin’s own current and threshold tolerance are left out.',
    ...(volts === null ? [VOLTS_UNKNOWN] : []),
  ];
  return ok({
    title: `${place.ref} runs from ${formatQuantity(rises!, 'V', 3)}, stops below ${formatQuantity(vFall!, 'V', 3)}`,
    facts,
    parts,
    sum: sum.value,
    reaches: null,
    notes,
    stress: lockOutStress(done.board, change),
    steps: volts === null ? [] : stepsOf(board, volts, rises!, vFall!),
  });
}

/** What the divider of a lock-out and its pin bear at the highest input, read off the board as it stands. */
export function lockOutStress(board: Board, change: LockOut): readonly StressRow[] {
  // Not by the pin's role: what hangs on the pin now may make it look like another.
  const net = findPart(board, change.ref)?.nets[Number(change.pin) - 1];
  const upper = net === undefined ? [] : resistorsBetween(board, change.rail, net);
  const lower = net === undefined ? [] : resistorsBetween(board, net, change.return);
  const [top, bottom] = [upper[0], lower[0]];
  if (!top || !bottom) return [gone(change)];
  const [rTop, rBottom] = [parallelOhms(upper), parallelOhms(lower)];
  const most = supplyOf(board).highest;
  const pinVolts = most === null ? null : (most * rBottom) / (rTop + rBottom);
  const watts = most === null ? null : (most - pinVolts!) ** 2 / rTop;
  const rating = partFigure(top, 'ratedWatts') ?? null;
  const factor = workshopDerating()['resistor-power'].factor;
  const unknown = 'the highest input is not noted';
  return [
    {
      ref: top.ref,
      quantity: 'power',
      unit: 'W',
      stress: watts,
      rating,
      limit: rating === null ? null : rating * factor,
      ratio: watts === null || rating === null ? null : watts / rating,
      verdict: judgeStress(watts, rating, factor),
      why:
        most === null
          ? unknown
          : `${formatQuantity(most - pinVolts!, 'V')} across ${formatQuantity(rTop, 'ohm')} at the highest input`,
    },
    {
      ref: change.ref,
      quantity: 'limit',
      unit: 'V',
      stress: pinVolts,
      rating: null,
      limit: null,
      ratio: null,
      verdict: 'unknown',
      why:
        pinVolts === null
          ? unknown
          : `${formatQuantity(pinVolts, 'V')} at pin ${change.pin} (over ${bottom.ref}) at the highest input: look its limit up`,
    },
  ];
}

/** Where the divider is not on the board any more nothing can be said, and that is said. */
function gone(change: LockOut): StressRow {
  const unknown = { stress: null, rating: null, limit: null, ratio: null, verdict: 'unknown' } as const;
  const why = `its divider at pin ${change.pin} is not on the board any more`;
  return { ref: change.ref, quantity: 'limit', unit: 'V', ...unknown, why };
}

/** Volts that the converter gives while it runs: of its own divider's rail, else of the only output there is. */
function outputVolts(board: Board, ref: string): number | null {
  const own = findDividers(board).find((d) => d.ref === ref);
  if (own) return heldVolts(board, own.rail);
  const [only, ...more] = printedOutputs(board).filter((o) => o.kind === 'dc');
  return only && more.length === 0 ? only.volts : null;
}

function stepsOf(board: Board, volts: number, rises: number, falls: number): readonly ExpectedStep[] {
  const band = [volts * 0.93, volts, volts * 1.07] as const;
  const between = (rises + falls) / 2;
  const wide = rises - falls > 0.06 * rises;
  const { nominal } = supplyOf(board);
  return [
    stepOff('vin', falls * 0.9, 'coming up', volts),
    ...(wide ? [stepOff('vin', between, 'coming up, inside the window', volts)] : []),
    stepOn('vin', rises * 1.06, 'just above its start', band),
    ...(nominal !== null && nominal > rises * 1.15 ? [stepOn('vin', nominal, 'nominal input', band)] : []),
    ...(wide ? [stepOn('vin', between, 'going down, inside the window', band)] : []),
    stepOff('vin', falls * 0.9, 'going down, below its stop', volts),
  ];
}
