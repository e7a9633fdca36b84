import { netKey, placesOnNet } from '../circuit';
import { pointKey } from '../diagnose';
import type { ProbePoint } from '../diagnose';
import type { ThreatReadings } from './threatReadings';
import { separates } from './threatReadings';

/** A reading that could clear something: the threats that it rules out on a healthy board, and what it costs. */
export interface Clearing {
  readonly point: ProbePoint;
  readonly rules: ReadonlySet<number>;
  readonly cost: number;
}

/** A reading costs one, and a little more the longer it settles and the harder its places are to reach. */
const COST_OF_SECOND = 0.004;
const COST_OF_EASE = 0.01;
const PATIENT_SECONDS = 120;
/** Branches tried before the best cover so far is taken. */
const MOST_TRIES = 300;

/**
 * Every reading worth thinking of for clearing, with what each would rule out. Made once for a board: yields after
 * each reading, so that the caller can hand the thread back; returns the choices.
 */
export function* clearingChoices(readings: ThreatReadings): Generator<undefined, readonly Clearing[]> {
  const { board, path } = readings;
  const choices: Clearing[] = [];
  const ease = (net: string): number => placesOnNet(board, net)[0]?.ease ?? 9;
  const tried = new Set<string>();
  const left = new Set(path.threats.keys());
  const consider = (point: ProbePoint): void => {
    const key = pointKey(point);
    if (tried.has(key)) return;
    tried.add(key);
    const healthy = readings.healthy(point);
    const rules = new Set<number>();
    for (const [i, threat] of readings.under(point)) if (separates(threat, healthy)) rules.add(i);
    if (rules.size === 0) return;
    const cost =
      1 +
      COST_OF_SECOND * Math.min(PATIENT_SECONDS, readings.settle(point)) +
      COST_OF_EASE * (ease(point.red) + ease(point.black));
    choices.push({ point, rules, cost });
    for (const i of rules) left.delete(i);
  };
  const ends = terminals(readings, ease);
  for (const { kind, red, black } of path.threats) {
    if (kind === 'path') continue;
    consider({ mode: 'ohms', red, black });
    consider({ mode: 'ohms', red: black, black: red });
    yield;
  }
  for (const red of ends)
    for (const black of ends) {
      if (red === black || !readings.together(red, black)) continue;
      consider({ mode: 'diode', red, black });
      yield;
    }
  // What no diode test tells, ohms may: a low resistance that belongs there, beside a lower one that does not.
  for (const i of [...left]) {
    const { kind, red, black } = path.threats[i]!;
    if (kind !== 'path' || !left.has(i)) continue;
    consider({ mode: 'ohms', red, black });
    consider({ mode: 'ohms', red: black, black: red });
    yield;
  }
  return choices;
}

/** The easiest place of each group of nets that are one but for burnt parts, over all threats. */
function terminals({ path }: ThreatReadings, ease: (net: string) => number): readonly string[] {
  const best = new Map<string, string>();
  for (const { kind, red, black } of path.threats) {
    if (kind !== 'path') continue;
    for (const net of [red, black]) {
      const group = path.near(netKey(net));
      const known = best.get(group);
      if (known === undefined || ease(net) < ease(known)) best.set(group, net);
    }
  }
  return [...best.values()];
}

/**
 * The cheapest set of readings that together rule out every wanted threat that any of them can: branch and bound on
 * what is left after domination, seeded by the greedy set; exact on small lists, never worse than greedy.
 */
export function cheapestCover(wanted: ReadonlySet<number>, choices: readonly Clearing[]): readonly Clearing[] {
  const useful = choices
    .map((c) => ({ choice: c, covers: new Set([...c.rules].filter((i) => wanted.has(i))) }))
    .filter((c) => c.covers.size > 0)
    .sort((a, b) => b.covers.size - a.covers.size || a.choice.cost - b.choice.cost);
  const kept: typeof useful = [];
  for (const c of useful) {
    const beaten = kept.some((k) => k.choice.cost <= c.choice.cost && [...c.covers].every((i) => k.covers.has(i)));
    if (!beaten) kept.push(c);
  }
  const able = new Set(kept.flatMap((k) => [...k.covers]));
  const by = new Map([...able].map((i) => [i, kept.filter((k) => k.covers.has(i))]));
  let best = greedy(able, kept);
  let bestCost = total(best);
  let budget = MOST_TRIES;
  const search = (left: ReadonlySet<number>, chosen: readonly (typeof kept)[number][], cost: number): void => {
    if (left.size === 0) {
      if (cost < bestCost) [best, bestCost] = [chosen, cost];
      return;
    }
    if (budget-- <= 0 || cost + lowerBound(left, kept) >= bestCost) return;
    // The threat that fewest readings rule out: one of those must be taken.
    let rarest: readonly (typeof kept)[number][] | null = null;
    for (const i of left) {
      const own = by.get(i)!;
      if (rarest === null || own.length < rarest.length) rarest = own;
    }
    const order = [...rarest!].sort((a, b) => gain(b.covers, left) - gain(a.covers, left));
    for (const k of order) {
      const rest = new Set([...left].filter((i) => !k.covers.has(i)));
      search(rest, [...chosen, k], cost + k.choice.cost);
    }
  };
  search(able, [], 0);
  return best.map((b) => b.choice);
}

interface Cover {
  readonly choice: Clearing;
  readonly covers: ReadonlySet<number>;
}

const total = (list: readonly Cover[]): number => list.reduce((sum, c) => sum + c.choice.cost, 0);

function gain(covers: ReadonlySet<number>, left: ReadonlySet<number>): number {
  let n = 0;
  for (const i of covers) if (left.has(i)) n++;
  return n;
}

/** No set can be smaller than what is left over the most that one reading takes. */
function lowerBound(left: ReadonlySet<number>, kept: readonly Cover[]): number {
  let most = 1;
  for (const k of kept) most = Math.max(most, gain(k.covers, left));
  return Math.ceil(left.size / most);
}

function greedy(able: ReadonlySet<number>, kept: readonly Cover[]): readonly Cover[] {
  const left = new Set(able);
  const chosen: Cover[] = [];
  while (left.size > 0) {
    let next: Cover | null = null;
    let worth = 0;
    for (const k of kept) {
      const w = gain(k.covers, left) / k.choice.cost;
      if (w > worth) [next, worth] = [k, w];
    }
    if (!next) break;
    chosen.push(next);
    for (const i of next.covers) left.delete(i);
  }
  return chosen.filter((c, n) => {
    const others = chosen.filter((_, m) => m !== n);
    return [...c.covers].some((i) => !others.some((o) => o.covers.has(i)));
  });
}
