import { partFigure } from '../part';
import { findPart } from '../circuit';
import type { Board } from '../circuit';
import { ok } from '../problem';
import type { Result } from '../problem';
import { formatQuantity, nearestPreferred } from '../quantity';
import { judgeStress, workshopDerating } from '../stress';
import type { StressRow } from '../stress';
import { runSum } from '../sums';
import type { BadInput } from '../sums';
import type { Change } from './change';
import { figure, freeNet } from './outputVoltage';
import { resistorsBetween } from '../operate';
import { VOLTS_UNKNOWN, freeRef, heldVolts } from './places';
import { cannotModify, withFacts } from './plan';
import type { Plan, PlanProblem } from './plan';
import { stepOff, stepOn } from './steps';
import type { ExpectedStep } from './steps';

type StartOnLoad = Extract<Change, { kind: 'start-on-load' }>;

const BASE_OHMS = 1000;

/**
 * Works out a start-on-load sense: a resistor in the load's return, whose drop turns a transistor on that wakes the
 * converter. Refuses with `bad-input` of the sum or `cannot-modify` where no preferred value fits or a net is missing.
 */
export function planStartOnLoad(board: Board, change: StartOnLoad): Result<Plan, PlanProblem> {
  const { vBe, iMin, iMax, vDropMax, ratedWatts, connector, pin, wakes } = change;
  const sum = runSum('sense-start', { vBe, iMin, iMax, vDropMax });
  if (!sum.ok) return sum as Result<never, BadInput>;
  const { rMin, rMax, feasible } = sum.value.results as { rMin: number; rMax: number; feasible: boolean };
  const ohms = preferredBetween(rMin, rMax);
  if (!feasible || ohms === null)
    return cannotModify(
      'vDropMax',
      `It takes ${formatQuantity(rMin, 'ohm')} to wake it, and the drop allows ${formatQuantity(rMax, 'ohm')} only.`,
      'Allow a larger drop, sense a larger load, or put a diode across the resistor.',
    );
  if (!findPart(board, connector))
    return cannotModify('connector', `There is no ${connector} on this board.`, 'Trace it first.');
  const [loadNet, baseNet] = [freeNet(board, 'LOAD-'), freeNet(board, 'SENSE')];
  const [sense, base, q] = [freeRef(board, 'R'), freeRef(board, 'R', 1), freeRef(board, 'Q')];
  const text = figure(ohms);
  const facts = [
    `${connector} ${pin}:${loadNet}`,
    `${sense} "${text}" is=${text} pr=${ratedWatts} basis=seen ${loadNet} ${change.return}`,
    `${base} "1k" is=1k pr=0.1 basis=seen ${loadNet} ${baseNet}`,
    `${q} npn ${wakes} ${baseNet} ${change.return}`,
  ];
  const done = withFacts(board, facts);
  if (done.misfits.length > 0) return cannotModify('facts', done.misfits[0]!, 'Trace what is missing first.');
  const volts = heldVolts(board, change.rail);
  return ok({
    title: `Starts when a load above ${formatQuantity(vBe / ohms, 'A')} hangs on ${connector}`,
    facts,
    parts: [
      { ref: connector, words: `lift pin ${pin} off ${change.return}: the load’s return` },
      {
        ref: sense,
        words: `${formatQuantity(ohms, 'ohm')} ${formatQuantity(ratedWatts, 'W')} from there to ${change.return}`,
      },
      { ref: base, words: `1 kΩ to the base of ${q}` },
      { ref: q, words: `small NPN, emitter ${change.return}, collector ${wakes}` },
    ],
    sum: sum.value,
    reaches: null,
    notes: [
      `The load loses ${formatQuantity(ohms * iMax, 'V')} at ${formatQuantity(iMax, 'A')}.`,
      `While it sleeps the load must draw its ${formatQuantity(iMin, 'A')} from somewhere: a trickle past the switch, or the output’s own standby.`,
      'What is sensed here is one leg only: a load returned elsewhere is not seen.',
      ...(volts === null ? [VOLTS_UNKNOWN] : []),
    ],
    stress: startOnLoadStress(done.board, change),
    steps: volts === null ? [] : stepsOf(change, ohms, volts),
  });
}

