import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { decodeMarking } from '../marking';
import { partFigure, partText } from '../part';
import type { Part } from '../part';

/** A capacitor of which nothing says how large it is, farad. */
export const UNKNOWN_FARADS = 1000e-6;
/** What tracing writes for a capacitor whose marking it cannot read. */
const STAND_IN_FARADS = 100e-9;

/** One capacitor as far as its charge goes; it may stand inside an IC that is known. */
export interface Cell {
  readonly ref: string;
  readonly nets: readonly [string, string];
  readonly part: Part;
}

/** How deep insides are looked into; a netlist that nests deeper is refused by its reader. */
const MOST_DEPTH = 8;

/** The key of two nets, whichever comes first. */
export function pairKey(nets: readonly string[]): string {
  return nets.toSorted().join(' ');
}

/** The capacitors and cells of a board by the two nets they stand on; a board never changes, so they are kept with it. */
export function cellsByPair(board: Board): ReadonlyMap<string, readonly Cell[]> {
  const known = pairsOf.get(board);
  if (known) return known;
  const made = new Map<string, Cell[]>();
  for (const cell of chargeCells(board)) {
    const key = pairKey(cell.nets);
    const group = made.get(key);
    if (group) group.push(cell);
    else made.set(key, [cell]);
  }
  pairsOf.set(board, made);
  return made;
}

const pairsOf = new WeakMap<Board, ReadonlyMap<string, readonly Cell[]>>();

/** All fitted capacitors and cells, those inside known ICs too; a leg that is not connected is a net of its own. */
function chargeCells(board: Board): readonly Cell[] {
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

/** A bare figure on a capacitor that may be picofarads in code or microfarads. */
export interface SizeDoubt {
  readonly ref: string;
  readonly mark: string;
  readonly large: number;
  readonly small: number;
}

/** Nothing legible printed and nothing said of a capacitor: its value is a stand-in. */
export function sizeUnknown(part: Part): boolean {
  if (part.kind !== 'capacitor' || partFigure(part, 'ratedVolts') !== undefined || partText(part, 'said') !== undefined)
    return false;
  const mark = partText(part, 'mark');
  if (mark === undefined) return part.basis === 'assumed';
  return part.value === STAND_IN_FARADS && !decodeMarking(mark).some((r) => r.kind === 'capacitor');
}

/** Farads that a capacitor may have at the most; 0 of a cell. */
export function worstFarads(part: Part): number {
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
