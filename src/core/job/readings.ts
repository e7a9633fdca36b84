import { netKey } from '../circuit';
import type { Observation, TakenReading } from '../diagnose';
import type { SeenReading } from '../expect';
import { linesOf, standingLines } from '../ledger';
import type { LedgerLine, PoweredReadingBody, ReadingBody } from '../ledger';
import type { OperatingCondition } from '../work';

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

/** A source this far from another one is another condition, as a share. */
const LIKE_SOURCE = 0.1;

/** Whether what shows in one condition may stand for another: the same load, a source hardly different. */
export function isLikeCondition(a: OperatingCondition, b: OperatingCondition): boolean {
  return a.load === b.load && Math.abs(a.source - b.source) <= LIKE_SOURCE * b.source;
}

/**
 * What was read under power on a board as it is now, fed and loaded like this: at each place the last figure since a part
 * was fitted or the board changed.
 */
export function readUnderPower(
  lines: readonly LedgerLine[],
  boardId: string,
  condition: OperatingCondition,
): readonly PoweredReadingBody[] {
  const own = standingLines(lines).filter((l) => l.boardId === boardId);
  const changed = own.findLastIndex((l) => l.entry.kind === 'replacement' || l.entry.kind === 'modification');
  const found = new Map<string, PoweredReadingBody>();
  for (const { body } of linesOf(own.slice(changed + 1), 'powered-reading'))
    if (isLikeCondition(condition, body)) found.set(poweredPlace(body), body);
  return [...found.values()];
}

/** One key for readings of one kind at one place. */
export function poweredPlace({ mode, red, black }: Pick<PoweredReadingBody, 'mode' | 'red' | 'black'>): string {
  return `${mode} ${netKey(red)} ${netKey(black)}`;
}
