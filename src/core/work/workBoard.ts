import type { Board } from '../circuit';
import { partFigure, withFigure } from '../part';
import type { Part } from '../part';

/** How much of the nameplate's load may be connected. */
export const LOADS = ['none', 'half', 'full'] as const;

/** The operating condition: volts of the source (rms on mains) and how much of the nameplate's load is connected. */
export interface OperatingCondition {
  readonly source: number;
  readonly load: (typeof LOADS)[number];
  /** Any other share of the nameplate's current in place of what `load` says. */
  readonly share?: number;
  /** Whether further supplies and commands stand at their lowest or highest volts, or the wrong way round; left out: as usual. */
  readonly further?: 'lowest' | 'highest' | 'reversed';
}

/** Share of the nameplate's current. */
const LOAD_SHARE = { none: 0, half: 0.5, full: 1 } as const;

/** Share of the nameplate's current that is connected. */
export const loadShare = ({ load, share }: OperatingCondition): number => share ?? LOAD_SHARE[load];

/** An NTC up to this is one against the rush of current; above it measures. */
const INRUSH_OHMS = 200;

/**
 * The board with the parts as they are at work (contract, section 5): a fuse by its rating, an NTC in the way of the
 * current warm under load, a filament lamp by its watts.
 */
export function boardAtWork(board: Board, { load }: OperatingCondition): Board {
  return { ...board, parts: board.parts.map((p) => partAtWork(p, load)) };
}

function partAtWork(part: Part, load: OperatingCondition['load']): Part {
  if (part.kind === 'fuse' && partFigure(part, 'ohms') === undefined) {
    const amps = partFigure(part, 'ratedAmps');
    return withFigure(part, 'ohms', Math.min(0.05, amps ? 0.1 / amps : 0.05));
  }
  if (part.kind === 'ntc' && load !== 'none') {
    const cold = partFigure(part, 'ohmsAt25') ?? 10;
    return cold <= INRUSH_OHMS ? withFigure(part, 'ohmsAt25', cold / 10) : part;
  }
  if (part.kind === 'lamp') {
    const [volts, watts] = [partFigure(part, 'ratedVolts'), partFigure(part, 'ratedWatts')];
    if (volts && watts && partFigure(part, 'strikeVolts') === undefined)
      return withFigure(part, 'ohms', volts ** 2 / watts);
  }
  return part;
}
