import type { JobSource, LedgerLine } from '@/core/ledger';
import type { Board, Nameplate } from '@/core/circuit';
import { jobHazard } from '@/core/job';
import type { JobBoard, WaitingLine } from '@/core/job';
import { readNetlist } from '@/core/netlist';
import { seededRandom } from '@/core/quantity';
import type { Random } from '@/core/quantity';
import type { HazardState } from '@/core/safety';
import { entryOf } from './entryOf';
import { pick } from './hostile';

export const plate: Nameplate = { source: 'battery', inputRail: 'IN', inputReturn: 'GND', inputMax: 60 };
export function boardOf(...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return { ...read.value.board, nameplate: plate };
}
/** Two boards with two stores each: an input rail and an output rail. */
export const PARTS = [
  'XJ1 IN GND CONN',
  'C1 IN GND 1000u vr=100',
  'R1 IN FB 10k',
  'C2 OUT GND 2200u vr=35',
  'R9 X Y 1k',
];
export const main = boardOf(...PARTS);
export const boards: readonly JobBoard[] = [
  { id: '1', board: main },
  { id: '2', board: boardOf(...PARTS) },
];
export const sources: readonly JobSource[] = [
  { id: 's1', name: 'Battery', kind: 'battery' },
  { id: 's2', name: 'Battery', kind: 'battery' },
];
export const STORES = [
  ['1', 'C1'],
  ['1', 'C2'],
  ['2', 'C1'],
  ['2', 'C2'],
] as const;

/** Writes lines one second apart, by both clocks. */
export class Log {
  readonly lines: LedgerLine[] = [];
  seconds = 0;
  wallOffset = 0;
  boot = 1;
  bootedAt = 0;
  add(kind: string, body: unknown, boardId: string | null = '1', reverses: string | null = null): LedgerLine {
    this.seconds += 1;
    const seq = this.lines.length + 1;
    const entry = entryOf(kind, body);
    const line = { id: `l${seq}`, seq, boardId, entry, actor: 'Bench A', reverses, ...this.moment() };
    this.lines.push(line);
    return line;
  }
  moment() {
    const at = 1_700_000_000_000 + (this.seconds + this.wallOffset) * 1000;
    return { at, boot: `boot ${this.boot}`, uptime: this.seconds - this.bootedAt };
  }
  isolate(): this {
    for (const s of sources) this.add('isolation', { source: s.name, id: s.id }, null);
    return this;
  }
  prove(volts = 0.03, which: readonly (readonly [string, string])[] = STORES, meterProved = true): this {
    for (const [board, ref] of which)
      this.add('discharge-proof', { storeKey: 'x', refs: [ref], volts, meterProved }, board);
    return this;
  }
  undo(line: LedgerLine): LedgerLine {
    return this.add('reversal', { reason: '' }, line.boardId, line.id);
  }
  hazard(waiting: readonly WaitingLine[] = [], on = boards) {
    return jobHazard(sources, on, this.lines, this.moment(), { unit: plate, waiting });
  }
  get state(): HazardState {
    return this.hazard().state;
  }
}

export const reading = (powered: boolean) => ({
  mode: 'ohms',
  red: 'R9.1',
  black: 'Y',
  seen: { kind: 'overload' },
  purpose: 'probe',
  placeConfirmed: true,
  conditions: { powered },
});

/** A reading on the unit under power, as it is written. */
export const UNDER_POWER = { mode: 'dcv', red: 'IN', black: 'GND', value: 12, source: 12, load: 'half' };

export const KILLERS: readonly (readonly [string, (log: Log) => LedgerLine])[] = [
  ['power', (log) => log.add('recharged', { why: 'powered' }, null)],
  ['a row of a sweep', (log) => log.add('sweep-rows', { sweep: '1', csv: '', count: 1 })],
  ['a powered reading', (log) => log.add('reading', reading(true))],
  ['a safety test', (log) => log.add('safety-test', { test: 'insulation', result: '500 V' }, null)],
  ['a part fitted elsewhere on the board', (log) => log.add('replacement', { ref: 'R9', fitted: { samePart: true } })],
  ['a change on purpose', (log) => log.add('modification', { facts: ['R9 is=2k'] })],
  ['a fact at its rail', (log) => log.add('trace', { text: 'R7 472 in FB' })],
  ['a pin of the capacitor joined', (log) => log.add('trace', { text: 'c1.1 -- R9.1' })],
  ['its designator in another case', (log) => log.add('trace', { text: 'c1 is=470u' })],
  ['its rail renamed', (log) => log.add('trace', { text: 'net IN is VIN' })],
  ['a line that cannot be read', (log) => log.add('damaged', { kind: 'reading', was: { half: 1 } }, null)],
  ['a harness', (log) => log.add('action', { words: 'harness: Main board J1.1 to Panel J2.1' }, null)],
];

/**
 * An independent, small model: what may be believed after a log, written from the rules and not from the code. It
 * walks the log once and keeps for each store the time of its proof, by a clock of its own that nobody can set.
 */
