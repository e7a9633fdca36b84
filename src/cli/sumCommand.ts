import { z } from 'zod';
import { formatQuantity, parseQuantity } from '@/core/quantity';
import type { Unit } from '@/core/quantity';
import { SUMS, runSum } from '@/core/sums';
import type { SumResults } from '@/core/sums';
import { answerRequests } from './answerRequests';
import { UnusableArguments, option, readArguments } from './arguments';
import { printProblem } from './printProblem';

const Request = z.object({ name: z.string(), inputs: z.record(z.string(), z.unknown()) });

/** `lantern sum NAME key=value…`, `--list` or `--requests FILE`. Gives the exit status. */
export function sumCommand(words: readonly string[]): number {
  const args = readArguments(words, ['requests']);
  const json = option(args, 'json') !== undefined;
  if (option(args, 'list') !== undefined) {
    console.log(
      json
        ? JSON.stringify(SUMS.map(({ compute: _compute, ...told }) => told))
        : SUMS.map((s) => `${s.name.padEnd(16)} ${s.title}: ${s.formula}`).join('\n'),
    );
    return 0;
  }
  const requests = option(args, 'requests');
  if (requests !== undefined) return answerRequests(requests, answer);
  const [name, ...pairs] = args.plain;
  if (name === undefined) throw new UnusableArguments('sum needs a name; see lantern sum --list.');
  const done = runSum(name, Object.fromEntries(pairs.map(readPair)));
  if (!done.ok) return printProblem(done.problem, json);
  if (json) console.log(JSON.stringify(done.value));
  else {
    const { results, cautions } = done.value;
    const { resultUnits } = SUMS.find((s) => s.name === name)!;
    const shown = Object.entries(results).map(([key, value]) => `${key} = ${resultWords(value, resultUnits[key])}`);
    console.log([...shown, ...cautions.map((c) => `Caution: ${c}`)].join('\n'));
  }
  return 0;
}

/** A result for a person: four figures in engineering notation. */
function resultWords(value: SumResults[string] | undefined, unit: Unit | undefined): string {
  if (value === null) return 'does not exist';
  if (typeof value === 'object') return JSON.stringify(value);
  if (typeof value !== 'number') return String(value);
  return formatQuantity(value, unit ?? '1', 4);
}

function readPair(pair: string): [string, unknown] {
  const at = pair.indexOf('=');
  if (at <= 0) throw new UnusableArguments(`“${pair}” is not key=value.`);
  const text = pair.slice(at + 1);
  if (text.startsWith('[') || text.includes(',')) return [pair.slice(0, at), readList(text)];
  const quantity = parseQuantity(text);
  return [pair.slice(0, at), quantity.ok ? quantity.value.value : text];
}

/** A list: `1u,2u,3u` or a JSON array. What is no number stays as it is, to be refused by name. */
function readList(text: string): readonly unknown[] {
  return text
    .replace(/^\[|\]$/gu, '')
    .split(',')
    .map((one) => {
      const quantity = parseQuantity(one);
      return quantity.ok ? quantity.value.value : one;
    });
}

function answer(line: string): unknown {
  try {
    const request = Request.parse(JSON.parse(line));
    const done = runSum(request.name, request.inputs);
    return done.ok ? done.value : { error: { code: done.problem.code, message: done.problem.sentence } };
  } catch {
    return { error: { code: 'bad-request', message: 'The line is not a request {"name":…,"inputs":{…}}.' } };
  }
}
