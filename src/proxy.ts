import { NextResponse } from 'next/server';
import type { NextRequest } from 'next/server';

/** Names under which the application answers: this machine's own, and what LANTERN_HOSTS adds, parted by commas. */
const OWN = ['127.0.0.1', 'localhost', '[::1]'];
const allowed = new Set(
  [...OWN, ...(process.env['LANTERN_HOSTS'] ?? '').split(',')].map((h) => h.trim().toLowerCase()).filter(Boolean),
);

/**
 * Answers only requests for a name on the list: a page elsewhere that has its own name resolve to this machine gets
 * nothing. The port is the server's own affair.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = (request.headers.get('host') ?? '').toLowerCase().replace(/:\d+$/u, '');
  if (!readable(request.url))
    return refused(400, {
      code: 'bad-address',
      sentence: 'This address has a broken escape in it.',
      remedy: 'Go back to the bench.',
    });
  if (allowed.has(host)) return NextResponse.next();
  return refused(421, {
    code: 'foreign-host',
    sentence: 'The application does not answer under this name.',
    remedy: 'Use its address as it was printed at the start, or name this one in LANTERN_HOSTS.',
  });
}

function refused(status: number, problem: { code: string; sentence: string; remedy: string }): NextResponse {
  return NextResponse.json({ problem }, { status });
}

function readable(url: string): boolean {
  try {
    decodeURIComponent(new URL(url).pathname);
    return true;
  } catch {
    return false;
  }
}
