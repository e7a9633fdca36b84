import type { Board } from '@/core/circuit';
import { ComplaintReader, Diagnoser, SYMPTOMS, buildWholeDictionary, listHypotheses } from '@/core/diagnose';
import type { ComplaintSigns, Symptom } from '@/core/diagnose';
import { repairMix } from './repairs';
import type { RepairMix } from './repairs';

/** What a customer says first of a unit that shows several. */
const SAID_FIRST: readonly Symptom[] = [
  'fuse-blows',
  'hiccup',
  'high-output',
  'low-output',
  'sags',
  'dead',
  'hot',
  'unstable',
  'ok-unloaded',
  'noisy',
  'smells',
];

/** Draws of tolerances and noise for each fault. */
const DRAWS = 4;

/** Every single fault of a board whose unit gives a complaint, hunted cold without and with that complaint. */
export interface ComplaintMix {
  /** Single faults, those that give a complaint, and how many give each. */
  readonly singles: number;
  readonly asked: number;
  readonly by: Readonly<Record<string, number>>;
  readonly without: RepairMix;
  readonly with: RepairMix;
  readonly seconds: number;
}

/** The complaint of each hypothesis by its place; none for those that give none. clock: seconds. */
export function complaintMix(board: Board, most: number, clock: () => number): ComplaintMix | null {
  const reader = ComplaintReader.of(board);
  if (!reader) return null;
  const begun = clock();
  const plain = listHypotheses(board);
  const known = new Map<string, ComplaintSigns | null>();
  for (const { label, faults } of plain) if (faults.length <= 1) known.set(label, reader.signs(faults, SYMPTOMS));
  const seconds = clock() - begun;
  const dictionary = buildWholeDictionary(board, plain);
  const asked = new Map<Symptom, number[]>();
  let singles = 0;
  plain.forEach(({ label, faults }, i) => {
    if (faults.length !== 1) return;
    singles++;
    const signs = known.get(label);
    const said = signs && SAID_FIRST.find((s) => signs[s]);
    if (said) asked.set(said, [...(asked.get(said) ?? []), i]);
  });
  const base = new Diagnoser(dictionary);
  const seen = [...asked].flatMap(([symptom, list]) => {
    const every = Math.max(1, Math.floor([...asked.values()].reduce((n, l) => n + l.length, 0) / most));
    return list.filter((_, k) => k % every === 0).map((i) => [symptom, i] as const);
  });
  // The same draws of tolerances and noise on both sides, several for each fault: one alone makes or breaks a case.
  const lists = SYMPTOMS.map((symptom) => ({
    symptom,
    list: seen.flatMap(([s, i]) => (s === symptom ? Array.from({ length: DRAWS }, () => i) : [])),
  })).filter(({ list }) => list.length > 0);
  const without = lists.map(({ list }) => repairMix(base, list));
  const withIt = lists.map(({ symptom, list }) => {
    const hypotheses = listHypotheses(board, [symptom], known);
    return repairMix(new Diagnoser({ ...dictionary, hypotheses }), list);
  });
  return {
    singles,
    asked: seen.length,
    by: Object.fromEntries([...asked].map(([s, list]) => [s, list.length])),
    without: together(without),
    with: together(withIt),
    seconds,
  };
}

/** Several mixes as one, each by how many it could see. */
function together(mixes: readonly RepairMix[]): RepairMix {
  const seen = mixes.reduce((sum, m) => sum + m.seen, 0);
  const mean = (of: (m: RepairMix) => number): number =>
    mixes.reduce((sum, m) => sum + of(m) * m.seen, 0) / Math.max(seen, 1);
  const sum = (of: (m: RepairMix) => number): number => mixes.reduce((total, m) => total + of(m), 0);
  return {
    asked: sum((m) => m.asked),
    seen,
    right: mean((m) => m.right),
    wrong: mean((m) => m.wrong),
    open: mean((m) => m.open),
    readings: mean((m) => m.readings),
    taken: mean((m) => m.taken),
    unseen: sum((m) => m.unseen),
    unseenNamed: sum((m) => m.unseenNamed),
    slipped: 0,
    doubted: 0,
  };
}
