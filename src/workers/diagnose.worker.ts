import { Diagnoser, buildDictionary, listHypotheses, lookFactors } from '@/core/diagnose';
import { Permit } from '@/core/permit';
import { planEntry } from './messages';
import type { DiagnoseAnswer, DiagnoseRequest } from './messages';

let diagnoser: Diagnoser | null = null;
let permit: Permit | null = null;
let opening = 0;
let presenting = 0;

const answer = (message: DiagnoseAnswer): void => self.postMessage(message);

self.onmessage = ({ data }: MessageEvent<DiagnoseRequest>): void => {
  if (data.type === 'open') void open(data);
  else if (data.type === 'present') void present(data);
  else weigh(data);
};

/** How long the worker works before it lets messages in, milliseconds. */
const SLICE_MS = 50;

/** Works out in slices what a permit to power this board takes; a newer board stops it. */
async function present({ number, board }: Extract<DiagnoseRequest, { type: 'present' }>): Promise<void> {
  presenting = number;
  permit = null;
  try {
    const steps = Permit.steps(board);
    let since = performance.now();
    for (;;) {
      const step = steps.next();
      if (presenting !== number) return;
      if (step.done) {
        permit = step.value;
        answer({ type: 'presented', number });
        return;
      }
      if (performance.now() - since > SLICE_MS) {
        await new Promise((resolve) => setTimeout(resolve));
        since = performance.now();
      }
    }
  } catch (error) {
    answer({ type: 'failed', number, sentence: error instanceof Error ? error.message : String(error) });
  }
}

/** Builds the dictionary in slices; a newer board or the end of the page stops it. */
async function open({ number, board, symptoms }: Extract<DiagnoseRequest, { type: 'open' }>): Promise<void> {
  opening = number;
  diagnoser = null;
  try {
    const hypotheses = listHypotheses(board, symptoms);
    const steps = buildDictionary(board, hypotheses);
    let since = performance.now();
    for (;;) {
      const step = steps.next();
      if (opening !== number) return;
      if (step.done) {
        diagnoser = new Diagnoser(step.value);
        answer({ type: 'opened', number, hypotheses: hypotheses.length });
        return;
      }
      if (performance.now() - since > SLICE_MS) {
        answer({ type: 'progress', number, share: step.value });
        await new Promise((resolve) => setTimeout(resolve));
        since = performance.now();
      }
    }
  } catch (error) {
    answer({ type: 'failed', number, sentence: error instanceof Error ? error.message : String(error) });
  }
}

function weigh({
  number,
  readings,
  present: now,
  skipped,
  findings,
}: Extract<DiagnoseRequest, { type: 'weigh' }>): void {
  if (!diagnoser) return;
  try {
    const { board, hypotheses } = diagnoser.dictionary;
    const factors = findings.length === 0 ? undefined : lookFactors(board, hypotheses, findings);
    const { suspects, plan, verdict, probabilities } = diagnoser.diagnose(readings, 10, skipped, factors);
    const byPart = new Map<string, number>();
    diagnoser.dictionary.hypotheses.forEach((h, i) => {
      for (const ref of new Set(h.faults.map((f) => f.ref)))
        byPart.set(ref, (byPart.get(ref) ?? 0) + probabilities[i]!);
    });
    answer({
      type: 'weighed',
      number,
      suspects,
      plan: plan.map(planEntry),
      permit: permit?.judge(now, diagnoser, findings) ?? null,
      verdict,
      byPart,
    });
  } catch (error) {
    answer({ type: 'failed', number, sentence: error instanceof Error ? error.message : String(error) });
  }
}
