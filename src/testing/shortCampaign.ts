import type { Board } from '@/core/circuit';
import type { Part } from '@/core/part';
import { listHypotheses } from '@/core/diagnose';
import type { TakenReading } from '@/core/diagnose';
import type { Fault } from '@/core/fault';
import { drawParts, readBoard, simulateReading, solverFor } from '@/core/meter';
import { Permit } from '@/core/permit';
import type { PowerPermit } from '@/core/permit';
import { seededRandom } from '@/core/quantity';
import type { DcSolver } from '@/core/solve';
import { findPowerPath, recogniseStages } from '@/core/stages';

/** One short or leak on a board that must never end in a permit. */
export interface Threatened {
  readonly label: string;
  readonly board: Board;
  readonly faults: readonly Fault[];
}

const LEAKS = [0.1, 1, 3, 8] as const;

/**
 * Every short and leak of 0.1, 1, 3 and 8 ohm between any two nets of the fed path, and every fault of the published list that
 * shorts the supply's path or an output, alone and with what it takes along.
 *
 * The fed path here is the one that the fault list uses, not the permit's own. Left out is what no meter can tell: a
 * short across a winding that reads next to nothing itself.
 */
export function shortsOf(board: Board): { readonly list: readonly Threatened[]; readonly hidden: readonly string[] } {
  const path = findPowerPath(board);
  const poles = [...path.input, ...path.outputs.flat()];
  const islands = recogniseStages(board).islands.map((i) => new Set(i.nets.map((n) => n.toLowerCase())));
  const healthy = solverFor(board, []);
  const list: Threatened[] = [];
  const hidden = new Set<string>();
  const done = new Set<string>();
  poles.forEach((p, i) => {
    for (const q of poles.slice(i + 1))
      for (const a of p)
        for (const b of q) {
          const key = [a, b].sort().join(' ');
          if (p.has(b) || q.has(a) || done.has(key) || !islands.some((s) => s.has(a) && s.has(b))) continue;
          done.add(key);
          for (const ohms of LEAKS) {
            const leaky = { ...board, parts: [...board.parts, leak(a, b, ohms)] };
            if (blind(board, healthy, leaky, a, b)) hidden.add(key);
            else list.push({ label: `${a} to ${b}, ${ohms} ohm`, board: leaky, faults: [] });
          }
        }
  });
  const windings = new Set(board.parts.flatMap((p) => (p.kind === 'inductor' ? [p.ref] : [])));
  for (const h of listHypotheses(board)) {
    if (h.short === null || windings.has(h.faults[0]!.ref)) continue;
    list.push({ label: h.label, board, faults: h.faults });
  }
  return { list, hidden: [...hidden] };
}

function leak(a: string, b: string, ohms: number): Part {
  const common = { keys: [], numbers: { tol: 0 }, fitted: true, basis: 'measured', valueText: '' } as const;
  return { kind: 'resistor', ref: 'R!leak', nets: [a, b], value: ohms, ...common };
}

/** Whether not even ohms straight across tells the leak from the winding that belongs there. */
function blind(board: Board, healthy: DcSolver, leaky: Board, a: string, b: string): boolean {
  const read = (on: Board, solver: DcSolver): number => {
    const told = readBoard(on, solver, 'ohms', a, b);
    return told.ok ? told.value.raw : Infinity;
  };
  const good = read(board, healthy);
  if (!(good < 100)) return false;
  const bad = read(leaky, solverFor(leaky, []));
  // Five sigma of the meter and its leads at the low figure, four of a winding's 20 % at the good one.
  return bad + 5 * Math.hypot(0.1, 0.2, 0.06 * bad) > good - 4 * Math.hypot(0.1, 0.2, 0.1 * good);
}

/** Follows the permit's own list on a simulated board, with drawn parts and the meter's noise, until it has no more to ask. */
export function followList(
  permit: Permit,
  on: Board,
  faults: readonly Fault[],
  seed: number,
  judge: (readings: readonly TakenReading[]) => PowerPermit = (readings) => permit.judge(readings),
): { readonly permit: PowerPermit; readonly readings: readonly TakenReading[] } {
  const random = seededRandom(seed);
  const solver = solverFor(on, faults, drawParts(random));
  const readings: TakenReading[] = [];
  let now = judge(readings);
  for (let round = 0; round < 3 && !now.allowed && now.clearing.length > 0; round++) {
    for (const { mode, red, black } of now.clearing)
      readings.push({ mode, red, black, seen: simulateReading(solver, mode, red, black, random) });
    now = judge(readings);
  }
  return { permit: now, readings };
}

/** Labels of the shorts on a board that end in a permit; there must be none. */
export function permitted(board: Board, seed: number): { readonly tried: number; readonly wrong: readonly string[] } {
  const permit = Permit.of(board);
  const { list } = shortsOf(board);
  const wrong = list.filter((t, i) => followList(permit, t.board, t.faults, seed + i).permit.allowed);
  return { tried: list.length, wrong: wrong.map((t) => t.label) };
}
