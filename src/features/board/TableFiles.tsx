'use client';
import { useState } from 'react';
import { netsCsv, partsCsv, pinsCsv } from '@/core/tables';
import { useJob } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import { saveFile } from '@/ui/saveFile';
import { readPartsText } from '@/wire/csv';

const MOST_BYTES = 1_000_000;

/** Parts, pins and nets as CSV; a parts list back in, row by row, what cannot be used named. */
export function TableFiles() {
  const { job, active, addLine } = useJob();
  const [told, setTold] = useState('');
  const save = (name: string, text: string): void => {
    saveFile(`${job.tag}-${name}.csv`, 'text/csv', text);
  };
  const take = async (file: File): Promise<void> => {
    if (file.size > MOST_BYTES) return setTold('This file is larger than 1 MB; nothing was taken.');
    const { lines, troubles } = readPartsText(await file.text(), active.board);
    for (const text of lines) void addLine({ kind: 'trace', body: { text } }, active.id);
    const bad = troubles.map((t) => `row ${t.row}: ${t.sentence}`).join(' ');
    setTold(`${lines.length} ${lines.length === 1 ? 'row' : 'rows'} taken${bad === '' ? '.' : `; not taken: ${bad}`}`);
  };
  return (
    <span className="flex flex-wrap items-center gap-2 text-sm">
      CSV:
      <Button kind="quiet" onClick={() => save('parts', partsCsv(active.board))}>
        parts
      </Button>
      <Button kind="quiet" onClick={() => save('pins', pinsCsv(active.board))}>
        pins
      </Button>
      <Button kind="quiet" onClick={() => save('nets', netsCsv(active.board))}>
        nets
      </Button>
      <label className="cursor-pointer text-slate underline underline-offset-4 focus-within:text-ink">
        read a parts list
        <input
          type="file"
          accept=".csv,text/csv"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void take(file);
            e.target.value = '';
          }}
        />
      </label>
      {told !== '' && <span role="status">{told}</span>}
    </span>
  );
}
