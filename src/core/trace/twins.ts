import { netKey, pinNames } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { pinType } from './pinType';

/** Parts that the netlist puts in the same place: what is read at one should be read at the others. */
export interface TwinSet {
  readonly refs: readonly string[];
  readonly words: string;
}

const ROUNDS = 6;

/**
 * Finds parts that are alike in kind, value and everything around them: the two sides of a half-bridge, parallel
 * devices, legs, channels.
 *
 * Colour refinement (Weisfeiler and Leman 1968) on parts and nets: a part's colour is its kind, value and the colours
 * of its nets, a net's the colours of its pins; parts that still share a colour after some rounds are twins. Nothing is
 * asked of names, and half a board will do.
 */
export function findTwins(board: Board): readonly TwinSet[] {
  const parts = board.parts.filter((p) => p.fitted && p.nets.length <= 8);
  let netColour = new Map<string, string>();
  let colours = new Map<string, string>();
  for (let round = 0; round < ROUNDS; round++) {
    colours = compact(new Map(parts.map((p) => [p.ref, partColour(board, p, netColour)])));
    netColour = compact(netColours(parts, colours));
  }
  const sets = new Map<string, Part[]>();
  for (const p of parts) sets.set(colours.get(p.ref)!, [...(sets.get(colours.get(p.ref)!) ?? []), p]);
  return [...sets.values()]
    .filter((s) => s.length > 1 && s[0]!.kind !== 'connector')
    .map((s) => ({ refs: s.map((p) => p.ref), words: wordsOf(s) }))
    .sort((a, b) => telling(board, b) - telling(board, a));
}

function partColour(board: Board, part: Part, nets: ReadonlyMap<string, string>): string {
  const value =
    'value' in part
      ? part.value.toPrecision(4)
      : 'model' in part
        ? part.model
        : 'subcircuit' in part
          ? part.subcircuit
          : '';
  const ends = part.nets.map(
    (n, i) => `${pinType(board, part, i)}:${netKey(n) === 'nc' ? 'nc' : (nets.get(netKey(n)) ?? '')}`,
  );
  const unordered = part.kind === 'resistor' || part.kind === 'inductor' || part.kind === 'fuse';
  return `${part.kind} ${value} ${(unordered ? [...ends].sort() : ends).join(' ')}`;
}

function netColours(parts: readonly Part[], colours: ReadonlyMap<string, string>): Map<string, string> {
  const pins = new Map<string, string[]>();
  for (const p of parts) {
    // What carries no direct current leaves the readings alike: it does not tell nets apart.
    if (p.kind === 'capacitor' || p.kind === 'connector' || p.kind === 'inductor') continue;
    p.nets.forEach((n, i) => {
      if (netKey(n) !== 'nc')
        pins.set(netKey(n), [
          ...(pins.get(netKey(n)) ?? []),
          `${colours.get(p.ref)!}.${p.nets.length > 2 || p.kind === 'diode' ? i : ''}`,
        ]);
    });
  }
  return new Map([...pins].map(([net, list]) => [net, list.sort().join(' ')]));
}

/** Gives equal texts equal short numbers. */
function compact(texts: ReadonlyMap<string, string>): Map<string, string> {
  const numbers = new Map<string, string>();
  return new Map(
    [...texts].map(([key, text]) => {
      if (!numbers.has(text)) numbers.set(text, String(numbers.size));
      return [key, numbers.get(text)!];
    }),
  );
}

function wordsOf(set: readonly Part[]): string {
  const refs = set.map((p) => p.ref);
  const names = pinNames(set[0]!);
  const at = names.length === 2 ? 'across each' : `at ${names.slice(0, 3).join(', ')} of each`;
  return `${refs.slice(0, -1).join(', ')} and ${refs.at(-1)}: the same reading ${at}`;
}

/** Semiconductors tell most when they differ. */
function telling(board: Board, set: TwinSet): number {
  const kind = board.parts.find((p) => p.ref === set.refs[0])!.kind;
  return ['mosfet', 'bjt', 'ic', 'diode'].includes(kind) ? 2 : kind === 'capacitor' ? 1 : 0;
}