/** The smallest E24 value that is not below `low` nor above `high`, or null. */
function preferredBetween(low: number, high: number): number | null {
  for (let wanted = low; wanted <= high * 1.0001; wanted *= 1.02) {
    const value = nearestPreferred(wanted, 'E24');
    if (value >= low * (1 - 1e-9) && value <= high * (1 + 1e-9)) return value;
  }
  return null;
}

/** What the sense resistor, its base resistor, the transistor and the load bear, read off the board as it stands. */
export function startOnLoadStress(board: Board, change: StartOnLoad): readonly StressRow[] {
  const loadNet = findPart(board, change.connector)?.nets[Number(change.pin) - 1];
  const sensing = loadNet === undefined ? undefined : resistorsBetween(board, loadNet, change.return)[0];
  const feeds = board.parts.find(
    (p) => p.kind === 'resistor' && p !== sensing && p.fitted && p.nets.some((n) => n === loadNet),
  );
  const turned = board.parts.find((p) => p.kind === 'bjt' && feeds?.nets.some((n) => n === p.nets[1]));
  if (sensing?.kind !== 'resistor' || !feeds || !turned) {
    const unknown = { stress: null, rating: null, limit: null, ratio: null, verdict: 'unknown' } as const;
    const why = 'its sense resistor or transistor is not on the board any more';
    return [{ ref: change.connector, quantity: 'limit', unit: 'V', ...unknown, why }];
  }
  const ohms = sensing.value;
  const ratedWatts = partFigure(sensing, 'ratedWatts') ?? change.ratedWatts;
  const volts = heldVolts(board, change.rail);
  const [sense, base, q] = [sensing.ref, feeds.ref, turned.ref];
  const watts = change.iMax ** 2 * ohms;
  const drop = change.iMax * ohms;
  const baseWatts = Math.max(0, drop - change.vBe) ** 2 / BASE_OHMS;
  const factor = workshopDerating()['resistor-power'].factor;
  const power = (ref: string, stress: number, rating: number, why: string): StressRow => ({
    ref,
    quantity: 'power',
    unit: 'W',
    stress,
    rating,
    limit: rating * factor,
    ratio: stress / rating,
    verdict: judgeStress(stress, rating, factor),
    why: `${why}: ${Math.round((100 * stress) / rating)} % of its ${formatQuantity(rating, 'W')}`,
  });
  const left = volts === null ? null : volts - drop;
  const least = change.loadVoltsMin;
  const load: StressRow = {
    ref: change.connector,
    quantity: 'limit',
    unit: 'V',
    stress: left,
    rating: null,
    limit: least ?? null,
    ratio: null,
    verdict: least === undefined || left === null ? 'unknown' : left >= least ? 'ok' : 'over',
    why:
      left === null
        ? `the load loses ${formatQuantity(drop, 'V')}; what the output gives is not known`
        : least === undefined
          ? `${formatQuantity(left, 'V')} are left for the load: ask what it needs`
          : `${formatQuantity(left, 'V')} are left, and the load needs ${formatQuantity(least, 'V')}`,
  };
  const collector: StressRow = {
    ref: q,
    quantity: 'limit',
    unit: 'V',
    stress: null,
    rating: null,
    limit: null,
    ratio: null,
    verdict: 'unknown',
    why: `what stands on ${change.wakes} while it sleeps is not known: read it before choosing the transistor`,
  };
  return [
    power(sense, watts, ratedWatts, `${formatQuantity(change.iMax, 'A')} through ${formatQuantity(ohms, 'ohm')}`),
    power(base, baseWatts, 0.1, `${formatQuantity(Math.max(0, drop - change.vBe), 'V')} across 1 kΩ`),
    load,
    collector,
  ];
}

function stepsOf(change: StartOnLoad, ohms: number, volts: number): readonly ExpectedStep[] {
  const at = (amps: number): readonly [number, number, number] => {
    const left = volts - amps * ohms;
    return [left - 0.05 * volts, left, left + 0.05 * volts];
  };
  const { iMin, iMax } = change;
  return [
    stepOff('iout', 0, 'no load', volts),
    stepOn('iout', iMin, 'the smallest load', at(iMin)),
    stepOn('iout', (iMin + iMax) / 2, 'half way', at((iMin + iMax) / 2)),
    stepOn('iout', iMax, 'the largest load', at(iMax)),
  ];
}
