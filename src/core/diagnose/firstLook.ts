import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import { solverFor } from '../meter';
import { fillDictionary } from './dictionary';
import type { DictionaryStep, FaultDictionary } from './dictionary';
import { draftPoint } from './dictionaryEntries';
import type { Hypothesis } from './hypotheses';
import { pointKey } from './posterior';
import type { ColdPoint } from './probePoint';
import { mayJump } from './steadyPoints';

/** What to work out before all else. */
export interface FirstLook {
  readonly hypotheses: readonly Hypothesis[];
  readonly points: readonly ColdPoint[];
}

const MOST_HYPOTHESES = 24;
const MOST_POINTS = 24;

/**
 * The likeliest hypotheses and the points straight across their parts: small enough to be there at once, so that the first
 * reading can be taken while all the others are worked out.
 */
export function firstLook(board: Board, hypotheses: readonly Hypothesis[]): FirstLook {
  const [none, ...rest] = hypotheses;
  const single = rest.filter((h) => h.faults.length === 1).sort((a, b) => b.weight - a.weight);
  const points = new Map<string, ColdPoint>();
  const chosen: Hypothesis[] = [];
  for (const h of single) {
    if (chosen.length >= MOST_HYPOTHESES) break;
    const across = acrossPart(board, h.faults[0]!.ref);
    // What no direct current feels is not seen by it either.
    if (across.length === 0) continue;
    chosen.push(h);
    for (const p of across) if (points.size < MOST_POINTS) points.set(pointKey(p), p);
  }
  return { hypotheses: none ? [none, ...chosen] : chosen, points: [...points.values()] };
}

/**
 * The dictionary of a first look. A point that drawn boards would have to be asked about is left to the whole one: they
 * would take longer than all else here.
 */
export function* buildFirstLook(
  board: Board,
  hypotheses: readonly Hypothesis[],
): Generator<DictionaryStep, FaultDictionary> {
  const look = firstLook(board, hypotheses);
  const healthy = solverFor(board, []);
  const drafts = look.points
    .map((p) => draftPoint(board, healthy, p, look.hypotheses.length))
    .filter((d) => !mayJump(d, healthy, d.spreads[0]!, d.healthy?.volts));
  const made = yield* fillDictionary(board, look.hypotheses, drafts);
  return { ...made, left: hypotheses.length - made.hypotheses.length };
}

/** Diode test and ohms straight across a part; across the first three pins of one that has more. */
function acrossPart(board: Board, ref: string): readonly ColdPoint[] {
  const part = findPart(board, ref);
  if (!part || part.nets.length > 4) return [];
  const nets = part.nets.slice(0, 3);
  const pairs = nets.flatMap((a, i) => nets.slice(i + 1).map((b) => [a, b] as const));
  return pairs
    .filter(([a, b]) => netKey(a) !== netKey(b) && netKey(a) !== 'nc' && netKey(b) !== 'nc')
    .flatMap(([red, black]) => [
      { mode: 'diode', red, black },
      { mode: 'ohms', red, black },
    ]);
}
