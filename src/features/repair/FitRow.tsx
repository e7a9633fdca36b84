'use client';
import { marking } from '@/core/part';
import type { SeenReading } from '@/core/expect';
import { safetyKind } from '@/core/substitute';
import { FitForm } from '@/features/frame/FitForm';
import { unpoweredReading } from '@/features/job/unpoweredReading';
import { useCommands } from '@/features/job/JobContext';
import type { TracedJobBoard } from '@/core/job';
import { seenWords } from '@/features/frame/lineWords';
import { shortValue } from '@/core/part';
import { OutcomeMark } from './OutcomeMark';
import { QuickReading } from './QuickReading';
import type { FitState } from '@/core/job';

/** One part: what is fitted instead, judged while typed; then the reading that shows it works. */
export function FitRow({ home, state, lit }: { home: TracedJobBoard; state: FitState; lit: boolean }) {
  const { addLine } = useCommands();
  const { id } = home;
  const { part, fitted, told, after } = state;
  const expected = told?.expected;
  const keep = (seen: SeenReading): void => {
    if (!expected) return;
    void addLine(unpoweredReading(expected, seen, 'after-repair', part.ref), id);
  };
  return (
    <div className={`border-l-4 bg-raised px-4 py-2 ${lit ? 'border-brass' : 'border-line'}`}>
      <p className="flex justify-between gap-3">
        <span>
          <strong>{part.ref}</strong> <span className="figure">{shortValue(part)}</span>{' '}
          {marking(part) && <span className="text-faint">“{marking(part)}”</span>}
          {safetyKind(part) && (
            <span className="ml-2 border border-oxide px-1 text-sm text-oxide">safety part: {safetyKind(part)}</span>
          )}
        </span>
        {fitted && (
          <span className="text-verdigris">
            ✓ {fitted.fitted.source} {fitted.fitted.samePart ? 'same part' : 'other part'} fitted
          </span>
        )}
      </p>
      {!fitted && <FitForm part={part} boardId={id} lit={lit} />}
      {fitted && !after && expected && <QuickReading told={{ ...told, expected }} lit={lit} onKeep={keep} />}
      {after && (
        <p>
          <OutcomeMark outcome={after.outcome} figure={seenWords(after.body.mode, after.body.seen)} />
          {after.outcome === 'disagree' && (
            <span className="ml-3 text-oxide">
              Not working as it should: undo the reading in the log, or look again.
            </span>
          )}
        </p>
      )}
    </div>
  );
}
