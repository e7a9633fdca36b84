'use client';
import { useState } from 'react';
import { COLUMN_KEYS, EMPTY_ROW, SWEEP_COLUMNS, cellValue, writeSweepCsv } from '@/core/sweep';
import type { SweepColumn } from '@/core/sweep';
import { useJob } from '@/features/job/JobContext';
import type { KeptSweep } from '@/core/job';
import { Button } from '@/ui/Button';
import { useLitFocus } from '@/ui/useLitFocus';

/** One row typed: what is set first, Enter keeps it and begins the next. */
export function RowEntry({ sweep }: { sweep: KeptSweep }) {
  const { active, addLine } = useJob();
  const { setBy } = sweep.setup;
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const [note, setNote] = useState('');
  const first = useLitFocus<HTMLInputElement>(true);
  const order: readonly SweepColumn[] = [setBy, ...COLUMN_KEYS.filter((k) => k !== setBy)];
  const values = order.map((key) => [key, cellValue(texts[key] ?? '', key)] as const);
  const wrong = values.find(([, value]) => value === undefined);
  const empty = values.every(([, value]) => value === null);
  const keep = (): void => {
    if (wrong || empty) return;
    const figures = Object.fromEntries(values) as Record<SweepColumn, number | null>;
    const csv = writeSweepCsv([{ ...EMPTY_ROW, ...figures, note: note.trim() }], false);
    void addLine({ kind: 'sweep-rows', body: { sweep: sweep.id, csv, count: 1 } }, active.id);
    setTexts({});
    setNote('');
    first.current?.focus();
  };
  return (
    <form
      aria-label="Next row"
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      {order.map((key, i) => (
        <label key={key} className="min-w-20 flex-1 text-sm text-faint">
          <span className="block truncate">
            {i === 0 ? 'set: ' : ''}
            {SWEEP_COLUMNS[key].words}
          </span>
          <input
            ref={i === 0 ? first : undefined}
            aria-label={SWEEP_COLUMNS[key].words}
            aria-invalid={wrong?.[0] === key ? true : undefined}
            autoComplete="off"
            value={texts[key] ?? ''}
            onChange={(e) => setTexts((kept) => ({ ...kept, [key]: e.target.value }))}
            className={`figure h-11 w-full rounded-sm border bg-ground px-2 text-xl text-ink ${wrong?.[0] === key ? 'border-oxide' : 'border-line'}`}
          />
        </label>
      ))}
      <label className="min-w-20 flex-1 text-sm text-faint">
        note
        <input
          aria-label="note"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          className="h-11 w-full rounded-sm border border-line bg-ground px-2 text-ink"
        />
      </label>
      <Button kind="primary" type="submit" className="h-11" disabled={wrong !== undefined || empty}>
        Keep
      </Button>
    </form>
  );
}
