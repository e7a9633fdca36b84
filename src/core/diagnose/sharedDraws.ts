import { normalCdf, normalQuantile } from '../quantity';
import { straightened } from './leak';
import type { OutcomeScale } from './scale';
import { mainMode, outcomeModes, overloadChance } from './outcome';
import type { OutcomeMode, OutcomeSpread } from './outcome';

/**
 * What readings have told of how some parts were drawn, under one hypothesis: two readings that hang on one junction's
 * leakage are not two witnesses.
 *
 * draws     numbers of the draws, none of which hangs together with any outside.
 * mean      of each, in its sigmas; covariance: n by n, row by row.
 */
interface Block {
  readonly draws: readonly number[];
  readonly mean: Float64Array;
  readonly covariance: Float64Array;
}

/** All that is known of the draws, by number of each. */
export type DrawState = ReadonlyMap<number, Block>;

/** Before any reading: every draw is standard normal, none depends on another. */
export const NOTHING_TOLD: DrawState = new Map();

/** Least share of its sigma that stays of a way an outcome may come out, whatever is known of the draws. */
const LEAST_SIGMA = 0.15;

/** A prediction as it is left by what is known of the draws; the same object where that changes nothing. */
export function conditioned(scale: OutcomeScale, spread: OutcomeSpread, state: DrawState): OutcomeSpread {
  const { main } = spread;
  if (!main || !main.draws.some((d) => state.has(d))) return spread;
  const { shift, taken } = knownOf(main.draws, main.effects, state);
  const share = shareOf(spread);
  const weightOf = rangeWeights(spread, Math.hypot(...main.effects), shift, taken);
  const modes = outcomeModes(spread).map((m): OutcomeMode => {
    const { mean, sigma } = m;
    const s = share(m);
    const left = Math.max(sigma * sigma - s * s * taken, (LEAST_SIGMA * sigma) ** 2);
    return { ...m, mean: mean + s * shift, sigma: Math.sqrt(left), weight: weightOf(m) };
  });
  const before = overloadChance(spread);
  const beyond =
    before < 1e-4 || before > 0.9999
      ? before
      : modes.reduce((sum, m) => sum + m.weight * normalCdf((m.mean - scale.limit) / m.sigma), 0);
  return { ...spread, modes, beyond };
}

/** By how much the draws move each way an outcome may come out, compared with its main one. */
function shareOf(spread: OutcomeSpread): (mode: OutcomeMode) => number {
  const main = mainMode(spread);
  return ({ sigma, parts }) => (parts === undefined || !main.parts ? sigma / main.sigma : parts / main.parts);
}

/**
 * How likely each way is by what is known of the draws: the same draws that move a reading decide which range it is taken
 * on. A range that reads higher is used when they move it up.
 */
function rangeWeights(
  spread: OutcomeSpread,
  sigma: number,
  shift: number,
  taken: number,
): (mode: OutcomeMode) => number {
  const modes = outcomeModes(spread);
  const there = modes.filter((m) => m.neighbour);
  const chance = there.reduce((sum, m) => sum + m.weight, 0);
  if (chance <= 0 || chance >= 1 || sigma === 0) return (m) => m.weight;
  const mean = (list: readonly OutcomeMode[]): number =>
    list.reduce((sum, m) => sum + m.weight * m.mean, 0) / list.reduce((sum, m) => sum + m.weight, 0);
  const up = mean(there) > mean(modes.filter((m) => !m.neighbour)) ? 1 : -1;
  const left = Math.sqrt(Math.max(1 - taken / sigma ** 2, LEAST_SIGMA ** 2));
  const now = normalCdf((normalQuantile(chance) + (up * shift) / sigma) / left);
  return (m) => (m.weight * (m.neighbour ? now : 1 - now)) / (m.neighbour ? chance : 1 - chance);
}

/** What is known of draws with these effects together: the shift of the reading, and the variance that is no longer open. */
function knownOf(
  draws: readonly number[],
  effects: readonly number[],
  state: DrawState,
): { readonly shift: number; readonly taken: number } {
  let [shift, taken] = [0, 0];
  for (let i = 0; i < draws.length; i++) {
    const block = state.get(draws[i]!);
    if (!block) continue;
    const at = block.draws.indexOf(draws[i]!);
    shift += effects[i]! * block.mean[at]!;
    for (let j = 0; j < draws.length; j++) {
      const other = block.draws.indexOf(draws[j]!);
      if (other < 0) continue;
      const open = block.covariance[at * block.draws.length + other]!;
      taken += effects[i]! * effects[j]! * ((i === j ? 1 : 0) - open);
    }
  }
  return { shift, taken };
}

/**
 * What a figure at a point tells of the draws beyond what was known: a Kalman step on the way of coming out that the
 * figure fits best.
 *
 * figure  in the coordinate. Source: R. E. Kalman, J. Basic Engineering 82 (1960).
 */
export function told(scale: OutcomeScale, spread: OutcomeSpread, state: DrawState, figure: number): DrawState {
  const { main } = spread;
  if (!main) return state;
  const x = spread.leak ? straightened(spread.leak, figure).x : figure;
  const left = outcomeModes(conditioned(scale, spread, state));
  const fits = left.map((m) => (m.weight / m.sigma) * Math.exp(-0.5 * ((x - m.mean) / m.sigma) ** 2));
  const best = fits.indexOf(Math.max(...fits));
  const mine = left[best]!;
  const share = shareOf(spread)(outcomeModes(spread)[best]!);
  const { draws, mean, covariance } = joined(main.draws, state);
  const n = draws.length;
  const effect = new Float64Array(n);
  main.draws.forEach((d, i) => (effect[draws.indexOf(d)] = share * main.effects[i]!));
  const gain = new Float64Array(n);
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) gain[i] = gain[i]! + covariance[i * n + j]! * effect[j]!;
  const variance = mine.sigma * mine.sigma;
  for (let i = 0; i < n; i++) {
    mean[i] = mean[i]! + (gain[i]! * (x - mine.mean)) / variance;
    for (let j = 0; j < n; j++) covariance[i * n + j] = covariance[i * n + j]! - (gain[i]! * gain[j]!) / variance;
  }
  const next = new Map(state);
  const block = { draws, mean, covariance };
  for (const d of draws) next.set(d, block);
  return next;
}

/** The blocks that hold some draws made one, those that nothing is known of added. */
function joined(wanted: readonly number[], state: DrawState): Block {
  const blocks = [...new Set(wanted.flatMap((d) => state.get(d) ?? []))];
  const draws = [...blocks.flatMap((b) => b.draws), ...wanted.filter((d) => !state.has(d))];
  const n = draws.length;
  const mean = new Float64Array(n);
  const covariance = new Float64Array(n * n);
  for (let i = 0; i < n; i++) covariance[i * n + i] = 1;
  let from = 0;
  for (const b of blocks) {
    const m = b.draws.length;
    mean.set(b.mean, from);
    for (let i = 0; i < m; i++)
      for (let j = 0; j < m; j++) covariance[(from + i) * n + from + j] = b.covariance[i * m + j]!;
    from += m;
  }
  return { draws, mean, covariance };
}
