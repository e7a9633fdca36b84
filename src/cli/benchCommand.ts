import { Diagnoser } from '@/core/diagnose';
import type { Hypothesis } from '@/core/diagnose';
import { seededRandom } from '@/core/quantity';
import { checklistPoints } from '../../bench/checklist';
import { decisionMs, dictionaryCost, solveRate } from '../../bench/dictionaryBench';
import { EXAMPLE_BOARDS, exampleBoard, exampleLabels } from '../../bench/exampleBoards';
import { layoutMs } from '../../bench/layoutTime';
import { heldInvisible, readAcross, repairMix } from '../../bench/repairs';
import type { RepairMix } from '../../bench/repairs';
import { stageAccuracy } from '../../bench/stageAccuracy';
import { sweepTime } from '../../bench/sweepTime';
import { touchesPerPin } from '../../bench/touches';
import { fixedOrder, isolate, randomOrder, referenceDepth } from '../../bench/isolation';
import { option, readArguments } from './arguments';

/** `lantern bench [--board NAME] [--faults N]`: the project's own table (N: a sample of the faults to isolate), items 1 to 5 of the engine's list. */
export async function benchCommand(words: readonly string[]): Promise<number> {
  const args = readArguments(words, ['board', 'faults']);
  const json = option(args, 'json') !== undefined;
  const only = option(args, 'board');
  const faults = Number(option(args, 'faults') ?? Infinity);
  const rows: Row[] = [];
  for (const name of EXAMPLE_BOARDS.filter((b) => only === undefined || b === only)) {
    const row = { ...benchBoard(name, faults), layoutMs: await layoutMs(exampleBoard(name)), stages: accuracyOf(name) };
    if (!json) console.log(text(row));
    rows.push(row);
  }
  const pooled = pooledTouches(rows);
  const sweep = sweepTime();
  if (json) console.log(JSON.stringify({ boards: rows, touches: pooled, sweep }));
  else {
    console.log(
      `touches per pin, all boards: proposals ${pooled.ours.toFixed(2)}, representatives ${pooled.representatives.toFixed(2)} (ratio ${(pooled.ours / pooled.representatives).toFixed(2)})`,
    );
    console.log(
      `sweep of 5000 rows: read ${sweep.readMs.toFixed(1)} ms, derived and judged ${sweep.judgeMs.toFixed(1)} ms; a modification worked out ${sweep.planMs.toFixed(1)} ms`,
    );
  }
  return 0;
}

/** Repairs drawn from the priors, for each board. */
const REPAIRS = 500;

type Row = ReturnType<typeof benchBoard> & {
  readonly layoutMs: number;
  readonly stages: ReturnType<typeof accuracyOf>;
};

/** How well the stages are recognised from the netlist alone, and under 20 disturbances of each kind. */
function accuracyOf(name: string) {
  const { title, parts, couplings, models, subcircuits, layout } = exampleBoard(name);
  return stageAccuracy(
    { board: { title, parts, couplings, models, subcircuits, layout }, labels: exampleLabels(name) },
    20,
  );
}

function benchBoard(name: string, most: number) {
  const board = exampleBoard(name);
  const solves = solveRate(board);
  const { dictionary, ...cost } = dictionaryCost(board);
  const diagnoser = new Diagnoser(dictionary);
  const nextMs = decisionMs(diagnoser);
  const singles = dictionary.hypotheses.filter((h) => h.faults.length === 1);
  const group = new Map(dictionary.hypotheses.map((h, i) => [h.label, diagnoser.groups[i]!]));
  const visible = singles.filter((h) => group.get(h.label) !== 0);
  const chosen = pick(visible, most);
  const numbers = chosen.map((h) => dictionary.hypotheses.indexOf(h));
  const order = checklistPoints(board);
  const touches = touchesPerPin(board, [1, 2, 3]);
  return {
    name,
    parts: board.parts.length,
    touches,
    solves,
    dictionary: cost,
    nextMs,
    repairs: {
      real: repairMix(diagnoser, Math.min(REPAIRS, most)),
      even: repairMix(diagnoser, 'each'),
      across: readAcross(diagnoser, ['open', 'short']),
      drifted: readAcross(diagnoser, ['double', 'half']),
      invisible: heldInvisible(diagnoser),
    },
    isolation: {
      faults: chosen.length,
      visible: visible.length,
      invisible: singles.length - visible.length,
      plan: isolate('plan', diagnoser, chosen),
      checklist: isolate('checklist', diagnoser, chosen, () => fixedOrder(order, diagnoser)),
      random: isolate('random', diagnoser, chosen, (k) => randomOrder(diagnoser, seededRandom(k))),
      referenceDepth: referenceDepth(diagnoser, numbers),
    },
  };
}

