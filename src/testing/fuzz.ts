import { EMPTY_BOARD } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { listHypotheses } from '@/core/diagnose';
import { solverFor } from '@/core/meter';
import { readNetlist, writeNetlist } from '@/core/netlist';
import { ProblemError } from '@/core/problem';
import { energyStores } from '@/core/safety';
import { findEnergyPoles, recogniseStages } from '@/core/stages';
import { deriveBoard, readShorthand } from '@/core/trace';
import { boardFromJson, boardToJson } from '@/wire/boardCopy';
import { BoardJson, boardTrouble } from '@/wire/boardJson';
import { parseReadingsCsv } from '@/wire/readingsCsv';
import { hostileBoardJson, hostileCsv, hostileNetlist, hostileShorthand } from './hostile';
import { exerciseLedger } from './hostileLedger';
import { exerciseUnit } from './hostileUnit';
import { CAUTION, ledgerCase } from './ledgers';
import { readSweepText } from '@/wire/csv';

/** Nothing that is read may take longer, milliseconds. */
const MOST_MS = 2000;

/** One attack that was not taken well: what broke, by which seed. */
export interface Breach {
  readonly what: string;
  readonly seed: number;
}

/** What a run of attacks found, and how many got through to the engine. */
export interface FuzzReport {
  readonly tried: number;
  readonly sound: number;
  readonly breaches: readonly Breach[];
}

/** The attacks there are: each reads one hostile text and gives the board it became, if any. */
export const ATTACKS = {
  netlists: (seed: number): Board | null => {
    const read = readNetlist(hostileNetlist(seed));
    return read.ok ? read.value.board : null;
  },
  shorthand: (seed: number): Board | null => {
    const facts = hostileShorthand(seed).flatMap((line, i) => {
      const read = readShorthand(line);
      return read.ok && read.value ? [{ id: String(i), fact: read.value }] : [];
    });
    return facts.length > 0 ? deriveBoard(EMPTY_BOARD, facts).board : null;
  },
  tables: (seed: number): Board | null => {
    parseReadingsCsv(EMPTY_BOARD, hostileCsv(seed, 'mode,red,black,value'));
    const { rows } = readSweepText(hostileCsv(seed, 'vin,iin,vout,iout,note'), 'vin');
    const odd = rows.flatMap((r) => Object.values(r)).find((v) => typeof v === 'number' && !Number.isFinite(v));
    if (odd !== undefined) throw new Error(`a row holds ${String(odd)}`);
    return null;
  },
  boards: (seed: number): Board | null => {
    const parsed = BoardJson.safeParse(hostileBoardJson(seed));
    return parsed.success ? boardFromJson(parsed.data) : null;
  },
  units: (seed: number): Board | null => exerciseUnit(seed),
  ledgers: (seed: number): Board | null => {
    const { state, model } = ledgerCase(seed);
    if (CAUTION[state] < CAUTION[model]) throw new Error(`${state} where the log only bears ${model}`);
    return exerciseLedger(seed);
  },
} as const satisfies Record<string, (seed: number) => Board | null>;
export type Attack = keyof typeof ATTACKS;

/** Runs attacks of one kind, seeds from `first` on: nothing may throw, take long, give no figure, or be unreadable again. */
export function fuzz(attack: Attack, first: number, count: number): FuzzReport {
  const breaches: Breach[] = [];
  let sound = 0;
  for (let seed = first; seed < first + count; seed++) {
    const begun = performance.now();
    try {
      const board = ATTACKS[attack](seed);
      if (board) {
        sound++;
        exercise(board);
      }
    } catch (error) {
      if (!(error instanceof ProblemError))
        breaches.push({
          what: error instanceof Error ? `${error.message} ${error.stack?.split('\n')[1] ?? ''}` : String(error),
          seed,
        });
    }
    const took = performance.now() - begun;
    if (took > MOST_MS) breaches.push({ what: `took ${Math.round(took)} ms`, seed });
  }
  return { tried: count, sound, breaches };
}

/** What happens to any board that is taken in: kept and read again, written, recognised, solved, its stores judged. */
function exercise(board: Board): void {
  const json = boardToJson(board);
  const trouble = boardTrouble(JSON.parse(JSON.stringify(json)));
  // A board that cannot be kept is refused with its reason; it never gets as far as this.
  if (trouble !== null) return;
  const kept = BoardJson.parse(JSON.parse(JSON.stringify(json)));
  const again = boardFromJson(kept);
  const twice = BoardJson.parse(JSON.parse(JSON.stringify(boardToJson(again))));
  if (JSON.stringify(twice) !== JSON.stringify(kept)) throw new Error('a board reads back as another');
  writeNetlist(again);
  recogniseStages(again);
  findEnergyPoles(again);
  listHypotheses(again);
  solverFor(again, []);
  for (const store of energyStores(again))
    for (const figure of [store.farads, store.joules, store.volts.nominal, store.discharge.seconds])
      if (!Number.isFinite(figure)) throw new Error(`a store of ${store.refs.join()} holds ${figure}`);
}
