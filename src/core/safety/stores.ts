import { netKey } from '../circuit';
import { isElectrolytic, partText, safetyClass, partFigure } from '../part';
import type { Board, Nameplate } from '../circuit';
import type { Part } from '../part';
import { decodeMarking } from '../marking';
import { formatQuantity, nearestPreferred } from '../quantity';
import type { Basis, Quantity } from '../quantity';
import { findPowerPath, inputPole } from '../stages';
import type { PowerPath } from '../stages';

/** Limits, with their reasons in product.md, "Making safe". */
export const TOUCH_LIMIT_VOLTS = 60;
export const WET_TOUCH_LIMIT_VOLTS = 30;
export const METER_LIMIT_VOLTS = 0.2;
export const TOUCH_LIMIT_JOULES = 10;
const LISTED_JOULES = 10e-3;

/** A capacitor of which nothing says how many volts it may hold: a bulk one, and one too small to be one. */
const UNKNOWN_VOLTS = 450;
const SMALL_FARADS = 0.1e-6;
const SMALL_UNKNOWN_VOLTS = 400;
/** A capacitor of which nothing says how large it is. */
const UNKNOWN_FARADS = 1000e-6;
/** What tracing writes for a capacitor whose marking it cannot read. */
const STAND_IN_FARADS = 100e-9;

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

/** A bare figure on a capacitor that may be picofarads in code or microfarads. */
export interface SizeDoubt {
  readonly ref: string;
  readonly mark: string;
  readonly large: number;
  readonly small: number;
}

/** A resistor for the store, and a filament lamp where the voltage asks for one. Seconds to come below 0.2 V. */
export interface DischargePlan {
  readonly ohms: number;
  readonly peakWatts: number;
  readonly ratedVolts: number;
  readonly seconds: number;
  readonly lamp: string | null;
}

/** One capacitor as far as its charge goes; it may stand inside an IC that is known. */
interface Cell {
  readonly ref: string;
  readonly nets: readonly [string, string];
  readonly part: Part;
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
  const groups = new Map<string, Cell[]>();
  for (const cell of cells(board)) {
    const key = cell.nets.toSorted().join(' ');
    groups.set(key, [...(groups.get(key) ?? []), cell]);
  }
  const plated = board.nameplate || !unit ? board : { ...board, nameplate: unit };
  const path = findPowerPath(plated);
  return [...groups.values()]
    .flatMap((list) => store(plated, path, boardId, list) ?? [])
    .sort((a, b) => b.joules - a.joules);
}

/** How deep insides are looked into; a netlist that nests deeper is refused by its reader. */
const MOST_DEPTH = 8;

/** All fitted capacitors and cells, those inside known ICs too; a leg that is not connected is a net of its own. */
function cells(board: Board): readonly Cell[] {
  const out: Cell[] = [];
  const look = (ref: string, part: Part, nets: readonly string[], depth: number): void => {
    if (!part.fitted) return;
    if (holdsCharge(part)) {
      const [a = '', b = ''] = nets.map((net, i) => (netKey(net) === 'nc' ? `nc ${ref} ${i + 1}` : netKey(net)));
      if (a !== b) out.push({ ref, part, nets: [a, b] });
    }
    const inside = part.kind === 'ic' ? board.subcircuits.get(part.subcircuit.toLowerCase()) : undefined;
    if (!inside || depth >= MOST_DEPTH) return;
    for (const inner of inside.parts) {
      const outside = inner.nets.map((net) => {
        const pin = inside.pins.findIndex((p) => netKey(p) === netKey(net));
        return netKey(net) === 'nc' ? net : pin < 0 ? `${ref}:${depth}:${inner.ref}:${net}` : (nets[pin] ?? net);
      });
      look(ref, inner, outside, depth + 1);
    }
  };
  for (const part of board.parts) look(part.ref, part, part.nets, 0);
  return out;
}

function holdsCharge(part: Part): boolean {
  return part.kind === 'capacitor' || (part.kind === 'voltage-source' && part.value !== 0);
}

