import { partFigure } from '../part';
import type { Part } from '../part';
import { mayBeOneNet } from './referenceReadings';
import { pinNode, spotNode } from './traceState';
import type { TraceEntry, TraceState } from './traceState';
import { isCheck, spotText } from './fact';
import type { Check } from './fact';

/** Facts that cannot all be true: withdraw one of them. */
export interface Contradiction {
  readonly facts: readonly string[];
  readonly sentence: string;
}

/** A beep that a part may have carried: it needs ohms or a lifted leg before it counts as joined. */
export interface OpenQuestion {
  readonly fact: string;
  readonly parts: readonly string[];
  readonly sentence: string;
}

/** Up to this many ohm a tester beeps. */
const BEEP_OHMS = 30;
/** What shorted leads read at most. */
const RESIDUAL_OHMS = 0.3;
/** From here on a reading between two points shows that they are two nets. */
const APART_OHMS = 2;

/** A diode test that shows no more than this is a beep as well. */
export const BEEP_VOLTS = 0.03;

/**
 * Settles beeps and ohms: what becomes joined, what stays open and what contradicts.
 *
 * A beep is only a low path. It becomes joined where no low-ohm part can carry it; where one does, nothing follows;
 * where one might, it is asked. Ohms below the residual of the leads join where no part of next to no ohms is across.
 */
export function settleContinuity(
  state: TraceState,
  entries: readonly TraceEntry[],
): { readonly contradictions: readonly Contradiction[]; readonly questions: readonly OpenQuestion[] } {
  const checks = entries.flatMap(({ id, fact }) => (isCheck(fact) ? [{ id, fact }] : []));
  const questions: OpenQuestion[] = [];
  const low = lowParts(state);
  let mayBeOne = sayingWhatMayBeOne(state, checks);
  for (const { id, fact } of checks) {
    const limit = lowLimit(fact);
    if (limit === null) continue;
    const [a, b] = nodesOf(state, fact);
    if (state.joins.joined(a, b)) continue;
    const carriers = carriersBetween(state, low, a, b, limit, mayBeOne);
    if (carriers.known) continue;
    if (carriers.possible.length > 0) {
      const words = `${spotText(fact.spots[0])} to ${spotText(fact.spots[1])}`;
      questions.push({
        fact: id,
        parts: carriers.possible,
        sentence: `${words} is a low path, but ${carriers.possible.slice(0, 3).join(', ')} may carry it: read the ohms, or lift a leg.`,
      });
    } else {
      state.joins.add({ a, b, fact: id });
      mayBeOne = sayingWhatMayBeOne(state, checks);
    }
  }
  const contradictions: Contradiction[] = [];
  for (const { id, fact } of checks) {
    const [a, b] = nodesOf(state, fact);
    const says = apartWords(fact);
    if (says === null || !state.joins.joined(a, b)) continue;
    const chain = state.joins.chain(a, b);
    contradictions.push({
      facts: [id, ...chain.filter((f) => f !== id)],
      sentence: `${spotText(fact.spots[0])} and ${spotText(fact.spots[1])} ${says}, yet other facts make them one net.`,
    });
  }
  return { contradictions, questions };
}

/** The ohms of a part that may be what a low path went through; null for what is none. */
function lowLimit(fact: Check): number | null {
  if (fact.kind === 'low-path' || (fact.kind === 'drops' && (fact.volts ?? Infinity) <= BEEP_VOLTS)) return BEEP_OHMS;
  return fact.kind === 'reads' && fact.ohms <= RESIDUAL_OHMS ? RESIDUAL_OHMS : null;
}

/** What a check says against its places being one net; null where it says nothing. */
function apartWords(fact: Check): string | null {
  if (fact.kind === 'not-joined') return 'were checked and are not joined';
  if (fact.kind === 'reads') return fact.ohms > APART_OHMS ? `read ${fact.ohms} Ω` : null;
  if (fact.kind === 'low-path' || (fact.volts ?? Infinity) <= BEEP_VOLTS) return null;
  return `read ${fact.volts === null ? 'OL' : `${fact.volts} V`} by diode test`;
}

function nodesOf(state: TraceState, fact: Check): readonly [string, string] {
  return [spotNode(state, fact.spots[0])!, spotNode(state, fact.spots[1])!];
}

