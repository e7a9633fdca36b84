import type { TakenReading, Observation } from '../diagnose';
import type { SeenReading } from '../expect';
import type { ColdMode } from '../meter';

/** What of a reading line the core needs. */
export interface ReadingBody {
  readonly mode: ColdMode;
  readonly red: string;
  readonly black: string;
  readonly seen:
    | { readonly kind: 'figure'; readonly value: number; readonly unsteady?: boolean | undefined }
    | { readonly kind: 'overload' }
    | { readonly kind: 'agrees' };
  readonly purpose: 'probe' | 'also-check' | 'after-repair';
  readonly ref?: string | undefined;
  readonly placeConfirmed: boolean;
  readonly conditions?:
    | {
        readonly powered?: boolean | undefined;
        readonly settled?: 'settled' | 'creeping' | 'jumping' | undefined;
      }
    | undefined;
}

/** A ledger line as the core sees it; other kinds carry a body that only screens read. */
export interface LedgerLine {
  readonly id: string;
  readonly seq: number;
  readonly boardId: string | null;
  readonly entry: { readonly kind: string; readonly body: unknown };
  readonly actor: string;
  /** When it was written: by the wall clock, milliseconds since 1970, and by the server's steady one where it is known. */
  readonly at: number;
  readonly boot?: string | null | undefined;
  readonly uptime?: number | null | undefined;
  readonly reverses: string | null;
}

/** The lines that stand, oldest first: reversals and what they undid are left out. */
export function standingLines<T extends LedgerLine>(lines: readonly T[]): readonly T[] {
  const undone = new Set(lines.flatMap((l) => (l.reverses === null ? [] : [l.reverses])));
  return lines.filter((l) => l.reverses === null && !undone.has(l.id)).sort((a, b) => a.seq - b.seq);
}

/** Body of the standing lines of one kind, with the line. */
export function linesOf<T>(
  lines: readonly LedgerLine[],
  kind: string,
): readonly { readonly line: LedgerLine; readonly body: T }[] {
  return standingLines(lines).flatMap((line) =>
    line.entry.kind === kind ? [{ line, body: line.entry.body as T }] : [],
  );
}

/** The readings on a board that count for its diagnosis, in the order taken: those before the repair. */
export function diagnosticReadings(lines: readonly LedgerLine[], boardId: string): readonly TakenReading[] {
  return linesOf<ReadingBody>(lines, 'reading')
    .filter(({ line, body }) => line.boardId === boardId && body.purpose !== 'after-repair' && isEvidence(body))
    .map(({ body }) => taken(body));
}

/** Whether a cold reading says anything: not on a live board, and not when the figure jumped about. */
export function isEvidence({ conditions }: ReadingBody): boolean {
  return conditions?.powered !== true && conditions?.settled !== 'jumping';
}

/** What was seen, with the creeping that either the figure or its conditions tell. */
export function steadySeen({ seen, conditions }: ReadingBody): SeenReading {
  if (seen.kind !== 'figure') return seen;
  const unsteady = seen.unsteady === true || conditions?.settled === 'creeping';
  return { kind: 'figure', value: seen.value, ...(unsteady ? { unsteady } : {}) };
}

/** A reading line as the diagnosis takes it: a creeping figure is a bound. */
export function taken(body: ReadingBody): TakenReading {
  const { mode, red, black, placeConfirmed } = body;
  const seen = steadySeen(body);
  const observed: Observation =
    seen.kind === 'figure' ? { kind: seen.unsteady ? 'at-least' : 'figure', value: seen.value } : seen;
  return { mode, red, black, seen: observed, placeConfirmed };
}
