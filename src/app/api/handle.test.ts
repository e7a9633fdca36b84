import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { ProblemError } from '@/core/problem';
import { handleChange, httpStatus } from './handle';

const LOG = join(mkdtempSync(join(tmpdir(), 'log-')), 'application.log');
process.env['LANTERN_LOG'] = LOG;

const Body = z.strictObject({ words: z.string().min(1) });

function request(body: string, headers: Record<string, string> = {}): Request {
  return new Request('http://127.0.0.1:4730/api/x', {
    method: 'POST',
    body,
    headers: { origin: 'http://127.0.0.1:4730', host: '127.0.0.1:4730', ...headers },
  });
}

async function answerTo(
  sent: Request,
  work: (body: { words: string }) => Promise<unknown> = async (body) => ({ got: body.words }),
): Promise<{
  status: number;
  body: { problem?: { code: string; sentence: string; remedy: string; details?: unknown } };
}> {
  const response = await handleChange(sent, Body, 1000, work);
  return { status: response.status, body: (await response.json()) as never };
}

test('a sound change is done and answered', async () => {
  expect(await answerTo(request('{"words":"yes"}'))).toEqual({ status: 200, body: { got: 'yes' } });
});

test.each([
  ['from another site', request('{"words":"x"}', { origin: 'http://elsewhere.example' }), 403, 'foreign-origin'],
  ['from another port', request('{"words":"x"}', { origin: 'http://127.0.0.1:4731' }), 403, 'foreign-origin'],
  ['from an origin that is no address', request('{"words":"x"}', { origin: 'null' }), 403, 'foreign-origin'],
  ['too long', request(`{"words":"${'x'.repeat(2000)}"}`), 413, 'too-large'],
  ['no JSON', request('words=x'), 422, 'bad-request'],
  ['empty', request(''), 422, 'bad-request'],
  ['of the wrong shape', request('{"words":7}'), 422, 'bad-input'],
  ['with an unknown key', request('{"words":"x","more":1}'), 422, 'bad-input'],
  ['by another scheme', request('{"words":"x"}', { origin: 'https://127.0.0.1:4730' }), 403, 'foreign-origin'],
  ['with a null character', request('{"words":"a\\u0000b"}'), 422, 'bad-text'],
  ['with half of a pair', request('{"words":"a\\ud800"}'), 422, 'bad-text'],
  ['with a null character in a name', request('{"words":"a","b\\u0000":1}'), 422, 'bad-text'],
] as const)('a request %s is refused, and the work is not begun', async (_name, sent, status, code) => {
  let begun = false;
  const answer = await answerTo(sent, async () => {
    begun = true;
  });
  expect(answer.status).toBe(status);
  expect(answer.body.problem?.code).toBe(code);
  expect(answer.body.problem?.remedy).not.toBe('');
  expect(begun).toBe(false);
});

test('one kind of body may be longer than the others', async () => {
  const mostFor = (raw: unknown): number => ((raw as { words?: string }).words?.startsWith('rows') ? 900 : 100);
  const status = async (words: string): Promise<number> =>
    (await handleChange(request(JSON.stringify({ words })), Body, 1000, async () => 1, mostFor)).status;
  expect(await status(`rows${'x'.repeat(500)}`)).toBe(200);
  expect(await status('x'.repeat(500))).toBe(413);
  expect(await status('x'.repeat(50))).toBe(200);
  expect(await status(`rows${'x'.repeat(990)}`)).toBe(413);
});

test('a request without an origin is refused', async () => {
  const bare = new Request('http://127.0.0.1:4730/api/x', { method: 'POST', body: '{"words":"x"}' });
  expect((await handleChange(bare, Body, 1000, async () => 1)).status).toBe(403);
});

test('what is wrong with a body is named by its path', async () => {
  const Nested = z.strictObject({ board: z.strictObject({ parts: z.array(z.string()) }) });
  const response = await handleChange(request('{"board":{"parts":["a",7]}}'), Nested, 1000, async () => 1);
  const { problem } = (await response.json()) as { problem: { details: { issues: { path: string }[] } } };
  expect(problem.details.issues.map((i) => i.path)).toEqual(['board.parts.1']);
});

test('a problem that the work throws keeps its code, its words and its status', async () => {
  const problem = { code: 'tag-taken', sentence: 'Taken.', remedy: 'Choose another.' } as const;
  const answer = await answerTo(request('{"words":"x"}'), async () => {
    throw new ProblemError(problem);
  });
  expect(answer).toEqual({ status: 409, body: { problem } });
});

test('trouble of ours never shows its inside', async () => {
  const answer = await answerTo(request('{"words":"x"}'), async () => {
    throw new Error('no answer', { cause: new Error('password of the database is 1234') });
  });
  expect(answer.status).toBe(503);
  expect(JSON.stringify(answer.body)).not.toContain('1234');
  // What caused it is written down, for those who look after the application.
  const written = readFileSync(LOG, 'utf8');
  expect(JSON.parse(written)).toMatchObject({
    msg: 'a request could not be served',
    err: { message: expect.stringContaining('1234') as string },
  });
});

test.each([
  ['no-such-job', 404],
  ['board-gone', 404],
  ['bench-live', 409],
  ['label-taken', 409],
  ['already-reversed', 409],
  ['too-large', 413],
  ['foreign-origin', 403],
  ['server-trouble', 503],
  ['took-too-long', 503],
  ['no-such-photo', 404],
  ['bad-netlist', 422],
  ['anything else', 422],
])('%s is status %p', (code, status) => expect(httpStatus(code)).toBe(status));
