import './choices';
import { limiterSteps } from '@/core/diagnose';
import { expectReading, movedPoints, supposed } from '@/core/expect';
import type { ExpectedReading, Supposition } from '@/core/expect';
import { solverFor } from '@/core/meter';
import { formatQuantity } from '@/core/quantity';
import { quantityWords, rateUnit, usableOutput } from '@/core/rate';
import type { KnownCorners, RatedUnit } from '@/core/rate';
import {
  PoweredReader,
  alivePoints,
  railVolts,
  startSequence,
  wavePlaces,
  withReadings,
  readerLike,
} from '@/core/work';
import type { AlivePoint, OperatingCondition } from '@/core/work';
import type { Board } from '@/core/circuit';
import { statedUnit } from './statedUnit';
import type { BoardAnswer, BoardAsked, WorkingAsked, WorkingUnit } from './workingMessages';

/** The board as it is noted, at the conditions worked out last: what a supposition begins at and is held against. */
let noted: { readonly board: Board; readonly readers: Map<string, PoweredReader> } | null = null;
let shown: PoweredReader | null = null;
let rated: { readonly board: Board; readonly unit: RatedUnit } | null = null;
let corners: KnownCorners = new Map();

const post = (answer: BoardAnswer): void => self.postMessage(answer);

/** Works out the working board away from the page. */
self.onmessage = ({ data }: MessageEvent<BoardAsked>): void => {
  try {
    post(answerTo(data));
  } catch (error) {
    post({ type: 'failed', id: data.id, sentence: error instanceof Error ? error.message : String(error) });
  }
};

function answerTo(asked: BoardAsked): BoardAnswer {
  const { id } = asked;
  switch (asked.type) {
    case 'work':
      return { type: 'work', id, unit: working(asked) };
    case 'wave':
      return { type: 'wave', id, wave: shown?.waveform(asked.red, asked.black) ?? null };
    case 'rate':
      return rate(asked);
    case 'limiter':
      return { type: 'limiter', id, steps: limiterSteps(asked.board, asked.condition, asked.suspects) };
  }
}

/** The noted board in a condition, worked out once. */
function sound(board: Board, condition: OperatingCondition): PoweredReader {
  if (noted?.board !== board && !same(noted?.board, board)) noted = { board, readers: noted?.readers ?? new Map() };
  const key = `${condition.source} ${condition.load}`;
  const known = noted!.readers.get(key);
  if (known?.board === noted!.board) return known;
  const near = known ?? [...noted!.readers.values()].at(-1);
  const made = PoweredReader.at(noted!.board, condition, [], near?.operation ?? null);
  noted!.readers.set(key, made);
  return made;
}

/** What a meter shows cold between the leads of a point: of the board as it is noted, once for each. */
let cold: {
  readonly board: Board;
  readonly solver: ReturnType<typeof solverFor>;
  readonly seen: Map<string, ExpectedReading | null>;
} | null = null;
function coldAt(board: Board, { red, black, mode }: AlivePoint): ExpectedReading | null {
  if (mode !== 'dcv') return null;
  if (cold?.board !== board) cold = { board, solver: solverFor(board, []), seen: new Map() };
  const key = `${red} ${black}`;
  const known = cold.seen.get(key);
  if (known !== undefined) return known;
  const made = expectReading(board, cold.solver, 'ohms', red, black);
  cold.seen.set(key, made);
  return made;
}

/** Messages copy what they carry: the same board comes as another object. */
const same = (a: Board | undefined, b: Board): boolean => a !== undefined && JSON.stringify(a) === JSON.stringify(b);

/** The board with what was supposed of it last: every question about it then counts on the same one. */
let turned: { readonly base: Board; readonly all: string; readonly made: ReturnType<typeof supposed> } | null = null;
function suppose(base: Board, all: readonly Supposition[]): ReturnType<typeof supposed> {
  const key = JSON.stringify(all);
  if (turned?.base !== base || turned.all !== key) turned = { base, all: key, made: supposed(base, all) };
  return turned.made;
}

function working({ board, condition, readings, supposed: all }: WorkingAsked): WorkingUnit {
  const begun = performance.now();
  const base = sound(board, condition);
  const { board: changed, faults } = suppose(base.board, all);
  const reader = all.length === 0 ? base : readerLike(changed, condition, faults, base.operation);
  const measured = withReadings(reader, all.length === 0 ? readings : []);
  shown = measured.reader;
  const points = alivePoints(shown);
  return {
    ...statedUnit(measured),
    points: points.map((p) => ({ ...p, cold: coldAt(base.board, p) })),
    waves: wavePlaces(shown),
    rails: railVolts(shown),
    sequence: startSequence(shown),
    moved: all.length === 0 ? null : movedPoints(alivePoints(base), points),
    took: performance.now() - begun,
  };
}

function rate({ id, board, supposed: all }: Extract<BoardAsked, { type: 'rate' }>): BoardAnswer {
  const steps = all.length === 0 ? 1 : 2;
  let begun = 0;
  const onProgress = (done: number): boolean => {
    post({ type: 'progress', id, done: (begun + done) / (steps + 1) });
    return true;
  };
  if (!same(rated?.board, board)) {
    // The one that its points were worked out for, where they were: what is known of it need not be found again.
    const own = noted && same(noted.board, board) ? noted.board : board;
    const unit = rateUnit(own, { known: corners, onProgress });
    rated = unit && { board: own, unit };
    begun++;
  }
  if (!rated) return { type: 'rate', id, rated: null };
  const changed = suppose(rated.board, all).board;
  const known: KnownCorners = new Map(corners);
  const unit = changed === rated.board ? rated.unit : rateUnit(changed, { known, onProgress });
  if (!unit) return { type: 'rate', id, rated: null };
  begun++;
  const usable = usableOutput(changed, unit, known, onProgress);
  if (changed === rated.board) corners = known;
  return {
    type: 'rate',
    id,
    rated: { rated: unit, usable, moved: changed === rated.board ? [] : judgedOtherwise(rated.unit, unit) },
  };
}

/** Stresses that are judged otherwise now, in words. */
function judgedOtherwise(before: RatedUnit, now: RatedUnit): readonly string[] {
  const then = new Map(before.rows.map((r) => [`${r.ref} ${r.quantity}`, r]));
  return now.rows.flatMap((r) => {
    const was = then.get(`${r.ref} ${r.quantity}`);
    if (was?.verdict === r.verdict) return [];
    const figures = `${formatQuantity(r.stress, r.unit)}${r.rating === null ? '' : ` of ${formatQuantity(r.rating, r.unit)}`}`;
    return [`${r.ref} ${r.verdict} (${quantityWords(r.quantity)} ${figures}${was ? `, was ${was.verdict}` : ''})`];
  });
}
