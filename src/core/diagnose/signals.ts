import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import type { Complex } from '../linear';
import { SIGNAL_EVIDENCE } from '../meter';
import type { SignalEvidence } from '../meter';
import { partFigure } from '../part';
import type { Part } from '../part';
import { atOnce } from '../problem';
import { SIGNAL_HERTZ, SIGNAL_NOISE, figureOf } from '../signal';
import type { OneTone, SignalBoard } from '../signal';
import { fileUnder } from './dictionaryEntries';
import { overDrift } from './drift';
import type { Predicted, Predictor } from './experiment';
import type { Hypothesis } from './hypotheses';
import type { OutcomeSpread } from './outcome';
import { pointKey } from './posterior';
import { pairsAcross } from './probePairs';
import type { ProbePoint } from './probePoint';
import { predictRing, ringPoints } from './ringPoints';
import { SignalBoards } from './signalBoards';
import { SIGNAL_SCALES, signalOutcome } from './signalOutcome';

/** A point at which an instrument sends a small signal. */
export interface SignalPoint extends ProbePoint {
  readonly mode: SignalEvidence;
}

/** An ESR meter is worth holding across a capacitor of this much, farads, and across what has less than so many ohms. */
const ESR_FARADS = 100e-9;
const ESR_OHMS = 10;
/** A capacitance meter is worth holding across this much, farads. */
const CAP_FARADS = 1e-9;

/** Where these instruments may tell something: across capacitors, across what has next to no resistance, across windings. */
export function signalPoints(board: Board, modes: readonly SignalEvidence[]): readonly SignalPoint[] {
  const wanted = {
    esr: (part: Part): boolean =>
      part.kind === 'capacitor'
        ? part.value >= ESR_FARADS
        : part.kind === 'inductor'
          ? (partFigure(part, 'windingOhms') ?? 0) < ESR_OHMS
          : part.kind === 'resistor' && part.value < ESR_OHMS,
    cap: (part: Part): boolean => part.kind === 'capacitor' && part.value >= CAP_FARADS,
  };
  return SIGNAL_EVIDENCE.filter((mode) => modes.includes(mode)).flatMap((mode): readonly SignalPoint[] =>
    mode === 'ring'
      ? ringPoints(board)
      : pairsAcross(board, wanted[mode]).map(({ a, b }) => ({ mode, red: a, black: b })),
  );
}

const signals = { esr: new WeakMap<Board, SignalBoards>(), cap: new WeakMap<Board, SignalBoards>() } as const;

/** The boards of all hypotheses at the tone of an instrument. */
function signalsOf(board: Board, mode: OneTone): SignalBoards {
  const known = signals[mode].get(board) ?? new SignalBoards(board, 2 * Math.PI * SIGNAL_HERTZ[mode]);
  signals[mode].set(board, known);
  return known;
}

/** How much of its capacity is left of a capacitor that has lost some, and how far its series resistance has risen, as shares of the fault's. */
const CAPACITY_LEFT = [0.7, 0.55, 0.42, 0.32, 0.24, 0.18, 0.12, 0.07] as const;
const SERIES_GROWN = [0.16, 0.25, 0.4, 0.63, 1, 1.6, 2.5, 4] as const;
/** Less than this and it is as good as new. */
const LEAST_GROWN = 2.5;

/** A fault that is one of a range as faults along it; null where it is not. */
function alongOf(board: Board, fault: Fault): readonly Fault[] | null {
  const part = findPart(board, fault.ref);
  if (part?.kind !== 'capacitor') return null;
  if (fault.kind === 'value' && fault.value < part.value)
    return CAPACITY_LEFT.map((left) => ({ ...fault, value: part.value * left }));
  if (fault.kind !== 'esr') return null;
  const least = LEAST_GROWN * (partFigure(part, 'seriesOhms') ?? 0);
  return SERIES_GROWN.map((share) => ({ ...fault, ohms: Math.max(fault.ohms * share, least) }));
}

