'use client';
import { useMemo, useState } from 'react';
import { drawingOnPaper, restsOn } from '@/core/drawing';
import type { Drawing, Paper } from '@/core/drawing';
import { useJob } from '@/features/job/JobContext';
import type { JobBoard } from '@/features/job/jobBoard';
import { useSettings } from '@/features/job/SettingsContext';
import { timeWords } from '@/ui/when';
import { useDrawing } from './useDrawing';

/** A board of the job as a sheet of paper, as an SVG document; null until it is drawn. */
export function useSheet(home: JobBoard, paper: Paper): { readonly svg: string | null; readonly failed: boolean } {
  const { drawn, failed } = useDrawing(home.board);
  const made = useSheetOf(home);
  const svg = useMemo(() => (drawn ? made(drawn.drawing, paper) : null), [drawn, made, paper]);
  return { svg, failed };
}

/** Puts a drawing of a board of the job on paper. */
function useSheetOf({ board, label }: JobBoard): (drawing: Drawing, paper: Paper) => string {
  const { job, actor } = useJob();
  const { workshop, zone } = useSettings();
  const [now] = useState(() => Date.now());
  return useMemo(() => {
    const title = {
      unit: job.serial ? `${job.unit}, serial ${job.serial}` : job.unit,
      tag: job.tag,
      board: label,
      who: [actor, workshop.name].filter((words) => words !== '').join(', '),
      when: timeWords(now, zone),
      restsOn: restsOn(board),
    };
    return (drawing, paper) => drawingOnPaper(drawing, title, paper);
  }, [job, label, actor, workshop, zone, board, now]);
}

/** The sheet itself, black on white in either theme. */
export function DrawingSheet({ home, paper }: { home: JobBoard; paper: Paper }) {
  const { svg, failed } = useSheet(home, paper);
  if (failed) return <p className="text-faint">The drawing could not be made. The tables hold everything.</p>;
  if (svg === null) return <p className="text-faint">Drawing …</p>;
  return (
    <div
      role="img"
      aria-label={`Drawing of ${home.label}`}
      className="[&>svg]:block [&>svg]:h-auto [&>svg]:w-full"
      // Everything that was typed is escaped by `drawingOnPaper`.
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  );
}
