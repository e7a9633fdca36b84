import { Diagnoser, SYMPTOMS, buildWholeDictionary, listHypotheses } from '@/core/diagnose';
import type { Diagnosis, PlannedReading, Symptom } from '@/core/diagnose';
import { ProblemError } from '@/core/problem';
import { parseReadingsCsv } from '@/wire/readingsCsv';
import { UnusableArguments, option, readArguments, required } from './arguments';
import { fileText, openBoard } from './openBoard';

/** `lantern diagnose BOARD --readings FILE.csv [--symptom S] [--facts F]`. Gives the exit status. */
export function diagnoseCommand(words: readonly string[]): number {
  const args = readArguments(words, ['readings', 'symptom', 'facts']);
  const [path] = args.plain;
  if (path === undefined || args.plain.length > 1) throw new UnusableArguments('diagnose takes one board file.');
  const symptoms = (args.options.get('symptom') ?? []).map((s): Symptom => {
    const known = SYMPTOMS.find((k) => k === s);
    if (!known) throw new UnusableArguments(`There is no symptom ${s}; there are ${SYMPTOMS.join(' ')}.`);
    return known;
  });
  const board = openBoard(path, option(args, 'facts'));
  const readings = parseReadingsCsv(board, fileText(required(args, 'readings')));
  if (!readings.ok) {
    const sentence = readings.problem.map((p) => p.sentence).join('\n');
    throw new ProblemError({ code: 'readings-error', sentence, remedy: 'Correct the file; nothing was used.' });
  }
  const diagnoser = new Diagnoser(buildWholeDictionary(board, listHypotheses(board, symptoms)));
  const diagnosis = diagnoser.diagnose(readings.value);
  console.log(option(args, 'json') !== undefined ? JSON.stringify(document(diagnosis)) : report(diagnosis));
  return 0;
}

function document(d: Diagnosis): unknown {
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
    gate: {
      allowed: d.gate.allowed,
      mass: d.gate.mass,
      reasons: d.gate.reasons,
      clearing: d.gate.clearing.map((p) => ({ mode: p.mode, red: p.red, black: p.black })),
    },
  };
}

function why(next: PlannedReading): string {
  const total = next.split.reduce((a, b) => a + b, 0);
  const split =
    next.split.length > 1 ? `splits ${total} suspects ${next.split.join(' / ')}` : `weighs ${total} suspects`;
  return `${split}, about ${Math.round(next.seconds)} s`;
}

function report(d: Diagnosis): string {
  const lines = d.suspects.slice(0, 8).map((s) => {
    const more =
      s.group.length > 1 ? ` (not told from ${s.group.slice(1, 5).join(', ')}${s.group.length > 5 ? ' …' : ''})` : '';
    return `${(100 * s.probability).toFixed(1).padStart(5)} %  ${s.fault}${more}: ${s.why}`;
  });
  const next = d.plan[0];
  const gate = d.gate.allowed ? 'Nothing read so far forbids power.' : `Do not power this: ${d.gate.reasons.join(' ')}`;
  const head = { named: 'Named.', 'cannot-tell': 'These readings cannot tell.', open: 'Open.' }[d.verdict];
  const then = next
    ? `Next: ${next.point.mode}, red ${next.point.red}, black ${next.point.black}; ${why(next)}.`
    : 'No reading left would tell more.';
  return [head, ...lines, then, gate].join('\n');
}
