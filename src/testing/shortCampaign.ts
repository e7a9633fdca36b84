import type { Board } from '@/core/circuit';
import type { Part } from '@/core/part';
import { listHypotheses } from '@/core/diagnose';
import type { TakenReading } from '@/core/diagnose';
import type { Fault } from '@/core/fault';
import { drawParts, readBoard, simulateReading, solverFor } from '@/core/meter';
import { Permit } from '@/core/permit';
import type { PowerPermit } from '@/core/permit';
import { testBoards } from './boards';
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
 * Leaks of 0.1 and 3 or of 1 and 8 ohm, in turn, between any two nets of the fed path, and every fault of the published list that
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
          for (const ohms of LEAKS.filter((_, k) => k % 2 === done.size % 2)) {
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

/** Labels of these shorts that end in a permit of the board; there must be none. */
export function permitted(permit: Permit, list: readonly Threatened[], seed: number): readonly string[] {
  const wrong = list.filter((t, i) => followList(permit, t.board, t.faults, seed + i).permit.allowed);
  return wrong.map((t) => t.label);
}

/**
 * Tests of part k of three of the boards, a suite each: the permit that a board alone earns, and every short and leak that
 * must keep it shut. Of the four leaks each pair of nets gets every second one, in turn.
 */
export function testPermits(part: number, seed: number): void {
  const permits = new Map(testBoards(part, 3).map((b) => [b.name, { ...b, permit: Permit.of(b.board) }]));
  const each = test.each([...permits.keys()]);

  each('%s, healthy: nothing read gives no permit; its list, read once, gives one in at most 16 readings', (name) => {
    const { board, permit } = permits.get(name)!;
    const unread = permit.judge([]);
    expect(unread.allowed).toBe(false);
    expect(unread.clearing.length).toBeGreaterThan(0);
    expect(unread.reasons.join(' ')).toMatch(/Nothing has been read yet/u);
    expect(unread.clearing.every((r) => /short|leak/u.test(r.rulesOut))).toBe(true);
    for (let k = 1; k <= 4; k++) {
      const { permit: now, readings } = followList(permit, board, [], 900 + k);
      expect([k, now.allowed, now.reasons]).toEqual([k, true, []]);
      expect(readings.length).toBeLessThanOrEqual(16);
      expect(readings.length).toBe(unread.clearing.length);
      expect(now.restsOn.length).toBeGreaterThan(0);
    }
  });

  test('at the median over the boards seven readings at most earn it', () => {
    const counts = [...permits.values()].map((p) => p.permit.judge([]).clearing.length).sort((a, b) => a - b);
    expect(counts[Math.floor(counts.length / 2)]).toBeLessThanOrEqual(7);
  });

  each('no short or leak of the fed path of %s ends in a permit; what no meter can tell is named', (name) => {
    const { board, permit } = permits.get(name)!;
    const { list, hidden } = shortsOf(board);
    expect(list.length).toBeGreaterThan(1);
    expect(permitted(permit, list, seed)).toEqual([]);
    const { unseen } = permit.judge([]);
    if (hidden.length > 0) expect(unseen.length).toBeGreaterThan(0);
    // Nothing but windings, and what a fuse parts from them, is ever beyond the meter.
    const joined = new Set(board.parts.flatMap((p) => (p.kind === 'inductor' || p.kind === 'fuse' ? p.nets : [])));
    expect(unseen.flatMap((u) => u.split(' to ')).filter((net) => !joined.has(net))).toEqual([]);
  });
}
