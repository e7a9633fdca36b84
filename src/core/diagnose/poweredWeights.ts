import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { PoweredReader } from '../work';
import type { OperatingCondition, TakenReading } from '../work';
import type { Hypothesis } from './hypotheses';
import { weighSingles } from './weighSingles';

/** A figure read on the unit under power, V or Hz, and how it was fed and loaded. */
export interface PoweredTaken extends TakenReading {
  readonly condition: OperatingCondition;
}

/** Where a hypothesis is expected to read, and one sigma of it. Of a drift: anywhere from the healthy figure to its worst. */
interface Range {
  readonly from: number;
  readonly to: number;
  readonly sigma: number;
}

/** A band holds this many sigma on either side. */
const BAND_SIGMAS = 2;
/** A meter's own error: share and volts. */
const METER = { share: 0.005, volts: 0.01 } as const;
/** Share of readings that follow nothing: a slip of the probe, a figure misread. */
const OUTLIERS = 0.03;
/** Likelihood, relative to a perfect hit, of a figure that follows nothing. */
const ANYWHERE = 0.02;

/**
 * Hypotheses weighed by what was read under power: each weight times the likelihood of those figures, every fault's unit
 * worked out from the healthy one. seconds, clock: as for `weighSingles`.
 */
export function weighPowered(
  board: Board,
  hypotheses: readonly Hypothesis[],
  readings: readonly PoweredTaken[],
  seconds: number,
  clock: () => number,
): readonly Hypothesis[] {
  if (readings.length === 0) return hypotheses;
  const conditions = new Map(readings.map(({ condition }) => [`${condition.source} ${condition.load}`, condition]));
  const healthy = new Map([...conditions].map(([key, c]) => [key, PoweredReader.at(board, c, [])]));
  const scales = readings.map((r) => rangeAt(healthy, board, [], r)?.sigma ?? METER.volts);
  return weighSingles(hypotheses, seconds, clock, (faults) => likelihoodOf(board, faults, readings, healthy, scales));
}

/** Logarithm of the likelihood of all readings under some faults; null where the unit has no steady state with them. */
function likelihoodOf(
  board: Board,
  faults: readonly Fault[],
  readings: readonly PoweredTaken[],
  healthy: ReadonlyMap<string, PoweredReader>,
  scales: readonly number[],
): number | null {
  const made = new Map<string, PoweredReader>();
  let sum = 0;
  readings.forEach((r, i) => {
    const range = rangeAt(healthy, board, faults, r, made);
    if (!range) return;
    const off = r.value < range.from ? range.from - r.value : r.value > range.to ? r.value - range.to : 0;
    const sigma = Math.hypot(range.sigma, METER.share * r.value, METER.volts);
    const scale = Math.hypot(scales[i]!, METER.share * r.value, METER.volts);
    // As dense as its spread is narrow: what may read anywhere between two figures is hit by chance.
    const density = scale / (sigma + (range.to - range.from) / 3);
    sum += Math.log((1 - OUTLIERS) * density * Math.exp(-0.5 * (off / sigma) ** 2) + OUTLIERS * ANYWHERE);
  });
  return [...made.values()].every((r) => r.operation.found) ? sum : null;
}

function rangeAt(
  healthy: ReadonlyMap<string, PoweredReader>,
  board: Board,
  faults: readonly Fault[],
  { mode, red, black, condition }: PoweredTaken,
  made: Map<string, PoweredReader> = new Map(),
): Range | null {
  const key = `${condition.source} ${condition.load}`;
  const sound = healthy.get(key)!;
  const reader =
    faults.length === 0 ? sound : (made.get(key) ?? PoweredReader.at(board, condition, faults, sound.operation));
  made.set(key, reader);
  const [there, here] = [reader, sound].map((x) => x.read(mode, red, black));
  if (!there || !here || there.value === null || there.low === null || there.high === null) return null;
  const sigma = (there.high - there.low) / 2 / BAND_SIGMAS;
  const drifts = faults.some((f) => f.kind === 'value') && here.value !== null;
  const [from, to] = drifts
    ? [Math.min(there.value, here.value!), Math.max(there.value, here.value!)]
    : [there.value, there.value];
  return { from, to, sigma };
}
