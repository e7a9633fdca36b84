import { linesOf } from '@/core/ledger';
import type { LedgerLine } from '@/core/ledger';
import { csvCell } from '@/core/csv';
import { formatFault } from '@/core/fault';
import { jobState, judgeReading } from '@/core/job';
import { MODE_UNITS } from '@/core/meter';
import { POWERED_UNITS } from '@/core/work';
import type { OperatingCondition } from '@/core/work';
import { renamed } from '@/wire/jobArchive';
import { boardFromJson } from '@/wire/boardCopy';
import type { BenchJob, OpenJob } from './openJob';

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
  readonly verdict: 'agree' | 'disagree' | 'noted' | null;
  /** The faults that were in the board, by what is known now. */
  readonly inPlace: string;
  /** How the unit was fed and loaded; null for a cold reading. */
  readonly source: number | null;
  readonly load: OperatingCondition['load'] | null;
}

/** Every standing reading of a job, oldest first; a cold one with what was to be expected there and the verdict. */
export function exportReadings({ boards, lines }: BenchJob): readonly ExportedReading[] {
  const judged = boards.map((b) => ({
    id: b.id,
    board: boardFromJson(b.content),
    start: boardFromJson(b.start),
  }));
  const taken = (line: LedgerLine, { mode, red, black }: Pick<ExportedReading, 'mode' | 'red' | 'black'>) => ({
    at: new Date(line.at).toISOString(),
    actor: line.actor,
    board: boards.find((b) => b.id === line.boardId)?.label ?? '',
    mode,
    red,
    black,
  });
  const cold = linesOf(lines, 'reading').map(({ line, body }): ExportedReading => {
    const told = judgeReading({ boards: judged, lines }, { boardId: line.boardId, seq: line.seq, body });
    const e = told?.expected ?? null;
    return {
      ...taken(line, body),
      value: body.seen.kind === 'figure' ? body.seen.value : body.seen.kind === 'overload' ? 'OL' : 'agrees',
      expected: e && (e.nominal ?? 'OL'),
      low: e && e.low,
      high: e && e.high,
      unit: MODE_UNITS[body.mode],
      purpose: body.purpose,
      verdict: told?.outcome ?? null,
      inPlace: (told?.faults ?? []).map(formatFault).join('+'),
      source: null,
      load: null,
    };
  });
  const powered = linesOf(lines, 'powered-reading').map(({ line, body }): ExportedReading => ({
    ...taken(line, body),
    value: body.value,
    expected: null,
    low: null,
    high: null,
    unit: POWERED_UNITS[body.mode],
    purpose: 'powered',
    verdict: null,
    inPlace: '',
    source: body.source,
    load: body.load,
  }));
  return [...cold, ...powered].sort((a, b) => a.at.localeCompare(b.at));
}

/** The readings as CSV with a header line. */
export function readingsCsv(job: BenchJob): string {
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
    'verdict',
    'inPlace',
    'source',
    'load',
  ] as const;
  const rows = exportReadings(job).map((r) => header.map((key) => csvCell(String(r[key] ?? ''))).join(','));
  return `${[header.join(','), ...rows].join('\n')}\n`;
}

/** The whole job as one JSON document: unit, complaint, ledger, readings against expected. Lines are named by their numbers. */
export function jobJson(open: OpenJob): unknown {
  const { job, boards, harnesses, lines } = open;
  const { outcome, waitingFor } = jobState(lines);
  const seqOf = new Map(lines.map((l) => [l.id, l.seq]));
  const label = (id: string): string => boards.find((b) => b.id === id)?.label ?? id;
  return {
    format: 'rough-lantern-job',
    version: 3,
    job: { ...job, id: undefined, broughtIn: undefined, outcome, waitingFor },
    boards: boards.map((b) => ({ label: b.label, upto: b.upto, origin: b.origin, board: b.content, start: b.start })),
    harnesses: harnesses.map((h) => ({
      from: { board: label(h.fromBoard), pin: h.fromPin },
      to: { board: label(h.toBoard), pin: h.toPin },
    })),
    ledger: [...lines].reverse().map(({ seq, at, actor, entry: { kind, body }, reverses }) => ({
      seq,
      at: new Date(at).toISOString(),
      actor,
      kind,
      body: renamed(kind, body as Readonly<Record<string, unknown>>, (id) => seqOf.get(id)?.toString()),
      reverses: reverses === null ? null : seqOf.get(reverses)!,
    })),
    readings: exportReadings(open),
  };
}
