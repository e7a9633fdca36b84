import { partFigure } from '../part';
import type { Anatomy } from './anatomy';
import type { SwitchNode } from './converter';
import { isRail, railCapacitors } from './rails';

/** The supply pin of an integrated high-side switch: its other pin on a rail with more volts than the output. */
export function icSupply(a: Anatomy, node: SwitchNode, output: string): string {
  const rails = node.ics.flatMap((ic) => ic.nets).filter((n) => n !== output && isRail(a, n));
  return rails.sort((x, y) => railVolts(a, y) - railVolts(a, x))[0] ?? output;
}

/** The printed voltage of the capacitors on a rail: how high it may be. */
export function railVolts(a: Anatomy, net: string): number {
  return Math.max(0, ...railCapacitors(a, net).flatMap((c) => c.parts.map((p) => partFigure(p, 'ratedVolts') ?? 0)));
}
