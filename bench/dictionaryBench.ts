import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { Diagnoser, buildFirstLook, buildWholeDictionary, defaultPoints, listHypotheses } from '@/core/diagnose';
import type { FaultDictionary, TakenReading } from '@/core/diagnose';
import { factorDense, solveDense } from '@/core/linear';
import { probe, solverFor } from '@/core/meter';
import { atOnce } from '@/core/problem';
import { seededRandom } from '@/core/quantity';

/** Milliseconds a function takes. */
export function timed<T>(work: () => T): { readonly value: T; readonly ms: number } {
  const start = performance.now();
  const value = work();
  return { value, ms: performance.now() - start };
}

/** Item 1: DC solves per second on a board, and bare dense LUs of the same size per second. */
export function solveRate(board: Board): {
  readonly size: number;
  readonly solves: number;
  readonly perSecond: number;
  readonly stepsEach: number;
  readonly luRatio: number;
} {
  const solver = solverFor(board, []);
  const points = defaultPoints(board);
  const once = (): void => {
    for (const p of points)
      probe(
        solver,
        p.mode,
        solver.network.nodeOfNet.get(netKey(p.red))!,
        solver.network.nodeOfNet.get(netKey(p.black))!,
      );
  };
  once();
  const before = solver.steps;
  const { ms } = timed(once);
  const steps = solver.steps - before;
  const size = solver.network.nodeCount;
  const lu = denseLuMs(size);
  return {
    size,
    solves: points.length,
    perSecond: (1000 * points.length) / ms,
    stepsEach: steps / points.length,
    luRatio: ms / (lu * steps),
  };
}

/** Milliseconds of one dense factor and solve of n unknowns with our own kernel. */
export function denseLuMs(n: number): number {
  const random = seededRandom(n);
  const original = Float64Array.from({ length: n * n }, (_, i) => (i % (n + 1) === 0 ? n : -random()));
  const matrix = new Float64Array(n * n);
  const pivots = new Int32Array(n);
  const x = new Float64Array(n);
  const rounds = 200;
  const run = (): void => {
    for (let k = 0; k < rounds; k++) {
      matrix.set(original);
      x.fill(1);
      factorDense(matrix, pivots, n);
      solveDense(matrix, pivots, n, x);
    }
  };
  run();
  return timed(run).ms / rounds;
}

/** Item 2: the cold fault dictionary, its cost, and a 1 % sample held against full solves from zero. */
export function dictionaryCost(board: Board): {
  readonly hypotheses: number;
  readonly points: number;
  readonly entries: number;
  readonly skipped: number;
  readonly ms: number;
  readonly firstPlanMs: number;
  readonly referenceMs: number;
  readonly megabytes: number;
  readonly sampled: number;
  readonly sampleOff: number;
  readonly dictionary: FaultDictionary;
} {
  const hypotheses = listHypotheses(board);
  const { ms: firstPlanMs } = timed(() => {
    const first = new Diagnoser(atOnce(buildFirstLook(board, listHypotheses(board))));
    return first.plan(first.standing([]), 8);
  });
  const { value: dictionary, ms } = timed(() => buildWholeDictionary(board, hypotheses));
  const size = solverFor(board, []).network.nodeCount;
  const referenceMs = dictionary.counts.entries * denseLuMs(size);
  const { sampled, off } = sample(board, dictionary);
  return {
    hypotheses: hypotheses.length,
    points: dictionary.points.length,
    entries: dictionary.counts.entries,
    skipped: dictionary.counts.skipped,
    ms,
    firstPlanMs,
    referenceMs,
    megabytes: process.memoryUsage().heapUsed / 2 ** 20,
    sampled,
    sampleOff: off,
    dictionary,
  };
}

function sample(board: Board, dictionary: FaultDictionary): { readonly sampled: number; readonly off: number } {
  const random = seededRandom(1);
  let sampled = 0;
  let off = 0;
  dictionary.hypotheses.forEach((h, i) => {
    const solver = solverFor(board, h.faults);
    for (const p of dictionary.points) {
      if (random() >= 0.01) continue;
      sampled++;
      const full = probe(
        solver,
        p.mode,
        solver.network.nodeOfNet.get(netKey(p.red))!,
        solver.network.nodeOfNet.get(netKey(p.black))!,
      );
      if (!full.ok) continue;
      const raw = p.raws[p.classOf[i]!]!;
      const limit = p.mode === 'diode' ? 2.5 : 60e6;
      const bothOver = raw >= limit && full.value.raw >= limit;
      const tolerance = p.mode === 'diode' ? 0.002 : 0.005 * Math.abs(full.value.raw) + 0.01;
      if (!bothOver && !(Math.abs(raw - full.value.raw) <= tolerance)) off++;
    }
  });
  return { sampled, off };
}

/** Item 3: milliseconds of one next-reading decision, median over a hunt's worth of decisions. */
export function decisionMs(diagnoser: Diagnoser): number {
  const times: number[] = [];
  const readings: TakenReading[] = [];
  for (let k = 0; k < 21; k++) {
    const { value, ms } = timed(() => diagnoser.plan(diagnoser.standing(readings), 8));
    times.push(ms);
    const point = value[0]?.point;
    if (!point) break;
    const healthy = point.spreads[0]!.overload > 0.5;
    readings.push({
      mode: point.mode,
      red: point.red,
      black: point.black,
      seen: healthy ? ({ kind: 'overload' } as const) : ({ kind: 'figure', value: point.raws[0]! } as const),
    });
  }
  times.sort((a, b) => a - b);
  return times[Math.floor(times.length / 2)]!;
}
