import { z } from 'zod';
import { MARK_KINDS, decodeMarking } from '@/core/marking';
import type { RankedReading } from '@/core/marking';
import { formatQuantity } from '@/core/quantity';
import { answerRequests } from './answerRequests';
import { UnusableArguments, option, readArguments } from './arguments';

const Request = z.object({ mark: z.string(), kind: z.enum(MARK_KINDS).nullable().default(null) });

/** `lantern decode MARK [--kind K]` or `--requests FILE`. Gives the exit status. */
export function decodeCommand(words: readonly string[]): number {
  const args = readArguments(words, ['kind', 'requests']);
  const json = option(args, 'json') !== undefined;
  const requests = option(args, 'requests');
  if (requests !== undefined) return answerRequests(requests, answer);
  if (args.plain.length === 0) throw new UnusableArguments('decode needs the marking, in quotes where it has spaces.');
  const mark = args.plain.join(' ');
  const kind = MARK_KINDS.find((k) => k === option(args, 'kind')) ?? null;
  if (option(args, 'kind') !== undefined && kind === null)
    throw new UnusableArguments(`There is no kind ${option(args, 'kind')}; there are ${MARK_KINDS.join(' ')}.`);
  const readings = decodeMarking(mark, kind);
  if (json) console.log(JSON.stringify({ mark, readings }));
  else console.log(readings.length === 0 ? `“${mark}” is no marking I know.` : readings.map(line).join('\n'));
  return 0;
}

function answer(text: string): unknown {
  try {
    const { mark, kind } = Request.parse(JSON.parse(text));
    return { mark, readings: decodeMarking(mark, kind) };
  } catch {
    return { error: { code: 'bad-request', message: 'The line is not a request {"mark":…,"kind":…}.' } };
  }
}

function line(r: RankedReading): string {
  const said = [
    r.value === null || r.unit === null ? '' : formatQuantity(r.value, r.unit, 4),
    r.tolerance === null ? '' : `± ${Number((r.tolerance * 100).toPrecision(3))} %`,
    r.voltage === null ? '' : formatQuantity(r.voltage, 'V'),
    r.current === null || r.unit === 'A' ? '' : formatQuantity(r.current, 'A'),
  ].filter((s) => s !== '');
  const habit = r.convention ? '; a habit of the trade: confirm against the data sheet' : '';
  return `${String(Math.round(100 * r.likelihood)).padStart(3)} %  ${r.kind} ${said.join(', ')}  (${r.system}: ${r.why}${habit})`;
}
