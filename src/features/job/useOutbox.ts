'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Problem } from '@/core/problem';
import type { NewLine, StoredLine } from '@/wire/ledger';
import { postJson } from './postJson';
import { forgetRefused, forgetWaiting, keepRefused, keepWaiting, linesBefore } from './waitingStore';
import type { RefusedLine } from './waitingStore';

/** How long to wait before a line is sent again, milliseconds: the n-th attempt, then the last for ever. */
const WAITS = [300, 600, 1200, 2500, 5000] as const;
/** The line may have been written, or may be yet: sending it again is harmless, its key is the same. */
const UNDECIDED = new Set(['no-connection', 'server-trouble', 'busy']);

/** After so many answers that the server could not do it, with contact all the while, a line is set aside. */
const MOST_TROUBLE = 6;

const STORE_FULL: Problem = {
  code: 'store-full',
  sentence: 'This browser’s own store is full: what waits here would be lost with the page.',
  remedy: 'Keep the page open until the application answers.',
};

/** A proof of discharge is stamped when it is written: one that waited longer than this has to be read again. */
const PROOF_WAIT_MS = 60_000;

const PROOF_STALE: Problem = {
  code: 'proof-waited',
  sentence: 'The proof of discharge could not be written in time.',
  remedy: 'Read the store again when the application answers.',
};

interface Outbox {
  readonly waiting: readonly NewLine[];
  readonly refused: readonly RefusedLine[];
  dismiss(): void;
  send(line: NewLine): Promise<StoredLine | null>;
}

interface Entry {
  readonly line: NewLine;
  readonly since: number;
  readonly settle: (stored: StoredLine | null) => void;
}

/**
 * Lines on their way to the server, sent one after another in the order they were written. A line that got no answer
 * stays here, and in this browser, until it gets one; a line that is refused leaves with its reason.
 *
 * onStored  called for each line the server acknowledged. onTrouble: the newest problem, null when all is well.
 */
export function useOutbox(
  tag: string,
  onStored: (line: StoredLine) => void,
  onTrouble: (problem: Problem | null) => void,
): Outbox {
  const queue = useRef<Entry[]>([]);
  const sending = useRef(false);
  const [waiting, setWaiting] = useState<readonly NewLine[]>([]);
  const [refused, setRefused] = useState<readonly RefusedLine[]>([]);

  const counter = useRef(0);
  const kept = useRef(new Set<string>());

  const show = useCallback(() => {
    const lines = queue.current.map((e) => e.line);
    for (const line of lines) {
      if (kept.current.has(line.clientKey)) continue;
      kept.current.add(line.clientKey);
      void keepWaiting(tag, line, Date.now() * 1000 + (counter.current++ % 1000)).then((done) => {
        if (done) return;
        kept.current.delete(line.clientKey);
        onTrouble(STORE_FULL);
      });
    }
    setWaiting(lines);
  }, [tag, onTrouble]);

  const pump = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    let troubled = 0;
    for (let attempt = 0; queue.current.length > 0;) {
      const [{ line, since, settle }] = queue.current as [Entry];
      const answer = await postJson<StoredLine>(`/api/jobs/${tag}/lines`, line);
      const stale = line.entry.kind === 'discharge-proof' && Date.now() - since > PROOF_WAIT_MS;
      // With contact but without success, again and again: the next lines must not wait for this one for ever.
      troubled = !answer.ok && answer.problem.code === 'server-trouble' ? troubled + 1 : 0;
      const hopeless = troubled >= MOST_TROUBLE;
      if (!answer.ok && UNDECIDED.has(answer.problem.code) && !stale && !hopeless) {
        show();
        if (attempt > 0) onTrouble(answer.problem);
        await new Promise((resolve) => window.setTimeout(resolve, WAITS[Math.min(attempt++, WAITS.length - 1)]));
        continue;
      }
      attempt = 0;
      troubled = 0;
      queue.current.shift();
      if (kept.current.delete(line.clientKey)) void forgetWaiting(tag, line);
      if (!answer.ok) {
        const aside = { line, problem: stale ? PROOF_STALE : answer.problem };
        void keepRefused(tag, aside);
        setRefused((kept) => [...kept, aside]);
      }
      show();
      if (answer.ok) onStored(answer.value);
      onTrouble(answer.ok ? null : stale ? PROOF_STALE : answer.problem);
      settle(answer.ok ? answer.value : null);
    }
    sending.current = false;
  }, [tag, onStored, onTrouble, show]);

  useEffect(() => {
    let gone = false;
    void linesBefore(tag).then((before) => {
      if (gone) return;
      setRefused((seen) => {
        const known = new Set(seen.map((r) => r.line.clientKey));
        return [...before.refused.filter((r) => !known.has(r.line.clientKey)), ...seen];
      });
      // What is left from before a reload; a proof among it is of unknown age.
      const left = before.waiting.filter((l) => {
        if (queue.current.some((e) => e.line.clientKey === l.clientKey)) return false;
        if (l.entry.kind !== 'discharge-proof') return true;
        void forgetWaiting(tag, l);
        return false;
      });
      if (left.length === 0) return;
      for (const line of left) kept.current.add(line.clientKey);
      queue.current.unshift(...left.map((line) => ({ line, since: Date.now(), settle: () => {} })));
      show();
      void pump();
    });
    return () => {
      gone = true;
    };
  }, [tag, pump, show]);

  const send = useCallback(
    (line: NewLine) =>
      new Promise<StoredLine | null>((settle) => {
        queue.current.push({ line, since: Date.now(), settle });
        show();
        void pump();
      }),
    [pump, show],
  );
  const dismiss = useCallback(() => {
    void forgetRefused(tag, refused);
    setRefused([]);
  }, [tag, refused]);
  return { waiting, refused, dismiss, send };
}
