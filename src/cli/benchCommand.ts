import { Diagnoser } from '@/core/diagnose';
import { seededRandom } from '@/core/quantity';
import { checklistPoints } from '../../bench/checklist';
import { decisionMs, dictionaryCost, solveRate } from '../../bench/dictionaryBench';
import { dictionaryTogether } from '../../bench/dictionaryThreads';
import { ALL_BOARDS, boardsTogether, exampleBoard } from '../../bench/exampleBoards';
import { firstLoads } from '../../bench/firstLoad';
import { drawingTime } from '../../bench/drawingTime';
import {
  NOISY_METER,
  SLIPS,
  calibration,
  drawnRepairs,
  everyFault,
  heldInvisible,
  readAcross,
  repairMix,
} from '../../bench/repairs';
import { instrumentsSee } from '../../bench/instruments';
import type { RepairMix, Tenth } from '../../bench/repairs';
import { labelledBoard, stageAccuracy, strangersRead } from '../../bench/stageAccuracy';
import { complaintMix } from '../../bench/complaints';
import { poweredTime } from '../../bench/poweredTime';
import { sweepTime } from '../../bench/sweepTime';
import { workingTime } from '../../bench/workingTime';
import { touchesPerPin } from '../../bench/touches';
import { fixedOrder, randomOrder, referenceDepth } from '../../bench/isolation';
import { option, readArguments } from './arguments';

/** `lantern bench [--board NAME] [--faults N]`: the project's own table (N: a sample of the faults to isolate), items 1 to 5 of the engine's list. */
export async function benchCommand(words: readonly string[]): Promise<number> {
  const args = readArguments(words, ['board', 'faults']);
  const json = option(args, 'json') !== undefined;
  const only = option(args, 'board');
  const faults = Number(option(args, 'faults') ?? Infinity);
  const rows: Row[] = [];
  for (const name of ALL_BOARDS.filter((b) => only === undefined || b === only)) {
    const row = {
      ...benchBoard(name, faults),
      threads: await threadTimes(name),
      instruments: instrumentsSee(exampleBoard(name)),
      drawing: drawingTime(exampleBoard(name)),
      stages: accuracyOf(name),
      powered: poweredTime(name),
      working: workingTime(name),
      complaint: COMPLAINED.has(name)
        ? complaintMix(exampleBoard(name), COMPLAINTS, () => performance.now() / 1000)
        : null,
    };
    if (!json) console.log(text(row));
    rows.push(row);
  }
  const pooled = pooledTouches(rows);
  const sweep = sweepTime();
  const loads = firstLoads(process.env['LANTERN_ROOT'] ?? process.cwd());
  const strangers =
    only === undefined ? [0, 0.15].map((missing) => ({ missing, ...strangersRead(STRANGERS, missing) })) : [];
  if (json) console.log(JSON.stringify({ boards: rows, touches: pooled, sweep, strangers, firstLoads: loads }));
  else {
    const tenths = Array.from({ length: 10 }, (_, t): Tenth => {
      const at = (of: 0 | 1 | 2): number => rows.reduce((sum, r) => sum + r.repairs.calibration[t]![of], 0);
      return [at(0), at(1), at(2)];
    });
    console.log(`odds stated : true, all boards: ${calibrated(tenths)}`);
    console.log(
      loads === null
        ? 'first-load JavaScript: the application is not built'
        : `first-load JavaScript, gzip: ${loads.map((l) => `${l.page} ${l.kB.toFixed(0)} kB`).join(', ')}`,
    );
    console.log(`two hundred parts:${drawingLine(drawingTime(boardsTogether(TWO_HUNDRED_PARTS)))}`);
    console.log(
      `touches per pin, all boards: proposals ${pooled.ours.toFixed(2)}, representatives ${pooled.representatives.toFixed(2)} (ratio ${(pooled.ours / pooled.representatives).toFixed(2)})`,
    );
    for (const s of strangers) console.log(strangerWords(s));
    console.log(
      `sweep of 5000 rows: read ${sweep.readMs.toFixed(1)} ms, derived and judged ${sweep.judgeMs.toFixed(1)} ms; a modification worked out ${sweep.planMs.toFixed(1)} ms`,
    );
  }
  return 0;
}

