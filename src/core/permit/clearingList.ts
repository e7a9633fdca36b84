import { netKey, placesOnNet } from '../circuit';
import { Bits } from '../graph';
import { pointKey } from '../diagnose';
import type { ColdPoint } from '../diagnose';
import type { ThreatReadings } from './threatReadings';
import { separates } from './threatReadings';

/** A reading that could clear something: the threats that it rules out on a healthy board, and what it costs. */
export interface Clearing {
  readonly point: ColdPoint;
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
  const eases = new Map<string, number>();
  const ease = (net: string): number => {
    const known = eases.get(net) ?? placesOnNet(board, net)[0]?.ease ?? 9;
    eases.set(net, known);
    return known;
  };
  const tried = new Set<string>();
  const left = new Set(path.threats.keys());
  const consider = (point: ColdPoint): void => {
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
  const numberOf = new Map([...wanted].map((threat, k) => [threat, k]));
  const useful = choices
    .map((choice): Cover => {
      const covers = new Bits(wanted.size);
      for (const threat of choice.rules) {
        const k = numberOf.get(threat);
        if (k !== undefined) covers.add(k);
      }
      return { choice, covers, size: covers.size };
    })
    .filter((c) => c.size > 0)
    .sort((a, b) => b.size - a.size || a.choice.cost - b.choice.cost);
  const kept: Cover[] = [];
  for (const c of useful)
    if (!kept.some((k) => k.choice.cost <= c.choice.cost && k.covers.holds(c.covers))) kept.push(c);
  const able = new Bits(wanted.size);
  for (const k of kept) able.addAll(k.covers);
  const by = Array.from({ length: wanted.size }, (_, i) => kept.filter((k) => k.covers.has(i)));
  let best = greedy(able, kept);
  let bestCost = total(best);
  let budget = MOST_TRIES;
  const search = (left: Bits, chosen: readonly Cover[], cost: number): void => {
    if (left.size === 0) {
      if (cost < bestCost) [best, bestCost] = [chosen, cost];
      return;
    }
    if (budget-- <= 0 || cost + lowerBound(left, kept) >= bestCost) return;
    // The threat that fewest readings rule out: one of those must be taken.
    let rarest: readonly Cover[] | null = null;
    for (let i = 0; i < by.length; i++) {
      const own = by[i]!;
      if (left.has(i) && (rarest === null || own.length < rarest.length)) rarest = own;
    }
    const order = rarest!.map((k) => ({ k, gain: k.covers.shared(left) })).sort((a, b) => b.gain - a.gain);
    for (const { k } of order) search(left.without(k.covers), [...chosen, k], cost + k.choice.cost);
  };
  search(able, [], 0);
  return best.map((b) => b.choice);
}

interface Cover {
  readonly choice: Clearing;
  /** Numbers of the wanted threats that it rules out, and how many they are. */
  readonly covers: Bits;
  readonly size: number;
}

const total = (list: readonly Cover[]): number => list.reduce((sum, c) => sum + c.choice.cost, 0);

/** No set can be smaller than what is left over the most that one reading takes. */
function lowerBound(left: Bits, kept: readonly Cover[]): number {
  let most = 1;
  for (const k of kept) most = Math.max(most, k.covers.shared(left));
  return Math.ceil(left.size / most);
}

function greedy(able: Bits, kept: readonly Cover[]): readonly Cover[] {
  let left = able;
  const chosen: Cover[] = [];
  while (left.size > 0) {
    let next: Cover | null = null;
    let worth = 0;
    for (const k of kept) {
      const w = k.covers.shared(left) / k.choice.cost;
      if (w > worth) [next, worth] = [k, w];
    }
    if (!next) break;
    chosen.push(next);
    left = left.without(next.covers);
  }
  return chosen.filter((c, n) => {
    const others = new Bits(able.length);
    for (const [m, o] of chosen.entries()) if (m !== n) others.addAll(o.covers);
    return !others.holds(c.covers);
  });
}
