import type { Problem } from '@/core/problem';

/** Prints a problem for people or as JSON; gives its exit status: 2 for unusable input values, 1 for work that could not be done. */
export function printProblem(problem: Problem, json: boolean): number {
  if (json) console.log(JSON.stringify({ error: { code: problem.code, message: problem.sentence } }));
  console.error(`${problem.sentence} ${problem.remedy}`);
  return exitStatus(problem.code);
}

/** The one place that turns a problem into an exit status. */
export function exitStatus(code: string): number {
  return ['bad-input', 'unknown-sum', 'unknown-mode', 'bad-fault', 'unknown-net'].includes(code) ? 2 : 1;
}
