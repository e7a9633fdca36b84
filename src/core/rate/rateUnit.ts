import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { isFuse } from '../part';
import type { Part } from '../part';
import { formatQuantity } from '../quantity';
import { findPowerPath } from '../stages';
import { judgeStress, workshopDerating } from '../stress';
import type { Derating, StressKind, Verdict } from '../stress';
import { Strains } from '../work';
import { cornersOf, operateCorner } from './corners';
import type { Corner, KnownCorners } from './corners';
import { STRAIN_UNITS, strainsOf } from './partStrain';
import type { Strain, StrainQuantity } from './partStrain';
import { ratingOf } from './ratings';
import { learnRating, remedyFor } from './remedies';

/** One stress of a part in its worst corner against its rating, SI units; null where not known. */
export interface RatedStrain {
  readonly ref: string;
  readonly quantity: StrainQuantity;
  readonly unit: (typeof STRAIN_UNITS)[StrainQuantity];
  readonly kind: StressKind;
  readonly stress: number;
  readonly rating: number | null;
  /** The rating as far as it is used. */
  readonly limit: number | null;
  readonly ratio: number | null;
  readonly verdict: Verdict;
  /** What it rises to for moments, where that is more. */
  readonly peak: number;
  /** How the stress comes about, in numbers, and against what it stands. */
  readonly why: string;
  /** Where it is worst. */
  readonly corner: Corner;
  /** Whether it grows with the load. */
  readonly follows: boolean;
  /** What was added for losses that are not counted, as a factor on the stress. */
  readonly scale: number;
  /** What would bring it back within its limit; how an unknown rating is learnt. */
  readonly remedy: string | null;
}

/** The stresses of a unit's parts over the corners of its source and load, the hardest first. */
export interface RatedUnit {
  readonly rows: readonly RatedStrain[];
  /** Corners that no steady state was found for, or in which the unit does not run. */
  readonly missing: readonly Corner[];
}

/** What the switching and the cores take beside what the parts' own resistances do, as a share of what goes in. */
const UNCOUNTED_LOSSES = 0.045;
const LEAST_PRECHARGE_OHMS = 15;
/** A stress that the load changes by less than this share does not follow it. */
const FOLLOWS = 0.03;

export interface RateOptions {
  /** The only source to judge at, V; null: every one that the nameplate allows. */
  readonly source?: number | null;
  readonly derating?: Derating;
  readonly known?: KnownCorners;
  /** Called after each corner with the share of the work that is done; false: stop there. */
  readonly onProgress?: (done: number) => boolean;
}

/**
 * Judges every part of a unit at its worst over source, load and what happens before and beside work. Source of the deratings:
 * our engine notes, section 6. null where nothing tells what feeds it, or where it was stopped.
 */
export function rateUnit(board: Board, options: RateOptions = {}): RatedUnit | null {
  const { source = null, derating = workshopDerating(), known = new Map(), onProgress } = options;
  const corners = cornersOf(board, source);
  if (corners.length === 0) return null;
  const worst = new Map<string, Worst>();
  const missing: Corner[] = [];
  const fed = inputParts(board);
  for (const [i, corner] of corners.entries()) {
    const operation = operateCorner(board, corner, known);
    if (operation) {
      if (
        !operation.found ||
        operation.warnings.length > 0 ||
        (corner.kind === 'work' && operation.unitState !== 'run')
      )
        missing.push(corner);
      // What does not run bears what it bears at rest.
      if (operation.found && (corner.kind !== 'work' || operation.unitState === 'run'))
        collect(board, corner, new Strains(operation), fed, worst);
    }
    if (onProgress?.((i + 1) / corners.length) === false) return null;
  }
  const rows = [...worst.values()].map((w) => judge(board, w, derating));
  const order: readonly Verdict[] = ['over', 'tight', 'ok', 'unknown'];
  rows.sort(
    (a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict) || share(b) - share(a) || b.stress - a.stress,
  );
  return { rows, missing };
}

const share = ({ stress, limit }: RatedStrain): number => (limit === null || limit === 0 ? 0 : stress / limit);

/** The worst of one stress of one part, and what it is without and with the load. */
interface Worst {
  readonly part: Part;
  readonly strain: Strain & { readonly scale?: number };
  readonly corner: Corner;
  readonly idle: number;
  readonly loaded: number;
}

