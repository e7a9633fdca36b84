'use client';
import { MoveHorizontal } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { parseQuantity } from '@/core/quantity';
import { useJob } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import { useLitFocus } from '@/ui/useLitFocus';
import { Disagreements } from './ShorthandPanel';
import { followed, nextTouch } from './touchSearch';

/** Touch mode: two places named, yes, no or ohms, and on to the next. */
export function TouchPanel() {
  const { active, addLine, lines } = useJob();
  const { board, entries, trace, id } = active;
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const [text, setText] = useState('');
  const [trouble, setTrouble] = useState('');
  const field = useLitFocus<HTMLInputElement>(true);
  const last = useRef<string[]>([]);
  const proposal = useMemo(() => nextTouch(board, entries, skipped), [board, entries, skipped]);
  const progress = useMemo(() => followed(board), [board]);
  const answer = (link: string): void => {
    if (!proposal) return;
    const line = `${proposal.spots[0]} ${link} ${proposal.spots[1]}`;
    last.current.push(line);
    setText('');
    setTrouble('');
    void addLine({ kind: 'trace', body: { text: line } }, id);
  };
  const undo = (): void => {
    const text = last.current.pop();
    const line = lines.find((l) => l.entry.kind === 'trace' && l.entry.body.text === text && l.boardId === id);
    if (line) void addLine({ kind: 'reversal', body: { reason: text! } }, id, line.id);
  };
  const skip = (): void => {
    if (proposal) setSkipped((kept) => new Set([...kept, proposal.key]));
  };
  const onKey = (event: KeyboardEvent): void => {
    const acts: Readonly<Record<string, () => void>> = {
      y: () => answer('-~-'),
      n: () => answer('-/-'),
      s: skip,
      u: undo,
    };
    const act = text === '' && !event.ctrlKey && !event.metaKey ? acts[event.key.toLowerCase()] : undefined;
    if (act) {
      event.preventDefault();
      act();
    } else if (event.key === 'Enter' && text.trim() !== '') {
      event.preventDefault();
      const read = parseQuantity(text);
      if (!read.ok || read.value.value < 0) setTrouble('Ohms like 0.2, 22 or 4k7.');
      else answer(`-${text.trim().replace(/\s+|Ω/gu, '')}-`);
    }
  };
  return (
    <div className="flex flex-col gap-3">
      {proposal ? (
        <section aria-label="Next check" aria-live="polite" className="border border-line bg-raised p-4">
          <p className="text-sm text-faint">Touch both, does it beep?</p>
          <div className="mt-1 grid grid-cols-[1fr_auto_1fr] items-center gap-4">
            {proposal.places.map((place, i) => (
              <div key={i} className={i === 1 ? 'order-3' : ''}>
                <p className="text-2xl leading-tight font-bold">{place}</p>
                <p className="figure text-sm text-faint">{proposal.spots[i]}</p>
              </div>
            ))}
            <MoveHorizontal aria-hidden className="order-2 size-7 text-faint" />
          </div>
          <div className="mt-4 flex flex-wrap items-center gap-2">
            <input
              ref={field}
              aria-label="Yes, no or ohms"
              value={text}
              onChange={(e) => setText(e.target.value)}
              onKeyDown={onKey}
              placeholder="y  n  or ohms"
              className="figure w-64 rounded-sm border-2 border-slate bg-ground px-2 py-1 text-2xl placeholder:text-faint"
            />
            <Button onClick={() => answer('-~-')}>
              Beeps <kbd className="figure text-faint">y</kbd>
            </Button>
            <Button onClick={() => answer('-/-')}>
              Silent <kbd className="figure text-faint">n</kbd>
            </Button>
            <Button onClick={skip}>
              Cannot reach <kbd className="figure text-faint">s</kbd>
            </Button>
            <Button onClick={undo}>
              Undo <kbd className="figure text-faint">u</kbd>
            </Button>
          </div>
          {trouble !== '' && <p className="mt-2 text-oxide">{trouble}</p>}
        </section>
      ) : (
        <p className="border border-line bg-raised p-4">
          {progress.of === 0
            ? 'Type the parts you see first, with ? for pins not followed yet; the checks come from them.'
            : 'Every pin is followed. New parts typed with ? bring new checks.'}
        </p>
      )}
      <p className="text-sm text-faint">
        <span className="figure text-ink">{progress.done}</span> of{' '}
        <span className="figure text-ink">{progress.of}</span> pins followed,{' '}
        <span className="figure text-ink">{trace.touches}</span> touches so far
      </p>
      <Disagreements />
    </div>
  );
}
