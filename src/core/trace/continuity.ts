import { partFigure } from '../part';
import type { Part } from '../part';
import { pinNode, spotNode } from './traceState';
import type { TraceEntry, TraceState } from './traceState';
import { spotText } from './fact';
import type { Fact } from './fact';

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

type Check = Extract<Fact, { kind: 'low-path' | 'not-joined' | 'reads' }>;

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
  const checks = entries.flatMap(({ id, fact }) =>
    fact.kind === 'low-path' || fact.kind === 'not-joined' || fact.kind === 'reads' ? [{ id, fact }] : [],
  );
  const questions: OpenQuestion[] = [];
  const low = lowParts(state);
  for (const { id, fact } of checks) {
    const limit =
      fact.kind === 'low-path' ? BEEP_OHMS : fact.kind === 'reads' && fact.ohms <= RESIDUAL_OHMS ? RESIDUAL_OHMS : null;
    if (limit === null) continue;
    const [a, b] = nodesOf(state, fact);
    if (state.joins.joined(a, b)) continue;
    const carriers = carriersBetween(state, low, a, b, limit);
    if (carriers.known) continue;
    if (carriers.possible.length > 0) {
      const words = `${spotText(fact.spots[0])} to ${spotText(fact.spots[1])}`;
      questions.push({
        fact: id,
        parts: carriers.possible,
        sentence: `${words} is a low path, but ${carriers.possible.slice(0, 3).join(', ')} may carry it: read the ohms, or lift a leg.`,
      });
    } else state.joins.add({ a, b, fact: id });
  }
  const contradictions: Contradiction[] = [];
  for (const { id, fact } of checks) {
    const [a, b] = nodesOf(state, fact);
    const says =
      fact.kind === 'not-joined'
        ? 'were checked and are not joined'
        : fact.kind === 'reads' && fact.ohms > APART_OHMS
          ? `read ${fact.ohms} Ω`
          : null;
    if (says === null || !state.joins.joined(a, b)) continue;
    const chain = state.joins.chain(a, b);
    contradictions.push({
      facts: [id, ...chain.filter((f) => f !== id)],
      sentence: `${spotText(fact.spots[0])} and ${spotText(fact.spots[1])} ${says}, yet other facts make them one net.`,
    });
  }
  return { contradictions, questions };
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
  const open = (node: string): boolean => state.joins.component(node) === null;
  const at = (node: string, spot: string): boolean => state.joins.joined(node, spot);
  const possible = low.filter(
    ({ ends: [x, y] }) =>
      (open(x) && open(y)) || (open(x) && (at(y, a) || at(y, b))) || (open(y) && (at(x, a) || at(x, b))),
  );
  return { known: false, possible: possible.map((l) => l.part.ref) };
}
