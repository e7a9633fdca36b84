import { linesOf } from '../ledger';
import type { LedgerLine, ReadingBody } from '../ledger';
import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import { alsoCheck, pointKey } from '../diagnose';
import { flatten } from '../device';
import { expectReading, expectRing, expectSignal, judge } from '../expect';
import type { ExpectedReading, Outcome } from '../expect';
import { formatFault, parseFaults } from '../fault';
import type { Fault } from '../fault';
import { isCold, solverFor } from '../meter';
import type { UnpoweredMode } from '../meter';
import { kept } from '../problem';
import { SIGNAL_HERTZ, SignalNetwork } from '../signal';
import type { OneTone } from '../signal';
import type { DcSolver } from '../solve';
import { deriveBoard } from '../trace';
import { boardEntries } from './boardEntries';
import { isEvidence, steadySeen } from './readings';

/** A job's board as it came, as it is now, and before anything was found out about it. */
export interface JudgedBoard {
  readonly id: string;
  readonly board: Board;
  readonly start: Board;
}

/** What a reading is judged by: the boards of its job and the whole log. */
export interface JudgedJob {
  readonly boards: readonly JudgedBoard[];
  readonly lines: readonly LedgerLine[];
}

export type Purpose = ReadingBody['purpose'];

/** Where a reading is or was taken, and what for. `seq` is the number of its line; left out, it is taken now. */
export interface AskedReading {
  readonly boardId: string | null;
  readonly purpose: Purpose;
  readonly mode: UnpoweredMode;
  readonly red: string;
  readonly black: string;
  readonly ref?: string | undefined;
  readonly seq?: number | undefined;
}

/** What should show at a place: on which board, with which faults still in it. */
export interface Expectation {
  readonly board: Board;
  readonly faults: readonly Fault[];
  /** Null when the place is not on that board. */
  readonly expected: ExpectedReading | null;
}

/** An expectation with the verdict on what was read; the verdict is null where nothing can be expected. */
export interface JudgedReading extends Expectation {
  readonly outcome: Outcome | null;
}

/**
 * What should show at a place, by what the log says was on the board at that point of it.
 *
 * The board is the one found, with what was fitted and changed before that line and all that was ever found out about
 * it. Probing compares with the healthy board. What is checked beside a called fault is read with that fault in place;
 * what is read after the repair, with what was called or found broken and not yet replaced. Null: no such board.
 */
export function expectAt(job: JudgedJob, asked: AskedReading): Expectation | null {
  const home = job.boards.find((b) => b.id === asked.boardId);
  if (!home) return null;
  const seq = asked.seq ?? Infinity;
  const board = boardAt(home, job.lines, seq);
  const faults = faultsAt(job, home, board, asked, seq);
  const { mode, red, black } = asked;
  const { nodeOfNet } = solverOf(board, faults).network;
  const there = [red, black].every((net) => netKey(net) !== 'nc' && nodeOfNet.has(netKey(net)));
  return { board, faults, expected: there ? expectedOf(board, faults, mode, red, black) : null };
}

/** What the meter, or another instrument, should show between two nets of a board with these faults. */
function expectedOf(
  board: Board,
  faults: readonly Fault[],
  mode: UnpoweredMode,
  red: string,
  black: string,
): ExpectedReading {
  if (isCold(mode)) return expectReading(board, solverOf(board, faults), mode, red, black);
  return mode === 'ring'
    ? ringOf(board, faults, red, black)
    : expectSignal(board, signalOf(board, faults, mode), mode, red, black);
}

/**
 * The one verdict on a reading, for every screen and every export.
 *
 * as  judges it as if it had been taken for this: a reading of the probing that answers a check.
 */
export function judgeReading(
  job: JudgedJob,
  { boardId, seq, body }: { readonly boardId: string | null; readonly seq?: number; readonly body: ReadingBody },
  as: Purpose = body.purpose,
): JudgedReading | null {
  const { mode, red, black, ref } = body;
  const told = expectAt(job, { boardId, purpose: as, mode, red, black, ref, seq });
  if (!told) return null;
  // A cold mode read on a live board says nothing about the parts.
  if (body.conditions.powered) return { ...told, expected: null, outcome: 'noted' };
  if (!told.expected) return { ...told, outcome: null };
  return { ...told, outcome: isEvidence(body) ? judge(told.expected, steadySeen(body)) : 'noted' };
}

/**
 * Whether it is known that the leads were where the reading says: each net has a part that was seen there, and no part
 * that is only assumed makes the reading.
 */
