import { assertNever } from '../problem';
import type { Board, Coupling, LayoutItem } from '../circuit';
import type { Part } from '../part';
import { BLOCK_NAMES } from './elementTable';

/** Quotes a key's text where it holds a space or a semicolon. */
function keyPair(key: string, text: string): string {
  return `${key}=${/[\s;=]/u.test(text) ? `"${text}"` : text}`;
}

/** One part as an element line of the board netlist, keys in their order. */
export function partLine(part: Part): string {
  const own = part.keys.filter((k) => k.key !== 'printed').map((k) => keyPair(k.key, k.text));
  const name = elementName(part);
  const keys = name === part.ref || name === `X${part.ref}` ? own : [...own, keyPair('printed', part.ref)];
  return [name, ...operands(part), ...keys].join(' ');
}

const LETTERS: Partial<Record<Part['kind'], string>> = {
  resistor: 'R',
  capacitor: 'C',
  inductor: 'L',
  'voltage-source': 'V',
  'current-source': 'I',
  diode: 'D',
  bjt: 'Q',
  mosfet: 'M',
};

/** An element's name begins with its letter; a designator that does not gets it in front, and is kept as `printed=`. */
export function elementName(part: Part): string {
  const letter = LETTERS[part.kind] ?? 'X';
  return letter !== 'X' && part.ref.toUpperCase().startsWith(letter) ? part.ref : `${letter}${part.ref}`;
}

function operands(part: Part): readonly string[] {
  switch (part.kind) {
    case 'resistor':
    case 'capacitor':
    case 'inductor':
    case 'voltage-source':
    case 'current-source':
      return [...part.nets, part.valueText];
    case 'diode':
    case 'bjt':
    case 'mosfet':
      return [...part.nets, part.model];
    case 'ic':
      return [...part.nets, part.subcircuit];
    case 'fuse':
    case 'switch':
    case 'ntc':
    case 'mov':
    case 'bridge':
    case 'opto':
    case 'shunt-reference':
    case 'regulator':
    case 'relay':
    case 'lamp':
    case 'triac':
    case 'connector':
      return [...part.nets, BLOCK_NAMES[part.kind]];
    default:
      return assertNever(part);
  }
}

/** One coupling as an element line. */
export function couplingLine(coupling: Coupling, parts: readonly Part[]): string {
  const name = (ref: string): string => {
    const part = parts.find((p) => p.ref.toLowerCase() === ref.toLowerCase());
    return part ? elementName(part) : ref;
  };
  return `${coupling.name} ${name(coupling.first)} ${name(coupling.second)} ${coupling.factor}`;
}

/**
 * Writes a board netlist.
 *
 * A line that still says the same as when it was read is written back exactly as it was, comments and all;
 * changed parts are written anew in their old place, new ones before the insides and models, removed ones left out.
 */
export function writeNetlist(board: Board): string {
  const parts = new Map(board.parts.map((p) => [p.ref.toLowerCase(), p]));
  const couplings = new Map(board.couplings.map((c) => [c.name.toLowerCase(), c]));
  const models = new Set(board.models.keys());
  const insides = new Set(board.subcircuits.keys());
  const lines: string[] = [];
  let newPartsAt = -1;
  const write = (item: LayoutItem): string | undefined => {
    if (item.kind === 'verbatim') return item.written;
    const key = item.name.toLowerCase();
    if (item.kind === 'part') return take(parts, key, (p) => inPlace(item, partLine(p)));
    if (item.kind === 'coupling') return take(couplings, key, (c) => inPlace(item, couplingLine(c, board.parts)));
    if (item.kind === 'model') return models.delete(key) ? board.models.get(key)?.written : undefined;
    return insides.delete(key) ? board.subcircuits.get(key)?.written.join('\n') : undefined;
  };
  for (const item of board.layout) {
    const text = write(item);
    if (text === undefined) continue;
    lines.push(text);
    if (item.kind === 'part' || item.kind === 'coupling') newPartsAt = lines.length;
  }
  const added = [
    ...[...parts.values()].map(partLine),
    ...[...couplings.values()].map((c) => couplingLine(c, board.parts)),
  ];
  lines.splice(newPartsAt < 0 ? 0 : newPartsAt, 0, ...added);
  const tail = lines.findIndex((l) => /^\.end\s*$/imu.test(l));
  const rest = [
    ...[...insides].flatMap((key) => board.subcircuits.get(key)?.written ?? []),
    ...[...models].flatMap((key) => board.models.get(key)?.written ?? []),
  ];
  lines.splice(tail < 0 ? lines.length : tail, 0, ...rest);
  return `${[board.title, ...lines].join('\n')}\n`;
}

function take<T>(left: Map<string, T>, key: string, write: (item: T) => string): string | undefined {
  const item = left.get(key);
  if (item === undefined) return undefined;
  left.delete(key);
  return write(item);
}

function inPlace(item: { readonly written: string; readonly canonical: string }, now: string): string {
  if (item.canonical === now) return item.written;
  const comment = /\s*;[^"]*$/u.exec(item.written)?.[0] ?? '';
  return `${now}${comment}`;
}
