import { findPart } from '../circuit';
import type { Board } from '../circuit';
import type { KeyText, Part } from '../part';
import { invariant, ok, refuse } from '../problem';
import type { Problem, Result } from '../problem';
import type { Basis } from '../quantity';
import { netlistNumber, netlistText } from './netlistNumber';

export type NoSuchPart = Problem<'no-such-part', { readonly ref: string }>;

/** What a technician says about a place of a typical circuit. `value` in SI units; `mark` as printed. */
export interface PartStatement {
  readonly value?: number;
  readonly mark?: string;
  readonly ratedVolts?: number;
  readonly basis: Basis;
}

/** "On my board it is …": replaces what was assumed about a part by what was seen or measured. */
export function statePart(board: Board, ref: string, said: PartStatement): Result<Board, NoSuchPart> {
  return change(board, ref, (part) => {
    let keys = part.keys;
    if (said.mark !== undefined) keys = withKey(keys, 'mark', plainText(said.mark));
    if (said.ratedVolts !== undefined) keys = withKey(keys, 'vr', netlistText(said.ratedVolts));
    keys = withKey(withoutKey(keys, 'fit'), 'basis', said.basis);
    const numbers = said.ratedVolts === undefined ? part.numbers : { ...part.numbers, vr: said.ratedVolts };
    const changed = { ...part, keys, numbers, basis: said.basis, fitted: true } as Part;
    if (said.value === undefined || !('value' in changed)) return withBlockValue(changed, said.value);
    return { ...changed, value: said.value, valueText: netlistText(said.value) };
  });
}

/** What stands between double quotes in a netlist must not hold one, nor a line's end. */
function plainText(text: string): string {
  return text.replace(/"/gu, '″').replace(/\s+/gu, ' ').trim();
}

/** A fuse, NTC, lamp or relay coil has its ohm in a key of its own. */
function withBlockValue(part: Part, value: number | undefined): Part {
  const key = { fuse: 'ir', ntc: 'r25', lamp: 'r', relay: 'rcoil' }[part.kind as 'fuse' | 'ntc' | 'lamp' | 'relay'];
  if (value === undefined || key === undefined) return part;
  const text = netlistText(value);
  return { ...part, keys: withKey(part.keys, key, text), numbers: { ...part.numbers, [key]: netlistNumber(text)! } };
}

/** "Not on my board": the place stays listed as an empty position and conducts nothing. */
export function emptyPlace(board: Board, ref: string): Result<Board, NoSuchPart> {
  return change(board, ref, emptyPosition);
}

/** The part's position seen empty. */
export function emptyPosition(part: Part): Part {
  return { ...part, fitted: false, basis: 'seen', keys: withKey(withKey(part.keys, 'fit', 'no'), 'basis', 'seen') };
}

/** Marks every part of a board as assumed: a typical circuit is nobody's board yet. */
export function assumeAll(board: Board): Board {
  return {
    ...board,
    parts: board.parts.map((part) => ({ ...part, basis: 'assumed', keys: withKey(part.keys, 'basis', 'assumed') })),
  };
}

function change(board: Board, ref: string, edit: (part: Part) => Part): Result<Board, NoSuchPart> {
  const found = findPart(board, ref);
  if (!found) {
    return refuse({
      code: 'no-such-part',
      sentence: `There is no part ${ref} on this board.`,
      remedy: 'Nothing was changed.',
      details: { ref },
    });
  }
  const edited = edit(found);
  invariant(edited.ref === found.ref, 'editing keeps the designator');
  return ok({ ...board, parts: board.parts.map((p) => (p === found ? edited : p)) });
}

/** The keys with one of them set. */
export function withKey(keys: readonly KeyText[], key: string, text: string): readonly KeyText[] {
  const has = keys.some((k) => k.key.toLowerCase() === key);
  return has ? keys.map((k) => (k.key.toLowerCase() === key ? { ...k, text } : k)) : [...keys, { key, text }];
}

function withoutKey(keys: readonly KeyText[], key: string): readonly KeyText[] {
  return keys.filter((k) => k.key.toLowerCase() !== key);
}
