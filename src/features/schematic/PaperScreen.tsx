'use client';
import Link from 'next/link';
import { useState } from 'react';
import { PAPERS } from '@/core/drawing';
import type { Paper } from '@/core/drawing';
import { useJob } from '@/features/job/JobContext';
import { Button } from '@/ui/Button';
import { saveFile } from '@/ui/saveFile';
import { Segments } from '@/ui/Segments';
import { SheetShown, useSheet } from './DrawingSheet';

const WORDS: Readonly<Record<Paper, string>> = { A4: 'A4', A3: 'A3' };

/** The drawing of the board worked on as it goes to paper: A4 or A3, printed, as PDF or as SVG. */
export function PaperScreen() {
  const { job, active } = useJob();
  const [paper, setPaper] = useState<Paper>('A4');
  const sheet = useSheet(active, paper);
  const { svg } = sheet;
  const [width, height] = PAPERS[paper];
  return (
    <div>
      {/* The paper lies, and the sheet has its own edge. */}
      <style>{`@page { size: ${width}mm ${height}mm; margin: 0 }`}</style>
      <div className="no-print mb-4 flex flex-wrap items-center gap-3">
        <h1 className="mr-auto text-xl font-bold">The drawing on paper</h1>
        <Segments label="Paper" value={paper} choices={WORDS} onChoose={setPaper} />
        <Link href={`/jobs/${job.tag}/board`} className="text-slate underline underline-offset-4">
          Back to Trace
        </Link>
        <Button
          disabled={svg === null}
          onClick={() => svg !== null && saveFile(`${job.tag}-${paper}.svg`, 'image/svg+xml', svg)}
        >
          Save as SVG
        </Button>
        <Button kind="primary" autoFocus disabled={svg === null} onClick={() => window.print()}>
          Print or save as PDF
        </Button>
      </div>
      {active.board.parts.length === 0 ? (
        <p className="text-faint">Nothing is traced yet: there is nothing to draw.</p>
      ) : (
        <div className="border border-line print:fixed print:inset-0 print:border-0">
          <SheetShown {...sheet} label={active.label} />
        </div>
      )}
    </div>
  );
}
