import type { StoredEntry } from '../ledger';
import { netlistText } from '../netlist';
import type { FittedPart } from '../substitute';

/** Kinds of lines that say something about what is on the board. */
export const BOARD_KINDS = ['trace', 'modification', 'replacement', 'correction'] as const;
export type BoardKind = (typeof BOARD_KINDS)[number];

/** What a ledger line says about its board, as lines of the shorthand; none for most kinds. */
export function boardFacts(entry: StoredEntry): readonly string[] {
  switch (entry.kind) {
    case 'trace':
      return [entry.body.text];
    case 'modification':
      return entry.body.facts;
    case 'replacement':
      return fittedFacts(entry.body.ref, entry.body.fitted);
    default:
      return [];
  }
}

/** The same part changes nothing; another one has other figures, and its old marking is gone with it. */
function fittedFacts(ref: string, fitted: FittedPart): readonly string[] {
  if (fitted.samePart) return [];
  const { value, ratedVolts, ratedAmps, ratedWatts } = fitted;
  const keys = [
    ...(value === undefined ? [] : [`is=${netlistText(value)}`]),
    ...(ratedVolts === undefined ? [] : [`vr=${netlistText(ratedVolts)}`]),
    ...(ratedAmps === undefined ? [] : [`ir=${netlistText(ratedAmps)}`]),
    ...(ratedWatts === undefined ? [] : [`pr=${netlistText(ratedWatts)}`]),
  ];
  return keys.length === 0 ? [] : [`${ref} ${keys.join(' ')} mark=${markOf(value, ratedVolts)} basis=seen`];
}

function markOf(value: number | undefined, ratedVolts: number | undefined): string {
  const said = [value === undefined ? '' : netlistText(value), ratedVolts === undefined ? '' : `${ratedVolts}V`];
  return said.filter((s) => s !== '').join('/') || 'replaced';
}

/** Whether a line makes its board another. */
export function saysOfBoard(entry: StoredEntry): boolean {
  return boardFacts(entry).length > 0 || (entry.kind === 'correction' && entry.body.nameplate !== undefined);
}
