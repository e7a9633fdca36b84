'use client';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { easiestPlace } from '@/core/circuit';
import type { ExpectedReading, SeenReading } from '@/core/expect';
import { faultWords, formatFault } from '@/core/fault';
import type { Expectation } from '@/core/job';
import { MODE_NAMES, expectedWords } from '@/features/frame/lineWords';
import { interpreted, readTyped } from '@/features/frame/readReading';
import { Button } from '@/ui/Button';
import { useLitFocus } from '@/ui/useLitFocus';

/** One reading in a row: where the leads go, what should show, the figure, Enter. */
export function QuickReading({
  told,
  lit,
  onKeep,
}: {
  told: Expectation & { readonly expected: ExpectedReading };
  lit: boolean;
  onKeep(seen: SeenReading): void;
}) {
  const { board, expected, faults } = told;
  const [text, setText] = useState('');
  const field = useLitFocus<HTMLInputElement>(lit);
  const place = (net: string): string => easiestPlace(board, net);
  const typed = readTyped(text, [expected.mode]);
  const [first] = typed;
  const wrong = typed.find((t) => !t.ok);
  const send = (event: FormEvent): void => {
    event.preventDefault();
    if (first?.ok && !wrong) onKeep(first.seen);
  };
  return (
    <form onSubmit={send} className="mt-1 flex flex-wrap items-center gap-3">
      <p className="min-w-0 flex-1">
        {MODE_NAMES[expected.mode]}: <strong>black</strong> {place(expected.black)},{' '}
        <strong className="text-oxide">red</strong> {place(expected.red)}; should show{' '}
        <span className="figure text-lg whitespace-nowrap">{expectedWords(expected)}</span>
        {faults.length > 0 && (
          <span className="text-sm text-faint"> with {faultWords(board, faults.map(formatFault).join('+'))} in it</span>
        )}
      </p>
      <input
        aria-label={`Reading, red ${expected.red} black ${expected.black}`}
        ref={field}
        value={text}
        onChange={(e) => setText(e.target.value)}
        autoComplete="off"
        placeholder="figure or o"
        className="figure w-36 rounded-sm border-2 border-line bg-ground px-2 py-1 text-2xl placeholder:text-base placeholder:text-faint"
      />
      <span className="figure w-24 text-slate">{first ? interpreted(wrong ?? first, expected.mode) : ''}</span>
      <Button kind={lit ? 'primary' : 'plain'} type="submit" disabled={!first || wrong !== undefined}>
        Keep
      </Button>
    </form>
  );
}
