import { netKey } from '../circuit';
import type { Part } from '../part';
import { spotText } from './fact';
import type { Fact, Spot } from './fact';
import type { JoinGraph } from './joinGraph';
import { pinNumber } from './makePart';

/** A fact as the ledger holds it. */
export interface TraceEntry {
  readonly id: string;
  readonly fact: Fact;
}

/** The tracing under way: parts by lower-case designator, and which nodes are joined. */
export interface TraceState {
  readonly parts: Map<string, Part>;
  readonly joins: JoinGraph;
  /** Net names in order of first mention, by key. */
  readonly names: Map<string, string>;
  readonly renamed: Map<string, string>;
}

export const pinNode = (ref: string, pin: number): string => `p ${ref.toLowerCase()} ${pin}`;
export const netNode = (name: string): string => `n ${netKey(name)}`;

/** Remembers a net's name as it was first written. */
export function mention(state: TraceState, name: string): void {
  if (!state.names.has(netKey(name))) state.names.set(netKey(name), name);
}

/** The node of a spot; null where there is no such part or pin. A net may be new: naming it makes it. */
export function spotNode(state: TraceState, spot: Spot): string | null {
  if (spot.kind === 'net') {
    mention(state, spot.net);
    return netNode(spot.net);
  }
  const part = state.parts.get(spot.ref.toLowerCase());
  if (!part) return state.names.has(netKey(spotText(spot))) ? netNode(spotText(spot)) : null;
  const pin = pinNumber(part, spot.pin);
  return pin < 0 ? null : pinNode(part.ref, pin);
}
