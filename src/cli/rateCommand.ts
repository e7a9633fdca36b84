import { ProblemError } from '@/core/problem';
import { formatQuantity } from '@/core/quantity';
import { rateUnit, usableOutput } from '@/core/rate';
import type { KnownCorners, RatedStrain, RatedUnit, UsableOutput } from '@/core/rate';
import { openBoard } from '@/wire/openBoard';
import { UnusableArguments, option, readArguments } from './arguments';

/** `lantern rate BOARD [--facts FILE] [--source V]`: stress of each part against its rating. Gives the exit status. */
export function rateCommand(words: readonly string[]): number {
  const args = readArguments(words, ['facts', 'source', 'mains']);
  const [path] = args.plain;
  if (path === undefined || args.plain.length > 1) throw new UnusableArguments('rate takes one board file.');
  const board = openBoard(path, option(args, 'facts'));
  const told = option(args, 'source') ?? option(args, 'mains');
  const source = told === undefined ? null : Number(told);
  if (source !== null && !(source > 0)) throw new UnusableArguments('--source is a number of volts above 0.');
  const known: KnownCorners = new Map();
  const rated = rateUnit(board, { source, known });
  if (!rated) {
    throw new ProblemError({
      code: 'no-nameplate',
      sentence: 'Nothing tells what this unit is fed from.',
      remedy: 'Give its nameplate with --facts FILE, or --source in volts.',
    });
  }
  const usable = usableOutput(board, rated, known);
  console.log(option(args, 'json') === undefined ? text(rated, usable) : JSON.stringify(contractJson(rated, usable)));
  return 0;
}

/** Other names of the contract for the same stress. */
const ALSO: Partial<Record<RatedStrain['quantity'], string>> = {
  'peak-inverse': 'voltage',
  'ripple-current': 'current',
};

/** The document of the contract; what else is known of a stress comes along as further keys. */
function contractJson({ rows, missing }: RatedUnit, usable: UsableOutput | null): unknown {
  const parts = rows.flatMap(({ ref, quantity, unit, stress, rating, limit, ratio, verdict, why, corner, remedy }) => {
    const line = { ref, quantity, stress, rating, ratio, verdict, why, unit, limit, corner, remedy };
    const also = ALSO[quantity];
    return also === undefined ? [line] : [line, { ...line, quantity: also }];
  });
  return { parts, missing, usable };
}

function text({ rows, missing }: RatedUnit, usable: UsableOutput | null): string {
  const lines = rows.map(
    (r) =>
      `${r.verdict.padEnd(8)} ${r.ref.padEnd(6)} ${r.quantity.padEnd(14)} ${formatQuantity(r.stress, r.unit).padEnd(10)} ${r.why}`,
  );
  const open =
    missing.length > 0 ? [`not worked out: ${missing.map((c) => `${c.kind} at ${c.source} V`).join(', ')}`] : [];
  return [...(usable ? [usable.sentence, ''] : []), ...lines, ...open].join('\n');
}
