import { isFuse, partFigure } from '../part';
import { findPart } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { supplyOf } from '../operate';
import { partWatts } from '../work';
import type { PoweredReader } from '../work';
import { faultyUnit, outputShare, works } from './faultyUnit';
import type { FaultyUnit } from './faultyUnit';

import type { Symptom } from './priors';

/** Whether a unit would show each complaint; null where nothing is computed of it. */
export type ComplaintSigns = Readonly<Record<Symptom, boolean | null>>;

/** The signs of hypotheses by label, as far as they were worked out; null: of that one nothing can be said. */
export type KnownSigns = ReadonlyMap<string, ComplaintSigns | null>;

/** Shares of the sound volts below which an output is dead, low, and above which it is high. */
const [DEAD, LOW, HIGH] = [0.25, 0.94, 1.06];
/** Times the sound ripple that is unstable, or heard. */
const RIPPLES = 4;
/** Watts from which heat is felt, times the sound heat; times its printed watts at which a part smells. */
const [FELT, HOTTER, SMELLS] = [0.5, 2, 2.5];

/** Works out of a board what complaint its unit would give with a fault; null of a board that nobody knows what to feed with. */
export class ComplaintReader {
  private constructor(
    private readonly board: Board,
    private readonly source: number,
    private readonly sound: FaultyUnit,
  ) {}

  static of(board: Board): ComplaintReader | null {
    const source = supplyOf(board).nominal;
    if (source === null) return null;
    const sound = faultyUnit(board, source, [], null);
    const runs = [sound.idle, sound.loaded].every((r) => r.operation.found && r.operation.unitState === 'run');
    return runs ? new ComplaintReader(board, source, sound) : null;
  }

  /** What the unit shows with these faults; null where it has no steady state. */
  signs(faults: readonly Fault[]): ComplaintSigns | null {
    const { board, sound } = this;
    const unit = faults.length === 0 ? sound : faultyUnit(board, this.source, faults, sound);
    const { idle, loaded } = unit;
    if (!idle.operation.found || !loaded.operation.found) return null;
    const { destroys, unitState } = loaded.operation;
    const share = outputShare(loaded, sound.loaded);
    const free = outputShare(idle, sound.idle);
    const blows = destroys.some(({ ref }) => {
      const part = findPart(board, ref);
      return part !== undefined && isFuse(part);
    });
    const [idleWorks, loadedWorks] = [works(idle, sound.idle), works(loaded, sound.loaded)];
    const hot = board.parts.some((p) => {
      const now = partWatts(loaded.operation, p.ref);
      return now > FELT && now > HOTTER * partWatts(sound.loaded.operation, p.ref);
    });
    const smells = board.parts.some(
      (p) => partWatts(loaded.operation, p.ref) > SMELLS * (partFigure(p, 'ratedWatts') ?? Infinity),
    );
    const ripples = ripple(loaded) > RIPPLES * ripple(sound.loaded);
    return {
      dead: share !== null && share < DEAD && unitState !== 'hiccup',
      'fuse-blows': blows,
      hiccup: unitState === 'hiccup' || idle.operation.unitState === 'hiccup',
      'low-output': share !== null && share >= DEAD && share < LOW && unitState !== 'hiccup',
      'high-output': (share !== null && share > HIGH) || (free !== null && free > HIGH),
      unstable: ripples || unitState === 'hiccup',
      sags: idleWorks && !loadedWorks && unitState !== 'off',
      'ok-unloaded': idleWorks && !loadedWorks,
      noisy: ripples || unitState === 'hiccup',
      hot,
      smells: smells || destroys.length > 0,
      'status-light': null,
    };
  }
}

function ripple(reader: PoweredReader): number {
  const [output] = reader.operation.unit.plan.outputs;
  return output ? (reader.read('ripple', output.rail, output.return)?.value ?? 0) : 0;
}

/** How likely a complaint is where the unit as computed gives it, and where it does not. */
const [GIVEN, NOT] = [0.8, 0.05];

/**
 * How much more or less likely a complaint makes a hypothesis than the middle of those worked out: by label; none for those
 * of which nothing is known. hypotheses: with the weights that they have without the complaint.
 */
export function complaintFactors(
  hypotheses: readonly { readonly label: string; readonly weight: number }[],
  symptoms: readonly Symptom[],
  known: KnownSigns,
): ReadonlyMap<string, number> {
  const factors = new Map<string, number>();
  for (const symptom of symptoms) {
    const likely = new Map<string, number>();
    let [sum, weights] = [0, 0];
    for (const h of hypotheses) {
      // A fault that is joined by others counts by the one that began it.
      const shown = (known.get(h.label) ?? known.get(h.label.split('+')[0]!))?.[symptom];
      if (shown === undefined || shown === null) continue;
      const own = shown ? GIVEN : NOT;
      likely.set(h.label, own);
      sum += own * h.weight;
      weights += h.weight;
    }
    if (weights === 0) continue;
    for (const [label, own] of likely) factors.set(label, (factors.get(label) ?? 1) * ((own * weights) / sum));
  }
  return factors;
}
