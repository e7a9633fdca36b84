import { partText } from '../part';
import { BOARD_LIMITS, netKey } from '../circuit';
import type { Board, Coupling } from '../circuit';
import type { Model, Part } from '../part';
import { emptyPosition, withKey } from '../netlist';
import { settleContinuity } from './continuity';
import type { Contradiction, OpenQuestion } from './continuity';
import type { Fact, Spot } from './fact';
import { isCheck, spotText } from './fact';
import { JoinGraph } from './joinGraph';
import { makePart, pinNumber } from './makePart';
import { mention, netNode, pinNode, spotNode } from './traceState';
import type { TraceEntry, TraceState } from './traceState';
import { pinCount } from './partWords';

/** A fact that says nothing about this board, with the reason. */
export interface Misfit {
  readonly id: string;
  readonly sentence: string;
}

/** The board that follows from its start and the facts, and what does not add up. */
export interface TracedBoard {
  readonly board: Board;
  readonly contradictions: readonly Contradiction[];
  readonly questions: readonly OpenQuestion[];
  readonly misfits: readonly Misfit[];
  /** Continuity checks written down so far. */
  readonly touches: number;
}

/**
 * Derives the board from its start and the facts in their order.
 *
 * Nets are what joins make of pins and names; a fact left out leaves no trace. Facts that contradict each other are
 * named, the board then keeps what is joined.
 */
export function deriveBoard(base: Board, entries: readonly TraceEntry[]): TracedBoard {
  const state: TraceState = { parts: new Map(), joins: new JoinGraph(), names: new Map(), renamed: new Map() };
  const models = new Map<string, Model>(base.models);
  const sheet: Record<string, Record<string, number>> = Object.fromEntries(
    Object.entries(base.facts ?? {}).map(([ref, f]) => [ref, { ...f }]),
  );
  for (const part of base.parts)
    placePart(
      state,
      part,
      part.nets.map((net, pin) => ({ pin, net })),
      null,
    );
  const misfits: Misfit[] = [];
  for (const { id, fact } of entries) {
    const trouble = apply(state, models, sheet, id, fact);
    if (trouble !== null) misfits.push({ id, sentence: trouble });
  }
  const odd = new Set(misfits.map((m) => m.id));
  const continuity = settleContinuity(
    state,
    entries.filter((e) => !odd.has(e.id)),
  );
  const nameOf = netNames(state);
  const parts = [...state.parts.values()].map(
    (part) => ({ ...part, nets: part.nets.map((_, pin) => nameOf(part, pin)) }) as Part,
  );
  const plate = entries.flatMap(({ fact }) => (fact.kind === 'plate' ? [fact.plate] : [])).at(-1);
  const board: Board = {
    ...base,
    ...(plate ? { nameplate: plate } : {}),
    parts,
    couplings: couplingsOf(base, parts),
    models,
    ...(Object.keys(sheet).length === 0 ? {} : { facts: sheet }),
  };
  return {
    board,
    ...continuity,
    misfits,
    touches: entries.filter(({ fact }) => fact.kind === 'joined' || isCheck(fact)).length,
  };
}