/** Ohms of a part between two of its pins as far as known; null where it carries no beep. */
function carriedOhms(part: Part): { readonly pins: readonly [number, number]; readonly ohms: number } | null {
  switch (part.kind) {
    case 'fuse':
    case 'switch':
      return { pins: [0, 1], ohms: 0.05 };
    case 'relay':
      return { pins: [2, 3], ohms: 0.05 };
    case 'inductor':
      return { pins: [0, 1], ohms: partFigure(part, 'windingOhms') ?? 0 };
    case 'ntc':
      return { pins: [0, 1], ohms: partFigure(part, 'ohmsAt25') ?? 5 };
    case 'resistor':
      return { pins: [0, 1], ohms: part.basis === 'assumed' ? 0 : part.value };
    default:
      return null;
  }
}

/** A part that may carry a beep, with the nodes of its two ends. */
interface LowPart {
  readonly part: Part;
  readonly ohms: number;
  readonly ends: readonly [string, string];
}

function lowParts(state: TraceState): readonly LowPart[] {
  return [...state.parts.values()].flatMap((part) => {
    const carried = part.fitted ? carriedOhms(part) : null;
    if (!carried || carried.ohms > BEEP_OHMS) return [];
    const [p, q] = carried.pins;
    return [{ part, ohms: carried.ohms, ends: [pinNode(part.ref, p), pinNode(part.ref, q)] as const }];
  });
}

/** Low-ohm parts that surely lie between two nodes, alone or in a row; and such as may, with a pin not followed yet. */
function carriersBetween(
  state: TraceState,
  all: readonly LowPart[],
  a: string,
  b: string,
  limit: number,
  mayBeOne: (x: string, y: string) => boolean,
): { readonly known: boolean; readonly possible: readonly string[] } {
  const low = all.filter((l) => l.ohms <= limit);
  // What is joined is one place; a node without joins is a place of its own.
  const place = (node: string): string | number => state.joins.component(node) ?? node;
  const next = new Map<string | number, (string | number)[]>();
  for (const { ends } of low) {
    const [x, y] = [place(ends[0]), place(ends[1])];
    next.set(x, [...(next.get(x) ?? []), y]);
    next.set(y, [...(next.get(y) ?? []), x]);
  }
  const reached = new Set([place(a)]);
  for (const here of reached) {
    if (here === place(b)) return { known: true, possible: [] };
    for (const there of next.get(here) ?? []) reached.add(there);
  }
  const possible = low.filter(
    ({ ends: [x, y] }) => (mayBeOne(x, a) && mayBeOne(y, b)) || (mayBeOne(y, a) && mayBeOne(x, b)),
  );
  return { known: false, possible: possible.map((l) => l.part.ref) };
}

/**
 * Whether two nodes may yet turn out to be one net: not where both are nets with names, where a check parts them, or where
 * they read differently by diode test from one place.
 */
function sayingWhatMayBeOne(
  state: TraceState,
  checks: readonly { readonly fact: Check }[],
): (x: string, y: string) => boolean {
  const place = (node: string): string | number => state.joins.component(node) ?? node;
  const named = new Set([...state.names.keys()].map((key) => place(`n ${key}`)));
  const apart = new Map<string | number, Set<string | number>>();
  const columns = new Map<string | number, Map<string | number, number>>();
  for (const { fact } of checks) {
    if (apartWords(fact) === null) continue;
    const [a, b] = nodesOf(state, fact).map(place);
    apart.set(a!, (apart.get(a!) ?? new Set()).add(b!));
    if (fact.kind !== 'drops') continue;
    columns.set(a!, (columns.get(a!) ?? new Map<string | number, number>()).set(b!, fact.volts ?? Infinity));
  }
  return (first, second) => {
    const [x, y] = [place(first), place(second)];
    if (x === y) return true;
    if ((named.has(x) && named.has(y)) || apart.get(x)?.has(y) === true || apart.get(y)?.has(x) === true) return false;
    return ![...columns.values()].some(
      (read) => read.has(x) && read.has(y) && !mayBeOneNet(read.get(x)!, read.get(y)!),
    );
  };
}
