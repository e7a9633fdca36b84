import type { Diagnoser, PointChooser, Predicted, ProbePoint } from '@/core/diagnose';
import { distinguishable, pointKey } from '@/core/diagnose';
import { DisjointSets } from '@/core/graph';
import type { Random } from '@/core/quantity';

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

/**
 * Mean depth of the greedy expected-entropy tree over outcomes that one reading tells apart (`distinguishable`), whose
 * leaves are the groups, over the given hypotheses: a yardstick, not a bound.
 */
export function referenceDepth(diagnoser: Diagnoser, targets: readonly number[]): number {
  const { points, hypotheses } = diagnoser.predictor;
  const outcomes = points.map(clusterOf);
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

/** Number of the outcome of each class at a point: classes that one reading cannot tell apart come out the same. */
function clusterOf(point: Predicted): Int32Array {
  const n = point.spreads.length;
  const sets = new DisjointSets(n);
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++)
      if (!sets.joined(a, b) && !distinguishable(point.spreads[a]!, point.spreads[b]!)) sets.union(a, b);
  return Int32Array.from({ length: n }, (_, c) => sets.find(c));
}
