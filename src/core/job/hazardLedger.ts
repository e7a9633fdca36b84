import { linesOf } from '../ledger';
import type { JobSource, LedgerLine } from '../ledger';
import { netKey } from '../circuit';
import type { Board, Nameplate } from '../circuit';
import { METER_LIMIT_VOLTS, energyStores, judgeHazard, untracedStore, withPlate } from '../safety';
import type { EnergyStore, Hazard, Moment, ProofReading } from '../safety';
import { everyPlate, everySource } from './corrections';
import type { KnownSource } from './corrections';
import { isUnderPower, isolates, isolators } from './isolation';
import { energises, inOrder, reversedBy, writtenAt } from './logOrder';
import type { WaitingLine } from './logOrder';
import { Touches } from './touches';

/** One of a job's boards, by the id that ledger lines name it with; further versions of it, such as its start. */
export interface JobBoard {
  readonly id: string;
  readonly board: Board;
  readonly start?: Board | undefined;
}

/** What the hazard of a job is judged from besides its boards and lines. */
export interface HazardView {
  readonly unit?: Nameplate | undefined;
  readonly waiting?: readonly WaitingLine[] | undefined;
  /**
   * Number of the last line that was brought in from a file; 0 for a job of this bench. What was isolated and discharged
   * elsewhere is not known to be so here.
   */
  readonly broughtIn?: number | undefined;
}

/**
 * Hazard of a job now, over all its boards: what the log says in the order of its numbers, and nothing else.
 *
 * takenIn, unit  sources and nameplate as the job came: what corrections say of them adds to it and takes nothing away.
 */
export function jobHazard(
  takenIn: readonly JobSource[],
  boards: readonly JobBoard[],
  lines: readonly LedgerLine[],
  now: Moment,
  view: HazardView = {},
): Hazard {
  const { unit, waiting = [], broughtIn = 0 } = view;
  const order = inOrder(lines, waiting);
  const sources = everySource(takenIn, order);
  const stores = everyStore(boards, everyPlate(unit, order));
  const touches = new Touches(new Map(boards.map((b) => [b.id, b.start ? [b.board, b.start] : [b.board]])), order);
  const proofs = new ProofLedger(sources, order, touches, broughtIn);
  // An isolation that waits here has not been written: it isolates nothing yet; an undoing that waits counts.
  const undoing = waiting.flatMap((w) => (w.reverses === null ? [] : [w.reverses]));
  const standing = lines.filter((l) => !undoing.includes(l.id));
  const by = waiting.some(isUnderPower) ? sources.map(() => null) : isolators(sources, standing, broughtIn);
  return judgeHazard(
    sources.map((s, i) => ({ name: s.name, isolatedBy: by[i] ?? null })),
    stores,
    (store) => proofs.of(store),
    wetness(order, broughtIn),
    now,
  );
}

/** The stores of all boards, at the highest volts that any nameplate makes of them. */
function everyStore(boards: readonly JobBoard[], plates: readonly (Nameplate | undefined)[]): readonly EnergyStore[] {
  return boards.flatMap(({ id, board, start }, i) => {
    const first = i === 0;
    const printed = first && plates.length > 1 ? [...plates, start?.nameplate] : plates;
    const known = new Map<string, EnergyStore>();
    for (const plate of printed) {
      // The job's first board is the one that the nameplate speaks of; another has its own, if any.
      const read = first && plates.length > 1 ? withPlate(board, plate) : board;
      const found = energyStores(read, id, plate);
      const untraced = untracedStore(read, id, found, first, plate);
      for (const store of untraced ? [untraced, ...found] : found) {
        const before = known.get(store.key);
        if (!before || before.volts.nominal < store.volts.nominal) known.set(store.key, store);
      }
    }
    return [...known.values()];
  });
}

/** Whether the bench is in the wet, as last said; null when nobody has. A word that waits counts only when it is wet. */
function wetness(order: readonly LedgerLine[], broughtIn: number): boolean | null {
  const here = (line: LedgerLine): boolean => !line.id.startsWith('waiting') && line.seq > broughtIn;
  const said = linesOf(order, 'site').filter(({ line, body }) => body.wet || here(line));
  return said.at(-1)?.body.wet ?? null;
}

