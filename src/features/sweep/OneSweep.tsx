'use client';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { SWEEP_COLUMNS, judgeSweep, writeSweepCsv } from '@/core/sweep';
import type { SweepTrouble, SweepVerdict } from '@/core/sweep';
import { useJob } from '@/features/job/JobContext';
import { SweepPlot } from '@/features/frame/SweepPlot';
import { rememberRows } from '@/features/job/useSweeps';
import type { KeptSweep } from '@/core/job';
import { useWidth } from '@/ui/useWidth';
import { Button } from '@/ui/Button';
import { FileDrop } from '@/ui/FileDrop';
import { Scroll } from '@/ui/Scroll';
import { Notice } from '@/ui/Notice';
import { saveFile } from '@/ui/saveFile';
import { MOST_SWEEP_TEXT } from '@/wire/change';
import { RowEntry } from './RowEntry';
import { SweepTable } from './SweepTable';
import { useTableReader } from './useTableReader';

const SIGNS = { ok: ['✓', 'text-verdigris'], over: ['▨', 'text-oxide'], open: ['○', 'text-faint'] } as const;

/** One sweep: rows typed, pasted or read from a file; drawn and judged. */
export function OneSweep({ sweep }: { sweep: KeptSweep }) {
  const { job, active, addLine } = useJob();
  const { setup, rows } = sweep;
  const [ref, width] = useWidth<HTMLDivElement>(760);
  const readTable = useTableReader();
  const [said, setSaid] = useState('');
  const [troubles, setTroubles] = useState<readonly SweepTrouble[]>([]);
  // The drawing follows when there is time for it: a long table does not hold the page.
  const drawn = useDeferredValue(rows);
  const verdicts = useMemo(() => judgeSweep(setup, rows), [setup, rows]);

  const take = async (text: string): Promise<void> => {
    setSaid('Reading …');
    const read = await readTable(text, setup.setBy);
    setTroubles(read.troubles);
    if (read.rows.length === 0) return setSaid('No row could be taken; what was wrong stands below.');
    if (read.csv.length > MOST_SWEEP_TEXT)
      return setSaid(`This table is too long (${read.rows.length} rows): bring it in parts. Nothing was taken.`);
    rememberRows(read.csv, read.rows);
    const stored = await addLine(
      { kind: 'sweep-rows', body: { sweep: sweep.id, csv: read.csv, count: read.rows.length } },
      active.id,
    );
    if (stored) setSaid(`${read.rows.length} rows taken.`);
  };
  // A table pasted anywhere on this screen goes to the sweep; a single figure goes where it is typed.
  const latest = useRef(take);
  useEffect(() => {
    latest.current = take;
  });
  useEffect(() => {
    const onPaste = (event: ClipboardEvent): void => {
      const text = event.clipboardData?.getData('text/plain') ?? '';
      const inArea = event.target instanceof HTMLTextAreaElement;
      if (inArea || !/[\n\t;,].*\d/su.test(text.trim()) || !/[\n\t]/u.test(text.trim())) return;
      event.preventDefault();
      void latest.current(text);
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, []);

  return (
    <div ref={ref} className="flex flex-col gap-3">
      <div className="flex items-start justify-between gap-4">
        <div>
          <h2 className="text-lg font-semibold">{setup.title}</h2>
          <p className="text-sm text-faint">
            {rows.length} {rows.length === 1 ? 'row' : 'rows'}, set by {SWEEP_COLUMNS[setup.setBy].words}. Paste a table
            here at any time, or read one from a file. It is read under power: prove it discharged again afterwards.
          </p>
        </div>
        <div className="flex shrink-0 gap-2">
          <FileDrop
            label="CSV file"
            kinds=".csv,.txt,.tsv,text/csv,text/plain"
            mostBytes={20_000_000}
            onFile={(chosen) => void chosen.text().then(take)}
          >
            Read a CSV …
          </FileDrop>
          <Button
            disabled={rows.length === 0}
            onClick={() => saveFile(`${job.tag} ${setup.title}.csv`, 'text/csv', writeSweepCsv(rows))}
          >
            Export CSV
          </Button>
        </div>
      </div>
      <RowEntry sweep={sweep} />
      <p role="status" className="min-h-5 text-sm text-faint">
        {said}
      </p>
      {troubles.length > 0 && <Troubles key={troubles.length} troubles={troubles} onTake={take} />}
      <ul aria-label="What it shows" className="flex flex-col gap-0.5">
        {verdicts.map((v) => (
          <VerdictLine key={v.what} verdict={v} />
        ))}
      </ul>
      <SweepPlot setup={setup} rows={drawn} width={width} />
      {rows.length > 0 && <SweepTable rows={rows} setBy={setup.setBy} marked={verdicts.flatMap((v) => v.rows)} />}
    </div>
  );
}

function VerdictLine({ verdict: v }: { verdict: SweepVerdict }) {
  const [sign, look] = SIGNS[v.verdict];
  return (
    <li data-verdict={`${v.what} ${v.verdict}`} className={v.verdict === 'over' ? 'font-semibold' : ''}>
      <span aria-hidden className={`inline-block w-6 ${look}`}>
        {sign}
      </span>
      {v.words}
      {v.verdict === 'open' && <span className="sr-only"> (open)</span>}
    </li>
  );
}

/** Rows that could not be taken, with their text to put right; nothing of what was pasted is lost. */
function Troubles({ troubles, onTake }: { troubles: readonly SweepTrouble[]; onTake(text: string): Promise<void> }) {
  const left = troubles.filter((t) => t.text !== '');
  const [text, setText] = useState(() =>
    left
      .slice(0, 200)
      .map((t) => t.text)
      .join('\n'),
  );
  return (
    <Notice kind="trouble">
      <p>
        <strong>
          {troubles.length} {troubles.length === 1 ? 'row was' : 'rows were'} not taken; the others are kept.
        </strong>
      </p>
      <Scroll label="Rows not taken" look="max-h-28">
        <ul className="text-sm" aria-label="Rows not taken">
          {troubles.slice(0, 200).map((t) => (
            <li key={`${t.line} ${t.sentence}`}>
              Line {t.line}: {t.sentence}
            </li>
          ))}
        </ul>
      </Scroll>
      {left.length > 0 && (
        <form
          className="mt-2 flex items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void onTake(text);
          }}
        >
          <textarea
            aria-label="Rows to put right"
            rows={Math.min(6, left.length + 1)}
            value={text}
            onChange={(e) => setText(e.target.value)}
            className="figure min-w-0 flex-1 rounded-sm border border-line bg-ground px-2 py-1"
          />
          <Button type="submit">Take these</Button>
        </form>
      )}
    </Notice>
  );
}
