import { NextResponse } from 'next/server';
import type { z } from 'zod';
import { ProblemError } from '@/core/problem';
import type { Problem } from '@/core/problem';
import { log } from '@/data/log';
import { wellFormed } from '@/wire/wellFormed';

/** The one place that turns a problem into an HTTP status. */
export function httpStatus(code: string): number {
  if (
    code === 'no-such-job' ||
    code === 'job-gone' ||
    code === 'board-gone' ||
    code === 'line-gone' ||
    code === 'no-such-part' ||
    code === 'no-such-photo'
  )
    return 404;
  if (code === 'tag-taken' || code === 'label-taken' || code === 'bench-live' || code === 'already-reversed')
    return 409;
  if (code === 'too-large') return 413;
  if (code === 'foreign-origin') return 403;
  if (code === 'server-trouble' || code === 'took-too-long') return 503;
  return 422;
}

/** Answers with a problem: its code, sentence, remedy and details. */
export function refusedWith(problem: Problem): NextResponse {
  return NextResponse.json({ problem }, { status: httpStatus(problem.code) });
}

/** A request must come from a page of this application: its origin is the one it was sent to, scheme and host. */
function sameOrigin(request: Request): boolean {
  const origin = request.headers.get('origin');
  const host = request.headers.get('host');
  if (origin === null || host === null) return false;
  try {
    const from = new URL(origin);
    return from.host === host && from.protocol === new URL(request.url).protocol;
  } catch {
    return false;
  }
}

const MOST_DRAINED = 80_000_000;

/** Reads a body up to a limit of bytes; null when it is longer. */
async function limitedBytes(request: Request, mostBytes: number): Promise<Buffer | null> {
  const reader = request.body?.getReader();
  if (!reader) return Buffer.alloc(0);
  const chunks: Uint8Array[] = [];
  let total = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    total += value.byteLength;
    if (total > MOST_DRAINED) {
      await reader.cancel();
      return null;
    }
    // What is too long is let through and thrown away: one cut off in the middle of sending never hears the reason.
    if (total <= mostBytes) chunks.push(value);
    else chunks.length = 0;
  }
  return total > mostBytes ? null : Buffer.concat(chunks);
}

function tooLarge(mostBytes: number): NextResponse {
  return refusedWith({
    code: 'too-large',
    sentence: `This is larger than ${Math.round(mostBytes / 1000)} kB.`,
    remedy: 'Nothing was taken. Send a smaller file.',
  });
}

/**
 * Serves a change: checks the origin, reads at most `mostBytes`, checks the body against its schema, runs the work
 * and turns what it throws into an answer.
 *
 * mostFor  a lower limit of bytes for what kind of body it turns out to be.
 */
export async function handleChange<T, R>(
  request: Request,
  schema: z.ZodType<T>,
  mostBytes: number,
  work: (body: T) => Promise<R>,
  mostFor?: (raw: unknown) => number,
): Promise<NextResponse> {
  return handleRequest(request, schema, mostBytes, async (body) => NextResponse.json(await work(body)), mostFor);
}

/** The same for work that makes the answer itself, such as a file. */
export async function handleRequest<T, R extends Response>(
  request: Request,
  schema: z.ZodType<T>,
  mostBytes: number,
  work: (body: T) => Promise<R>,
  mostFor: (raw: unknown) => number = () => mostBytes,
): Promise<R | NextResponse> {
  if (!sameOrigin(request)) {
    return refusedWith({
      code: 'foreign-origin',
      sentence: 'This request came from another site.',
      remedy: 'Nothing was changed.',
    });
  }
  const bytes = await limitedBytes(request, mostBytes);
  if (bytes === null) return tooLarge(mostBytes);
  let raw: unknown;
  try {
    raw = JSON.parse(bytes.toString('utf8'));
  } catch {
    return refusedWith({ code: 'bad-request', sentence: 'The request is not JSON.', remedy: 'Nothing was changed.' });
  }
  if (bytes.byteLength > mostFor(raw)) return tooLarge(mostFor(raw));
  if (!wellFormed(raw))
    return refusedWith({
      code: 'bad-text',
      sentence: 'A text holds a character that is none (a null or half a pair).',
      remedy: 'Nothing was changed. Type it anew.',
    });
  const parsed = schema.safeParse(raw);
  if (!parsed.success) {
    const issues = parsed.error.issues.slice(0, 8).map((i) => ({ path: i.path.join('.'), message: i.message }));
    return refusedWith({
      code: 'bad-input',
      sentence: issues.map((i) => `${i.path}: ${i.message}`).join(' '),
      remedy: 'What you typed is kept; correct it and try again.',
      details: { issues },
    });
  }
  return answerWith(() => work(parsed.data));
}

/** Serves an upload of bytes: origin, size and the words in its address are checked, then the work runs. */
export async function handleUpload<T, R>(
  request: Request,
  schema: z.ZodType<T>,
  where: unknown,
  mostBytes: number,
  work: (where: T, bytes: Buffer) => Promise<R>,
): Promise<NextResponse> {
  if (!sameOrigin(request))
    return refusedWith({
      code: 'foreign-origin',
      sentence: 'This request came from another site.',
      remedy: 'Nothing was changed.',
    });
  const parsed = schema.safeParse(where);
  if (!parsed.success)
    return refusedWith({
      code: 'bad-input',
      sentence: 'The upload does not say where it belongs.',
      remedy: 'Nothing was taken.',
    });
  const bytes = await limitedBytes(request, mostBytes);
  if (bytes === null)
    return refusedWith({
      code: 'too-large',
      sentence: `This file is larger than ${Math.round(mostBytes / 1e6)} MB.`,
      remedy: 'Nothing was taken. Make it smaller first.',
    });
  return answer(() => work(parsed.data, bytes));
}

/** Runs work and answers with what it gives, as JSON. */
export async function answer<R>(work: () => Promise<R>): Promise<NextResponse> {
  return answerWith(async () => NextResponse.json(await work()));
}

/** Runs work that makes an answer and turns what it throws into one; trouble of ours never shows its inside. */
export async function answerWith<R extends Response>(work: () => Promise<R>): Promise<R | NextResponse> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof ProblemError) return refusedWith(error.problem);
    log().error({ err: error }, 'a request could not be served');
    return refusedWith({
      code: 'server-trouble',
      sentence: 'The server could not do this now.',
      remedy: 'What you typed is kept on this page; try again in a moment.',
    });
  }
}
