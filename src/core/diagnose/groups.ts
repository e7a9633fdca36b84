import { DisjointSets } from '../graph';
import type { Predictor } from './experiment';
import { separates } from './separates';

/**
 * Which hypotheses no experiment of the predictor can tell apart without lifting a leg: connected components of
 * "nowhere told apart by the reading", overload counted (contract, section 4).
 *
 * Gives for each hypothesis the number of its group; hypothesis 0 (`none`) is in group 0 with all invisible faults.
 */
export function groupHypotheses(predictor: Pick<Predictor, 'hypotheses' | 'points'>): Int32Array {
  const { hypotheses, points } = predictor;
  const n = hypotheses.length;
  const touched = Array.from({ length: n }, () => [] as number[]);
  points.forEach((point, p) => {
    for (let h = 0; h < n; h++) if (point.classOf[h] !== 0) touched[h]!.push(p);
  });
  const sets = new DisjointSets(n);
  const apart = (g: number, h: number): boolean =>
    touched[g]!.some((p) => separates(points[p]!, g, h)) || touched[h]!.some((p) => separates(points[p]!, g, h));
  for (let g = 0; g < n; g++) {
    for (let h = g + 1; h < n; h++) if (!sets.joined(g, h) && !apart(g, h)) sets.union(g, h);
  }
  const numbers = new Map<number, number>();
  return Int32Array.from({ length: n }, (_, h) => {
    const root = sets.find(h);
    if (!numbers.has(root)) numbers.set(root, numbers.size);
    return numbers.get(root)!;
  });
}
