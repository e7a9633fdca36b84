import type { Problem } from '../problem';

/** One thing wrong with a board netlist. `line` counts from 1. */
export type NetlistProblem = Problem<
  'netlist-error' | 'netlist-warning',
  { readonly line: number; readonly expected: string; readonly found: string }
>;

/** An error of the netlist: the line, what was expected there and what was found. */
export function netlistError(line: number, sentence: string, expected: string, found: string): NetlistProblem {
  return {
    code: 'netlist-error',
    sentence: `Line ${line}: ${sentence}`,
    remedy: `Expected ${expected}; found ${found === '' ? 'nothing' : `“${found}”`}. Nothing was saved.`,
    details: { line, expected, found },
  };
}

/** A number that is implausible for its place, with its likely meaning. The board is still read. */
export function netlistWarning(line: number, sentence: string, expected: string, found: string): NetlistProblem {
  return {
    code: 'netlist-warning',
    sentence: `Line ${line}: ${sentence}`,
    remedy: `Read as written; it was likely meant as ${expected}.`,
    details: { line, expected, found },
  };
}
