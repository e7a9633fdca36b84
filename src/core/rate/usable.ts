import type { Board } from '../circuit';
import { printedOutputs } from '../operate';
import { formatQuantity } from '../quantity';
import { Strains, loadShare } from '../work';
import { operateCorner } from './corners';
import type { Corner, KnownCorners } from './corners';
import { strainsOf } from './partStrain';
import { quantityWords } from './quantityWords';
import type { RatedStrain, RatedUnit } from './rateUnit';

/** What a unit's parts stand of the load that is printed on it. */
export interface UsableOutput {
  /** Share of the nameplate's load at which the first part leaves its limit, or that it was looked up to. */
  readonly share: number;
  /** The stress that sets it; null where no part leaves its limit up to there. */
  readonly limiting: RatedStrain | null;
  /** Whether the unit itself gives way first: its own limit, or its output sags. */
  readonly ownLimit: boolean;
  readonly claim: 'over-claimed' | 'fair' | 'unknown';
  /** Stresses beyond their limit that the load does not change. */
  readonly standing: readonly RatedStrain[];
  /** Parts that the load works and whose rating nobody noted. */
  readonly unrated: readonly string[];
  /** In one sentence for whoever owns the unit. */
  readonly sentence: string;
}

/** Load beyond the nameplate's is looked at up to this share of it. */
const MOST_SHARE = 1.5;
const FAIR = 0.97;
const CLOSE = 0.01;
const ROUNDS = 4;
/** An output that falls to this share of what is printed is no output. */
const SAGS = 0.9;

/**
 * The load at which the first part of a unit leaves its limit, by closing in on it from the nameplate's. Stresses that do not
 * grow with the load never set it. onProgress: as in `rateUnit`. null where the nameplate prints no load, or where it was
 * stopped.
 */
export function usableOutput(
  board: Board,
  rated: RatedUnit,
  known: KnownCorners = new Map(),
  onProgress?: (done: number) => boolean,
): UsableOutput | null {
  const outputs = printedOutputs(board).filter((o) => o.kind !== 'pulse' && o.volts * o.amps > 0);
  if (outputs.length === 0) return null;
  const following = rated.rows.filter((r) => r.follows);
  const judged = following.filter((r) => r.limit !== null);
  const standing = rated.rows.filter((r) => !r.follows && (r.verdict === 'over' || r.verdict === 'tight'));
  const unrated = [...new Set(following.filter((r) => r.limit === null && isWork(r)).map((r) => r.ref))];
  const sources = [...new Set(following.filter((r) => r.corner.kind === 'work').map((r) => r.corner.source))];
  /** How far the hardest part is used at a share of the load. */
  const used = (share: number): Use => {
    let worst: Use = { most: 0, row: null, gives: true };
    for (const source of sources) {
      const corner: Corner = { kind: 'work', source, share };
      const operation = operateCorner(board, corner, known);
      if (!operation?.found || operation.unitState !== 'run' || sags(board, operation)) {
        worst = { ...worst, gives: false };
        continue;
      }
      const strains = new Strains(operation);
      board.parts.forEach((part, at) => {
        if (!judged.some((r) => r.ref === part.ref)) return;
        for (const s of strainsOf(board, at, strains)) {
          const row = judged.find((r) => r.ref === part.ref && r.quantity === s.quantity);
          const most = row ? (s.value * row.scale) / row.limit! : 0;
          if (row && most > worst.most) worst = { ...worst, most, row };
        }
      });
    }
    return worst;
  };
  const whole = judged.reduce<Use>(
    (w, r) => (r.stress / r.limit! > w.most ? { most: r.stress / r.limit!, row: r, gives: true } : w),
    { most: 0, row: null, gives: true },
  );
  if (sources.length === 0) return unknown(outputs);
  let [low, high] = [
    { share: 0, most: 0 },
    { share: 1, most: whole.most },
  ];
  let limiting = whole.most > 1 - CLOSE ? whole.row : null;
  let ownLimit = false;
  let share = 1;
  if (judged.length > 0 && Math.abs(whole.most - 1) > CLOSE) {
    for (let round = 0; round < ROUNDS; round++) {
      // Straight through the two nearest, as most stresses grow nearly so.
      const slope = (high.most - low.most) / (high.share - low.share);
      const next = Math.min(Math.max(high.share + (1 - high.most) / Math.max(slope, 1e-6), 0.02), MOST_SHARE);
      if (onProgress?.((round + 1) / (ROUNDS + 1)) === false) return null;
      const use = used(next);
      if (!use.gives) {
        // It gives no more than this by itself.
        ownLimit = true;
        if (next <= 1) break;
        const between = (Math.max(share, high.share) + next) / 2;
        if (between - share < 0.03) break;
        high = { share: between, most: high.most + slope * (between - high.share) };
        const half = used(between);
        if (half.gives && half.most <= 1 + CLOSE) share = between;
        break;
      }
      if (use.row && use.most >= 1 - CLOSE) limiting = use.row;
      share = next;
      if (Math.abs(use.most - 1) < CLOSE || (next === MOST_SHARE && use.most < 1)) break;
      [low, high] = [high, { share: next, most: use.most }];
      if (Math.abs(high.share - low.share) < 1e-3) break;
    }
  }
  onProgress?.(1);
  if (share > 1 && limiting && ownLimit) limiting = null;
  const claim = unrated.length > judgedWork(judged) ? 'unknown' : share < FAIR ? 'over-claimed' : 'fair';
  const found = { share, limiting, ownLimit: ownLimit && !limiting, claim, standing, unrated } as const;
  return { ...found, sentence: sentenceOf(outputs, found) };
}

