/**
 * One refusal, as data: what happened and what to do, for a person, with a literal code for code.
 *
 * code      literal, unique in the application; screens and tests match on it, never on sentences.
 * sentence  what happened, one sentence in the trade's terms.
 * remedy    what was kept and what to do next.
 * details   the fields the code needs (a line number, a designator), or undefined.
 */
export interface Problem<C extends string = string, D = unknown> {
  readonly code: C;
  readonly sentence: string;
  readonly remedy: string;
  readonly details?: D;
}

/** Either a value or the reason why there is none. E is a Problem or a list of them. */
export type Result<T, E = Problem> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: E };

/** Wraps a value as a successful Result. */
export function ok<T>(value: T): { readonly ok: true; readonly value: T } {
  return { ok: true, value };
}

/** Wraps a problem (or a list of problems) as a refused Result. */
export function refuse<E>(problem: E): { readonly ok: false; readonly problem: E } {
  return { ok: false, problem };
}

/** Carries a Problem as an exception through layers where throwing is what rolls work back. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.sentence);
    this.name = 'ProblemError';
  }
}

/** Throws when our own reasoning was wrong. Never for bad input: that is a Problem. */
export function invariant(condition: boolean, message: string): asserts condition {
  if (!condition) throw new Error(`invariant: ${message}`);
}

/** Ends a switch over a union: a new member will not compile until it has its case. */
export function assertNever(value: never): never {
  throw new Error(`unexpected value: ${JSON.stringify(value)}`);
}
