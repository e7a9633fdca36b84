/** Progress goes to standard error: standard output belongs to the answer. */
export function say(text) {
  process.stderr.write(`${text}\n`);
}

/** Ends with what happened and what to do. */
export class SetUpProblem extends Error {}
