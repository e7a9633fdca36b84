import type { Problem } from '@/core/problem';

/** An answer of the server: what was asked for, or the problem. A lost connection is a problem like any other. */
export type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem };

const KEEPALIVE_LENGTH = 20_000;
/** How long an answer may take: to a line, and to a file or a batch. */
const ANSWER_MS = 15_000;
const LONG_ANSWER_MS = 60_000;

/** Sends JSON to be written and gives the answer; never throws. */
export const postJson = <T>(path: string, body: unknown): Promise<Answer<T>> => sendJson('POST', path, body);

/** Sends JSON by a method and gives the answer; never throws. */
export async function sendJson<T>(method: 'POST' | 'PUT', path: string, body: unknown): Promise<Answer<T>> {
  try {
    const text = JSON.stringify(body);
    const response = await fetch(path, {
      method,
      // What is on its way arrives even when the page is left; browsers allow that for small bodies.
      keepalive: text.length < KEEPALIVE_LENGTH,
      headers: { 'content-type': 'application/json' },
      body: text,
      // An answer that never comes is no answer: it may be asked for again.
      signal: AbortSignal.timeout(text.length < KEEPALIVE_LENGTH ? ANSWER_MS : LONG_ANSWER_MS),
    });
    const answer = (await response.json()) as { problem?: Problem } & T;
    if (response.ok) return { ok: true, value: answer };
    if (answer.problem) return { ok: false, problem: answer.problem };
  } catch {
    // Told below, as one problem.
  }
  return {
    ok: false,
    problem: {
      code: 'no-connection',
      sentence: 'The application did not answer.',
      remedy: 'What you typed is kept here. Check that it runs, then try again.',
    },
  };
}
