import { boardNets, netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { parseFault } from '@/core/fault';
import type { Fault } from '@/core/fault';
import { MODE_UNITS, beeps, coldMode, readBoard, solverFor, unknownNet } from '@/core/meter';
import { ok, refuse } from '@/core/problem';
import type { Problem, Result } from '@/core/problem';
import { formatQuantity, formatVolts } from '@/core/quantity';
import { SIGNAL_MODES, SIGNAL_UNITS, SignalReader } from '@/core/signal';
import type { SignalMode } from '@/core/signal';
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
  readonly unit: 'V' | 'ohm' | 'F' | 'cycles';
  readonly overload: boolean;
  readonly beep?: boolean;
}

/** Takes readings on one board; what is worked out for a set of faults is kept, so that a thousand requests stay quick. */
class Reader {
  private readonly solvers = new Map<string, DcSolver>();
  private readonly signals = new Map<string, SignalReader>();

  constructor(private readonly board: Board) {}

  take(request: Request): Result<Answer, Problem> {
    const faults = this.faults(request.faults);
    if (!faults.ok) return faults;
    const key = request.faults.join('\n');
    const signal = SIGNAL_MODES.find((m) => m === request.mode);
    return signal ? this.signal(signal, request, faults.value, key) : this.cold(request, faults.value, key);
  }

  private cold(request: Request, faults: readonly Fault[], key: string): Result<Answer, Problem> {
    const mode = coldMode(request.mode);
    if (!mode.ok) return mode;
    const solver = kept(this.solvers, key, () => solverFor(this.board, faults));
    const read = readBoard(this.board, solver, mode.value, request.red, request.black);
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

  private signal(
    mode: SignalMode,
    { red, black }: Request,
    faults: readonly Fault[],
    key: string,
  ): Result<Answer, Problem> {
    const reader = kept(this.signals, key, () => new SignalReader(this.board, faults));
    const nets = new Set(boardNets(this.board).map(netKey));
    for (const net of [red, black]) if (!nets.has(netKey(net))) return refuse(unknownNet(this.board, net));
    const value = reader.read(mode, red, black) ?? null;
    return ok({ mode, value, unit: SIGNAL_UNITS[mode], overload: value === null });
  }

  private faults(texts: readonly string[]): Result<readonly Fault[], Problem> {
    const faults: Fault[] = [];
    for (const text of texts) {
      const fault = parseFault(this.board, text);
      if (!fault.ok) return fault;
      faults.push(fault.value);
    }
    return ok(faults);
  }
}

function kept<T>(all: Map<string, T>, key: string, make: () => T): T {
  const made = all.get(key) ?? make();
  all.set(key, made);
  return made;
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
        : answer.unit === 'cycles'
          ? `${answer.value} cycles`
          : formatQuantity(answer.value, answer.unit, 4);
  return `${answer.mode}: ${figure}${answer.beep ? ', beep' : ''}`;
}
