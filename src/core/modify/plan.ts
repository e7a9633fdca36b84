import type { Board } from '../circuit';
import type { Problem, Result } from '../problem';
import { refuse } from '../problem';
import type { StressRow } from '../stress';
import type { BadInput, SumDone } from '../sums';
import { deriveBoard, readShorthand } from '../trace';
import type { TraceEntry } from '../trace';
import type { ExpectedStep } from './steps';

/** What cannot be planned, naming what is wrong. */
export type CannotModify = Problem<'cannot-modify', { readonly what: string }>;
export type PlanProblem = BadInput | CannotModify;

/**
 * A change worked out on a board.
 *
 * facts     what changes, as lines of the shorthand. parts: the same for a person.
 * sum       the sum behind it. reaches: the volts that the rail then has, or null where none moves.
 * notes     what it touches besides the ratings.
 * stress    every part on what it moves, judged on the board as it will be.
 * steps     the verification sweep.
 */
export interface Plan {
  readonly title: string;
  readonly facts: readonly string[];
  readonly parts: readonly { readonly ref: string; readonly words: string }[];
  readonly sum: SumDone;
  readonly reaches: number | null;
  readonly notes: readonly string[];
  readonly stress: readonly StressRow[];
  readonly steps: readonly ExpectedStep[];
}

/** The board with lines of the shorthand applied; lines that do not fit it are named. */
export function withFacts(
  board: Board,
  facts: readonly string[],
): { readonly board: Board; readonly misfits: readonly string[] } {
  const entries: TraceEntry[] = [];
  const misfits: string[] = [];
  facts.forEach((text, i) => {
    const read = readShorthand(text);
    if (!read.ok) misfits.push(read.problem.sentence);
    else if (read.value) entries.push({ id: String(i), fact: read.value });
  });
  const traced = deriveBoard(board, entries);
  return { board: traced.board, misfits: [...misfits, ...traced.misfits.map((m) => m.sentence)] };
}

/** Refuses a plan, saying what stands in the way and what to do. */
export function cannotModify(what: string, sentence: string, remedy: string): Result<never, CannotModify> {
  return refuse({ code: 'cannot-modify', sentence, remedy, details: { what } });
}