function store(board: Board, path: PowerPath, boardId: string, list: readonly Cell[]): EnergyStore | null {
  const doubts = list.flatMap((c) => sizeDoubt(c.part) ?? []);
  const farads = (c: Cell): number => worstFarads(c.part);
  const sorted = [...list].sort((a, b) => farads(b) - farads(a));
  const [largest] = sorted as [Cell];
  const total = list.reduce((sum, c) => sum + farads(c), 0);
  const volts = credibleVolts(board, path, largest, list);
  const joules = (total * volts.nominal ** 2) / 2;
  const battery = list.some((c) => c.part.kind === 'voltage-source');
  const unknown = list.some((c) => sizeUnknown(c.part));
  if (joules <= LISTED_JOULES && volts.nominal <= TOUCH_LIMIT_VOLTS && !battery && !unknown) return null;
  const refs = [...new Set(sorted.map((c) => c.ref))];
  return {
    boardId,
    key: `${largest.nets.toSorted().join(' ')}`,
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

/** Nothing legible printed and nothing said of a capacitor: its value is a stand-in. */
function sizeUnknown(part: Part): boolean {
  if (part.kind !== 'capacitor' || partFigure(part, 'ratedVolts') !== undefined || partText(part, 'said') !== undefined)
    return false;
  const mark = partText(part, 'mark');
  if (mark === undefined) return part.basis === 'assumed';
  return part.value === STAND_IN_FARADS && !decodeMarking(mark).some((r) => r.kind === 'capacitor');
}

function worstFarads(part: Part): number {
  if (part.kind !== 'capacitor') return 0;
  if (sizeUnknown(part)) return Math.max(UNKNOWN_FARADS, part.value);
  return Math.max(part.value, sizeDoubt(part)?.large ?? 0);
}

const PREFERRED = new Set(['10', '12', '15', '18', '22', '27', '33', '39', '47', '56', '68', '82']);

/**
 * A bare preferred figure such as `180` on a capacitor: 18 pF in code, or 180 uF in plain figures. Null where the
 * marking says which, or somebody has (`is=`).
 */
export function sizeDoubt(part: Part): SizeDoubt | null {
  if (part.kind !== 'capacitor' || part.basis === 'measured' || part.basis === 'confirmed') return null;
  const mark = partText(part, 'mark')?.trim() ?? '';
  const figure = /^(\d\d)(0{0,2})$/u.exec(mark);
  if (!figure || !PREFERRED.has(figure[1]!) || partText(part, 'said') !== undefined) return null;
  if (part.value > 1e-9) return null;
  return { ref: part.ref, mark, large: Number(mark) * 1e-6, small: part.value };
}

interface Candidate {
  readonly volts: number;
  readonly basis: Basis;
  readonly why: string;
}

function credibleVolts(board: Board, path: PowerPath, largest: Cell, list: readonly Cell[]): Quantity {
  const found = [
    ...ratings(list),
    ...inputVolts(board, path, largest),
    ...outputVolts(board, largest),
    ...list.flatMap(({ part }): readonly Candidate[] =>
      part.kind === 'voltage-source'
        ? [{ volts: Math.abs(part.value), basis: 'seen', why: `${formatQuantity(Math.abs(part.value), 'V')}, a cell` }]
        : [],
    ),
  ];
  const rated = list.some((c) => partFigure(c.part, 'ratedVolts') !== undefined || c.part.kind === 'voltage-source');
  if (!rated) {
    const small = list.every((c) => worstFarads(c.part) <= SMALL_FARADS && !isElectrolytic(c.part));
    const volts = small ? SMALL_UNKNOWN_VOLTS : UNKNOWN_VOLTS;
    found.push({ volts, basis: 'assumed', why: `no rating is known: ${volts} V taken` });
  }
  const worst = found.reduce((a, b) => (b.volts > a.volts ? b : a));
  return { nominal: worst.volts, low: 0, high: worst.volts, unit: 'V', basis: worst.basis, why: worst.why };
}

/** Ratings: the largest bounds them all; X, Y and AC parts are printed in volts rms. */
function ratings(list: readonly Cell[]): readonly Candidate[] {
  return list.flatMap(({ part }): readonly Candidate[] => {
    const printed = partFigure(part, 'ratedVolts');
    if (printed === undefined) return [];
    const ac = safetyClass(part) !== null || /\bAC\b/iu.test(partText(part, 'class') ?? '');
    const volts = printed * (ac ? Math.SQRT2 : 1);
    return [{ volts, basis: 'assumed', why: `${formatQuantity(volts, 'V')} is the rating there: an upper bound` }];
  });
}

/** What the input puts there: the peak of the highest line on either side of the rectifier, or the highest direct voltage. */
function inputVolts(board: Board, path: PowerPath, { nets }: Cell): readonly Candidate[] {
  const plate = board.nameplate;
  const most = plate?.inputMax ?? plate?.inputNominal;
  if (most === undefined) return [];
  const mains = plate?.source === 'mains';
  const poles = nets.map((n) => inputPole(path, n));
  const atPlus = poles.some((p) => (mains ? p % 4 === 2 : p >= 0 && p % 2 === 0));
  if (!atPlus && !poles.every((p) => p >= 0)) return [];
  if (!mains) return [{ volts: most, basis: 'seen', why: `${most} V, the highest input of the nameplate` }];
  const volts = Math.SQRT2 * most;
  return [
    { volts, basis: 'seen', why: `${Math.round(volts)} V = ${most} V x 1.414, the highest line behind the rectifier` },
  ];
}

/** What the nameplate says of an output or a further supply that stands across it. */
function outputVolts(board: Board, { nets }: Cell): readonly Candidate[] {
  const plate = board.nameplate;
  const across = (rail: string | undefined, back: string | undefined): boolean =>
    rail !== undefined && back !== undefined && nets.includes(netKey(rail)) && nets.includes(netKey(back));
  const outputs = (plate?.outputs ?? []).filter((o) => across(o.rail, o.return));
  const further = (plate?.auxInputs ?? []).filter((x) => across(x.rail, x.return));
  return [
    ...outputs.map((o) => Math.max(o.volts * (o.kind === 'ac' ? Math.SQRT2 : 1), o.voltsMax ?? 0)),
    ...further.map((x) => x.volts),
  ].map((volts) => ({ volts, basis: 'seen' as const, why: `${formatQuantity(volts, 'V')} by the nameplate` }));
}

/** Key and designator of what is not traced. */
export const UNTRACED = 'not-traced';

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
  const plated = board.nameplate || !unit ? board : { ...board, nameplate: unit };
  const needed = stores.filter((s) => s.boardId === boardId && s.proof);
  if (first ? bulkFound(plated, needed) : needed.length > 0) return null;
  const mains = (plated.nameplate?.source ?? 'mains') === 'mains';
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
  const mains = board.nameplate?.source === 'mains';
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
