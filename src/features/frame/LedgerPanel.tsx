'use client';
import dynamic from 'next/dynamic';
import { Scroll } from '@/ui/Scroll';
import { memo, useMemo, useSyncExternalStore } from 'react';
import type { NewLine, StoredLine } from '@/wire/ledger';
import { useJob } from '@/features/job/JobContext';
import { outlasts, watchKept } from '@/features/job/waitingStore';
import { useSettings } from '@/features/job/SettingsContext';
import { Confirm } from '@/ui/Confirm';
import { timeWords } from '@/ui/when';
import { lineWords } from './lineWords';

/** The job log, newest at the top, beside the work; each line can be undone by a compensating line. */
export function LedgerPanel() {
  return (
    <aside aria-label="Job log" className="no-print flex w-72 shrink-0 flex-col border-l border-line max-lg:hidden">
      <h2 className="px-3 pt-3 pb-2 text-sm text-faint">Job log</h2>
      <LedgerLines />
    </aside>
  );
}

/** The lines themselves: those that wait to be written, then those that are. */
export function LedgerLines() {
  const { boards, lines, waiting, addLine } = useJob();
  const labels = useMemo(() => new Map(boards.length > 1 ? boards.map((b) => [b.id, b.label]) : []), [boards]);
  const undone = useMemo(() => new Set(lines.flatMap((l) => (l.reverses === null ? [] : [l.reverses]))), [lines]);
  return (
    <>
      {lines.length + waiting.length === 0 && (
        <p className="px-3 text-sm text-faint">Nothing written yet. What you do here is kept here.</p>
      )}
      {waiting.length > 0 && (
        <ul aria-label="Not written yet" className="shrink-0">
          {[...waiting].reverse().map((line) => (
            <Waiting key={line.clientKey} line={line} />
          ))}
        </ul>
      )}
      <Scroll label="Lines of the log" look="min-h-0 flex-1">
        <ol aria-label="Lines, newest first" className="pb-4">
          {lines.map((line) => (
            <Line
              key={line.id}
              line={line}
              board={labels.get(line.boardId ?? '')}
              struck={undone.has(line.id)}
              addLine={addLine}
            />
          ))}
        </ol>
      </Scroll>
    </>
  );
}

/** A line on its way; that it is kept is said once the browser's store has it. */
function Waiting({ line }: { line: NewLine }) {
  const kept = useSyncExternalStore(
    watchKept,
    () => outlasts(line),
    () => false,
  );
  return (
    <li className="border-b border-dashed border-line px-3 py-1.5 text-sm text-faint">
      {lineWords(line.entry).head}
      <p className="text-xs">◌ on its way{kept ? '; kept here until it is written' : ''}</p>
    </li>
  );
}

/** Fetched with the reader of tables when there is such a line. */
const SweepRowWords = dynamic(() => import('./SweepRowWords').then((m) => m.SweepRowWords), { ssr: false });

const Line = memo(function Line({
  line,
  board,
  struck,
  addLine,
}: {
  line: StoredLine;
  board: string | undefined;
  struck: boolean;
  addLine: ReturnType<typeof useJob>['addLine'];
}) {
  const { entry } = line;
  const { head, text } = lineWords(entry);
  const { zone } = useSettings();
  const row = entry.kind === 'sweep-rows' && entry.body.count === 1 ? entry.body.csv : null;
  return (
    <li className="border-b border-line/60 px-3 py-1.5 text-sm">
      <div className="flex justify-between gap-2">
        <span className={`min-w-0 break-words ${struck ? 'text-faint line-through' : ''}`}>{head}</span>
        {!struck && line.entry.kind !== 'reversal' && (
          <Undo
            head={head}
            asks={line.entry.kind === 'discharge-proof'}
            onUndo={() => void addLine({ kind: 'reversal', body: { reason: head } }, line.boardId, line.id)}
          />
        )}
      </div>
      {row !== null && (
        <p className="break-words text-faint">
          <SweepRowWords csv={row} />
        </p>
      )}
      {text !== '' && <p className="break-words text-faint">{text}</p>}
      <p className="text-xs text-faint">
        {board && `${board}, `}
        {line.actor}, {timeWords(line.at, zone)}
      </p>
    </li>
  );
});

/** Takes a line back; asks first where something is no longer proved by it. */
function Undo({ head, asks, onUndo }: { head: string; asks: boolean; onUndo(): void }) {
  const button = (
    <button
      type="button"
      className="shrink-0 self-start text-slate underline-offset-2 hover:underline focus-visible:underline pointer-coarse:min-h-[44px] pointer-coarse:px-2"
      aria-label={`Undo: ${head}`}
      onClick={asks ? undefined : onUndo}
    >
      undo
    </button>
  );
  return asks ? (
    <Confirm title="Take this proof back?" yes="Take it back" onYes={onUndo} trigger={button}>
      {head}: the store counts as not proved again, and has to be read once more before anybody touches it.
    </Confirm>
  ) : (
    button
  );
}
