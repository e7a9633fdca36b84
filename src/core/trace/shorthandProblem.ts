import type { Problem, Result } from '../problem';
import type { Fact } from './fact';
import type { Token } from './tokens';

/** What is wrong with a line, where it begins and how long it is, in characters. */
export type ShorthandProblem = Problem<'shorthand', { readonly at: number; readonly length: number }>;

export type Read = Result<Fact | null, ShorthandProblem>;

/** A problem at a place in the line. */
export function wrong(line: string, start: number, length: number, sentence: string, remedy: string): ShorthandProblem {
  return {
    code: 'shorthand',
    sentence,
    remedy,
    details: { at: Math.min(start, line.length), length: Math.max(1, length) },
  };
}

/** A problem at a word, or at the end of the line where a word is missing. */
export function at(line: string, token: Token | undefined, sentence: string, remedy: string): ShorthandProblem {
  return token
    ? wrong(line, token.at, token.length, sentence, remedy)
    : wrong(line, line.trimEnd().length, 1, sentence, remedy);
}