/** Milliseconds of a whole dictionary in one new thread, and in two that share it. */
const threadTimes = async (name: string): Promise<readonly [one: number, two: number]> => {
  const program = new URL(import.meta.url);
  return [
    await dictionaryTogether(exampleBoard(name), 1, program),
    await dictionaryTogether(exampleBoard(name), 2, program),
  ];
};

/** Boards that nobody has seen, made of the examples. */
const STRANGERS = 2000;

function strangerWords(s: ReturnType<typeof strangersRead> & { readonly missing: number }): string {
  const worst = s.byChange
    .filter((c) => c.count > 0)
    .map((c) => `${c.change} ${c.wrong}/${c.count} F1 ${c.f1.toFixed(3)}`);
  const sure = s.calibration.flatMap((c) =>
    c.count === 0 ? [] : [`${c.stated.toFixed(2)} : ${c.right.toFixed(2)} (${c.count})`],
  );
  return (
    `${STRANGERS} strangers, up to ${100 * s.missing} % of their parts missing: topology ${(100 * s.topology).toFixed(1)} %, ` +
    `F1 ${s.f1.toFixed(3)}, worst tenth ${s.worstTenth.toFixed(3)}; stated : right ${sure.join(', ')}; wrong topologies per change: ${worst.join(', ')}`
  );
}

/** Repairs drawn from the priors, for each board. */
const REPAIRS = 500;
/** Of those, hunted by the other orders too, with a noisy meter and with leads that slip. */
const BESIDE = 100;

type Row = ReturnType<typeof benchBoard> & {
  readonly threads: Awaited<ReturnType<typeof threadTimes>>;
  readonly instruments: ReturnType<typeof instrumentsSee>;
  readonly drawing: ReturnType<typeof drawingTime>;
  readonly stages: ReturnType<typeof accuracyOf>;
  readonly powered: ReturnType<typeof poweredTime>;
  readonly working: ReturnType<typeof workingTime>;
  readonly complaint: ReturnType<typeof complaintMix>;
};

/** Boards that are drawn together as one large one. */
const TWO_HUNDRED_PARTS = ['lamp-supply-24v', 'quay-charger-24v', 'weather-buck-5v'];

/** Boards whose faults are hunted with the complaint that each gives: a minute and more a board. */
const COMPLAINED: ReadonlySet<string> = new Set([
  'lamp-supply-24v',
  'weather-buck-5v',
  'pump-aux-buck',
  'buoy-boost-28',
]);
const COMPLAINTS = 120;

function workingLine(w: Row['working']): readonly string[] {
  if (!w) return [];
  const ms = (v: number): string => `${Math.round(v)} ms`;
  return [
    `  8 working board       a part changed: points, start and drawing ${ms(w.expectMs)} median, ratings ${ms(w.rateMs)}; usable output ${ms(w.usableMs)}: ${w.claim}`,
  ];
}

function complaintLine(c: Row['complaint']): readonly string[] {
  if (!c) return [];
  const by = Object.entries(c.by).map(([s, n]) => `${s} ${n}`);
  const fewer = (100 * (1 - c.with.readings / c.without.readings)).toFixed(0);
  return [
    `  9 by the complaint    ${c.without.readings.toFixed(2)} readings without it, ${c.with.readings.toFixed(2)} with it (${fewer} % fewer); right ${(100 * c.without.right).toFixed(1)} and ${(100 * c.with.right).toFixed(1)} %; of ${c.singles} single faults ${by.join(', ')}; worked out in ${c.seconds.toFixed(0)} s`,
  ];
}

function powerLine(p: Row['powered']): string {
  const ms = (v: number): string => `${Math.round(v)} ms`;
  const each = `each of ${p.faults} single faults from there ${ms(p.faultMedianMs)} median, ${ms(p.faultMeanMs)} mean, ${ms(p.faultMostMs)} most`;
  return `  7 under power         ${p.right} of ${p.of} labelled points; operating point ${ms(p.firstMs)} the first time, ${ms(p.nextMs)} the next; ${each}; a waveform ${ms(p.waveformMs)}${p.wholeSeconds === null ? '' : `; all of them at two loads ${p.wholeSeconds.toFixed(1)} s`}; a hundred bare factorisations of its nodes ${ms(p.bareMs)}`;
}

