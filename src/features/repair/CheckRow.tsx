'use client';
import { useState } from 'react';
import type { FormEvent } from 'react';
import type { SeenReading } from '@/core/expect';
import { faultWords } from '@/core/fault';
import { unpoweredReading } from '@/features/job/unpoweredReading';
import { useCommands } from '@/features/job/JobContext';
import type { TracedJobBoard } from '@/core/job';
import { seenWords } from '@/features/frame/lineWords';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { OutcomeMark } from './OutcomeMark';
import { QuickReading } from './QuickReading';
import type { CheckState } from '@/core/job';

/** One linked fault: read, or skipped with a reason. */
export function CheckRow({ home, state, lit }: { home: TracedJobBoard; state: CheckState; lit: boolean }) {
  const { addLine } = useCommands();
  const { board, id } = home;
  const { check, told, read, skipped } = state;
  const [skipping, setSkipping] = useState(false);
  const [reason, setReason] = useState('');
  const keep = (seen: SeenReading): void => {
    void addLine(unpoweredReading(check.point, seen, 'also-check', check.ref), id);
  };
  const skip = (event: FormEvent): void => {
    event.preventDefault();
    if (reason.trim().length >= 3)
      void addLine({ kind: 'check-skipped', body: { ref: check.ref, fault: check.fault, reason } }, id);
  };
  return (
    <div className={`border-l-4 bg-raised px-4 py-2 ${lit ? 'border-brass' : 'border-line'}`}>
      <p className="flex justify-between gap-3">
        <span>
          <strong>{check.ref}</strong>, {check.words}{' '}
          <span className="text-faint">({faultWords(board, check.fault)}?)</span>
        </span>
        {read && <OutcomeMark outcome={read.outcome} figure={seenWords(read.body.mode, read.body.seen)} />}
        {skipped !== null && !read && <span className="text-faint">skipped: {skipped}</span>}
      </p>
      {!read && skipped === null && (
        <>
          {told?.expected && <QuickReading told={{ ...told, expected: told.expected }} lit={lit} onKeep={keep} />}
          {skipping ? (
            <form onSubmit={skip} className="mt-2 flex items-end gap-3">
              <TextField
                label="Why it is not checked"
                className="w-80"
                value={reason}
                onChange={(e) => setReason(e.target.value)}
                autoFocus
              />
              <Button type="submit">Skip with this reason</Button>
            </form>
          ) : (
            <Button kind="quiet" onClick={() => setSkipping(true)}>
              Skip, with a reason
            </Button>
          )}
        </>
      )}
    </div>
  );
}
