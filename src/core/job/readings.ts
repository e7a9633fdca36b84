import type { Observation, TakenReading } from '../diagnose';
import type { SeenReading } from '../expect';
import { linesOf } from '../ledger';
import type { LedgerLine, ReadingBody } from '../ledger';

/** The readings on a board that count for its diagnosis, in the order taken: those before the repair. */
export function diagnosticReadings(lines: readonly LedgerLine[], boardId: string): readonly TakenReading[] {
  return linesOf(lines, 'reading')
    .filter(({ line, body }) => line.boardId === boardId && body.purpose !== 'after-repair' && isEvidence(body))
    .map(({ body }) => taken(body));
}

/** Whether a cold reading says anything: not on a live board, and not when the figure jumped about. */
export function isEvidence({ conditions }: ReadingBody): boolean {
  return !conditions.powered && conditions.settled !== 'jumping';
}

/** What was seen, with the creeping that either the figure or its conditions tell. */
export function steadySeen({ seen, conditions }: ReadingBody): SeenReading {
  if (seen.kind !== 'figure') return seen;
  const unsteady = seen.unsteady === true || conditions.settled === 'creeping';
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
