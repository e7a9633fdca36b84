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
import { LOADS, POWERED_MODES, POWERED_UNITS, PoweredReader } from '@/core/work';
import type { ConverterState, Operation, PoweredMode } from '@/core/work';
import { z } from 'zod';
import { option, readArguments, required, UnusableArguments } from './arguments';
import type { Arguments } from './arguments';
import { answerRequests } from './answerRequests';
import { openBoard } from '@/wire/openBoard';
import { printProblem } from './printProblem';

const Request = z.object({
  mode: z.string(),
  red: z.string(),
  black: z.string(),
  faults: z.array(z.string()).default([]),
  powered: z
    .object({
      source: z.number().nonnegative().max(10_000).optional(),
      load: z.enum(LOADS).default('half'),
    })
    .optional(),
});
type Request = z.output<typeof Request>;

interface Answer {
  readonly mode: string;
  readonly value: number | null;
  readonly unit: 'V' | 'ohm' | 'F' | 'cycles' | 'Hz';
  readonly overload: boolean;
  readonly beep?: boolean;
  readonly low?: number | null;
  readonly high?: number | null;
  readonly state?: ConverterState;
  readonly states?: Readonly<Record<string, ConverterState>>;
  readonly period?: number | null;
  readonly destroys?: Operation['destroys'];
}

/** Takes readings on one board; what is worked out for a set of faults is kept, so that a thousand requests stay quick. */
class Reader {
  private readonly solvers = new Map<string, DcSolver>();
  private readonly signals = new Map<string, SignalReader>();
  private readonly powered = new Map<string, PoweredReader>();
  private readonly nets: ReadonlySet<string>;

  constructor(private readonly board: Board) {
    this.nets = new Set(boardNets(board).map(netKey));
  }

  take(request: Request): Result<Answer, Problem> {
    const faults = this.faults(request.faults);
    if (!faults.ok) return faults;
    const key = request.faults.join('\n');
    const powered = POWERED_MODES.find((m) => m === request.mode);
    if (powered) return this.atWork(powered, request, faults.value, key);
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
    const missing = [red, black].find((net) => !this.nets.has(netKey(net)));
    if (missing !== undefined) return refuse(unknownNet(this.board, missing));
    const value = reader.read(mode, red, black) ?? null;
    return ok({ mode, value, unit: SIGNAL_UNITS[mode], overload: value === null });
  }

  private atWork(
    mode: PoweredMode,
    { red, black, powered }: Request,
    faults: readonly Fault[],
    key: string,
  ): Result<Answer, Problem> {
    const source = powered?.source ?? this.board.nameplate?.inputNominal;
    if (source === undefined) {
      return refuse({
        code: 'no-nameplate',
        sentence: 'Nothing tells what this unit is fed from.',
        remedy: 'Give its nameplate with --facts FILE.',
      });
    }
    const condition = { source, load: powered?.load ?? 'half' };
    const reader = kept(this.powered, `${source} ${condition.load} ${key}`, () =>
      PoweredReader.at(this.board, condition, faults),
    );
    const missing = [red, black].find((net) => !this.nets.has(netKey(net)));
    if (missing !== undefined) return refuse(unknownNet(this.board, missing));
    const read = reader.read(mode, red, black);
    const { unitState: state, states, period, destroys } = reader.operation;
    return ok({
      mode,
      value: read?.value ?? null,
      unit: POWERED_UNITS[mode],
      overload: false,
      low: read?.low ?? null,
      high: read?.high ?? null,
      state,
      states,
      period,
      ...(destroys.length > 0 ? { destroys } : {}),
    });
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
  const args = readArguments(words, ['mode', 'red', 'black', 'fault', 'requests', 'facts', 'source', 'load']);
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
    ...(poweredOptions(args) ?? {}),
  });
  const json = option(args, 'json') !== undefined;
  if (!answer.ok) return printProblem(answer.problem, json);
  console.log(json ? JSON.stringify(answer.value) : sentence(answer.value));
  return 0;
}

/** `--powered`, `--source` and `--load` as a request carries them. */
function poweredOptions(args: Arguments): Pick<Request, 'powered'> | null {
  const [source, load] = [option(args, 'source'), option(args, 'load')];
  if (option(args, 'powered') === undefined && source === undefined && load === undefined) return null;
  const parsed = Request.shape.powered.safeParse({
    ...(source === undefined ? {} : { source: Number(source) }),
    ...(load === undefined ? {} : { load }),
  });
  if (!parsed.success) throw new UnusableArguments('--source is volts, --load is none, half or full.');
  return { powered: parsed.data };
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