/** Touches per pin over all pins of the boards. */
function pooledTouches(rows: readonly Row[]): { readonly ours: number; readonly representatives: number } {
  const pins = rows.reduce((s, r) => s + r.touches.pins, 0);
  const over = (of: (r: Row) => number): number => rows.reduce((s, r) => s + of(r) * r.touches.pins, 0) / pins;
  return { ours: over((r) => r.touches.ours), representatives: over((r) => r.touches.representatives) };
}

function pick(list: readonly Hypothesis[], most: number): readonly Hypothesis[] {
  const random = seededRandom(7);
  return [...list]
    .map((h) => ({ h, key: random() }))
    .sort((a, b) => a.key - b.key)
    .slice(0, most)
    .map((x) => x.h);
}

function text(r: Row): string {
  const { solves: s, dictionary: d, isolation: i } = r;
  const disturbed = Object.entries(r.stages.disturbed).map(
    ([kind, x]) => `${kind} ${x.mean.toFixed(3)}/${x.worst.toFixed(3)}`,
  );
  const line = (x: { mean: number; p95: number; share: number }): string =>
    `mean ${x.mean.toFixed(1)}, 95th percentile ${x.p95}, right ${Math.round(100 * x.share)} %`;
  return [
    `${r.name} (${r.parts} parts, ${s.size} nodes)`,
    `  1 readings solved     ${Math.round(s.perSecond)} per second, ${s.stepsEach.toFixed(1)} Newton steps each; time per step ${s.luRatio.toFixed(2)} x one bare dense LU`,
    `  2 fault dictionary    ${d.hypotheses} hypotheses x ${d.points} points = ${d.entries} entries, ${d.skipped} skipped; ${Math.round(d.ms)} ms (reference ${Math.round(d.referenceMs)} ms), heap ${Math.round(d.megabytes)} MB; sample ${d.sampled}, off ${d.sampleOff}`,
    `  3 next reading        ${r.nextMs.toFixed(1)} ms median`,
    `  4 readings to isolate ${i.faults} of ${i.visible} visible faults (${i.invisible} invisible left out)`,
    `      plan        ${line(i.plan)}`,
    `      checklist   ${line(i.checklist)}  (plan / checklist ${(i.plan.mean / i.checklist.mean).toFixed(2)})`,
    `      random      ${line(i.random)}`,
    `      ref. depth  mean ${i.referenceDepth.toFixed(1)}  (plan / depth ${(i.plan.mean / i.referenceDepth).toFixed(2)})`,
    `  5 repairs as they come  ${mixed(r.repairs.real)}`,
    `    every fault once       ${mixed(r.repairs.even)}`,
    `    read straight across   ${r.repairs.across.found} of ${r.repairs.across.asked} among the first three, drifted to 2 or 1/2 ${r.repairs.drifted.found} of ${r.repairs.drifted.asked}`,
    `    odds stated : true     ${r.repairs.real.calibration.flatMap(([n, odds, held]) => (n < 5 ? [] : [`${odds.toFixed(2)} : ${held.toFixed(2)}`])).join(', ')}`,
    `    held invisible         ${r.repairs.invisible.join(' ')}`,
    `  6 schematic           ${Math.round(r.layoutMs)} ms for stages and layout`,
    `    touches per pin      proposals ${r.touches.ours.toFixed(2)} (groups left apart ${r.touches.missed.toFixed(1)}); all pairs ${r.touches.allPairs.toFixed(1)}, representatives ${r.touches.representatives.toFixed(2)}, guesswork ${r.touches.guesswork.toFixed(2)}; ${r.touches.pins} pins on ${r.touches.nets} nets`,
    `  7 stages              F1 ${r.stages.f1.toFixed(3)}, pins ${r.stages.pins.right} of ${r.stages.pins.of}, ${r.stages.topology}; disturbed, mean/worst: ${disturbed.join(', ')}`,
  ].join('\n');
}

function mixed(m: RepairMix): string {
  const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
  return `${m.seen} that can be seen: right ${percent(m.right)}, wrong ${percent(m.wrong)}, open ${percent(m.open)}, ${m.readings.toFixed(1)} readings; ${m.unseen} that cannot: ${m.unseenNamed} named all the same`;
}
