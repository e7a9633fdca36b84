import type { Predicted } from './experiment';
import { distinguishable } from './outcome';

/** Whether two hypotheses can be told apart at a point. */
export function separates(point: Predicted, g: number, h: number): boolean {
  const [a, b] = [point.classOf[g]!, point.classOf[h]!];
  if (a === b) return false;
  const known = apartAt.get(point) ?? new Map<number, boolean>();
  apartAt.set(point, known);
  const key = Math.min(a, b) * point.spreads.length + Math.max(a, b);
  const told = known.get(key);
  if (told !== undefined) return told;
  const made = distinguishable(point.spreads[a]!, point.spreads[b]!);
  known.set(key, made);
  return made;
}

/** What was told apart before: every pair of classes is asked for by many pairs of hypotheses. */
const apartAt = new WeakMap<Predicted, Map<number, boolean>>();
