import './choices';
import {
  Diagnoser,
  buildDictionary,
  buildFirstLook,
  joinParts,
  listHypotheses,
  lookFactors,
  partOf,
  withInstruments,
} from '@/core/diagnose';
import type { ComplaintSigns, DictionaryPart, Predictor, Symptom } from '@/core/diagnose';
import type { SignalEvidence } from '@/core/meter';
import { Permit } from '@/core/permit';
import { Helpers } from './helpers';
import { planEntry } from './messages';
import type { DiagnoseAnswer, DiagnoseRequest } from './messages';

let diagnoser: Diagnoser | null = null;
let permit: Permit | null = null;
let opening = 0;
/** Those that work on the dictionary of the open board beside this one. */
let helpers: Helpers | null = null;
let tookMs = 0;
/** Instruments beside the meter that it goes by. */
let planned: readonly SignalEvidence[] = [];
let presenting = 0;
/** The complaint of the open board, and what its faults would show as far as that is worked out. */
let complaint: { readonly symptoms: readonly Symptom[]; readonly signs: Map<string, ComplaintSigns | null> } | null =
  null;

const answer = (message: DiagnoseAnswer): void => self.postMessage(message);

self.onmessage = ({ data }: MessageEvent<DiagnoseRequest>): void => {
  if (data.type === 'open') void open(data);
  else if (data.type === 'present') void present(data);
  else if (data.type === 'signs') {
    if (data.number === opening) for (const [label, signs] of data.entries) complaint?.signs.set(label, signs);
  } else weigh(data);
};

/** How long the worker works before it lets messages in, milliseconds. */
const SLICE_MS = 50;

/** Runs steps to their end, letting messages in between; null when they are not wanted any more. */
async function inSlices<S, R>(
  steps: Generator<S, R>,
  wanted: () => boolean,
  progress: (step: S) => void = () => undefined,
): Promise<R | null> {
  let since = performance.now();
  for (;;) {
    const step = steps.next();
    if (!wanted()) return null;
    if (step.done) return step.value;
    if (performance.now() - since <= SLICE_MS) continue;
    progress(step.value);
    await new Promise((resolve) => setTimeout(resolve));
    since = performance.now();
  }
}

function fail(of: DiagnoseRequest['type'], number: number, error: unknown): void {
  answer({ type: 'failed', of, number, sentence: error instanceof Error ? error.message : String(error) });
}

/** Works out in slices what a permit to power this board takes; a newer board stops it. */
async function present({ number, board }: Extract<DiagnoseRequest, { type: 'present' }>): Promise<void> {
  presenting = number;
  permit = null;
  try {
    const made = await inSlices(Permit.steps(board), () => presenting === number);
    if (made === null) return;
    permit = made;
    answer({ type: 'presented', number });
  } catch (error) {
    fail('present', number, error);
  }
}

/** What there is so far is worked with anew when it has grown by this factor, and this many milliseconds have gone. */
const GROWN = 1.6;
const ANEW_MS = 500;

/**
 * Builds the dictionary in slices; a newer board or the end of the page stops it. A first look at the likeliest is there
 * at once; from then on what there is so far is worked with.
 */
async function open({
  number,
  board,
  symptoms,
  instruments,
  helpers: count,
}: Extract<DiagnoseRequest, { type: 'open' }>): Promise<void> {
  opening = number;
  diagnoser = null;
  complaint = { symptoms, signs: new Map() };
  helpers?.stop();
  const mine = (helpers = new Helpers(board, symptoms, count));
  const wanted = (): boolean => opening === number;
  const began = performance.now();
  const weighBy = (dictionary: Predictor, of: number, by: readonly SignalEvidence[] = []): void => {
    diagnoser = new Diagnoser(dictionary);
    planned = by;
    tookMs = performance.now() - began;
    answer({ type: 'opened', number, done: dictionary.hypotheses.length, of });
  };
  try {
    const hypotheses = listHypotheses(board, symptoms);
    const of = hypotheses.length;
    const first = await inSlices(buildFirstLook(board, hypotheses), wanted);
    if (first === null) return;
    if (first.left > 0) weighBy(first, of);
    let used = { done: first.hypotheses.length, at: performance.now() };
    let done = 0;
    /** Works out one share here. */
    const share = async (part: number): Promise<DictionaryPart | null> => {
      const steps = buildDictionary(board, hypotheses, undefined, { part, of: mine.count + 1 });
      const made = await inSlices(steps, wanted, (step) => {
        done = Math.max(done, Math.min(of, step.done + mine.done));
        answer({ type: 'progress', number, done, of });
        if (step.done < GROWN * used.done || performance.now() - used.at < ANEW_MS) return;
        weighBy(step.snapshot(), of);
        used = { done: step.done, at: performance.now() };
      });
      return made && partOf(made, hypotheses);
    };
    const parts: DictionaryPart[] = [];
    const own = await share(0);
    const theirs = own === null ? [] : await mine.parts;
    // What a helper broke down over is worked out here.
    for (const [i, found] of [own, ...theirs].entries()) {
      const part = found ?? (i > 0 && wanted() ? await share(i) : null);
      if (part === null || !wanted()) return;
      parts.push(part);
    }
    const made = joinParts(board, hypotheses, parts);
    weighBy(made, of);
    // What other instruments than the meter would tell comes on top.
    const seen = instruments.length > 0 ? await inSlices(withInstruments(made, instruments), wanted) : null;
    if (seen !== null) weighBy(seen, of, instruments);
  } catch (error) {
    fail('open', number, error);
  }
}

/** What was seen on the board, and what the units with each fault would show in place of the table by kind of part. */
function withComplaint(looks: Float64Array | undefined): Float64Array | undefined {
  if (!diagnoser || !complaint || complaint.signs.size === 0 || complaint.symptoms.length === 0) return looks;
  const { board, hypotheses } = diagnoser.predictor;
  const known = new Map(listHypotheses(board, complaint.symptoms, complaint.signs).map((h) => [h.label, h.weight]));
  return Float64Array.from(hypotheses, ({ label, weight }, i) => {
    const turned = weight > 0 ? (known.get(label) ?? weight) / weight : 1;
    return (looks?.[i] ?? 1) * turned;
  });
}

function weigh({
  number,
  opened,
  presented,
  readings,
  present: now,
  skipped,
  findings,
}: Extract<DiagnoseRequest, { type: 'weigh' }>): void {
  // Readings of one board are never weighed on another.
  if (!diagnoser || opened !== opening) return;
  try {
    const { board, hypotheses, left } = diagnoser.predictor;
    const looks = findings.length === 0 ? undefined : lookFactors(board, hypotheses, findings);
    const factors = withComplaint(looks);
    const { suspects, plan, verdict, probabilities, ledBy, evidence } = diagnoser.diagnose(
      readings,
      10,
      skipped,
      factors,
    );
    const byPart = new Map<string, number>();
    diagnoser.predictor.hypotheses.forEach((h, i) => {
      for (const ref of new Set(h.faults.map((f) => f.ref)))
        byPart.set(ref, (byPart.get(ref) ?? 0) + probabilities[i]!);
    });
    answer({
      type: 'weighed',
      number,
      suspects,
      plan: plan.map(planEntry),
      opened,
      presented,
      // Until all is in that could shut it, nothing is said of a permit.
      permit: (left === 0 && presented === presenting && permit?.judge(now, diagnoser, findings)) || null,
      done: hypotheses.length,
      of: hypotheses.length + left,
      instruments: planned,
      tookMs,
      verdict,
      ledBy,
      evidence,
      byPart,
    });
  } catch (error) {
    fail('weigh', opened, error);
  }
}
