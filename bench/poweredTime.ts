import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { netKey } from '@/core/circuit';
import { listHypotheses } from '@/core/diagnose';
import { factorDense } from '@/core/linear';
import { PoweredReader } from '@/core/work';
import { exampleBoard } from './exampleBoards';

interface Expected {
  readonly red: string;
  readonly black: string;
  readonly volts: number;
  readonly tolerance: number;
}

/** Of the single faults every so many is run; of this board all of them, at two loads. */
const FAULT_STEP = 7;
const WHOLE = 'lamp-supply-24v';

const folder = join(process.env['LANTERN_ROOT'] ?? process.cwd(), 'fixtures');

/**
 * The unit under power at half load: milliseconds to its operating point, the first time on a board (what is learnt of it
 * included) and the next time; from there each single fault of a sample; one period of a waveform; points of the labels
 * that it reads right.
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
    const reader = PoweredReader.at(board, condition, []);
    return { ms: performance.now() - start, reader };
  };
  const first = took();
  const next = took();
  const right = labels.hot_expect.filter(({ red, black, volts, tolerance }) => {
    const value = first.reader.read('dcv', netKey(red), netKey(black))?.value ?? NaN;
    return Math.abs(value - volts) <= (tolerance < 1 ? tolerance * Math.abs(volts) : tolerance) + 1e-9;
  }).length;
  const { operation } = next.reader;
  const faults = listHypotheses(board).filter((h) => h.faults.length === 1);
  const times = faults
    .filter((_, i) => i % FAULT_STEP === 0)
    .map((h) => {
      const start = performance.now();
      PoweredReader.at(board, condition, h.faults, operation);
      return performance.now() - start;
    })
    .sort((a, b) => a - b);
  const whole = (): number => {
    const start = performance.now();
    for (const load of ['half', 'full'] as const) {
      const sound = PoweredReader.at(board, { source: condition.source, load }, []).operation;
      for (const h of faults) PoweredReader.at(board, { source: condition.source, load }, h.faults, sound);
    }
    return (performance.now() - start) / 1000;
  };
  const [converter] = operation.unit.plan.converters;
  const node = converter?.nodes[0];
  const low = converter?.switches.find((s) => s.side !== 'top')?.low;
  const began = performance.now();
  if (node !== undefined && low !== undefined) next.reader.waveform(node, low);
  return {
    firstMs: first.ms,
    nextMs: next.ms,
    faults: faults.length,
    faultMedianMs: times[times.length >> 1] ?? 0,
    faultMeanMs: times.reduce((sum, ms) => sum + ms, 0) / Math.max(times.length, 1),
    faultMostMs: times.at(-1) ?? 0,
    waveformMs: performance.now() - began,
    wholeSeconds: name === WHOLE ? whole() : null,
    bareMs: bareFactors(operation.unit.circuit.nodeNames.length),
    right,
    of: labels.hot_expect.length,
  };
}

/** Milliseconds of a hundred bare factorisations of a full matrix of this size. */
function bareFactors(n: number): number {
  const [matrix, pivots] = [new Float64Array(n * n), new Int32Array(n)];
  const start = performance.now();
  for (let round = 0; round < 100; round++) {
    for (let i = 0; i < n * n; i++) matrix[i] = (i * 7919 + round) % 101;
    for (let i = 0; i < n; i++) matrix[i * n + i] = 1e4;
    factorDense(matrix, pivots, n);
  }
  return performance.now() - start;
}
