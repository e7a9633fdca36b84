import type { Board } from '@/core/circuit';
import { parseFault } from '@/core/fault';
import { MODE_UNITS, beeps, coldMode, readBoard, solverFor } from '@/core/meter';
import { ok } from '@/core/problem';
import type { Problem, Result } from '@/core/problem';
import { formatQuantity, formatVolts } from '@/core/quantity';
import type { DcSolver } from '@/core/solve';
import { z } from 'zod';
import { option, readArguments, required, UnusableArguments } from './arguments';
import { answerRequests } from './answerRequests';
import { openBoard } from '@/wire/openBoard';
import { printProblem } from './printProblem';

const Request = z.object({
  mode: z.string(),
  red: z.string(),
  black: z.string(),
  faults: z.array(z.string()).default([]),
});
type Request = z.output<typeof Request>;

interface Answer {
  readonly mode: string;
  readonly value: number | null;
  readonly unit: 'V' | 'ohm';
  readonly overload: boolean;
  readonly beep?: boolean;
}

/** Takes readings on one board; solvers are kept by fault set, so that a thousand requests stay quick. */
class Reader {
  private readonly solvers = new Map<string, DcSolver>();

  constructor(private readonly board: Board) {}

  take(request: Request): Result<Answer, Problem> {
    const mode = coldMode(request.mode);
    if (!mode.ok) return mode;
    const solver = this.solver(request.faults);
    if (!solver.ok) return solver;
    const read = readBoard(this.board, solver.value, mode.value, request.red, request.black);
    if (!read.ok) return read;
    const { reading } = read.value;
    const answer: Answer = {
      mode: mode.value,
      value: reading.kind === 'figure' ? reading.value : null,
      unit: MODE_UNITS[mode.value],
      overload: reading.kind === 'overload',
    };
    return ok(mode.value === 'continuity' ? { ...answer, beep: beeps(reading) } : answer);
  }

  private solver(texts: readonly string[]): Result<DcSolver, Problem> {
    const key = texts.join('\n');
    const known = this.solvers.get(key);
    if (known) return ok(known);
    const faults = [];
    for (const text of texts) {
      const fault = parseFault(this.board, text);
      if (!fault.ok) return fault;
      faults.push(fault.value);
    }
    const made = solverFor(this.board, faults);
    this.solvers.set(key, made);
    return ok(made);
  }
}

/** `lantern read BOARD --mode M --red NET --black NET [--fault F]…` or `--requests FILE`. Gives the exit status. */
export function readCommand(words: readonly string[]): number {
  const args = readArguments(words, ['mode', 'red', 'black', 'fault', 'requests', 'facts']);
  const [path] = args.plain;
  if (path === undefined || args.plain.length > 1) throw new UnusableArguments('read takes one board file.');
  const requests = option(args, 'requests');
  const board = openBoard(path, option(args, 'facts'));
  const reader = new Reader(board);
  if (requests !== undefined) return answerRequests(requests, (line) => answerLine(reader, line));
  const answer = reader.take({
    mode: required(args, 'mode'),
    red: required(args, 'red'),
    black: required(args, 'black'),
    faults: [...(args.options.get('fault') ?? [])],
  });
  const json = option(args, 'json') !== undefined;
  if (!answer.ok) return printProblem(answer.problem, json);
  console.log(json ? JSON.stringify(answer.value) : sentence(answer.value));
  return 0;
}

function answerLine(reader: Reader, line: string): unknown {
  let raw: unknown;
  try {
    raw = JSON.parse(line);
  } catch {
    return { error: { code: 'bad-request', message: 'The line is not JSON.' } };
  }
  const request = Request.safeParse(raw);
  if (!request.success) {
    return {
      error: {
        code: 'bad-request',
        message: request.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; '),
      },
    };
  }
  const answer = reader.take(request.data);
  return answer.ok ? answer.value : { error: { code: answer.problem.code, message: answer.problem.sentence } };
}

function sentence(answer: Answer): string {
  const figure =
    answer.value === null
      ? 'OL'
      : answer.unit === 'V'
        ? formatVolts(answer.value)
        : formatQuantity(answer.value, 'ohm', 4);
  return `${answer.mode}: ${figure}${answer.beep ? ', beep' : ''}`;
}