export function isPlaceConfirmed(board: Board, mode: UnpoweredMode, red: string, black: string): boolean {
  const seen = (net: string): boolean =>
    board.parts.some((p) => p.basis !== 'assumed' && p.nets.some((n) => netKey(n) === netKey(net)));
  if (!seen(red) || !seen(black)) return false;
  const { through } = expectedOf(board, [], mode, red, black);
  return through.every((ref) => findPart(board, ref)?.basis !== 'assumed');
}

const boardsAt = new WeakMap<JudgedBoard, Map<string, Board>>();

/** The board with what was fitted and changed on it before a line. */
function boardAt(home: JudgedBoard, lines: readonly LedgerLine[], seq: number): Board {
  const later = lines.filter((l) => l.seq >= seq && l.boardId === home.id && isChange(l));
  if (later.length === 0) return home.board;
  // A board is another object with every fact that comes or goes: what is left out of it says which one is meant.
  const left = new Set(later.map((l) => l.id));
  return kept(boardsAt, home, [...left].join(), () => {
    const before = lines.filter((l) => !left.has(l.id));
    return deriveBoard(home.start, boardEntries(before, home.id)).board;
  });
}

function isChange({ entry }: LedgerLine): boolean {
  return entry.kind === 'modification' || entry.kind === 'replacement';
}

/** The faults that were still in the board when a reading was taken for a purpose, as far as they are known now. */
function faultsAt(
  job: JudgedJob,
  home: JudgedBoard,
  board: Board,
  { purpose, ref }: AskedReading,
  seq: number,
): readonly Fault[] {
  if (purpose === 'probe') return [];
  const calls = linesOf(job.lines, 'fault').filter(({ line }) => line.boardId === home.id);
  const call = calls.filter(({ line }) => line.seq < seq).at(-1) ?? calls.at(-1);
  if (!call) return [];
  const replaced = new Set(
    linesOf(job.lines, 'replacement')
      .filter(({ line }) => line.boardId === home.id && line.seq < seq)
      .map(({ body }) => body.ref.toLowerCase()),
  );
  const labels = [call.body.fault];
  if (purpose === 'after-repair') {
    labels.push(...foundBroken(job, home, call.body.fault, seq));
    if (ref !== undefined) replaced.add(ref.toLowerCase());
  }
  return parseFaults(board, labels.join('+')).filter((f) => !replaced.has(f.ref.toLowerCase()));
}

/** Labels of the linked faults that their checks have shown to be there before a line. */
function foundBroken(job: JudgedJob, home: JudgedBoard, called: string, seq: number): readonly string[] {
  const read = linesOf(job.lines, 'reading').filter(
    ({ line, body }) => line.boardId === home.id && line.seq < seq && body.purpose === 'also-check',
  );
  if (read.length === 0) return [];
  const checks = alsoCheck(boardAt(home, job.lines, 0), called);
  return read.flatMap(({ line, body }) => {
    const check = checks.find((c) => c.ref === body.ref && pointKey(c.point) === pointKey(body));
    const broken = check && judgeReading(job, { boardId: line.boardId, seq: line.seq, body })?.outcome === 'disagree';
    return broken ? [check.fault] : [];
  });
}

const solvers = new WeakMap<Board, Map<string, DcSolver>>();

/** One solver for a board with these faults, kept as long as the board is. */
function solverOf(board: Board, faults: readonly Fault[]): DcSolver {
  return kept(solvers, board, faults.map(formatFault).join('+'), () => solverFor(board, faults));
}

const signalBoards = new WeakMap<Board, Map<string, SignalNetwork>>();

/** The same for an instrument with a frequency. */
function signalOf(board: Board, faults: readonly Fault[], mode: OneTone): SignalNetwork {
  return kept(
    signalBoards,
    board,
    `${mode} ${faults.map(formatFault).join('+')}`,
    () => new SignalNetwork(flatten(board, faults), 2 * Math.PI * SIGNAL_HERTZ[mode]),
  );
}

const rings = new WeakMap<Board, Map<string, ExpectedReading>>();

/** What a ring tester should show, worked out once for each place. */
function ringOf(board: Board, faults: readonly Fault[], red: string, black: string): ExpectedReading {
  const key = `${netKey(red)} ${netKey(black)} ${faults.map(formatFault).join('+')}`;
  return { ...kept(rings, board, key, () => expectRing(board, faults, red, black)), red, black };
}
