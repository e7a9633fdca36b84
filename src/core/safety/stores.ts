import { netKey } from '../circuit';
import type { Board, Nameplate } from '../circuit';
import {
  UNKNOWN_FARADS,
  UNKNOWN_VOLTS,
  cellsByPair,
  operatingPoint,
  pairKey,
  sizeDoubt,
  sizeUnknown,
  supplyOf,
  worstFarads,
} from '../operate';
import type { Cell, Highest, OperatingPoint, SizeDoubt } from '../operate';
import { nearestPreferred } from '../quantity';
import type { Quantity } from '../quantity';
import { findPowerPath } from '../stages';
import { METER_LIMIT_VOLTS, TOUCH_LIMIT_VOLTS, UNTRACED } from './limits';

const LISTED_JOULES = 10e-3;

/**
 * Capacitors that share their charge, and where to prove them empty.
 *
 * refs       its parts; empty for what is not traced, which is proved by place.
 * volts      highest credible, with its reason. joules: all of them together at that voltage.
 * proof      whether a proof reading is asked for: more than 10 mJ at the worst. Smaller ones are listed, not asked for.
 * doubts     capacitors whose marking may mean two sizes, and how it was taken.
 * place      for what is not traced: where to read, in words.
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
  readonly doubts: readonly SizeDoubt[];
  readonly place: string | null;
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
 * Every store of energy on a board: capacitors above 10 mJ or 60 V, those in parallel taken together.
 *
 * Only what stands on the same two nets is one store: a choke, a fuse or a link between two capacitors may be open,
 * and then the far one keeps its charge. The voltage is the highest credible of line peak, regulated or boosted
 * voltage, nameplate and rating; what nothing is known of is taken at the worst. boardId: what the stores are to carry
 * as theirs. unit: the nameplate of the unit, for a board that has none of its own.
 */
export function energyStores(board: Board, boardId = '', unit?: Nameplate): readonly EnergyStore[] {
  const known = plated(board, unit);
  const point = operatingPoint(known);
  return [...cellsByPair(known).values()]
    .flatMap((list) => store(point, boardId, list) ?? [])
    .sort((a, b) => b.joules - a.joules);
}

/** A store at the most that was found to stand there since; the same where that is no more. */
export function raisedTo(store: EnergyStore, { volts, basis, why }: Highest): EnergyStore {
  if (volts <= store.volts.nominal) return store;
  return {
    ...store,
    volts: { nominal: volts, low: 0, high: volts, unit: 'V', basis, why },
    joules: (store.farads * volts ** 2) / 2,
    discharge: dischargePlan(store.farads, volts),
  };
}

/** A board with the nameplate of its unit, where it has none of its own. */
function plated(board: Board, unit: Nameplate | undefined): Board {
  return board.nameplate ? board : withPlate(board, unit);
}

/** A board with another nameplate, where there is one; the same one each time. */
export function withPlate(board: Board, unit: Nameplate | undefined): Board {
  if (!unit || board.nameplate === unit) return board;
  const known = platedOf.get(board)?.get(unit);
  if (known) return known;
  const made = { ...board, nameplate: unit };
  platedOf.set(board, (platedOf.get(board) ?? new WeakMap<Nameplate, Board>()).set(unit, made));
  return made;
}

const platedOf = new WeakMap<Board, WeakMap<Nameplate, Board>>();

