'use client';
import { useCallback, useState } from 'react';
import type { Problem } from '@/core/problem';
import type { Sending } from '@/ui/FileDrop';
import type { Answer } from './postJson';

const LOST: Problem = {
  code: 'no-connection',
  sentence: 'The file did not arrive.',
  remedy: 'Check that the application runs, then choose it again.',
};
const STOPPED: Problem = { code: 'stopped', sentence: 'Stopped.', remedy: 'Nothing was taken.' };
const GONE: Problem = {
  code: 'stopped',
  sentence: 'It had gone already when it was stopped.',
  remedy: 'Reload the page to see whether it was kept.',
};

/** Sends one file at a time: how far it is, how it is stopped, and what the server answers; never throws. */
export function useUpload<T>(): readonly [Sending | null, (path: string, file: File) => Promise<Answer<T>>] {
  const [sending, setSending] = useState<Sending | null>(null);
  const send = useCallback(
    (path: string, file: File) =>
      new Promise<Answer<T>>((resolve) => {
        // fetch says nothing of how far a body has gone.
        const request = new XMLHttpRequest();
        const stop = (): void => request.abort();
        const done = (answer: Answer<T>): void => {
          setSending(null);
          resolve(answer);
        };
        let gone = false;
        request.upload.onload = () => (gone = true);
        request.upload.onprogress = ({ loaded, total, lengthComputable }) =>
          setSending({ share: lengthComputable && loaded < total ? loaded / total : null, stop });
        request.onload = () => done(answerOf<T>(request));
        request.onerror = () => done({ ok: false, problem: LOST });
        request.onabort = () => done({ ok: false, problem: gone ? GONE : STOPPED });
        request.open('POST', path);
        setSending({ share: 0, stop });
        request.send(file);
      }),
    [],
  );
  return [sending, send];
}

function answerOf<T>(request: XMLHttpRequest): Answer<T> {
  try {
    const told = JSON.parse(request.responseText) as T & { problem?: Problem };
    if (told.problem) return { ok: false, problem: told.problem };
    if (request.status < 300) return { ok: true, value: told };
  } catch {
    // Told below.
  }
  return { ok: false, problem: LOST };
}
