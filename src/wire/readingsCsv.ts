import type { Board } from '@/core/circuit';
import { boardNets, netKey } from '@/core/circuit';
import type { PoweredTaken, TakenReading } from '@/core/diagnose';
import { unpoweredMode } from '@/core/meter';
import { ok, refuse } from '@/core/problem';
import { LOADS, POWERED_MODES } from '@/core/work';
import type { Problem, Result } from '@/core/problem';
import { readCells } from './csv';

export type CsvProblem = Problem<'readings-error', { readonly line: number }>;

const HEADER = 'mode,red,black,value';
const POWERED_HEADER = `${HEADER},source,load`;

/** Readings of a file: those of the unpowered board, those under power. */
export interface ReadingsFile {
  readonly unpowered: readonly TakenReading[];
  readonly powered: readonly PoweredTaken[];
}

/**
 * Reads `readings.csv`: header `mode,red,black,value`, value in V, ohm or F, or `OL`; with `,source,load` after it a line that
 * has a source was read under power (`dcv`, `acv`, `ripple`, `freq`; load `none`, `half`, `full`).
 * Refuses with every bad line.
 */
export function parseReadingsCsv(board: Board, text: string): Result<ReadingsFile, readonly CsvProblem[]> {
  const lines = readCells(text, ',').rows;
  const problems: CsvProblem[] = [];
  const unpowered: TakenReading[] = [];
  const powered: PoweredTaken[] = [];
  const nets = new Map(boardNets(board).map((n) => [netKey(n), n]));
  const bad = (line: number, sentence: string): void => {
    problems.push({
      code: 'readings-error',
      sentence: `Line ${line}: ${sentence}`,
      remedy: 'Correct the line; nothing was used.',
      details: { line },
    });
  };
  const header = lines[0]?.map((c) => c.trim().toLowerCase()).join();
  if (header !== HEADER && header !== POWERED_HEADER) bad(1, `the header must be ${HEADER} or ${POWERED_HEADER}`);
  lines.slice(1).forEach((cells, i) => {
    if (cells.every((c) => c.trim() === '')) return;
    const number = i + 2;
    const [mode = '', red = '', black = '', value = '', source = '', load = ''] = cells.map((c) => c.trim());
    const [redNet, blackNet] = [nets.get(netKey(red)), nets.get(netKey(black))];
    if (redNet === undefined) return bad(number, `there is no net “${red}”`);
    if (blackNet === undefined) return bad(number, `there is no net “${black}”`);
    if (source !== '') {
      const at = POWERED_MODES.find((m) => m === mode.toLowerCase());
      const loaded = LOADS.find((l) => l === (load === '' ? 'half' : load.toLowerCase()));
      const fed = Number(source);
      if (!at) return bad(number, `under power “${mode}” is not one of ${POWERED_MODES.join(', ')}`);
      if (!loaded) return bad(number, `the load is none, half or full, not “${load}”`);
      if (!Number.isFinite(fed) || fed < 0) return bad(number, `“${source}” is no source in volts`);
      if (value === '' || !Number.isFinite(Number(value))) return bad(number, `“${value}” is not a number`);
      const condition = { source: fed, load: loaded };
      powered.push({ mode: at, red: redNet, black: blackNet, value: Number(value), condition });
      return;
    }
    const checked = unpoweredMode(mode);
    if (!checked.ok) return bad(number, checked.problem.sentence);
    const overload = value.toUpperCase() === 'OL';
    const figure = Number(value);
    if (!overload && (value === '' || !Number.isFinite(figure))) return bad(number, `“${value}” is not a number or OL`);
    const seen = overload ? ({ kind: 'overload' } as const) : ({ kind: 'figure', value: figure } as const);
    unpowered.push({ mode: checked.value, red: redNet, black: blackNet, seen });
  });
  return problems.length > 0 ? refuse(problems) : ok({ unpowered, powered });
}