/** An instrument cannot tell figures that differ by less than this share, or this much. */
const SAME_SHARE = 1e-3;
const SAME = { esr: 0.02 * SIGNAL_NOISE.esr.floor, cap: 1e-15 } as const;

/** What an instrument shows at a point under each hypothesis. Its nets must be on the board. */
export function predictSignal(board: Board, hypotheses: readonly Hypothesis[], point: SignalPoint): Predicted {
  return atOnce(predictingSignal(board, hypotheses, point));
}

/** The same; yields where it takes long. */
function* predictingSignal(
  board: Board,
  hypotheses: readonly Hypothesis[],
  point: SignalPoint,
): Generator<number, Predicted> {
  const { mode, red, black } = point;
  if (mode === 'ring') return yield* predictRing(board, hypotheses, point);
  const all = signalsOf(board, mode);
  const leads = [netKey(red), netKey(black)] as const;
  const seenOn = (one: SignalBoard): readonly [z: Complex | null, spread: OutcomeSpread] => {
    const z = one.impedance(...leads) ?? null;
    return [z, signalOutcome(mode, z, one.effects(...leads))];
  };
  const [healthy, spread] = seenOn(all.of({ label: 'none', faults: [] }));
  const own = figureOf(mode, healthy);
  const draft = { raws: [own], spreads: [spread], classOf: new Uint16Array(hypotheses.length) };
  hypotheses.forEach((hypothesis, h) => {
    if (h === 0) return;
    const there = all.of(hypothesis);
    const z = there.impedance(...leads) ?? null;
    if (sameImpedance(mode, healthy, z)) return;
    const raw = figureOf(mode, z);
    const middle = signalOutcome(mode, z, there.effects(...leads));
    const [fault] = hypothesis.faults;
    const range = hypothesis.faults.length === 1 ? alongOf(board, fault!) : null;
    const said = range
      ? overDrift(
          range.map((one) => seenOn(all.with([one]))[1]),
          middle,
        )
      : middle;
    draft.classOf[h] = fileUnder(draft, raw, said, SAME[mode]);
  });
  return { mode, red, black, scale: SIGNAL_SCALES[mode], settle: 0, ...draft };
}

/** Whether an instrument shows the same of two impedances, ohm, and as surely. */
function sameImpedance(mode: OneTone, a: Complex | null, b: Complex | null): boolean {
  if (a === null || b === null) return a === b;
  if (mode === 'esr') return Math.abs(a.re - b.re) <= SAME_SHARE * Math.abs(a.re) + SAME.esr;
  return Math.hypot(a.re - b.re, a.im - b.im) <= SAME_SHARE * Math.hypot(a.re, a.im);
}

/** A predictor with the points of these instruments among those that are planned; yields between them. */
export function* withInstruments(predictor: Predictor, modes: readonly SignalEvidence[]): Generator<number, Predictor> {
  const { board, hypotheses } = predictor;
  let count = 0;
  for (const mode of modes) {
    if (mode === 'ring') continue;
    const all = signalsOf(board, mode);
    for (const hypothesis of hypotheses) {
      all.of(hypothesis);
      yield ++count;
    }
  }
  const points: Predicted[] = [];
  for (const point of signalPoints(board, modes)) {
    const steps = predictingSignal(board, hypotheses, point);
    let step = steps.next();
    for (; step.done !== true; step = steps.next()) yield ++count;
    if (step.value.spreads.length > 1) points.push(step.value);
    yield ++count;
  }
  const known = new Map(points.map((p) => [pointKey(p), p]));
  return {
    ...predictor,
    points: [...predictor.points, ...points],
    at: (point: ProbePoint) => known.get(pointKey(point)) ?? predictor.at(point),
  };
}

/** The same at once. */
export function withAllInstruments(predictor: Predictor, modes: readonly SignalEvidence[]): Predictor {
  return atOnce(withInstruments(predictor, modes));
}
