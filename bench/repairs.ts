import { netKey } from '@/core/circuit';
import { huntFault } from '@/core/diagnose';
import type { Diagnoser, TakenReading } from '@/core/diagnose';
import { parseFault } from '@/core/fault';
import { drawParts, probe, simulateReading, solverFor } from '@/core/meter';
import { seededRandom } from '@/core/quantity';
import type { DcSolver } from '@/core/solve';

/** How repairs ended, as shares of those that these readings can see; the others by whether one was named all the same. */
export interface RepairMix {
  readonly seen: number;
  readonly right: number;
  readonly wrong: number;
  readonly open: number;
  readonly readings: number;
  readonly unseen: number;
  readonly unseenNamed: number;
  /** Per tenth of the stated odds: suspects shown, mean odds, share that were true. */
  readonly calibration: readonly (readonly [number, number, number])[];
}

/** Hunts repairs: drawn from the priors (`count`), or every fault once. Tolerances and the meter's noise on. */
export function repairMix(diagnoser: Diagnoser, count: number | 'each'): RepairMix {
  const { hypotheses } = diagnoser.predictor;
  const broken = hypotheses.map((_, i) => i).slice(1);
  const total = broken.reduce((sum, i) => sum + hypotheses[i]!.weight, 0);
  const random = seededRandom(77);
  const drawn = (): number => {
    let left = random() * total;
    return broken.find((i) => (left -= hypotheses[i]!.weight) <= 0) ?? broken.at(-1)!;
  };
  const list = count === 'each' ? broken : Array.from({ length: count }, drawn);
  const ends = { right: 0, wrong: 0, open: 0, unseen: 0, unseenNamed: 0, readings: 0 };
  const tenths = Array.from({ length: 10 }, () => [0, 0, 0] as [number, number, number]);
  list.forEach((i, k) => {
    const { label, faults } = hypotheses[i]!;
    const { diagnosis, ended, readings } = huntFault(
      diagnoser,
      faults,
      drawParts(seededRandom(3000 + k)),
      seededRandom(9000 + k),
    );
    for (const { probability, group } of diagnosis.suspects) {
      const tenth = tenths[Math.min(9, Math.floor(probability * 10))]!;
      tenth[0]++;
      tenth[1] += probability;
      if (group.includes(label)) tenth[2]++;
    }
    if (diagnoser.groups[i] === diagnoser.groups[0]) {
      ends.unseen++;
      if (ended === 'named') ends.unseenNamed++;
      return;
    }
    ends.readings += readings.length;
    if (ended !== 'named') ends.open++;
    else if (diagnosis.suspects[0]!.group.includes(label)) ends.right++;
    else ends.wrong++;
  });
  const seen = list.length - ends.unseen;
  const share = (n: number): number => n / Math.max(1, seen);
  return {
    seen,
    right: share(ends.right),
    wrong: share(ends.wrong),
    open: share(ends.open),
    readings: share(ends.readings),
    unseen: ends.unseen,
    unseenNamed: ends.unseenNamed,
    calibration: tenths.map(([n, odds, true_]) => [n, odds / Math.max(1, n), true_ / Math.max(1, n)]),
  };
}

/** A part's own reading must move by this, ratio of ohms or volts of a diode, for it to be asked for. */
const MOVED_RATIO = 1.7;
const MOVED_VOLTS = 0.15;

/**
 * Two-terminal parts that are open, shorted, or resistors at twice and half their value, read straight across both ways:
 * how many there are whose own reading moves, and in how many the part is among the first three suspects.
 */
export function readAcross(
  diagnoser: Diagnoser,
  modes: readonly ('open' | 'short' | 'double' | 'half')[],
): { readonly asked: number; readonly found: number; readonly missed: readonly string[] } {
  const { board } = diagnoser.predictor;
  const healthy = solverFor(board, []);
  const missed: string[] = [];
  let asked = 0;
  for (const part of board.parts) {
    const [a = '', b = ''] = part.nets;
    if (!part.fitted || part.nets.length !== 2 || part.kind === 'connector' || netKey(a) === netKey(b)) continue;
    for (const mode of modes) {
      const factor = mode === 'double' ? 2 : mode === 'half' ? 0.5 : null;
      if (factor !== null && part.kind !== 'resistor') continue;
      const text =
        factor === null
          ? `${part.ref}:${mode}`
          : `${part.ref}:value=${part.kind === 'resistor' ? part.value * factor : 0}`;
      const fault = parseFault(board, text);
      const meter = part.kind === 'diode' ? 'diode' : 'ohms';
      const ways = [
        [a, b],
        [b, a],
      ] as const;
      if (!fault.ok) continue;
      const nominal = solverFor(board, [fault.value]);
      if (!ways.some(([red, black]) => moves(healthy, nominal, meter, red, black))) continue;
      asked++;
      const broken = solverFor(board, [fault.value], drawParts(seededRandom(asked)));
      const random = seededRandom(100 + asked);
      const readings = ways.map(([red, black]): TakenReading => {
        return { mode: meter, red, black, seen: simulateReading(broken, meter, red, black, random) };
      });
      const first = diagnoser.suspects(diagnoser.weigh(readings)).slice(0, 3);
      const named = first.flatMap((s) => s.group).flatMap((label) => label.split('+'));
      if (!named.some((label) => label.startsWith(`${part.ref}:`) || label.startsWith(`${part.ref}.`)))
        missed.push(text);
    }
  }
  return { asked, found: asked - missed.length, missed };
}

/** Whether a part's own reading is another on the broken board: ohms by the ratio, a diode by volts. */
function moves(healthy: DcSolver, broken: DcSolver, mode: 'diode' | 'ohms', red: string, black: string): boolean {
  const read = (solver: DcSolver): number | null => {
    const [r, k] = [red, black].map((net) => solver.network.nodeOfNet.get(netKey(net)));
    if (r === undefined || k === undefined) return null;
    const computed = probe(solver, mode, r, k);
    return computed.ok ? Math.min(computed.value.raw, mode === 'diode' ? 3 : 60e6) : null;
  };
  const [before, after] = [read(healthy), read(broken)];
  if (before === null || after === null) return false;
  if (mode === 'diode') return Math.abs(before - after) > MOVED_VOLTS;
  return Math.abs(Math.log((before + 0.1) / (after + 0.1))) > Math.log(MOVED_RATIO);
}

/** What is held invisible, by label. */
export function heldInvisible(diagnoser: Diagnoser): readonly string[] {
  const { groups, predictor } = diagnoser;
  return predictor.hypotheses.flatMap((h, i) => (i > 0 && groups[i] === groups[0] ? [h.label] : []));
}
