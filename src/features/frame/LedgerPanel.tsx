'use client';
import { useMemo } from 'react';
import { useJob } from './JobContext';
import { lineWords } from './lineWords';

/** The job log, newest at the top; each line can be undone by a compensating line. */
export function LedgerPanel() {
  const { lines, addLine } = useJob();
  const undone = useMemo(() => new Set(lines.flatMap((l) => (l.reverses === null ? [] : [l.reverses]))), [lines]);
  return (
    <aside aria-label="Job log" className="no-print flex w-72 shrink-0 flex-col border-l border-line max-lg:hidden">
      <h2 className="px-3 pt-3 pb-2 text-sm text-faint">Job log</h2>
      {lines.length === 0 && (
        <p className="px-3 text-sm text-faint">Nothing written yet. What you do here is kept here.</p>
      )}
      <ol tabIndex={0} aria-label="Lines, newest first" className="min-h-0 flex-1 overflow-y-auto pb-4">
        {lines.map((line) => {
          const { head, text } = lineWords(line.entry);
          const struck = undone.has(line.id);
          return (
            <li key={line.id} className="group border-b border-line/60 px-3 py-1.5 text-sm">
              <div className="flex justify-between gap-2">
                <span className={`min-w-0 break-words ${struck ? 'text-faint line-through' : ''}`}>{head}</span>
                {!struck && line.entry.kind !== 'reversal' && (
                  <button
                    type="button"
                    className="shrink-0 self-start text-slate underline-offset-2 hover:underline focus-visible:underline"
                    aria-label={`Undo: ${head}`}
                    onClick={() => void addLine({ kind: 'reversal', body: { reason: head } }, line.boardId, line.id)}
                  >
                    undo
                  </button>
                )}
              </div>
              {text !== '' && <p className="break-words text-faint">{text}</p>}
              <p className="text-xs text-faint">
                {line.actor}, {timeWords(line.at)}
              </p>
            </li>
          );
        })}
      </ol>
    </aside>
  );
}

/** Day and time, the same on server and page. */
export function timeWords(at: number): string {
  return new Date(at).toISOString().slice(0, 16).replace('T', ' ');
}
