import type { Diagnoser, Hypothesis, PointChooser, ProbePoint } from '@/core/diagnose';
import { bestNext, huntFault, pointKey } from '@/core/diagnose';
import { drawParts } from '@/core/meter';
import { seededRandom } from '@/core/quantity';
import type { Random } from '@/core/quantity';

/** How a strategy did over a set of faults. */
export interface IsolationResult {
  readonly strategy: string;
  readonly mean: number;
  readonly p95: number;
  readonly share: number;
}

/** Takes points in a fixed order, whatever is read; points that no fault changes are left out for all strategies. */
export function fixedOrder(points: readonly ProbePoint[], diagnoser: Diagnoser): PointChooser {
  const known = new Map(diagnoser.predictor.points.map((p) => [pointKey(p), p]));
  const useful = points.flatMap((p) => known.get(pointKey(p)) ?? []).filter((p) => p.spreads.length > 1);
  return ({ readings }) => useful[readings.length] ?? null;
}

/** A random order, the same for one seed. */
export function randomOrder(diagnoser: Diagnoser, random: Random): PointChooser {
  const points = diagnoser.predictor.points.filter((p) => p.spreads.length > 1);
  const shuffled = [...points];
  for (let i = shuffled.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [shuffled[i], shuffled[j]] = [shuffled[j]!, shuffled[i]!];
  }
  return fixedOrder(shuffled, diagnoser);
}

/** Hunts every fault with a strategy; 60 readings count as 60 and wrong. */
export function isolate(
  strategy: string,
  diagnoser: Diagnoser,
  faults: readonly Hypothesis[],
  choose: (k: number) => PointChooser = () => bestNext,
): IsolationResult {
  const counts: number[] = [];
  let right = 0;
  faults.forEach((fault, k) => {
    const hunt = huntFault(
      diagnoser,
      fault.faults,
      drawParts(seededRandom(1000 + k)),
      seededRandom(5000 + k),
      choose(k),
    );
    const good = hunt.diagnosis.suspects[0]!.group.includes(fault.label) && hunt.ended === 'named';
    counts.push(good ? hunt.readings.length : 60);
    if (good) right++;
  });
  counts.sort((a, b) => a - b);
  const mean = counts.reduce((a, b) => a + b, 0) / Math.max(1, counts.length);
  return {
    strategy,
    mean,
    p95: counts[Math.floor(0.95 * (counts.length - 1))] ?? 0,
    share: right / Math.max(1, faults.length),
  };
}

/**
 * Mean depth of the greedy expected-entropy tree with multiway outcomes (equal within two combined sigma) whose
 * leaves are the groups, over the given hypotheses: a yardstick, not a bound.
 */
export function referenceDepth(diagnoser: Diagnoser, targets: readonly number[]): number {
  const { points, hypotheses } = diagnoser.predictor;
  const outcomes = points.map((p) => clusterOf(p.spreads.map((s) => s)));
  const remembered = new Map<string, number>();
  const choose = (set: readonly number[]): number => {
    const key = set.join();
    const known = remembered.get(key);
    if (known !== undefined) return known;
    let best = -1;
    let most = 1e-9;
    points.forEach((p, i) => {
      const mass = new Map<number, number>();
      let total = 0;
      for (const h of set) {
        const c = outcomes[i]![p.classOf[h]!]!;
        mass.set(c, (mass.get(c) ?? 0) + hypotheses[h]!.weight);
        total += hypotheses[h]!.weight;
      }
      if (mass.size < 2) return;
      let bits = 0;
      for (const m of mass.values()) bits -= (m / total) * Math.log2(m / total);
      if (bits > most) [best, most] = [i, bits];
    });
    remembered.set(key, best);
    return best;
  };
  let sum = 0;
  for (const target of targets) {
    let set = hypotheses.map((_, h) => h);
    let depth = 0;
    while (depth < 60 && set.some((h) => diagnoser.groups[h] !== diagnoser.groups[target])) {
      const i = choose(set);
      if (i < 0) break;
      const outcome = outcomes[i]![points[i]!.classOf[target]!]!;
      set = set.filter((h) => outcomes[i]![points[i]!.classOf[h]!] === outcome);
      depth++;
    }
    sum += depth;
  }
  return sum / Math.max(1, targets.length);
}

/** Number of the outcome of each class: sorted by mean, split where neighbours are more than two combined sigma apart. */
function clusterOf(
  spreads: readonly { readonly mean: number; readonly sigma: number; readonly overload: number }[],
): readonly number[] {
  const order = spreads.map((_, i) => i).sort((a, b) => spreads[a]!.mean - spreads[b]!.mean);
  const out = new Array<number>(spreads.length).fill(-1);
  let cluster = 0;
  let last: number | null = null;
  for (const i of order) {
    const s = spreads[i]!;
    if (s.overload > 0.5) continue;
    if (last !== null && s.mean - spreads[last]!.mean > 2 * Math.hypot(s.sigma, spreads[last]!.sigma)) cluster++;
    out[i] = cluster;
    last = i;
  }
  return out;
}
