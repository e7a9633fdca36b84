import type { Board } from '../circuit';
import { supplyOf } from '../operate';
import { PoweredReader, loadShare, readerLike, unitAtRest, unitAtSwitchOn, workPlan } from '../work';
import type { OperatingCondition, Operation } from '../work';

/**
 * A condition in which a unit is judged: at work; at rest with its source on; at the moment of switching on; with a direct source
 * or command the wrong way round.
 */
export interface Corner {
  readonly kind: 'work' | 'rest' | 'switch-on' | 'reversed';
  /** Volts of the source (rms on mains) and share of the nameplate's load. */
  readonly source: number;
  readonly share: number;
}

/** Steady states of corners that were worked out before, by `cornerKey`: a like unit begins where they are. */
export type KnownCorners = Map<string, Operation>;

export const cornerKey = ({ kind, source, share }: Corner): string => `${kind} ${source} ${share}`;

/** Which corners a unit is judged in: source lowest and highest, load none and full; one source where it is given. */
export function cornersOf(board: Board, source: number | null): readonly Corner[] {
  const { lowest, nominal, highest } = supplyOf(board);
  const told = source === null ? [highest, lowest] : [source];
  const sources = [...new Set(told.flatMap((s) => s ?? []))];
  if (sources.length === 0) return [];
  const work = sources.flatMap((s) => [1, 0].map((share): Corner => ({ kind: 'work', source: s, share })));
  // What makes alternating volts gives its whole power at the usual source, and no more above it.
  const follows = board.nameplate?.outputs?.some((o) => o.kind === 'ac') === true;
  if (source === null && follows && nominal !== null) work.push({ kind: 'work', source: nominal, share: 1 });
  const top = sources[0]!;
  const still = (['rest', 'switch-on', 'reversed'] as const).map((kind): Corner => ({ kind, source: top, share: 0 }));
  return [...work, ...still];
}

/** The unit in a corner; null where it has none. known: see there; what is worked out is put there. */
export function operateCorner(board: Board, corner: Corner, known: KnownCorners): Operation | null {
  const plan = workPlan(board);
  const { kind, source, share } = corner;
  const { lowest, highest } = supplyOf(board);
  if (kind !== 'work') {
    if (kind === 'rest') {
      const made = unitAtRest(plan, { source, load: 'none', further: 'highest' }, known.get(cornerKey(corner)));
      if (made) known.set(cornerKey(corner), made);
      return made;
    }
    if (kind === 'switch-on') return unitAtSwitchOn(plan, { source, load: 'none' });
    const turned = plan.mains ? 0 : -source;
    if (plan.mains && plan.supplies.length === 0) return null;
    return unitAtRest(plan, { source: turned, load: 'none', further: 'reversed' });
  }
  const key = cornerKey(corner);
  const condition: OperatingCondition = {
    source,
    load: share === 0 ? 'none' : 'full',
    ...(share === 0 || share === 1 ? {} : { share }),
    ...(source === highest ? { further: 'highest' as const } : source === lowest ? { further: 'lowest' as const } : {}),
  };
  const exact = known.get(key);
  const near = [...known.values()].find((o) => o.unitState === 'run' && loadShare(o.unit.condition) > 0 === share > 0);
  const { operation } = exact
    ? readerLike(board, condition, [], exact)
    : PoweredReader.at(board, condition, [], near ?? null);
  known.set(key, operation);
  return share === 0 ? limited(operation) : operation;
}

/** Outputs that the nameplate bounds and that the unit would bring higher without load: what bounds them is taken to do so. */
function limited(operation: Operation): Operation {
  const { unit, found } = operation;
  if (!found) return operation;
  const volts = Float64Array.from(operation.volts);
  for (const { kind, rail, return: back, voltsMax } of unit.plan.outputs) {
    const [a, b] = [unit.node(rail), unit.node(back)];
    if (kind === 'dc' && voltsMax !== undefined && a >= 0 && b >= 0)
      volts[a] = Math.min(volts[a]!, volts[b]! + voltsMax);
  }
  return { ...operation, volts };
}
