'use client';
import { useState } from 'react';
import { writeNetlist } from '@/core/netlist';
import { netsCsv, partsCsv, pinsCsv } from '@/core/tables';
import { useJob } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import { FileDrop } from '@/ui/FileDrop';
import { saveFile } from '@/ui/saveFile';
import { boardToJson } from '@/wire/boardCopy';
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
    const { lines, troubles } = readPartsText(await file.text(), active.board);
    for (const text of lines) void addLine({ kind: 'trace', body: { text } }, active.id);
    const bad = troubles.map((t) => `row ${t.row}: ${t.sentence}`).join(' ');
    setTold(`${lines.length} ${lines.length === 1 ? 'row' : 'rows'} taken${bad === '' ? '.' : `; not taken: ${bad}`}`);
  };
  return (
    <span className="flex flex-wrap items-center gap-2 text-sm">
      Save:
      <Button kind="quiet" onClick={() => save('parts', partsCsv(active.board))}>
        parts
      </Button>
      <Button kind="quiet" onClick={() => save('pins', pinsCsv(active.board))}>
        pins
      </Button>
      <Button kind="quiet" onClick={() => save('nets', netsCsv(active.board))}>
        nets
      </Button>
      <Button
        kind="quiet"
        onClick={() => saveFile(`${job.tag}-${active.label}.cir`, 'text/plain', writeNetlist(active.board))}
      >
        netlist
      </Button>
      <Button
        kind="quiet"
        onClick={() => {
          const text = JSON.stringify(boardToJson(active.board), null, 1);
          saveFile(`${job.tag}-${active.label}.json`, 'application/json', text);
        }}
      >
        board
      </Button>
      <FileDrop label="Parts list" kinds=".csv,text/csv" mostBytes={MOST_BYTES} onFile={(file) => void take(file)}>
        read a parts list
      </FileDrop>
      {told !== '' && <span role="status">{told}</span>}
    </span>
  );
}
