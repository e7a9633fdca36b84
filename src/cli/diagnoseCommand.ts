import {
  ComplaintReader,
  Diagnoser,
  PLAIN_OBSERVATIONS,
  SYMPTOMS,
  buildWholeDictionary,
  listHypotheses,
  readObserved,
  weighObserved,
  weighPowered,
  withAllInstruments,
} from '@/core/diagnose';
import type {
  ComplaintSigns,
  Diagnosis,
  KnownSigns,
  Observed,
  PlannedReading,
  Symptom,
  TakenReading,
} from '@/core/diagnose';
import { SIGNAL_EVIDENCE } from '@/core/meter';
import type { SignalEvidence } from '@/core/meter';
import { Permit } from '@/core/permit';
import type { PowerPermit } from '@/core/permit';
import type { Board } from '@/core/circuit';
import type { ReadingsFile } from '@/wire/readingsCsv';
import { UnusableArguments, option, readArguments, required } from './arguments';
import type { Arguments } from './arguments';
import { openBoard, openReadings } from '@/wire/openBoard';

/** `lantern diagnose BOARD --readings FILE.csv [--symptom S]… [--observe KEY]… [--instruments esr,cap] [--facts F]`. Gives the exit status. */
export function diagnoseCommand(words: readonly string[]): number {
  const args = readArguments(words, ['readings', 'symptom', 'facts', 'observe', 'instruments']);
  const [path] = args.plain;
  if (path === undefined || args.plain.length > 1) throw new UnusableArguments('diagnose takes one board file.');
  const symptoms = (args.options.get('symptom') ?? []).map((s): Symptom => {
    const known = SYMPTOMS.find((k) => k === s);
    if (!known) throw new UnusableArguments(`There is no symptom ${s}; there are ${SYMPTOMS.join(' ')}.`);
    return known;
  });
  const board = openBoard(path, option(args, 'facts'));
  const observed = (args.options.get('observe') ?? []).map((key): Observed => {
    const known = readObserved(board, key);
    if (!known)
      throw new UnusableArguments(
        `There is nothing such as ${key} to observe; there are ${PLAIN_OBSERVATIONS.join(' ')} status-light:PATTERN, and hot:REF cold:REF of a part on the board.`,
      );
    return known;
  });
  const { unpowered, powered } = readingsOf(board, args);
  const clock = (): number => performance.now() / 1000;
  const signs = symptoms.length > 0 ? complaintSigns(board, symptoms, clock) : undefined;
  const seen = weighObserved(board, listHypotheses(board, symptoms, signs), observed, MOST_SECONDS, clock);
  const hypotheses = weighPowered(board, seen, powered, MOST_SECONDS, clock);
  const instruments = instrumentsOf(args, unpowered);
  const diagnoser = new Diagnoser(withAllInstruments(buildWholeDictionary(board, hypotheses), instruments));
  const diagnosis = diagnoser.diagnose(unpowered);
  const permit = Permit.of(board).judge(unpowered, diagnoser);
  console.log(
    option(args, 'json') !== undefined ? JSON.stringify(document(diagnosis, permit)) : report(diagnosis, permit),
  );
  return 0;
}

/** Instruments beside the meter: those that are said to be there, and those that something was read with. */
function instrumentsOf(args: Arguments, readings: readonly TakenReading[]): readonly SignalEvidence[] {
  const said = (option(args, 'instruments') ?? '').split(',').filter((word) => word !== '');
  const unknown = said.find((word) => !SIGNAL_EVIDENCE.some((mode) => mode === word));
  if (unknown !== undefined)
    throw new UnusableArguments(`There is no instrument ${unknown}; there are ${SIGNAL_EVIDENCE.join(', ')}.`);
  return SIGNAL_EVIDENCE.filter((mode) => said.includes(mode) || readings.some((r) => r.mode === mode));
}

/** What the units with each single fault would show, the likeliest first, as far as the time allows. */
function complaintSigns(board: Board, symptoms: readonly Symptom[], clock: () => number): KnownSigns {
  const known = new Map<string, ComplaintSigns | null>();
  const reader = ComplaintReader.of(board);
  const until = clock() + COMPLAINT_SECONDS;
  const singles = listHypotheses(board, symptoms).filter((h) => h.faults.length <= 1);
  for (const { label, faults } of reader ? [...singles].sort((a, b) => b.weight - a.weight) : []) {
    if (clock() > until) break;
    known.set(label, reader!.signs(faults, symptoms));
  }
  return known;
}

/** The complaint is worked out no longer than this; the table by kind of part stands for what is left. */
const COMPLAINT_SECONDS = 12;

/** The readings of the file; none are needed where something was observed. */
function readingsOf(board: Board, args: Arguments): ReadingsFile {
  const file = option(args, 'readings');
  if (file === undefined && args.options.has('observe')) return { unpowered: [], powered: [] };
  return openReadings(board, file ?? required(args, 'readings'));
}

/** Faults are worked out under power no longer than this: a minute and a half. */
const MOST_SECONDS = 90;

function document(d: Diagnosis, permit: PowerPermit): unknown {
  const next = d.plan[0];
  return {
    verdict: d.verdict,
    suspects: d.suspects.map((s) => ({
      fault: s.fault,
      faults: s.faults,
      probability: s.probability,
      group: s.group,
      why: s.why,
    })),
    next: next
      ? { mode: next.point.mode, red: next.point.red, black: next.point.black, gainBits: next.gainBits, why: why(next) }
      : null,
    permit,
  };
}

function why(next: PlannedReading): string {
  if (next.again) return `read once more, much hangs on it, about ${Math.round(next.seconds)} s`;
  const creeping = next.creep ? `, read creeping after ${next.creep.seconds} s` : '';
  const total = next.split.reduce((a, b) => a + b, 0);
  const split =
    next.split.length > 1 ? `splits ${total} suspects ${next.split.join(' / ')}` : `weighs ${total} suspects`;
  return `${split}${creeping}, about ${Math.round(next.seconds)} s`;
}

function report(d: Diagnosis, permit: PowerPermit): string {
  const lines = d.suspects.slice(0, 8).map((s) => {
    const more =
      s.group.length > 1 ? ` (not told from ${s.group.slice(1, 5).join(', ')}${s.group.length > 5 ? ' …' : ''})` : '';
    return `${(100 * s.probability).toFixed(1).padStart(5)} %  ${s.fault}${more}: ${s.why}`;
  });
  const next = d.plan[0];
  const head = { named: 'Named.', 'cannot-tell': 'These readings cannot tell.', open: 'Open.' }[d.verdict];
  const then = next
    ? `Next: ${next.point.mode}, red ${next.point.red}, black ${next.point.black}; ${why(next)}.`
    : 'No reading left would tell more.';
  return [head, ...lines, then, ...permitLines(permit)].join('\n');
}

/** The permit in words, with the readings it rests on or still wants. */
function permitLines({ allowed, reasons, restsOn, clearing, unseen }: PowerPermit): readonly string[] {
  const told = (list: PowerPermit['clearing']): readonly string[] =>
    list.map((r) => `  ${r.mode}, red ${r.red}, black ${r.black}: rules out ${r.rulesOut}`);
  const blind = unseen.length > 0 ? [`No cold reading tells a short ${unseen.join(', ')}: the lamp has to.`] : [];
  if (allowed) return ['Nothing read forbids power. This rests on:', ...told(restsOn), ...blind];
  const wanted = clearing.length > 0 ? ['Readings that would clear it, if healthy:', ...told(clearing)] : [];
  return [`Do not power this: ${reasons.join(' ')}`, ...wanted, ...blind];
}
