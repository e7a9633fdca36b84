import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { alsoCheck, pointKey } from '../diagnose';
import type { AlsoCheck, ProbePoint } from '../diagnose';
import { parseFaults } from '../fault';
import { linesOf } from '../ledger';
import { isCold } from '../meter';
import type { LedgerBodies, LedgerLine, ReadingBody } from '../ledger';
import { expectAt, judgeReading } from './judgeReading';
import type { Expectation, JudgedBoard, JudgedReading, Purpose } from './judgeReading';

/** A reading that was taken, with its verdict. */
export type ReadState = JudgedReading & { readonly body: ReadingBody };

/** One of the linked faults with what has been done about it. */
export interface CheckState {
  readonly check: AlsoCheck;
  /** What should show there now. */
  readonly told: Expectation | null;
  readonly read: ReadState | null;
  readonly skipped: string | null;
}

/** One part to replace with what has been fitted and how it reads now. */
export interface FitState {
  readonly part: Part;
  readonly fitted: LedgerBodies['replacement'] | null;
  /** What should show across it now; null where no reading tells. */
  readonly told: Expectation | null;
  readonly after: ReadState | null;
}

/** A board of the job as the repair sees it: with what was found on it besides what it is now. */
export interface RepairBoard extends JudgedBoard {
  readonly asFound: Board;
}

/** Where a repair stands: the called fault, on which board, what to check beside it, what to fit. */
export interface RepairState<B extends RepairBoard> {
  readonly home: B;
  readonly called: { readonly fault: string; readonly words: string } | null;
  readonly closed: boolean;
  readonly checks: readonly CheckState[];
  readonly fits: readonly FitState[];
}

/** Where a repair stands by the log. active: the board that is worked on, while no fault was called on one. */
export function repairState<B extends RepairBoard>(
  boards: readonly B[],
  active: B,
  lines: readonly LedgerLine[],
): RepairState<B> {
  const call = linesOf(lines, 'fault').at(-1);
  const called = call?.body ?? null;
  // A repair is of the board on which the fault was called.
  const home = boards.find((b) => b.id === call?.line.boardId) ?? active;
  const { board, asFound } = home;
  const here = lines.filter((l) => l.boardId === null || l.boardId === home.id);
  const closed = linesOf(lines, 'step-closed').length > 0;
  if (!called) return { home, called, closed, checks: [], fits: [] };
  const faults = parseFaults(asFound, called.fault);
  const job = { boards, lines };
  const expect = (point: ProbePoint, purpose: Purpose, ref: string): Expectation | null =>
    expectAt(job, { ...point, boardId: home.id, purpose, ref });
  const readings = linesOf(here, 'reading');
  const judged = (found: (typeof readings)[number] | undefined, as?: Purpose): ReadState | null => {
    const told = found && judgeReading(job, { ...found.line, body: found.body }, as);
    return told ? { ...told, body: found.body } : null;
  };
  const skips = linesOf(lines, 'check-skipped').map(({ body }) => body);
  const checks = alsoCheck(asFound, called.fault).map((check): CheckState => {
    // A reading of the probing answers the check too: what else is broken already changed it then.
    const found = readings.filter(
      ({ body }) => body.purpose !== 'after-repair' && pointKey(body) === pointKey(check.point),
    );
    const skipped = skips.find((s) => s.fault === check.fault)?.reason ?? null;
    return {
      check,
      told: expect(check.point, 'also-check', check.ref),
      read: judged(found.at(-1), 'also-check'),
      skipped,
    };
  });
  const replacements = linesOf(here, 'replacement').map(({ body }) => body);
  const refs = [
    ...faults.map((f) => f.ref),
    ...checks.filter((c) => c.read?.outcome === 'disagree').map((c) => c.check.ref),
    ...replacements.map((r) => r.ref),
  ];
  const fits = [...new Set(refs)].flatMap((ref): readonly FitState[] => {
    const part = findPart(board, ref);
    if (!part) return [];
    const point = instrumentPoint(part, readings) ?? afterPoint(part);
    const after = readings.filter(({ body }) => body.purpose === 'after-repair' && body.ref === ref).at(-1);
    const fitted = replacements.filter((r) => r.ref === ref).at(-1) ?? null;
    return [{ part, fitted, told: point && expect(point, 'after-repair', ref), after: judged(after) }];
  });
  return { home, called, closed, checks, fits };
}

/** Where a part was last read across with another instrument than the meter: what showed the fault shows the repair. */
function instrumentPoint(part: Part, readings: readonly { readonly body: ReadingBody }[]): ProbePoint | null {
  if (part.kind !== 'capacitor' && part.kind !== 'inductor') return null;
  const ends = new Set(part.nets.map(netKey));
  const across = ({ red, black }: ReadingBody): boolean =>
    netKey(red) !== netKey(black) && [red, black].every((net) => ends.has(netKey(net)));
  const found = readings.filter(({ body }) => !isCold(body.mode) && across(body)).at(-1);
  return found ? { mode: found.body.mode, red: found.body.red, black: found.body.black } : null;
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