function apply(
  state: TraceState,
  models: Map<string, Model>,
  sheet: Record<string, Record<string, number>>,
  id: string,
  fact: Fact,
): string | null {
  switch (fact.kind) {
    case 'part':
      return applyPart(state, models, id, fact);
    case 'joined': {
      const nodes = fact.spots.map((s) => spotNode(state, s));
      const lost = nodes.findIndex((n) => n === null);
      if (lost >= 0) return noSpot(fact.spots[lost]!);
      nodes.slice(1).forEach((node, i) => state.joins.add({ a: nodes[i]!, b: node!, fact: id }));
      return null;
    }
    case 'low-path':
    case 'not-joined':
    case 'reads':
    case 'drops': {
      const lost = fact.spots.find((s) => spotNode(state, s) === null);
      return lost ? noSpot(lost) : null;
    }
    case 'rename': {
      const [ref = '', pin = ''] = fact.from.split('.');
      const node =
        pin !== '' && state.parts.has(ref.toLowerCase())
          ? spotNode(state, { kind: 'pin', ref, pin })
          : state.names.has(netKey(fact.from))
            ? netNode(fact.from)
            : null;
      if (node === null) return `There is no net ${fact.from} on this board.`;
      mention(state, fact.to);
      state.joins.add({ a: node, b: netNode(fact.to), fact: id });
      state.renamed.set(netKey(fact.from), fact.to);
      return null;
    }
    case 'split': {
      const nodes = fact.pins.map((s) => spotNode(state, s));
      const lost = nodes.findIndex((n) => n === null);
      if (lost >= 0) return noSpot(fact.pins[lost]!);
      mention(state, fact.to);
      for (const node of nodes) {
        state.joins.detach(node!);
        state.joins.add({ a: node!, b: netNode(fact.to), fact: id });
      }
      return null;
    }
    case 'drop':
    case 'empty':
    case 'settled': {
      const part = state.parts.get(fact.ref.toLowerCase());
      if (!part) return noPart(fact.ref);
      if (fact.kind === 'drop') {
        part.nets.forEach((_, pin) => state.joins.detach(pinNode(part.ref, pin)));
        state.parts.delete(fact.ref.toLowerCase());
      } else
        state.parts.set(
          fact.ref.toLowerCase(),
          fact.kind === 'empty' ? emptyPosition(part) : { ...part, keys: withKey(part.keys, fact.key, fact.value) },
        );
      return null;
    }
    case 'datasheet': {
      const part = state.parts.get(fact.ref.toLowerCase());
      if (!part) return noPart(fact.ref);
      sheet[part.ref] = { ...sheet[part.ref], ...fact.values };
      return null;
    }
    case 'plate':
      return null;
  }
}

function applyPart(
  state: TraceState,
  models: Map<string, Model>,
  id: string,
  fact: Extract<Fact, { kind: 'part' }>,
): string | null {
  const before = state.parts.get(fact.ref.toLowerCase());
  const numbered = (fact.pins ?? []).map((p) => (typeof p.pin === 'number' ? p.pin : Number(p.pin)));
  const most = Math.max(0, ...numbered.filter((n) => Number.isInteger(n)));
  const kind = fact.kindSaid ? fact.partKind : (before?.kind ?? fact.partKind);
  const count =
    kind === undefined || kind === null ? most : (pinCount(kind) ?? Math.max(most, before?.nets.length ?? 0));
  if (count === 0) return `${fact.ref} is not on this board yet: name its pins' nets, ? for one not followed.`;
  const { part, model } = makePart(fact, before, count);
  const trouble = partTrouble(part);
  if (trouble !== null) return trouble;
  if (model && !models.has(model.name.toLowerCase())) models.set(model.name.toLowerCase(), model);
  const places: { pin: number; net: string }[] = [];
  for (const { pin, net } of fact.pins ?? []) {
    const index = pinNumber(part, pin);
    if (index < 0) return `${fact.ref} has no pin ${pin}.`;
    places.push({ pin: index, net });
  }
  if (!before) {
    placePart(state, part, places, id);
    return null;
  }
  state.parts.set(fact.ref.toLowerCase(), part);
  // What is said of a pin again replaces what was said of it before.
  for (const { pin, net } of places) {
    if (net === '?') continue;
    state.joins.detach(pinNode(part.ref, pin));
    place(state, part.ref, pin, net, id);
  }
  return null;
}

/** What is impossible about a part as a line makes it; null when it is sound. */
function partTrouble(part: Part): string | null {
  const source = part.kind === 'voltage-source' || part.kind === 'current-source';
  if ('value' in part && !source && !(part.value >= 0 && part.value <= BOARD_LIMITS.value))
    return `${part.ref} cannot have the value ${part.valueText}.`;
  const odd = Object.entries(part.numbers).find(([, n]) => !(n >= 0 && n <= BOARD_LIMITS.value));
  if (odd) return `${odd[0]}= of ${part.ref} is no figure that a part can have.`;
  if (part.kind === 'ic' && part.subcircuit === '') return `The marking of ${part.ref} is empty.`;
  if (part.keys.length > BOARD_LIMITS.keys) return `${part.ref} has more than ${BOARD_LIMITS.keys} key=value pairs.`;
  return part.keys.some((k) => k.text.length > BOARD_LIMITS.textLength) ? `A value of ${part.ref} is too long.` : null;
}

