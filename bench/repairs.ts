import { findPart, netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { MOST_READINGS, OUTLIER_SHARE, doubtfulReadings, huntFault } from '@/core/diagnose';
import type { Diagnoser, HuntWays, Hypothesis, TakenReading } from '@/core/diagnose';
import { parseFault } from '@/core/fault';
import type { Fault } from '@/core/fault';
import { DEFAULT_METER, drawParts, probe, simulateReading, solverFor } from '@/core/meter';
import type { MeterProfile } from '@/core/meter';
import { seededRandom } from '@/core/quantity';
import type { Random } from '@/core/quantity';
import type { DcSolver } from '@/core/solve';

/**
 * How repairs ended, as shares of those that these readings can see; the others by whether one was named all the same.
 *
 * readings     mean, one that was not named rightly counting as sixty; taken: as they were.
 * doubted      of readings that were taken on other nets than meant, the share that was named doubtful at the end.
 */
export interface RepairMix {
  readonly asked: number;
  readonly seen: number;
  readonly right: number;
  readonly wrong: number;
  readonly open: number;
  readonly readings: number;
  readonly taken: number;
  readonly unseen: number;
  readonly unseenNamed: number;
  readonly slipped: number;
  readonly doubted: number;
}

/** Numbers of hypotheses drawn from the priors, something broken in each. */
export function drawnRepairs({ predictor }: Diagnoser, count: number, seed = 77): readonly number[] {
  return drawn(predictor.hypotheses, count, seededRandom(seed), 1);
}

/** Numbers of hypotheses drawn by their weights, from the first that may come. */
function drawn(hypotheses: readonly Hypothesis[], count: number, random: Random, first: number): readonly number[] {
  const may = hypotheses.map((_, i) => i).slice(first);
  const total = may.reduce((sum, i) => sum + hypotheses[i]!.weight, 0);
  return Array.from({ length: count }, () => {
    let left = random() * total;
    return may.find((i) => (left -= hypotheses[i]!.weight) <= 0) ?? may.at(-1)!;
  });
}

/** Of one tenth of the odds: suspects shown, sum of their odds, how many of them were true. */
export type Tenth = readonly [shown: number, stated: number, held: number];

/** The plan is followed for one to this many readings before the odds are looked at. */
const MOST_BEFORE = 6;
/** A resistor that drifted did so by a factor up to this, evenly on a ratio scale from the first. */
const DRIFTED = [1.2, 11] as const;

/**
 * Whether of the suspects shown with odds p a share p is true: repairs as the odds suppose them, drawn from the priors
 * (nothing broken is one of them), now and then a lead on another net. Odds are looked at somewhere on the way, not only
 * where the hunt ends, which is where they are all but sure.
 */
export function calibration(diagnoser: Diagnoser, count: number, seed = 55): readonly Tenth[] {
  const { hypotheses, board } = diagnoser.predictor;
  const random = seededRandom(seed);
  const tenths = Array.from({ length: 10 }, (): [number, number, number] => [0, 0, 0]);
  for (const i of drawn(hypotheses, count, random, 0)) {
    const { label, faults } = hypotheses[i]!;
    const readings = 1 + Math.floor(random() * MOST_BEFORE);
    const broken = faults.map((fault) => driftedAnywhere(board, fault, random));
    const { diagnosis } = huntFault(diagnoser, broken, drawParts(random), random, {
      most: readings,
      slips: OUTLIER_SHARE,
    });
    for (const { probability, group } of diagnosis.suspects) {
      const tenth = tenths[Math.min(9, Math.floor(probability * 10))]!;
      tenth[0]++;
      tenth[1] += probability;
      if (group.includes(label)) tenth[2]++;
    }
  }
  return tenths;
}

/** A drifted resistor has drifted anywhere, not to the value that its hypothesis is worked out at. */
function driftedAnywhere(board: Board, fault: Fault, random: Random): Fault {
  const part = fault.kind === 'value' ? findPart(board, fault.ref) : undefined;
  if (fault.kind !== 'value' || part?.kind !== 'resistor') return fault;
  const factor = DRIFTED[0] * (DRIFTED[1] / DRIFTED[0]) ** random();
  return { ...fault, value: fault.value > part.value ? part.value * factor : part.value / factor };
}

/** Every single fault once, by number. */
export function everyFault({ predictor }: Diagnoser): readonly number[] {
  return predictor.hypotheses.flatMap((h, i) => (h.faults.length === 1 ? [i] : []));
}

/** Hunts repairs, by number of their hypothesis, tolerances and the meter's noise on; `ways` of the k-th. */
export function repairMix(
  diagnoser: Diagnoser,
  list: readonly number[],
  ways: (k: number) => HuntWays = () => ({}),
): RepairMix {
  const { hypotheses } = diagnoser.predictor;
  const ends = {
    right: 0,
    wrong: 0,
    open: 0,
    unseen: 0,
    unseenNamed: 0,
    readings: 0,
    taken: 0,
    slipped: 0,
    doubted: 0,
  };
  list.forEach((i, k) => {
    const { label, faults } = hypotheses[i]!;
    const [draw, random] = [drawParts(seededRandom(3000 + k)), seededRandom(9000 + k)];
    const { diagnosis, ended, readings, slipped } = huntFault(diagnoser, faults, draw, random, ways(k));
    const doubtful = doubtfulReadings(diagnoser.predictor, readings, diagnosis.suspects[0]!.fault);
    ends.slipped += slipped.length;
    ends.doubted += slipped.filter((r) => doubtful.includes(r)).length;
    if (diagnoser.groups[i] === diagnoser.groups[0]) {
      ends.unseen++;
      if (ended === 'named') ends.unseenNamed++;
      return;
    }
    const right = ended === 'named' && diagnosis.suspects[0]!.group.includes(label);
    ends.taken += readings.length;
    ends.readings += right ? readings.length : MOST_READINGS;
    if (ended !== 'named') ends.open++;
    else if (right) ends.right++;
    else ends.wrong++;
  });
  const seen = list.length - ends.unseen;
  const share = (n: number, of = seen): number => n / Math.max(1, of);
  return {
    asked: list.length,
    seen,
    right: share(ends.right),
    wrong: share(ends.wrong),
    open: share(ends.open),
    readings: share(ends.readings),
    taken: share(ends.taken),
    unseen: ends.unseen,
    unseenNamed: ends.unseenNamed,
    slipped: ends.slipped,
    doubted: share(ends.doubted, ends.slipped),
  };
}

/** A meter with twice the profile's noise. */
export const NOISY_METER: MeterProfile = {
  ...DEFAULT_METER,
  diodeFraction: 2 * DEFAULT_METER.diodeFraction,
  diodeFloorVolts: 2 * DEFAULT_METER.diodeFloorVolts,
  ohmsFraction: 2 * DEFAULT_METER.ohmsFraction,
  lowRangeFloorOhms: 2 * DEFAULT_METER.lowRangeFloorOhms,
};

/** Share of readings taken on other nets than meant. */
export const SLIPS = 1 / 20;

/** A part's own reading must move by this, ratio of ohms or volts of a diode, for it to be asked for. */
const MOVED_RATIO = 1.7;
const MOVED_VOLTS = 0.15;

/**
 * Two-terminal parts that are open, shorted, or resistors at twice and half their value, read straight across both ways:
 * how many there are whose own reading moves, and in how many the part is among the first three suspects.
 */
export function readAcross(
  diagnoser: Diagnoser,
  modes: readonly ('open' | 'short' | 'double' | 'half')[],
): { readonly asked: number; readonly found: number; readonly missed: readonly string[] } {
  const { board } = diagnoser.predictor;
  const healthy = solverFor(board, []);
  const missed: string[] = [];
  let asked = 0;
  for (const part of board.parts) {
    const [a = '', b = ''] = part.nets;
    if (!part.fitted || part.nets.length !== 2 || part.kind === 'connector' || netKey(a) === netKey(b)) continue;
    for (const mode of modes) {
      const factor = mode === 'double' ? 2 : mode === 'half' ? 0.5 : null;
      if (factor !== null && part.kind !== 'resistor') continue;
      const text =
        factor === null
          ? `${part.ref}:${mode}`
          : `${part.ref}:value=${part.kind === 'resistor' ? part.value * factor : 0}`;
      const fault = parseFault(board, text);
      const meter = part.kind === 'diode' ? 'diode' : 'ohms';
      const ways = [
        [a, b],
        [b, a],
      ] as const;
      if (!fault.ok) continue;
      const nominal = solverFor(board, [fault.value]);
      if (!ways.some(([red, black]) => moves(healthy, nominal, meter, red, black))) continue;
      asked++;
      const broken = solverFor(board, [fault.value], drawParts(seededRandom(asked)));
      const random = seededRandom(100 + asked);
      const readings = ways.map(([red, black]): TakenReading => {
        return { mode: meter, red, black, seen: simulateReading(broken, meter, red, black, random) };
      });
      const first = diagnoser.suspects(diagnoser.weigh(readings)).slice(0, 3);
      const named = first.flatMap((s) => s.group).flatMap((label) => label.split('+'));
      if (!named.some((label) => label.startsWith(`${part.ref}:`) || label.startsWith(`${part.ref}.`)))
        missed.push(text);
    }
  }
  return { asked, found: asked - missed.length, missed };
}

/** Whether a part's own reading is another on the broken board: ohms by the ratio, a diode by volts. */
function moves(healthy: DcSolver, broken: DcSolver, mode: 'diode' | 'ohms', red: string, black: string): boolean {
  const read = (solver: DcSolver): number | null => {
    const [r, k] = [red, black].map((net) => solver.network.nodeOfNet.get(netKey(net)));
    if (r === undefined || k === undefined) return null;
    const computed = probe(solver, mode, r, k);
    return computed.ok ? Math.min(computed.value.raw, mode === 'diode' ? 3 : 60e6) : null;
  };
  const [before, after] = [read(healthy), read(broken)];
  if (before === null || after === null) return false;
  if (mode === 'diode') return Math.abs(before - after) > MOVED_VOLTS;
  return Math.abs(Math.log((before + 0.1) / (after + 0.1))) > Math.log(MOVED_RATIO);
}

/** What is held invisible, by label. */
export function heldInvisible(diagnoser: Diagnoser): readonly string[] {
  const { groups, predictor } = diagnoser;
  return predictor.hypotheses.flatMap((h, i) => (i > 0 && groups[i] === groups[0] ? [h.label] : []));
}
