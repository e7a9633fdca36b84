import { isFuse, partFigure } from '../part';
import { findPart } from '../circuit';
import type { Board } from '../circuit';
import type { Fault } from '../fault';
import { supplyOf } from '../operate';
import { wattsByPart } from '../work';
import type { PoweredReader } from '../work';
import { faultyUnit, outputShare, works } from './faultyUnit';
import type { FaultyUnit } from './faultyUnit';

import type { Symptom } from './priors';

/** Whether a unit gives each of the complaints that it was asked for; null where nothing is computed of it. */
export type ComplaintSigns = Readonly<Partial<Record<Symptom, boolean | null>>>;

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
    private readonly heat: ReadonlyMap<string, number>,
    private readonly ripple: number,
  ) {}

  static of(board: Board): ComplaintReader | null {
    const source = supplyOf(board).nominal;
    if (source === null) return null;
    const sound = faultyUnit(board, source, [], null);
    const runs = [sound.idle, sound.loaded].every((r) => r.operation.found && r.operation.unitState === 'run');
    return runs
      ? new ComplaintReader(board, source, sound, wattsByPart(sound.loaded.operation), ripple(sound.loaded))
      : null;
  }

  /** Which of these complaints the unit gives with some faults; null where it has no steady state. */
  signs(faults: readonly Fault[], symptoms: readonly Symptom[]): ComplaintSigns | null {
    const unit = faults.length === 0 ? this.sound : faultyUnit(this.board, this.source, faults, this.sound);
    const readers = symptoms.some((s) => WITHOUT_LOAD.has(s)) ? [unit.loaded, unit.idle] : [unit.loaded];
    if (readers.some((r) => !r.operation.found)) return null;
    return Object.fromEntries(symptoms.map((s) => [s, this.gives(s, unit)]));
  }

  private gives(symptom: Symptom, unit: FaultyUnit): boolean | null {
    const { board, sound } = this;
    const { operation } = unit.loaded;
    const { destroys, unitState } = operation;
    const share = outputShare(unit.loaded, sound.loaded);
    switch (symptom) {
      case 'dead':
        return share !== null && share < DEAD && unitState !== 'hiccup';
      case 'fuse-blows':
        return destroys.some(({ ref }) => {
          const part = findPart(board, ref);
          return part !== undefined && isFuse(part);
        });
      case 'hiccup':
        return unitState === 'hiccup' || unit.idle.operation.unitState === 'hiccup';
      case 'low-output':
        return share !== null && share >= DEAD && share < LOW && unitState !== 'hiccup';
      case 'high-output':
        return Math.max(share ?? 0, outputShare(unit.idle, sound.idle) ?? 0) > HIGH;
      case 'sags':
        return works(unit.idle, sound.idle) && !works(unit.loaded, sound.loaded) && unitState !== 'off';
      case 'ok-unloaded':
        return works(unit.idle, sound.idle) && !works(unit.loaded, sound.loaded);
      case 'unstable':
      case 'noisy':
        return unitState === 'hiccup' || ripple(unit.loaded) > RIPPLES * this.ripple;
      case 'hot':
        return [...wattsByPart(operation)].some(([ref, now]) => now > FELT && now > HOTTER * (this.heat.get(ref) ?? 0));
      case 'smells': {
        const heat = wattsByPart(operation);
        const burns = board.parts.some(
          (p) => (heat.get(p.ref) ?? 0) > SMELLS * (partFigure(p, 'ratedWatts') ?? Infinity),
        );
        return burns || destroys.length > 0;
      }
      case 'status-light':
        return null;
    }
  }
}

/** Complaints that take the unit without its load to tell. */
const WITHOUT_LOAD: ReadonlySet<Symptom> = new Set(['hiccup', 'high-output', 'sags', 'ok-unloaded']);

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