class Model {
  isolated = [new Set<string>(), new Set<string>()];
  proof = new Map<string, { readonly time: number; readonly high: boolean } | null>();
  undone = new Set<string>();
  constructor(log: readonly { line: LedgerLine; time: number; boot: number }[]) {
    for (const { line } of log) if (line.reverses !== null) this.undone.add(line.reverses);
    for (const { line, time } of log) this.step(line, time, log);
  }
  private kill(test: (board: string, ref: string) => boolean): void {
    for (const [board, ref] of STORES) {
      const key = `${board} ${ref}`;
      if (test(board, ref) && !this.proof.get(key)?.high) this.proof.set(key, null);
    }
  }
  private step(line: LedgerLine, time: number, log: readonly { line: LedgerLine }[]): void {
    const told = line.reverses === null ? line : log.find((l) => l.line.id === line.reverses)!.line;
    const body = told.entry.body as unknown as Record<string, unknown> & {
      readonly refs: readonly string[];
      readonly conditions: { readonly powered: boolean };
    };
    switch (told.entry.kind) {
      case 'isolation': {
        const list = this.isolated[body['id'] === 's1' ? 0 : 1]!;
        if (line.reverses === null) list.add(line.id);
        else {
          list.delete(told.id);
          this.kill(() => true);
        }
        return;
      }
      case 'powered-reading':
        // It was connected: nothing isolated before counts any more.
        if (line.reverses === null) {
          for (const list of this.isolated) list.clear();
          this.kill(() => true);
        }
        return;
      case 'recharged':
      case 'sweep-rows':
      case 'safety-test':
      case 'damaged':
      case 'action':
        // Undoing one of them ends nothing more, but never brings anything back.
        if (line.reverses === null) this.kill(() => true);
        return;
      case 'reading':
        if (line.reverses === null && body.conditions.powered) this.kill(() => true);
        return;
      case 'replacement':
        return this.kill((board) => board === told.boardId);
      case 'trace': {
        const text = String(body['text']);
        return this.kill(
          (board, ref) => board === told.boardId && text.toUpperCase().includes(ref === 'C1' ? 'IN' : 'OUT'),
        );
      }
      case 'discharge-proof': {
        const key = `${told.boardId} ${String(body.refs[0]).toUpperCase()}`;
        const high = Math.abs(Number(body['volts'])) >= 0.2;
        if (line.reverses !== null) return;
        if (this.undone.has(line.id)) {
          if (high) this.proof.set(key, null);
        } else if (high) this.proof.set(key, { time, high });
        else if (body['meterProved'] && this.isolated.every((s) => s.size > 0)) this.proof.set(key, { time, high });
      }
    }
  }
  judge(now: number, bootedAt: number): HazardState {
    if (this.isolated.some((s) => s.size === 0)) return 'LIVE';
    const all = STORES.map(([b, r]) => this.proof.get(`${b} ${r}`) ?? null);
    if (all.some((p) => p?.high)) return 'CHARGED';
    return all.every((p) => p && now - p.time <= 15 * 60 && p.time >= bootedAt) ? 'DISCHARGED' : 'NOT PROVED';
  }
}

export const CAUTION: Readonly<Record<HazardState, number>> = {
  DISCHARGED: 0,
  'NOT PROVED': 1,
  UNKNOWN: 1,
  CHARGED: 2,
  LIVE: 3,
};

/** One random step of a careless, unlucky or hostile bench. */
function step(random: Random, log: Log): void {
  const board = pick(random, ['1', '2']);
  switch (Math.floor(random() * 18)) {
    case 0:
    case 1: {
      const s = pick(random, sources);
      return void log.add('isolation', { source: s.name, id: s.id }, null);
    }
    case 2:
      return void log.isolate();
    case 3:
    case 4:
    case 5:
      return void log.prove(pick(random, [0, 0.05, 0.19, -0.1]));
    case 6:
    case 7: {
      const volts = pick(random, [0.01, 0.1, 0.2, 12, 59.9, 320, -80]);
      const [b, ref] = pick(random, STORES);
      const named = random() < 0.5 ? ref : ref.toLowerCase();
      return void log.add('discharge-proof', { storeKey: '', refs: [named], volts, meterProved: random() < 0.7 }, b);
    }
    case 8: {
      const told = log.lines.filter((l) => l.reverses === null && !log.lines.some((m) => m.reverses === l.id));
      return void (told.length > 0 && log.undo(pick(random, told)));
    }
    case 9:
      return void pick(random, KILLERS)[1](log);
    case 10:
      if (random() < 0.3) return void log.add('powered-reading', UNDER_POWER, board);
      return void log.add('reading', reading(random() < 0.5), board);
    case 11:
      return void log.add(
        'trace',
        { text: pick(random, ['R9 is=2k', 'R8 103 IN X', 'R8 103 OUT X', 'R9.1 -- R1.2']) },
        board,
      );
    case 12:
      return void log.add('replacement', { ref: pick(random, ['R9', 'C1', 'c2']), fitted: { samePart: true } }, board);
    case 13:
      log.wallOffset += pick(random, [-7200, -3600, -60, 60, 3600, 86_400]);
      return;
    case 14:
      log.seconds += pick(random, [1, 60, 500, 901, 5000]);
      return;
    case 15:
      if (random() < 0.2) {
        log.boot += 1;
        log.bootedAt = log.seconds;
      }
      return;
    case 16:
      return void log.add('override', { what: 'proof', reason: 'because' }, board);
    default:
      return void log.add('site', { wet: random() < 0.5 }, null);
  }
}

/** A random log and how it is judged, by the application and by the model. */
export function ledgerCase(seed: number): {
  readonly log: Log;
  readonly state: HazardState;
  readonly model: HazardState;
} {
  const random = seededRandom(seed);
  const log = new Log();
  const times: { line: LedgerLine; time: number; boot: number }[] = [];
  const steps = 3 + Math.floor(random() * 12);
  for (let k = 0; k < steps; k++) {
    const before = log.lines.length;
    step(random, log);
    const added = log.lines.slice(before);
    added.forEach((line, i) => times.push({ line, time: log.seconds - (added.length - 1 - i), boot: log.boot }));
  }
  const model = new Model(times).judge(log.seconds, log.bootedAt);
  const newestFirst = [...log.lines].reverse();
  const { state } = jobHazard(sources, boards, newestFirst, log.moment(), { unit: plate });
  return { log, state, model };
}
