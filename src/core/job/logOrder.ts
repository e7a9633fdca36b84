import { linesOf } from '../ledger';
import type { LedgerEntry, LedgerLine } from '../ledger';
import { PROOF_MINUTES, secondsSince } from '../safety';
import type { Moment } from '../safety';

/** A line written in this window that the server has not acknowledged: it may raise the hazard, never lower it. */
export interface WaitingLine {
  readonly boardId: string | null;
  readonly entry: LedgerEntry;
  readonly reverses: string | null;
}

/** The line that a line takes back, if any. */
export function reversedBy(line: LedgerLine, byId: ReadonlyMap<string, LedgerLine>): LedgerLine | undefined {
  return line.reverses === null ? undefined : byId.get(line.reverses);
}

/** When a line was written, by both clocks. */
export function writtenAt({ at, boot = null, uptime = null }: LedgerLine): Moment {
  return { at, boot, uptime };
}

/** Lines after which any store of the job may hold a charge again, whatever became of them later. */
export function energises(line: LedgerLine, reversed: LedgerLine | undefined): boolean {
  const { entry } = line;
  switch (entry.kind) {
    case 'recharged':
    case 'powered-reading':
    case 'sweep-rows':
    case 'safety-test':
    // What cannot be read may have said anything.
    case 'damaged':
      return true;
    case 'reading':
      return entry.body.conditions.powered;
    case 'action':
      return /^(?:harness|board added)\b/u.test(entry.body.words);
    default:
      return reversed?.entry.kind === 'isolation';
  }
}

/** The acknowledged lines in the order of their numbers, then those still waiting here. */
export function inOrder(lines: readonly LedgerLine[], waiting: readonly WaitingLine[]): readonly LedgerLine[] {
  const sorted = [...lines].sort((a, b) => a.seq - b.seq);
  const last = sorted.at(-1)?.seq ?? 0;
  const more = waiting.map((w, i) => ({
    ...w,
    id: `waiting ${i}`,
    seq: last + 1 + i,
    actor: '',
    at: 0,
  }));
  return [...sorted, ...more];
}

/** Whether somebody chose to go on without proof, for as long as a proof would hold, and nothing has been energised since. */
export function goesOnWithoutProof(lines: readonly LedgerLine[], now: Moment): boolean {
  const byId = new Map(lines.map((l) => [l.id, l]));
  const lastCharge = Math.max(-1, ...lines.filter((l) => energises(l, reversedBy(l, byId))).map((l) => l.seq));
  return linesOf(lines, 'override').some(
    ({ line, body }) =>
      body.what === 'proof' && line.seq > lastCharge && secondsSince(writtenAt(line), now) < PROOF_MINUTES * 60,
  );
}
