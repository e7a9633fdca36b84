import { linesOf } from '@/core/ledger';
import type { LedgerLine } from '@/core/ledger';
import { archetypeBoard } from '@/core/archetype';
import { boardNets } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import {
  boardEntries,
  boardFacts,
  diagnosticReadings,
  jobProgress,
  jobState,
  judgeReading,
  presentReadings,
} from '@/core/job';
import { readNetlist } from '@/core/netlist';
import { seededRandom } from '@/core/quantity';
import type { Random } from '@/core/quantity';
import { deriveBoard } from '@/core/trace';
import { exportReadings } from '@/usecases/exportJob';
import { boardToJson } from '@/wire/boardCopy';
import { LedgerEntry, readEntry } from '@/wire/ledger';
import type { StoredEntry, StoredLine } from '@/wire/ledger';
import { ODD_WORDS, hostileNetlist, hostileShorthand, pick } from './hostile';

const HOME = 'buck-module';
const HOUR_MS = 3_600_000;

/** A board that lines are written about: a typical circuit, or whatever came out of a hostile file. */
function someBoard(random: Random, seed: number): Board {
  if (random() < 0.3) {
    const read = readNetlist(hostileNetlist(seed));
    if (read.ok && read.value.board.parts.length > 0) return read.value.board;
  }
  return archetypeBoard(HOME)!;
}

/** The body of a line of some kind, odd here and there; the schema decides what of it may be written. */
function someEntry(random: Random, board: Board): { readonly kind: string; readonly body: unknown } {
  const nets = boardNets(board);
  const odd = <T>(usual: T, share = 0.06): T | string => (random() < share ? pick(random, ODD_WORDS) : usual);
  const figure = (): number => pick(random, [0, -0.1, 0.03, 12, 59.9, 320, 4700, 1e300, 1e-300, -1e9]);
  const part = (): string => pick(random, board.parts).ref;
  const label = (): string => `${part()}:${pick(random, ['open', 'short', 'short(d,s)', 'leak', 'value'])}`;
  const kinds: readonly (() => { kind: string; body: unknown })[] = [
    () => ({
      kind: 'reading',
      body: {
        mode: pick(random, ['diode', 'ohms', 'continuity']),
        red: odd(pick(random, nets)),
        black: odd(pick(random, nets)),
        seen: pick(random, [
          { kind: 'figure', value: figure(), unsteady: random() < 0.2 },
          { kind: 'overload' },
          { kind: 'agrees' },
        ]),
        purpose: pick(random, ['probe', 'also-check', 'after-repair']),
        ref: odd(part()),
        placeConfirmed: random() < 0.5,
        conditions: {
          powered: random() < 0.1,
          settled: pick(random, ['settled', 'creeping', 'jumping']),
        },
      },
    }),
    () => ({ kind: 'trace', body: { text: hostileShorthand(Math.floor(random() * 1e9))[0] } }),
    () => ({
      kind: 'fault',
      body: { fault: random() < 0.2 ? odd('dead', 1) : `${label()}+${label()}`, words: odd('') },
    }),
    () => ({
      kind: 'replacement',
      body: {
        ref: odd(part()),
        was: odd(''),
        fitted: { source: 'new', samePart: random() < 0.5, value: figure(), ratedVolts: figure() },
        words: '',
      },
    }),
    () => ({ kind: 'isolation', body: { source: odd('Mains lead'), id: odd('s1') } }),
    () => ({
      kind: 'discharge-proof',
      body: { storeKey: odd('x'), refs: [odd(part())], volts: figure(), meterProved: random() < 0.8 },
    }),
    () => ({ kind: 'recharged', body: { why: odd('lamp test') } }),
    () => ({ kind: 'override', body: { what: odd('proof'), reason: odd('because') } }),
    () => ({ kind: 'job-state', body: { outcome: odd('repaired'), waitingFor: odd('') } }),
    () => ({ kind: 'finding', body: { place: odd(part()), severity: 'danger', words: odd('burnt') } }),
    () => ({ kind: 'site', body: { wet: random() < 0.5 } }),
    () => ({ kind: 'check-skipped', body: { ref: odd(part()), fault: label(), reason: odd('glued in') } }),
  ];
  return pick(random, kinds)();
}