/** How well the stages are recognised from the netlist alone, and under 20 changes of each kind. */
const accuracyOf = (name: string) => stageAccuracy(labelledBoard(name), 20);

function benchBoard(name: string, most: number) {
  const board = exampleBoard(name);
  const solves = solveRate(board);
  const { dictionary, ...cost } = dictionaryCost(board);
  const diagnoser = new Diagnoser(dictionary);
  const nextMs = decisionMs(diagnoser);
  const order = checklistPoints(board);
  const real = drawnRepairs(diagnoser, Math.min(REPAIRS, most));
  const every = everyFault(diagnoser);
  const even = pick(every, most);
  const beside = (list: readonly number[]) => {
    const some = list.slice(0, Math.min(BESIDE, most));
    return {
      plan: repairMix(diagnoser, some),
      checklist: repairMix(diagnoser, some, () => ({ choose: fixedOrder(order, diagnoser) })),
      random: repairMix(diagnoser, some, (k) => ({ choose: randomOrder(diagnoser, seededRandom(k)) })),
      referenceDepth: referenceDepth(
        diagnoser,
        some.filter((i) => diagnoser.groups[i] !== diagnoser.groups[0]),
      ),
    };
  };
  return {
    name,
    parts: board.parts.length,
    touches: touchesPerPin(board, [1, 2, 3]),
    solves,
    dictionary: cost,
    nextMs,
    repairs: {
      real: repairMix(diagnoser, real),
      even: repairMix(diagnoser, even),
      noisy: repairMix(diagnoser, real.slice(0, BESIDE), () => ({ meter: NOISY_METER })),
      slipping: repairMix(diagnoser, real.slice(0, BESIDE), () => ({ slips: SLIPS })),
      across: readAcross(diagnoser, ['open', 'short']),
      drifted: readAcross(diagnoser, ['double', 'half']),
      calibration: calibration(diagnoser, Math.min(REPAIRS, most)),
      invisible: heldInvisible(diagnoser),
    },
    beside: { real: beside(real), even: beside(pick(every, Infinity)) },
  };
}

/** Touches per pin over all pins of the boards. */
function pooledTouches(rows: readonly Row[]): { readonly ours: number; readonly representatives: number } {
  const pins = rows.reduce((s, r) => s + r.touches.pins, 0);
  const over = (of: (r: Row) => number): number => rows.reduce((s, r) => s + of(r) * r.touches.pins, 0) / pins;
  return { ours: over((r) => r.touches.ours), representatives: over((r) => r.touches.representatives) };
}

function pick<T>(list: readonly T[], most: number): readonly T[] {
  const random = seededRandom(7);
  return [...list]
    .map((h) => ({ h, key: random() }))
    .sort((a, b) => a.key - b.key)
    .slice(0, most)
    .map((x) => x.h);
}

/** Odds stated beside the share that was true, in tenths of the odds, those with a few cases at least. */
function calibrated(tenths: readonly Tenth[]): string {
  return tenths
    .flatMap(([n, stated, held]) => (n < 5 ? [] : [`${(stated / n).toFixed(2)} : ${(held / n).toFixed(2)} (${n})`]))
    .join(', ');
}

function mixed(m: RepairMix): string {
  const percent = (x: number): string => `${(100 * x).toFixed(1)} %`;
  const slipped =
    m.slipped > 0 ? `; ${m.slipped} readings on other nets, ${percent(m.doubted)} of them named doubtful` : '';
  return (
    `${m.seen} seen: right ${percent(m.right)}, wrong ${percent(m.wrong)}, open ${percent(m.open)}, ${m.taken.toFixed(1)} readings each; ` +
    `${m.unseen} cannot be seen, ${m.unseenNamed} of them named all the same${slipped}`
  );
}

type Beside = ReturnType<typeof benchBoard>['beside']['real'];

