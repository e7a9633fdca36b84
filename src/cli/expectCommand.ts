import { probePairs } from '@/core/diagnose';
import { expectReading } from '@/core/expect';
import type { ExpectedReading } from '@/core/expect';
import { solverFor } from '@/core/meter';
import { ProblemError } from '@/core/problem';
import { formatQuantity, formatVolts } from '@/core/quantity';
import { UnusableArguments, option, readArguments } from './arguments';
import { openBoard } from '@/wire/openBoard';

/** `lantern expect BOARD [--state cold]`: the expected reading of every point. Gives the exit status. */
export function expectCommand(words: readonly string[]): number {
  const args = readArguments(words, ['state', 'mains', 'load', 'facts']);
  const [path] = args.plain;
  if (path === undefined || args.plain.length > 1) throw new UnusableArguments('expect takes one board file.');
  const state = option(args, 'state') ?? 'cold';
  if (state !== 'cold' && state !== 'hot') throw new UnusableArguments('--state is cold or hot.');
  if (state === 'hot') {
    throw new ProblemError({
      code: 'state-not-available',
      sentence: 'Powered expectations are not built yet.',
      remedy: 'Use --state cold.',
    });
  }
  const board = openBoard(path, option(args, 'facts'));
  const solver = solverFor(board, []);
  const points = probePairs(board).flatMap(({ a, b }) => [
    expectReading(board, solver, 'diode', a, b),
    expectReading(board, solver, 'diode', b, a),
    expectReading(board, solver, 'ohms', a, b),
  ]);
  if (option(args, 'json') !== undefined) {
    console.log(JSON.stringify({ state, points: points.map((p) => ({ ...p, overload: p.nominal === null })) }));
  } else console.log(points.map(line).join('\n'));
  return 0;
}

function line(p: ExpectedReading): string {
  const show = (v: number): string => (p.unit === 'V' ? formatVolts(v) : formatQuantity(v, 'ohm'));
  const figure = p.nominal === null ? 'OL' : `${show(p.nominal)} (${show(p.low ?? 0)} to ${show(p.high ?? 0)})`;
  return `${p.mode.padEnd(6)} red ${p.red.padEnd(8)} black ${p.black.padEnd(8)} ${figure}  ${p.basis}: ${p.why}`;
}
