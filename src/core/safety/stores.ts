import { netKey, safetyClass } from '../circuit';
import type { Board, Part } from '../circuit';
import { DisjointSets } from '../graph';
import { formatQuantity, nearestPreferred } from '../quantity';
import type { Basis, Quantity } from '../quantity';
import { findPowerPath } from '../stages';

/** Limits, with their reasons in product.md, "Making safe". */
export const TOUCH_LIMIT_VOLTS = 60;
export const WET_TOUCH_LIMIT_VOLTS = 30;
export const METER_LIMIT_VOLTS = 0.2;
export const TOUCH_LIMIT_JOULES = 10;
const LISTED_JOULES = 10e-3;

/** Up to this a resistor is a link. */
const LINK_OHMS = 0.01;

/**
 * Capacitors that share their charge, and where to prove them empty.
 *
 * volts    worst case, with its reason. joules: all of them together at that voltage.
 * proof    whether a proof reading is asked for: more than 10 mJ. Smaller stores are listed, not asked for.
 * discharge  what to empty it with.
 */
export interface EnergyStore {
  /** Board it stands on; a job may have several. */
  readonly boardId: string;
  readonly key: string;
  readonly refs: readonly string[];
  readonly plus: string;
  readonly minus: string;
  readonly farads: number;
  readonly volts: Quantity;
  readonly joules: number;
  readonly proof: boolean;
  readonly discharge: DischargePlan;
}

/** A resistor for the store, and a filament lamp where the voltage asks for one. Seconds to come below 0.2 V. */
export interface DischargePlan {
  readonly ohms: number;
  readonly peakWatts: number;
  readonly ratedVolts: number;
  readonly seconds: number;
  readonly lamp: string | null;
}

/**
 * Every store of energy on a board: capacitors above 10 mJ or 60 V, those on one pair of rails taken together.
 *
 * A capacitor across the rectified bus gets √2 times the highest line of the nameplate; others their printed rating
 * as an upper bound, `assumed`. boardId: what the stores are to carry as theirs.
 */
export function energyStores(board: Board, boardId = ''): readonly EnergyStore[] {
  const rails = joinedNets(board);
  const groups = new Map<string, Part[]>();
  for (const part of board.parts) {
    if (part.kind !== 'capacitor' || !part.fitted) continue;
    const [a, b] = part.nets.map(rails);
    if (a === b || a === undefined || b === undefined) continue;
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    groups.set(key, [...(groups.get(key) ?? []), part]);
  }
  return [...groups]
    .flatMap(([key, parts]) => store(board, boardId, key, parts) ?? [])
    .sort((a, b) => b.joules - a.joules);
}

/**
 * Names the rail of a net: nets joined by chokes and links are one. Fuses, inrush limiters and sense resistors join
 * nothing here: they are what burns open, and then the far side keeps its charge.
 */
function joinedNets(board: Board): (net: string) => string {
  const nets = [...new Set(board.parts.flatMap((p) => p.nets.map(netKey)))];
  const index = new Map(nets.map((n, i) => [n, i]));
  const sets = new DisjointSets(nets.length);
  for (const part of board.parts) {
    const joins = part.fitted && (part.kind === 'inductor' || (part.kind === 'resistor' && part.value <= LINK_OHMS));
    if (joins) sets.union(index.get(netKey(part.nets[0]!))!, index.get(netKey(part.nets[1]!))!);
  }
  return (net) => nets[sets.find(index.get(netKey(net))!)]!;
}

function store(board: Board, boardId: string, key: string, parts: readonly Part[]): EnergyStore | null {
  const largest = parts.reduce((a, b) => (farads(b) > farads(a) ? b : a));
  const total = parts.reduce((sum, p) => sum + farads(p), 0);
  const volts = worstVolts(board, largest, parts);
  const joules = (total * volts.nominal ** 2) / 2;
  if (joules <= LISTED_JOULES && volts.nominal <= TOUCH_LIMIT_VOLTS) return null;
  return {
    boardId,
    key,
    refs: [...parts].sort((a, b) => farads(b) - farads(a)).map((p) => p.ref),
    plus: largest.nets[0]!,
    minus: largest.nets[1]!,
    farads: total,
    volts,
    joules,
    proof: joules > LISTED_JOULES,
    discharge: dischargePlan(total, volts.nominal),
  };
}

function farads(part: Part): number {
  return part.kind === 'capacitor' ? part.value : 0;
}

function worstVolts(board: Board, largest: Part, parts: readonly Part[]): Quantity {
  const path = findPowerPath(board);
  const line = board.nameplate?.source === 'mains' ? board.nameplate.inputMax : undefined;
  const pole = (net: string): number => path.input.findIndex((p) => p.has(netKey(net)));
  const [a, b] = largest.nets.map(pole);
  // Poles come in fours per inlet: two lines, plus, minus.
  if (
    line !== undefined &&
    a !== undefined &&
    b !== undefined &&
    a >= 2 &&
    b >= 2 &&
    a !== b &&
    path.input.length >= 4
  ) {
    return exactly(
      Math.SQRT2 * line,
      'seen',
      `${Math.round(Math.SQRT2 * line)} V = ${line} V x 1.414, the highest line behind the rectifier`,
    );
  }
  const input = board.nameplate?.source === 'mains' ? undefined : board.nameplate?.inputMax;
  if (input !== undefined && a === 0 && b === 1)
    return exactly(input, 'seen', `${input} V, the highest input of the nameplate`);
  // On one rail the lowest rating bounds them all; X and Y parts are printed in volts rms.
  const ratings = parts.flatMap((p) =>
    p.numbers['vr'] === undefined ? [] : [p.numbers['vr'] * (safetyClass(p) ? Math.SQRT2 : 1)],
  );
  if (ratings.length > 0) {
    const rated = Math.min(...ratings);
    return exactly(rated, 'assumed', `${formatQuantity(rated, 'V')} is the rating there: an upper bound`);
  }
  return exactly(TOUCH_LIMIT_VOLTS, 'assumed', 'no rating is known: 60 V taken');
}

function exactly(volts: number, basis: Basis, why: string): Quantity {
  return { nominal: volts, low: 0, high: volts, unit: 'V', basis, why };
}

/** A resistor that empties the store in a few seconds without a bang: about 0.5 s time constant, 100 ohm to 10 kohm. */
function dischargePlan(totalFarads: number, volts: number): DischargePlan {
  const ohms = nearestPreferred(Math.min(10e3, Math.max(100, 0.5 / totalFarads, volts / 0.5)), 'E12');
  const seconds = ohms * totalFarads * Math.log(Math.max(volts / METER_LIMIT_VOLTS, 1.0001));
  const lamp =
    volts > 325
      ? 'two 230 V 40 W filament lamps in series'
      : volts > TOUCH_LIMIT_VOLTS
        ? 'one 230 V 40 W filament lamp'
        : null;
  return { ohms, peakWatts: (volts * volts) / ohms, ratedVolts: volts, seconds, lamp };
}