/** A log of up to thirty lines as the server would keep it: what the schema refuses is not there, some of it is undone, some damaged. */
export function hostileLedger(seed: number): { readonly start: Board; readonly lines: readonly StoredLine[] } {
  const random = seededRandom(seed);
  const start = someBoard(random, seed);
  const lines: StoredLine[] = [];
  const count = Math.floor(random() * 30);
  for (let k = 0; k < count; k++) {
    const told = someEntry(random, start);
    const undone =
      random() < 0.12 ? lines.filter((l) => l.reverses === null)[Math.floor(random() * lines.length)] : undefined;
    const read = LedgerEntry.safeParse(undone ? { kind: 'reversal', body: { reason: '' } } : told);
    // A row that fits no schema any more is there all the same, once in a while.
    const entry: StoredEntry | null = read.success
      ? read.data
      : random() < 0.1
        ? readEntry(told.kind, told.body)
        : null;
    if (!entry || (undone && lines.some((l) => l.reverses === undone.id))) continue;
    const seq = lines.length + 1;
    const when = { at: seq * HOUR_MS * random(), boot: random() < 0.9 ? 'one' : null };
    const uptime = when.boot === null ? null : seq * 60;
    const boardId = random() < 0.9 ? '1' : null;
    lines.push({ id: `l${seq}`, seq, boardId, entry, actor: 'Bench A', ...when, uptime, reverses: undone?.id ?? null });
  }
  return { start, lines };
}

/** Everything that is worked out from a log: the board, the hazard, where the job stands, what each reading says. */
export function exerciseLedger(seed: number): Board {
  const { start, lines } = hostileLedger(seed);
  const kept = lines.map((l): LedgerLine => {
    const { kind, body } = l.entry;
    const again = readEntry(kind, JSON.parse(JSON.stringify(body)));
    if (kind !== 'damaged' && again.kind === 'damaged') throw new Error(`a ${kind} line cannot be read again`);
    return l;
  });
  const { board } = deriveBoard(start, boardEntries(kept, '1'));
  const boards = [{ id: '1', board, start }];
  const now = { at: 1e12, boot: 'one', uptime: 4000 };
  const progress = jobProgress([{ name: 'Mains lead', kind: 'mains' }], boards, kept, now, { unit: board.nameplate });
  finite(progress.hazard.stores, 'the hazard');
  jobState(kept);
  presentReadings(kept, boards[0]!);
  diagnosticReadings(kept, '1');
  for (const { line, body } of linesOf(kept, 'reading'))
    finite(judgeReading({ boards, lines: kept }, { ...line, body }), 'a reading');
  for (const { entry } of kept) boardFacts(entry);
  const content = boardToJson(board);
  const job = { id: '1', tag: 'F-1' } as never;
  const stored = {
    id: '1',
    label: 'Main',
    upto: 0,
    origin: 'edit',
    content,
    start: boardToJson(start),
    damaged: null,
  } as const;
  finite(
    exportReadings({
      job,
      boards: [stored],
      lines: [...lines].reverse(),
    }),
    'the export',
  );
  return board;
}

/** Throws where a figure anywhere within is none. */
function finite(value: unknown, where: string, path = '', deep = 0): void {
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) throw new Error(`${where} holds ${value} at ${path}`);
  } else if (value !== null && typeof value === 'object' && deep < 5) {
    for (const [key, inner] of Object.entries(value)) {
      // A board is tried by itself.
      if (key !== 'board') finite(inner, where, `${path}.${key}`, deep + 1);
    }
  }
}
