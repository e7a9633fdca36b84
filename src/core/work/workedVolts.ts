import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { supplyOf } from '../operate';
import type { ComputedVolts } from '../operate';
import { recogniseStages } from '../stages';
import { PoweredReader } from './readPowered';
import type { OperatingCondition } from './workBoard';

/** Less than this tells nothing of a rail, V. */
const NOTHING = 0.05;

/**
 * Direct volts of every net that stands at work, against the reference of its island: at the usual source and full load, with
 * the lowest and highest that the corners of source and load allow. None where the unit as it is known does not run there:
 * what is not understood is not taken for dead.
 */
export function workedVolts(board: Board): readonly ComputedVolts[] {
  const { lowest, nominal, highest } = supplyOf(board);
  const usual = nominal ?? highest;
  if (usual === null) return [];
  const at = (condition: OperatingCondition): PoweredReader[] => {
    const reader = PoweredReader.at(board, condition, []);
    const { unitState, warnings } = reader.operation;
    return unitState === 'run' && warnings.length === 0 ? [reader] : [];
  };
  const [main] = at({ source: usual, load: 'full' });
  if (!main) return [];
  const corners = [
    main,
    ...at({ source: highest ?? usual, load: 'none' }),
    ...(lowest === null ? [] : at({ source: lowest, load: 'full' })),
  ];
  return standingPairs(board).flatMap(([red, black]): ComputedVolts[] => {
    const seen = corners.flatMap((reader) => voltsOf(reader, red, black) ?? []);
    const own = seen[0];
    if (seen.length < corners.length || !own || Math.abs(own.volts) < NOTHING) return [];
    const why = main.derive(red, black).steps.at(-1)?.words ?? '';
    const low = Math.min(...seen.map((s) => s.volts - s.spread));
    const high = Math.max(...seen.map((s) => s.volts + s.spread));
    return [{ red, black, nominal: own.volts, low, high, why }];
  });
}

/** Volts of a rail at work, against the reference of its island. */
export interface RailVolts {
  readonly net: string;
  readonly volts: number;
}

/** Direct volts of every net of a unit that stands. */
export function railVolts(reader: PoweredReader): readonly RailVolts[] {
  return standingPairs(reader.board).flatMap(([red, black]) => {
    const seen = voltsOf(reader, red, black);
    return seen ? [{ net: red, volts: seen.volts }] : [];
  });
}

/** Every net with the reference of its island. */
function standingPairs(board: Board): readonly (readonly [string, string])[] {
  return recogniseStages(board).islands.flatMap(({ nets, reference }) =>
    nets.flatMap((red) =>
      [red, reference].some((n) => netKey(n) === 'nc') || netKey(red) === netKey(reference)
        ? []
        : [[red, reference] as const],
    ),
  );
}

/** Mean volts between two nets that stand, and how far a good unit may lie off. */
function voltsOf(
  reader: PoweredReader,
  red: string,
  black: string,
): { readonly volts: number; readonly spread: number } | null {
  const { unit, volts } = reader.operation;
  const [a, b] = [unit.node(red), unit.node(black)];
  if (a < 0 || b < 0 || !unit.isSteady(a) || !unit.isSteady(b) || unit.line?.lineNodes.has(a)) return null;
  return { volts: volts[a]! - volts[b]!, spread: reader.derive(red, black).spread };
}
