'use client';
import { useMemo, useState } from 'react';
import { drawingOnPaper, restsOn } from '@/core/drawing';
import type { Paper } from '@/core/drawing';
import { useJob } from '@/features/job/JobContext';
import type { TracedJobBoard } from '@/core/job';
import { useSettings } from '@/features/job/SettingsContext';
import { timeWords } from '@/ui/when';
import { useDrawing } from './useDrawing';

/** A board of the job as a sheet of paper. */
interface Sheet {
  /** An SVG document; null until it is drawn. */
  readonly svg: string | null;
  readonly failed: boolean;
}

export function useSheet({ board, label }: TracedJobBoard, paper: Paper): Sheet {
  const { drawn, failed } = useDrawing(board);
  const { job, actor } = useJob();
  const { workshop, zone } = useSettings();
  const [now] = useState(() => Date.now());
  const svg = useMemo(() => {
    if (!drawn) return null;
    const title = {
      unit: job.serial ? `${job.unit}, serial ${job.serial}` : job.unit,
      tag: job.tag,
      board: label,
      who: [actor, workshop.name].filter((words) => words !== '').join(', '),
      when: timeWords(now, zone),
      restsOn: restsOn(board),
    };
    return drawingOnPaper(drawn.drawing, title, paper);
  }, [drawn, paper, job, label, actor, workshop, zone, board, now]);
  return { svg, failed };
}

/** The sheet of a board. */
export function DrawingSheet({ home, paper }: { home: TracedJobBoard; paper: Paper }) {
  return <SheetShown {...useSheet(home, paper)} label={home.label} />;
}

/** A sheet as it is, black on white in either theme. */
export function SheetShown({ svg, failed, label }: Sheet & { readonly label: string }) {
  if (failed) return <p className="text-faint">The drawing could not be made. The tables hold everything.</p>;
  if (svg === null) return <p className="text-faint">Drawing …</p>;
  return (
    <div
      role="img"
      aria-label={`Drawing of ${label}`}
      className="[&>svg]:block [&>svg]:h-auto [&>svg]:w-full"
      // Everything that was typed is escaped by `drawingOnPaper`.
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  );
}
