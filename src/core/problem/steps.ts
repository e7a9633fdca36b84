/** What is worked out step by step, at once: what it comes to at its end. */
export function atOnce<R>(steps: Generator<unknown, R>): R {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
