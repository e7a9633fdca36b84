import type { Board } from '@/core/circuit';
import { csvCell } from '@/core/csv';
import { expectReading } from '@/core/expect';
import { boardEntries, linesOf } from '@/core/job';
import type { ReadingBody } from '@/core/job';
import { solverFor } from '@/core/meter';
import { deriveBoard } from '@/core/trace';
import { boardFromJson } from '@/wire/boardJson';
import type { OpenJob } from './openJob';

interface ExportedReading {
  readonly at: string;
  readonly actor: string;
  readonly board: string;
  readonly mode: string;
  readonly red: string;
  readonly black: string;
  readonly value: number | 'OL' | 'agrees';
  readonly expected: number | 'OL' | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly unit: string;
  readonly purpose: string;
}

/** Every standing reading of a job with what was to be expected there, oldest first. */
export function exportReadings({ boards, starts, lines }: OpenJob): readonly ExportedReading[] {
  const solved = (board: Board, label: string) => ({ board, label, solver: solverFor(board, []) });
  const now = new Map(boards.map((b) => [b.id, solved(boardFromJson(b.content), b.label)] as const));
  // What was read before the repair was read on the board as it came, without what was fitted or changed since.
  const found = new Map(
    boards.map((b) => {
      const start = starts[b.id];
      const came = start ? deriveBoard(boardFromJson(start), boardEntries(lines, b.id, ['trace'])).board : null;
      return [b.id, came ? solved(came, b.label) : now.get(b.id)!] as const;
    }),
  );
  return linesOf<ReadingBody>(lines, 'reading').flatMap(({ line, body }) => {
    const at = (body.purpose === 'after-repair' ? now : found).get(line.boardId ?? '');
    if (
      !at ||
      !at.solver.network.nodeOfNet.has(body.red.toLowerCase()) ||
      !at.solver.network.nodeOfNet.has(body.black.toLowerCase())
    )
      return [];
    const e = expectReading(at.board, at.solver, body.mode, body.red, body.black);
    const value = body.seen.kind === 'figure' ? body.seen.value : body.seen.kind === 'overload' ? 'OL' : 'agrees';
    return [
      {
        at: new Date(line.at).toISOString(),
        actor: line.actor,
        board: at.label,
        mode: body.mode,
        red: body.red,
        black: body.black,
        value,
        expected: e.nominal ?? ('OL' as const),
        low: e.low,
        high: e.high,
        unit: e.unit,
        purpose: body.purpose,
      } satisfies ExportedReading,
    ];
  });
}

/** The readings as CSV with a header line. */
export function readingsCsv(job: OpenJob): string {
  const header = [
    'at',
    'actor',
    'board',
    'mode',
    'red',
    'black',
    'value',
    'expected',
    'low',
    'high',
    'unit',
    'purpose',
  ] as const;
  const rows = exportReadings(job).map((r) => header.map((key) => csvCell(String(r[key] ?? ''))).join(','));
  return `${[header.join(','), ...rows].join('\n')}\n`;
}

/** The whole job as one JSON document: unit, complaint, ledger, readings against expected. */
export function jobJson(open: OpenJob): unknown {
  const { job, boards, harnesses, lines } = open;
  const label = (id: string): string => boards.find((b) => b.id === id)?.label ?? id;
  return {
    format: 'rough-lantern-job',
    version: 1,
    job: { ...job, id: undefined },
    boards: boards.map((b) => ({ label: b.label, version: b.version, origin: b.origin, board: b.content })),
    harnesses: harnesses.map((h) => ({
      from: { board: label(h.fromBoard), pin: h.fromPin },
      to: { board: label(h.toBoard), pin: h.toPin },
    })),
    ledger: [...lines]
      .reverse()
      .map((l) => ({ seq: l.seq, at: new Date(l.at).toISOString(), actor: l.actor, ...l.entry, reverses: l.reverses })),
    readings: exportReadings(open),
  };
}