function besideWords({ plan, checklist, random, referenceDepth: depth }: Beside): string {
  const ratio = (x: number, of: number): string => (of > 0 ? (x / of).toFixed(2) : '-');
  return (
    `plan ${plan.readings.toFixed(1)}, checklist ${checklist.readings.toFixed(1)} (ratio ${ratio(plan.readings, checklist.readings)}), ` +
    `random ${random.readings.toFixed(1)}, reference depth ${depth.toFixed(1)} (ratio ${ratio(plan.readings, depth)}); ` +
    `right ${[plan, checklist, random].map((m) => (100 * m.right).toFixed(0)).join('/')} %`
  );
}

function text(r: Row): string {
  const { solves: s, dictionary: d, repairs, beside } = r;
  const disturbed = Object.entries(r.stages.disturbed).map(
    ([kind, x]) => `${kind} ${x.mean.toFixed(3)}/${x.worst.toFixed(3)}`,
  );
  return [
    `${r.name} (${r.parts} parts, ${s.size} nodes)`,
    `  1 readings solved     ${Math.round(s.perSecond)} per second, ${s.stepsEach.toFixed(1)} Newton steps each; time per step ${s.luRatio.toFixed(2)} x one bare dense LU`,
    `  2 fault dictionary    ${d.hypotheses} hypotheses x ${d.points} points = ${d.entries} entries, ${d.skipped} skipped; ${Math.round(d.ms)} ms (reference ${Math.round(d.referenceMs)} ms), heap ${Math.round(d.megabytes)} MB; sample ${d.sampled}, off ${d.sampleOff}; first plan ${Math.round(d.firstPlanMs)} ms`,
    `    in new threads        one ${Math.round(r.threads[0])} ms, two ${Math.round(r.threads[1])} ms`,
    `    not seen by the meter ${(100 * r.instruments.byMeter).toFixed(1)} % of the odds; with an ESR meter, a capacitance meter and a ring tester ${(100 * r.instruments.byAll).toFixed(1)} %, worked out in ${Math.round(r.instruments.ms)} ms`,
    `  3 next reading        ${r.nextMs.toFixed(1)} ms median`,
    `  4 repairs as they come ${mixed(repairs.real)}`,
    `    every fault once     ${mixed(repairs.even)}`,
    `    twice the noise      ${mixed(repairs.noisy)}`,
    `    one in 20 slips      ${mixed(repairs.slipping)}`,
    `    readings, as they come  ${besideWords(beside.real)}`,
    `    readings, every once    ${besideWords(beside.even)}`,
    `    read straight across    ${repairs.across.found} of ${repairs.across.asked} among the first three, drifted to 2 or 1/2 ${repairs.drifted.found} of ${repairs.drifted.asked}`,
    `    odds stated : true      ${calibrated(repairs.calibration)}`,
    `    held invisible          ${repairs.invisible.join(' ')}`,
    drawingLine(r.drawing),
    `    touches per pin      proposals ${r.touches.ours.toFixed(2)} (groups left apart ${r.touches.missed.toFixed(1)}); all pairs ${r.touches.allPairs.toFixed(1)}, representatives ${r.touches.representatives.toFixed(2)}, guesswork ${r.touches.guesswork.toFixed(2)}; ${r.touches.pins} pins on ${r.touches.nets} nets`,
    `  6 stages              F1 ${r.stages.f1.toFixed(3)}, pins ${r.stages.pins.right} of ${r.stages.pins.of}, ${r.stages.topology}; disturbed, mean/worst: ${disturbed.join(', ')}`,
    powerLine(r.powered),
    ...workingLine(r.working),
    ...complaintLine(r.complaint),
  ].join('\n');
}

function drawingLine(d: Row['drawing']): string {
  const figures = `${d.crossingsPerNet.toFixed(2)} crossings a net, ${d.bendsPerWire.toFixed(2)} bends a wire, ${Math.round(100 * d.wired)} % of small nets as wires, ${d.shape.toFixed(2)} wide for its height`;
  const wrong = d.overlaps.length + d.through.length + d.unreached.length;
  return `  5 drawing             ${Math.round(d.ms)} ms with its stages; ${d.symbols} symbols, ${figures}${wrong === 0 ? '' : `, ${wrong} faults`}`;
}
