/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { NewLine } from '@/wire/ledger';
import { useOutbox } from './useOutbox';
import { outlasts, watchKept } from './waitingStore';

let keys = 0;
const line = (entry: NewLine['entry']): NewLine => ({
  clientKey: `00000000-0000-4000-8000-${String(++keys).padStart(12, '0')}`,
  actor: 'Bench A',
  boardId: null,
  entry,
  reverses: null,
});
const site = (wet: boolean): NewLine => line({ kind: 'site', body: { wet } });
const proof = (): NewLine =>
  line({ kind: 'discharge-proof', body: { storeKey: 'x', refs: ['C1'], volts: 0.02, meterProved: true } });

/** What the server was sent, and how it answers each: by the line, or by failing. */
const sent: NewLine[] = [];
let server: (sent: NewLine) => { readonly status: number; readonly body: unknown } | 'dead' = () => 'dead';
const written = (l: NewLine) => ({
  status: 200,
  body: { ...l, id: l.clientKey, seq: sent.length, at: 0, boot: null, uptime: null },
});
const refused = { status: 422, body: { problem: { code: 'bad-input', sentence: 'No.', remedy: 'Write it anew.' } } };

beforeEach(() => {
  sent.length = 0;
  globalThis.structuredClone ??= (value: unknown) => JSON.parse(JSON.stringify(value)) as never;
  AbortSignal.timeout ??= () => new AbortController().signal;
  globalThis.fetch = (async (_path: string, init: { body: string }) => {
    const got = JSON.parse(init.body) as NewLine;
    sent.push(got);
    const told = server(got);
    if (told === 'dead') throw new TypeError('refused');
    return { ok: told.status < 300, json: async () => told.body };
  }) as never;
});

const outbox = (tag: string) => {
  const stored: string[] = [];
  const hook = renderHook(() => useOutbox(tag, onStored, onTrouble));
  function onStored(l: { readonly id: string }): void {
    stored.push(l.id);
  }
  return { ...hook, stored };
};
const onTrouble = (): void => {};

test('lines go one after the other in the order they were written; what is refused goes aside and the next goes on', async () => {
  server = (l) => (l.entry.kind === 'action' ? refused : written(l));
  const { result, stored } = outbox('OB-1');
  const lines = [site(true), line({ kind: 'action', body: { words: 'x' } }), site(false)];
  await act(async () => void (await Promise.all(lines.map((l) => result.current.send(l)))));
  expect(sent.map((l) => l.clientKey)).toEqual(lines.map((l) => l.clientKey));
  expect(result.current.waiting).toEqual([]);
  expect(result.current.refused.map((r) => [r.line.clientKey, r.problem.code])).toEqual([
    [lines[1]!.clientKey, 'bad-input'],
  ]);
  expect(stored).toHaveLength(2);
  act(() => result.current.dismiss());
  expect(result.current.refused).toEqual([]);
});

test('without an answer lines wait, under the same key; a window opened anew sends them, but no proof of unknown age', async () => {
  server = () => 'dead';
  const first = outbox('OB-2');
  const lines = [site(true), proof(), site(false)];
  act(() => lines.forEach((l) => void first.result.current.send(l)));
  await waitFor(() => expect(sent.length).toBeGreaterThan(1));
  expect(new Set(sent.map((l) => l.clientKey))).toEqual(new Set([lines[0]!.clientKey]));
  expect(first.result.current.waiting.map((l) => l.clientKey)).toEqual(lines.map((l) => l.clientKey));
  first.unmount();
  sent.length = 0;
  server = written;
  const again = outbox('OB-2');
  await waitFor(() => expect(again.stored).toEqual([lines[0]!.clientKey, lines[2]!.clientKey]));
  await waitFor(() => expect(again.result.current.waiting).toEqual([]));
  again.unmount();
  // Settled, they are not kept any more: a third window has nothing to send.
  const third = outbox('OB-2');
  sent.length = 0;
  await act(() => new Promise((resolve) => setTimeout(resolve, 60)));
  expect(sent.map((l) => l.clientKey)).toEqual([]);
  expect(third.result.current.waiting).toEqual([]);
});

test('a line outlasts its window from when the store has it until it is settled', async () => {
  server = () => 'dead';
  const { result, unmount } = outbox('OB-6');
  const one = site(true);
  const heard: boolean[] = [];
  const deaf = watchKept(() => heard.push(outlasts(one)));
  act(() => void result.current.send(one));
  // It is shown before it is kept, and then it does not say so yet.
  expect([result.current.waiting.length, outlasts(one)]).toEqual([1, false]);
  await waitFor(() => expect(outlasts(one)).toBe(true));
  expect(heard).toEqual([true]);
  deaf();
  server = written;
  await waitFor(() => expect(result.current.waiting).toEqual([]));
  await waitFor(() => expect(outlasts(one)).toBe(false));
  expect(heard).toEqual([true]);
  unmount();
});

test('what was set aside is still told in a window opened anew; another job is not concerned', async () => {
  server = () => refused;
  const { result, unmount } = outbox('OB-3');
  await act(async () => void (await result.current.send(site(true))));
  unmount();
  const again = outbox('OB-3');
  await waitFor(() => expect(again.result.current.refused).toHaveLength(1));
  const other = outbox('OB-4');
  await act(() => new Promise((resolve) => setTimeout(resolve, 30)));
  expect(other.result.current.refused).toEqual([]);
});