/**
 * The reading that stands for each store: a fold over the log in the order of its numbers.
 *
 * A reading below 0.2 V lowers nothing unless the meter was proved, every source was isolated and all parts of the
 * store were named. A high reading always counts. Whatever may have charged the store again ends what stood before it,
 * also when that line was undone later.
 */
class ProofLedger {
  private readonly byId: ReadonlyMap<string, LedgerLine>;
  private readonly undone: ReadonlySet<string>;
  /** For each line of the order whether some source was not isolated just then. */
  private readonly live: readonly boolean[];

  constructor(
    sources: readonly KnownSource[],
    private readonly order: readonly LedgerLine[],
    private readonly touches: Touches,
    private readonly broughtIn: number,
  ) {
    this.byId = new Map(order.map((l) => [l.id, l]));
    this.undone = new Set(order.flatMap((l) => (l.reverses === null ? [] : [l.reverses])));
    const open = new Map<number, Set<string>>(sources.map((_, i) => [i, new Set()]));
    this.live = order.map((line) => {
      const reversed = reversedBy(line, this.byId);
      if (line.entry.kind === 'isolation' && !line.id.startsWith('waiting') && line.seq > broughtIn) {
        for (const [i, ids] of open) if (isolates(line.entry.body, sources, i)) ids.add(line.id);
      }
      if (reversed) for (const ids of open.values()) ids.delete(reversed.id);
      if (isUnderPower(line)) for (const ids of open.values()) ids.clear();
      return [...open.values()].some((ids) => ids.size === 0);
    });
  }

  of(store: EnergyStore): ProofReading | null {
    const refs = new Set(store.refs.map((r) => r.toLowerCase()));
    const nets = new Set([store.plus, store.minus].map(netKey));
    let standing: ProofReading | null = null;
    this.order.forEach((line, i) => {
      const reversed = reversedBy(line, this.byId);
      if (
        energises(line, reversed) ||
        this.changes(line, store, refs, nets) ||
        (reversed && this.changes(reversed, store, refs, nets))
      ) {
        // A store that was read high is not less charged for it.
        if (standing && Math.abs(standing.volts) < METER_LIMIT_VOLTS) standing = null;
        return;
      }
      if (line.entry.kind !== 'discharge-proof' || line.boardId !== store.boardId) return;
      const { body } = line.entry;
      const named = body.refs.map((r) => r.toLowerCase());
      const about = store.place === null ? named.some((r) => refs.has(r)) : body.storeKey === store.key;
      if (!about) return;
      const high = Math.abs(body.volts) >= METER_LIMIT_VOLTS;
      if (this.undone.has(line.id)) {
        // A high figure that was taken back proves nothing, and what stood before it is no longer sure.
        if (high) standing = null;
        return;
      }
      const whole = store.place !== null || [...refs].every((r) => named.includes(r));
      const here = line.seq > this.broughtIn && !line.id.startsWith('waiting');
      const lowers = body.meterProved && whole && !this.live[i]! && here;
      if (high || lowers)
        standing = {
          volts: body.volts,
          moment: writtenAt(line),
          by: line.actor,
          meterProved: body.meterProved,
        };
    });
    return standing;
  }

  /** Whether a line has changed what hangs on a store: a part fitted on its board, a fact about its parts or nets. */
  private changes(line: LedgerLine, store: EnergyStore, refs: ReadonlySet<string>, nets: ReadonlySet<string>): boolean {
    if (line.boardId !== store.boardId) return false;
    const { kind } = line.entry;
    if (kind === 'replacement' || kind === 'modification') return true;
    if (kind !== 'trace') return false;
    if (store.place !== null) return this.touches.aboutStores(line);
    const touched = this.touches.of(line);
    return [...touched.refs].some((r) => refs.has(r)) || [...touched.nets].some((n) => nets.has(n));
  }
}