function placePart(
  state: TraceState,
  part: Part,
  places: readonly { readonly pin: number; readonly net: string }[],
  fact: string | null,
): void {
  state.parts.set(part.ref.toLowerCase(), part);
  for (const { pin, net } of places) if (net !== '?') place(state, part.ref, pin, net, fact);
}

function place(state: TraceState, ref: string, pin: number, net: string, fact: string | null): void {
  // A pin not followed yet is written with its own name as its net.
  if (netKey(net) === `${ref}.${pin + 1}`.toLowerCase()) return;
  mention(state, net);
  // Pins that are not connected are not joined to each other.
  const node = netKey(net) === 'nc' ? `${netNode(net)} ${ref} ${pin}` : netNode(net);
  state.joins.add({ a: pinNode(ref, pin), b: node, fact });
}

function noSpot(spot: Spot): string {
  return spot.kind === 'pin'
    ? `There is no pin ${spotText(spot)} on this board.`
    : `There is no net ${spot.net} on this board.`;
}

function noPart(ref: string): string {
  return `There is no part ${ref} on this board.`;
}

/**
 * The name of a pin's net: what it was renamed to last, else the first name it was given, else its first pin.
 *
 * Each component's name is found once.
 */
function netNames(state: TraceState): (part: Part, pin: number) => string {
  const named = new Map<number, string>();
  const once = (node: string, name: string): void => {
    const component = state.joins.component(node);
    if (component !== null && !named.has(component)) named.set(component, name);
  };
  for (const [from, to] of [...state.renamed].reverse()) if (from !== netKey(to)) once(netNode(to), to);
  for (const [key, name] of state.names) once(`n ${key}`, name);
  for (const part of state.parts.values())
    for (let pin = 0; pin < part.nets.length; pin++) once(pinNode(part.ref, pin), `${part.ref}.${pin + 1}`);
  return (part, pin) => {
    const node = pinNode(part.ref, pin);
    const component = state.joins.component(node);
    if (component === null) return `${part.ref}.${pin + 1}`;
    return state.joins.joined(node, `${netNode('NC')} ${part.ref} ${pin}`) ? 'NC' : named.get(component)!;
  };
}

/** Couplings of the start, and of the windings that lines of the shorthand put on one core. */
function couplingsOf(base: Board, parts: readonly Part[]): readonly Coupling[] {
  const refs = new Set(parts.map((p) => p.ref.toLowerCase()));
  const kept = base.couplings.filter((k) => refs.has(k.first.toLowerCase()) && refs.has(k.second.toLowerCase()));
  const has = (a: string, b: string): boolean =>
    kept.some(
      (k) =>
        [k.first, k.second]
          .map((x) => x.toLowerCase())
          .sort()
          .join() ===
        [a, b]
          .map((x) => x.toLowerCase())
          .sort()
          .join(),
    );
  const cores = new Map<string, Part[]>();
  for (const p of parts) {
    const core = p.kind === 'inductor' ? partText(p, 'pkg') : undefined;
    if (core !== undefined) cores.set(core, [...(cores.get(core) ?? []), p]);
  }
  const made: Coupling[] = [];
  for (const [core, windings] of cores) {
    windings.forEach((w, i) =>
      windings.slice(0, i).forEach((v) => {
        if (!has(v.ref, w.ref))
          made.push({
            name: `K${core}${v.ref.slice(core.length)}${w.ref.slice(core.length)}`,
            first: v.ref,
            second: w.ref,
            factor: 0.98,
          });
      }),
    );
  }
  return [...kept, ...made];
}
