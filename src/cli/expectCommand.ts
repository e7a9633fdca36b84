import { probePairs } from '@/core/diagnose';
import { expectReading } from '@/core/expect';
import { parseFault } from '@/core/fault';
import type { ExpectedReading } from '@/core/expect';
import { solverFor } from '@/core/meter';
import { ProblemError } from '@/core/problem';
import { formatQuantity, formatVolts } from '@/core/quantity';
import { LOADS, PoweredReader, poweredPoints, startTimes, withReadings } from '@/core/work';
import type { PoweredPoint } from '@/core/work';
import { UnusableArguments, option, readArguments } from './arguments';
import type { Arguments } from './arguments';
import { openBoard, openReadings } from '@/wire/openBoard';

/**
 * `lantern expect BOARD [--state cold|hot]`: the expected reading of every point; --readings: what was read under power
 * stands in place of what is computed. Gives the exit status.
 */
export function expectCommand(words: readonly string[]): number {
  const args = readArguments(words, ['state', 'mains', 'source', 'load', 'fault', 'facts', 'readings']);
  const [path] = args.plain;
  if (path === undefined || args.plain.length > 1) throw new UnusableArguments('expect takes one board file.');
  const state = option(args, 'state') ?? 'cold';
  if (state !== 'cold' && state !== 'hot') throw new UnusableArguments('--state is cold or hot.');
  return state === 'hot' ? expectHot(path, args) : expectCold(path, args);
}

/** The points of the unit under power. */
function expectHot(file: string, args: Arguments): number {
  const board = openBoard(file, option(args, 'facts'));
  const source = Number(option(args, 'source') ?? option(args, 'mains') ?? board.nameplate?.inputNominal);
  const told = option(args, 'load') ?? 'half';
  const load = LOADS.find((l) => l === told);
  if (!Number.isFinite(source) || source < 0) {
    throw new ProblemError({
      code: 'no-nameplate',
      sentence: 'Nothing tells what this unit is fed from.',
      remedy: 'Give its nameplate with --facts FILE, or --source in volts.',
    });
  }
  if (!load) throw new UnusableArguments('--load is none, half or full.');
  const faults = (args.options.get('fault') ?? []).map((text) => {
    const fault = parseFault(board, text);
    if (!fault.ok) throw new ProblemError(fault.problem);
    return fault.value;
  });
  const computed = PoweredReader.at(board, { source, load }, faults);
  const path = option(args, 'readings');
  // What was read fed and loaded otherwise says nothing here.
  const taken =
    path === undefined
      ? []
      : openReadings(board, path).powered.filter(
          ({ condition }) => condition.source === source && condition.load === load,
        );
  const { reader, contradictions } = withReadings(computed, taken);
  const points = poweredPoints(reader);
  const { unitState, states, period, warnings, destroys } = reader.operation;
  const starts = startTimes(reader.operation);
  if (option(args, 'json') !== undefined)
    console.log(
      JSON.stringify({ state: unitState, states, period, starts, warnings, destroys, contradictions, points }),
    );
  else {
    const told = Object.entries(states).map(([ref, s]) => `${ref} ${s}`);
    const against = contradictions.map((c) => `not as computed: ${c.words}`);
    console.log([`${unitState}  ${told.join(', ')}`, ...against, ...points.map(hotLine)].join('\n'));
  }
  return 0;
}

function hotLine(p: PoweredPoint): string {
  return `${p.mode.padEnd(6)} red ${p.red.padEnd(8)} black ${p.black.padEnd(8)} ${formatVolts(p.nominal)} (${formatVolts(p.low)} to ${formatVolts(p.high)})`;
}

function expectCold(path: string, args: Arguments): number {
  const board = openBoard(path, option(args, 'facts'));
  const solver = solverFor(board, []);
  const points = probePairs(board).flatMap(({ a, b }) => [
    expectReading(board, solver, 'diode', a, b),
    expectReading(board, solver, 'diode', b, a),
    expectReading(board, solver, 'ohms', a, b),
  ]);
  if (option(args, 'json') !== undefined) {
    console.log(JSON.stringify({ state: 'cold', points: points.map((p) => ({ ...p, overload: p.nominal === null })) }));
  } else console.log(points.map(line).join('\n'));
  return 0;
}

function line(p: ExpectedReading): string {
  const show = (v: number): string => (p.unit === 'V' ? formatVolts(v) : formatQuantity(v, 'ohm'));
  const figure = p.nominal === null ? 'OL' : `${show(p.nominal)} (${show(p.low ?? 0)} to ${show(p.high ?? 0)})`;
  return `${p.mode.padEnd(6)} red ${p.red.padEnd(8)} black ${p.black.padEnd(8)} ${figure}  ${p.basis}: ${p.why}`;
}