function store(point: OperatingPoint, boardId: string, list: readonly Cell[]): EnergyStore | null {
  const doubts = list.flatMap((c) => sizeDoubt(c.part) ?? []);
  const farads = (c: Cell): number => worstFarads(c.part);
  const sorted = [...list].sort((a, b) => farads(b) - farads(a));
  const [largest] = sorted as [Cell];
  const total = list.reduce((sum, c) => sum + farads(c), 0);
  const most = point.highest(largest.nets[0], largest.nets[1]);
  const volts: Quantity = {
    nominal: most.volts,
    low: 0,
    high: most.volts,
    unit: 'V',
    basis: most.basis,
    why: most.why,
  };
  const joules = (total * volts.nominal ** 2) / 2;
  const battery = list.some((c) => c.part.kind === 'voltage-source');
  const unknown = list.some((c) => sizeUnknown(c.part));
  if (joules <= LISTED_JOULES && volts.nominal <= TOUCH_LIMIT_VOLTS && !battery && !unknown) return null;
  const refs = [...new Set(sorted.map((c) => c.ref))];
  return {
    boardId,
    key: pairKey(largest.nets),
    refs,
    plus: written(largest, 0),
    minus: written(largest, 1),
    farads: total,
    volts,
    joules,
    proof: joules > LISTED_JOULES || battery || unknown,
    doubts,
    place: null,
    discharge: dischargePlan(total, volts.nominal),
  };
}

function written(cell: Cell, pin: number): string {
  const net = cell.part.nets[pin] ?? '';
  return cell.ref === cell.part.ref && netKey(net) !== 'nc' ? net : cell.nets[pin]!;
}

/**
 * The store that nobody has found yet: until the bulk store behind the inlet is on the board, or a board shows no
 * store at all, it is asked for by place. Null when everything that must be there is.
 *
 * first: the job's first board, where the sources come in.
 */
export function untracedStore(
  board: Board,
  boardId: string,
  stores: readonly EnergyStore[],
  first: boolean,
  unit?: Nameplate,
): EnergyStore | null {
  const known = plated(board, unit);
  const needed = stores.filter((s) => s.boardId === boardId && s.proof);
  if (first ? bulkFound(known, needed) : needed.length > 0) return null;
  const mains = (supplyOf(known).kind ?? 'mains') === 'mains';
  const place =
    board.parts.length === 0 || mains
      ? 'plus to minus of the rectifier, or every large capacitor in turn'
      : 'across the supply’s input, and every large capacitor in turn';
  const volts: Quantity = {
    nominal: UNKNOWN_VOLTS,
    low: 0,
    high: UNKNOWN_VOLTS,
    unit: 'V',
    basis: 'assumed',
    why: 'what is not traced is not empty',
  };
  return {
    boardId,
    key: UNTRACED,
    refs: [],
    plus: '',
    minus: '',
    farads: UNKNOWN_FARADS,
    volts,
    joules: (UNKNOWN_FARADS * UNKNOWN_VOLTS ** 2) / 2,
    proof: true,
    doubts: [],
    place,
    discharge: dischargePlan(UNKNOWN_FARADS, UNKNOWN_VOLTS),
  };
}

/** Whether a store to be proved hangs on the plus pole of a source: behind the rectifier of a mains inlet, at a direct one. */
function bulkFound(board: Board, needed: readonly EnergyStore[]): boolean {
  const { input } = findPowerPath(board);
  const mains = supplyOf(board).kind === 'mains';
  const plus = mains ? input.filter((_, i) => i % 4 === 2) : input.filter((_, i) => i % 2 === 0);
  return needed.some((s) => [s.plus, s.minus].some((net) => plus.some((pole) => pole.has(netKey(net)))));
}

/** A resistor that empties the store in a few seconds without a bang: about 0.5 s time constant, 100 ohm to 10 kohm. */
function dischargePlan(totalFarads: number, volts: number): DischargePlan {
  const farads = Math.max(totalFarads, 1e-12);
  const ohms = nearestPreferred(Math.min(10e3, Math.max(100, 0.5 / farads, volts / 0.5)), 'E12');
  const seconds = ohms * farads * Math.log(Math.max(volts / METER_LIMIT_VOLTS, 1.0001));
  const lamp =
    volts > 325
      ? 'two 230 V 40 W filament lamps in series'
      : volts > TOUCH_LIMIT_VOLTS
        ? 'one 230 V 40 W filament lamp'
        : null;
  return { ohms, peakWatts: (volts * volts) / ohms, ratedVolts: volts, seconds, lamp };
}