/** Of a unit that does not run as it is known nothing is said. */
function unknown(outputs: Parameters<typeof sentenceOf>[0]): UsableOutput {
  const found = { share: 0, limiting: null, ownLimit: false, claim: 'unknown', standing: [], unrated: [] } as const;
  return { ...found, sentence: sentenceOf(outputs, found) };
}

interface Use {
  readonly most: number;
  readonly row: RatedStrain | null;
  readonly gives: boolean;
}

/** Stresses that decide what a unit can give; nobody prints what a winding carries. */
const isWork = ({ quantity, kind }: RatedStrain): boolean =>
  kind !== 'saturation' && (quantity === 'current' || quantity === 'power' || quantity === 'ripple-current');

const judgedWork = (rows: readonly RatedStrain[]): number => new Set(rows.filter(isWork).map((r) => r.ref)).size;

/** Whether the first direct output stands below what is printed. */
function sags(board: Board, { unit, volts }: Strains['operation']): boolean {
  const [output] = printedOutputs(board).filter((o) => o.kind === 'dc' && o.amps > 0);
  if (!output || output.rail === null || output.return === null || loadShare(unit.condition) === 0) return false;
  const [a, b] = [unit.node(output.rail), unit.node(output.return)];
  return a >= 0 && b >= 0 && volts[a]! - volts[b]! < SAGS * output.volts;
}

function sentenceOf(
  outputs: readonly { readonly volts: number; readonly amps: number; readonly kind: string }[],
  { share, limiting, ownLimit, claim, unrated }: Omit<UsableOutput, 'sentence'>,
): string {
  const print = (by: number): string =>
    outputs.map((o) => `${formatQuantity(o.volts, 'V')} ${formatQuantity(o.amps * by, 'A', 2)}`).join(' and ');
  const named = (refs: readonly string[]): string =>
    refs.length <= 4 ? refs.join(', ') : `${refs.slice(0, 3).join(', ')} and ${refs.length - 3} more`;
  const open = unrated.length > 0 ? ` Not counted, because nobody noted what they bear: ${named(unrated)}.` : '';
  if (claim === 'unknown')
    return `Printed for ${print(1)}; what it really stands is not known yet: ${
      unrated.length === 0
        ? 'as it is traced and noted so far it does not run'
        : `${named(unrated)} have no rating noted`
    }.`;
  const set = limiting
    ? `${limiting.ref} is the first at its limit (${quantityWords(limiting.quantity)}, ${formatQuantity(limiting.rating!, limiting.unit)} printed)`
    : ownLimit
      ? 'it limits itself there before any part is at its limit'
      : 'no part is at its limit up to there';
  if (claim === 'over-claimed')
    return `Printed for ${print(1)}, but its parts stand ${print(share)} only, ${Math.round(100 * share)} % of it: ${set}.${open}`;
  return share > 1 + CLOSE
    ? `Printed for ${print(1)}, and its parts stand that, up to ${print(share)}: ${set}.${open}`
    : `Printed for ${print(1)}, and its parts just stand that: ${set}.${open}`;
}
