import type { Board } from '@/core/circuit';
import { boardNets, netKey } from '@/core/circuit';
import type { TakenReading } from '@/core/diagnose';
import { coldMode } from '@/core/meter';
import { ok, refuse } from '@/core/problem';
import type { Problem, Result } from '@/core/problem';
import { readCells } from './csv';

export type CsvProblem = Problem<'readings-error', { readonly line: number }>;

const HEADER = 'mode,red,black,value';

/**
 * Reads `readings.csv`: header `mode,red,black,value`, value in V or ohm, or `OL`.
 * Refuses with every bad line.
 */
export function parseReadingsCsv(board: Board, text: string): Result<readonly TakenReading[], readonly CsvProblem[]> {
  const lines = readCells(text, ',').rows;
  const problems: CsvProblem[] = [];
  const readings: TakenReading[] = [];
  const nets = new Map(boardNets(board).map((n) => [netKey(n), n]));
  const bad = (line: number, sentence: string): void => {
    problems.push({
      code: 'readings-error',
      sentence: `Line ${line}: ${sentence}`,
      remedy: 'Correct the line; nothing was used.',
      details: { line },
    });
  };
  if (lines[0]?.map((c) => c.trim().toLowerCase()).join() !== HEADER) bad(1, `the header must be ${HEADER}`);
  lines.slice(1).forEach((cells, i) => {
    if (cells.every((c) => c.trim() === '')) return;
    const number = i + 2;
    const [mode = '', red = '', black = '', value = ''] = cells.map((c) => c.trim());
    const checked = coldMode(mode);
    if (!checked.ok) return bad(number, checked.problem.sentence);
    const [redNet, blackNet] = [nets.get(netKey(red)), nets.get(netKey(black))];
    if (redNet === undefined) return bad(number, `there is no net “${red}”`);
    if (blackNet === undefined) return bad(number, `there is no net “${black}”`);
    const overload = value.toUpperCase() === 'OL';
    const figure = Number(value);
    if (!overload && (value === '' || !Number.isFinite(figure))) return bad(number, `“${value}” is not a number or OL`);
    const seen = overload ? ({ kind: 'overload' } as const) : ({ kind: 'figure', value: figure } as const);
    readings.push({ mode: checked.value, red: redNet, black: blackNet, seen });
  });
  return problems.length > 0 ? refuse(problems) : ok(readings);
}
