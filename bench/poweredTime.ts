import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { netKey } from '@/core/circuit';
import { PoweredReader } from '@/core/work';
import { exampleBoard } from './exampleBoards';

interface Expected {
  readonly red: string;
  readonly black: string;
  readonly volts: number;
  readonly tolerance: number;
}

const folder = join(process.env['LANTERN_ROOT'] ?? process.cwd(), 'fixtures');

/**
 * The unit under power at half load: milliseconds to its operating point, the first time on a board (what is learnt of it
 * included) and the next time; points of the labels that it reads right.
 */
export function poweredTime(name: string) {
  const board = exampleBoard(name);
  const labels = JSON.parse(readFileSync(join(folder, 'boards', `${name}.labels.json`), 'utf8')) as {
    readonly hot_expect: readonly Expected[];
    readonly nameplate: { readonly inputNominal: number };
  };
  const condition = { source: labels.nameplate.inputNominal, load: 'half' } as const;
  const took = (): { readonly ms: number; readonly reader: PoweredReader } => {
    const start = performance.now();
    const reader = new PoweredReader(board, condition, []);
    return { ms: performance.now() - start, reader };
  };
  const first = took();
  const next = took();
  const right = labels.hot_expect.filter(({ red, black, volts, tolerance }) => {
    const value = first.reader.read('dcv', netKey(red), netKey(black))?.value ?? NaN;
    return Math.abs(value - volts) <= (tolerance < 1 ? tolerance * Math.abs(volts) : tolerance) + 1e-9;
  }).length;
  return { firstMs: first.ms, nextMs: next.ms, right, of: labels.hot_expect.length };
}
