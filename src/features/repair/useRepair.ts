'use client';
import { useMemo } from 'react';
import { findPart, netKey } from '@/core/circuit';
import type { Part } from '@/core/circuit';
import { alsoCheck } from '@/core/diagnose';
import type { AlsoCheck } from '@/core/diagnose';
import { expectReading, judge } from '@/core/expect';
import type { ExpectedReading, Outcome } from '@/core/expect';
import { parseFault } from '@/core/fault';
import { linesOf } from '@/core/job';
import type { ReadingBody } from '@/core/job';
import { solverFor } from '@/core/meter';
import { useJob } from '@/features/frame/JobContext';
import type { JobBoard } from '@/features/frame/JobContext';
import type { LedgerEntry } from '@/wire/ledger';

type ReplacementBody = Extract<LedgerEntry, { kind: 'replacement' }>['body'];

/** One of the linked faults with what has been done about it. */
export interface CheckState {
  readonly check: AlsoCheck;
  readonly expected: ExpectedReading;
  readonly read: { readonly body: ReadingBody; readonly outcome: Outcome } | null;
  readonly skipped: string | null;
}

/** One part to replace with what has been fitted and how it reads now. */
export interface FitState {
  readonly part: Part;
  readonly fitted: ReplacementBody | null;
  readonly expected: ExpectedReading | null;
  readonly after: { readonly body: ReadingBody; readonly outcome: Outcome } | null;
}

/** Where a repair stands, derived from the ledger: the called fault, what to check, what to fit, what it reads now. */
export function useRepair(): RepairState {
  const { boards, active, lines } = useJob();
  return useMemo((): RepairState => {
    const call = linesOf<{ fault: string; words: string }>(lines, 'fault').at(-1);
    const called = call?.body ?? null;
    // A repair is of the board on which the fault was called.
    const home = boards.find((b) => b.id === call?.line.boardId) ?? active;
    const { board } = home;
    const here = lines.filter((l) => l.boardId === null || l.boardId === home.id);
    const closed = linesOf(lines, 'step-closed').length > 0;
    if (!called) return { home, called, closed, checks: [], fits: [] };
    const faults = called.fault.split('+').flatMap((t) => {
      const parsed = parseFault(board, t);
      return parsed.ok ? [parsed.value] : [];
    });
    const broken = solverFor(board, faults);
    const healthy = solverFor(board, []);
    const readings = linesOf<ReadingBody>(here, 'reading').map(({ body }) => body);
    const skips = linesOf<{ ref: string; fault: string; reason: string }>(lines, 'check-skipped').map(
      ({ body }) => body,
    );
    const checks = alsoCheck(board, called.fault).map((check): CheckState => {
      // What else is broken already changes the reading here: it is expected with the called fault in place.
      const expected = expectReading(board, broken, check.point.mode, check.point.red, check.point.black);
      const body = readings
        .filter((r) => r.purpose !== 'after-repair' && r.mode === check.point.mode && sameLeads(r, check.point))
        .at(-1);
      const read = body ? { body, outcome: judge(expected, seenOf(body)) } : null;
      return { check, expected, read, skipped: skips.find((s) => s.fault === check.fault)?.reason ?? null };
    });
    const replacements = linesOf<ReplacementBody>(here, 'replacement').map(({ body }) => body);
    const refs = [
      ...faults.map((f) => f.ref),
      ...checks.filter((c) => c.read?.outcome === 'disagree').map((c) => c.check.ref),
      ...replacements.map((r) => r.ref),
    ];
    const fits = [...new Set(refs)].flatMap((ref): readonly FitState[] => {
      const part = findPart(board, ref);
      if (!part) return [];
      const point = afterPoint(part);
      const expected = point ? expectReading(board, healthy, point.mode, point.red, point.black) : null;
      const body = readings.filter((r) => r.purpose === 'after-repair' && r.ref === ref).at(-1);
      const after = body && expected ? { body, outcome: judge(expected, seenOf(body)) } : null;
      return [{ part, fitted: replacements.filter((r) => r.ref === ref).at(-1) ?? null, expected, after }];
    });
    return { home, called, closed, checks, fits };
  }, [boards, active, lines]);
}

/** What `useRepair` gives. */
export interface RepairState {
  readonly home: JobBoard;
  readonly called: { readonly fault: string; readonly words: string } | null;
  readonly closed: boolean;
  readonly checks: readonly CheckState[];
  readonly fits: readonly FitState[];
}

function sameLeads(a: { red: string; black: string }, b: { red: string; black: string }): boolean {
  return netKey(a.red) === netKey(b.red) && netKey(a.black) === netKey(b.black);
}

function seenOf(body: ReadingBody): Parameters<typeof judge>[1] {
  const { seen } = body;
  return seen.kind === 'figure'
    ? { kind: 'figure', value: seen.value, ...(seen.unsteady ? { unsteady: true } : {}) }
    : seen;
}

/** The reading that shows a new part works: diode test over a junction, ohms over the rest. */
function afterPoint(
  part: Part,
): { readonly mode: 'diode' | 'ohms'; readonly red: string; readonly black: string } | null {
  const nets = part.nets;
  const pick = (mode: 'diode' | 'ohms', a: number, b: number) => {
    const [red, black] = [nets[a], nets[b]];
    return red === undefined || black === undefined || netKey(red) === netKey(black)
      ? null
      : ({ mode, red, black } as const);
  };
  switch (part.kind) {
    case 'diode':
      return pick('diode', 0, 1);
    case 'mosfet':
      return pick('diode', 2, 0);
    case 'bjt':
      return pick('diode', 1, 2);
    case 'bridge':
      return pick('diode', 3, 2);
    default:
      return pick('ohms', 0, 1);
  }
}