/** Takes down what is worse than before. */
function collect(
  board: Board,
  corner: Corner,
  strains: Strains,
  fed: ReadonlySet<string>,
  worst: Map<string, Worst>,
): void {
  board.parts.forEach((part, at) => {
    if (!part.fitted) return;
    for (const own of strainsOf(board, at, strains)) {
      if (!counts(corner, part, own)) continue;
      const strain = fed.has(part.ref) && corner.kind === 'work' ? withLosses(own) : own;
      const key = `${part.ref} ${strain.quantity}`;
      const before = worst.get(key);
      const work = corner.kind === 'work';
      const idle = Math.max(before?.idle ?? 0, work && corner.share === 0 ? strain.value : 0);
      const loaded = Math.max(before?.loaded ?? 0, work && corner.share > 0 ? strain.value : 0);
      const base = before && hardest(before.strain) >= hardest(strain) ? before : { part, strain, corner };
      worst.set(key, { ...base, idle, loaded });
    }
  });
}

/** A stress with its moments. */
const hardest = ({ value, peak = 0 }: Strain): number => Math.max(value, peak);

/** What a corner tells: at rest volts alone, at switching on the volts of resistors, reversed those of what blocks. */
function counts({ kind }: Corner, part: Part, { quantity }: Strain): boolean {
  if (kind === 'work') return true;
  if (quantity !== 'voltage' && quantity !== 'peak-inverse') return false;
  // A small one empties the source into the stores too soon to matter.
  if (kind === 'switch-on') return part.kind === 'resistor' && part.value >= LEAST_PRECHARGE_OHMS;
  return kind === 'rest' || part.kind !== 'capacitor';
}

const withLosses = (strain: Strain): Strain & { readonly scale?: number } => {
  const power = strain.quantity === 'power' ? 2 : strain.quantity.endsWith('current') ? 1 : 0;
  if (power === 0) return strain;
  const words = `${strain.words}, and ${100 * UNCOUNTED_LOSSES} % for what switching and cores take`;
  const scale = (1 + UNCOUNTED_LOSSES) ** power;
  return { ...strain, value: strain.value * scale, words, scale };
};

/** Parts that carry the current of the source: between its terminals, the rectifier and the rail that it feeds. */
function inputParts(board: Board): ReadonlySet<string> {
  const path = findPowerPath(board);
  const nets = new Set(path.input.flatMap((s) => [...s]));
  for (const { plus, minus } of path.buses) for (const n of [plus, minus]) if (n !== null) nets.add(n);
  const kinds: ReadonlySet<string> = new Set(['fuse', 'ntc', 'switch', 'bridge', 'capacitor']);
  return new Set(
    board.parts.flatMap((p) =>
      (kinds.has(p.kind) || isFuse(p)) && p.nets.every((n) => nets.has(netKey(n))) ? [p.ref] : [],
    ),
  );
}

function judge(board: Board, { part, strain, corner, idle, loaded }: Worst, derating: Derating): RatedStrain {
  const { quantity, value } = strain;
  const { rating, kind } = ratingOf(board, part, strain);
  const { factor, words, why } = derating[kind];
  const most = Math.max(value, strain.peak ?? 0);
  const verdict = judgeStress(most, rating, factor);
  const unit = STRAIN_UNITS[quantity];
  const peak =
    part.kind === 'resistor' && strain.alternates && quantity === 'voltage' ? ' (peak of what is printed, rms)' : '';
  const of =
    rating === null ? '' : `: ${Math.round((100 * most) / rating)} % of its ${formatQuantity(rating, unit)}${peak}`;
  const beyond = verdict === 'tight' ? `, of which ${Math.round(100 * factor)} % are used (${words}: ${why})` : '';
  return {
    ref: part.ref,
    quantity,
    unit,
    kind,
    stress: value,
    peak: most,
    rating,
    limit: rating === null ? null : rating * factor,
    ratio: rating === null ? null : value / rating,
    verdict,
    why: `${strain.words} ${cornerWords(board, corner)}${of}${beyond}`,
    corner,
    scale: strain.scale ?? 1,
    follows: loaded > idle * (1 + FOLLOWS) && corner.kind === 'work' && corner.share > 0,
    remedy:
      rating === null
        ? learnRating(part, quantity)
        : verdict === 'ok'
          ? null
          : remedyFor(part, quantity, value, factor),
  };
}

/** Where a stress is worst, in words. */
export function cornerWords(board: Board, { kind, source, share: load }: Corner): string {
  const volts = `${formatQuantity(source, 'V')}${board.nameplate?.source === 'mains' ? ' of mains' : ' of source'}`;
  switch (kind) {
    case 'work':
      return `at ${volts}, ${load === 0 ? 'no load' : load === 1 ? 'full load' : `${Math.round(100 * load)} % of the load`}`;
    case 'rest':
      return `at ${volts} with nothing running`;
    case 'switch-on':
      return `at the moment of switching ${volts} on`;
    case 'reversed':
      return 'with its source or command the wrong way round';
  }
}
