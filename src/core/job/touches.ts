import type { LedgerLine } from '../ledger';
import { findPart, netKey, pinIndex } from '../circuit';
import type { Board } from '../circuit';
import type { Fact, Spot } from '../trace';
import { entriesOf } from './boardEntries';

/** What a line has touched on its board: designators and nets, as keys. */
export interface Touched {
  readonly refs: ReadonlySet<string>;
  readonly nets: ReadonlySet<string>;
}

/**
 * What the lines of a job say of the parts and nets of their boards: for each line its touched places.
 *
 * boards  every version of a board that is at hand, by its id: a part's nets are those of all of them together with
 *         those that any fact ever named, so that a part that was moved or dropped is still found where it was.
 */
export class Touches {
  private readonly netsOf = new Map<string, Set<string>>();
  private readonly known = new Map<string, Touched>();

  constructor(
    private readonly boards: ReadonlyMap<string, readonly Board[]>,
    lines: readonly LedgerLine[],
  ) {
    for (const [id, versions] of boards)
      for (const board of versions) for (const part of board.parts) this.note(id, part.ref, part.nets);
    for (const line of lines)
      for (const fact of factsOf(line))
        if (fact.kind === 'part' && fact.pins)
          this.note(
            line.boardId ?? '',
            fact.ref,
            fact.pins.map((p) => p.net),
          );
  }

  /** The places that a line touches; none for a line that says nothing of the board. */
  of(line: LedgerLine): Touched {
    const found = this.known.get(line.id);
    if (found) return found;
    const refs = new Set<string>();
    const nets = new Set<string>();
    const board = line.boardId ?? '';
    const part = (ref: string): void => {
      refs.add(ref.toLowerCase());
      for (const net of this.netsOf.get(`${board} ${ref.toLowerCase()}`) ?? []) nets.add(net);
    };
    const spot = (s: Spot): void => {
      if (s.kind === 'net') nets.add(netKey(s.net));
      else if (!this.pin(board, s.ref, s.pin, nets)) part(s.ref);
    };
    for (const fact of factsOf(line)) factTouches(fact, part, spot, nets);
    if (line.entry.kind === 'replacement') part(line.entry.body.ref);
    const made = { refs, nets };
    this.known.set(line.id, made);
    return made;
  }

  /** Whether a line says something of a capacitor, or takes a part off the board. */
  aboutStores(line: LedgerLine): boolean {
    if (
      factsOf(line).some(
        (f) => f.kind === 'drop' || f.kind === 'empty' || (f.kind === 'part' && f.partKind === 'capacitor'),
      )
    )
      return true;
    const versions = this.boards.get(line.boardId ?? '') ?? [];
    return [...this.of(line).refs].some((ref) => versions.some((b) => findPart(b, ref)?.kind === 'capacitor'));
  }

  /** Adds the nets that one pin has been on; false where no version of the board knows the pin. */
  private pin(board: string, ref: string, pin: string, nets: Set<string>): boolean {
    let found = false;
    for (const version of this.boards.get(board) ?? []) {
      const part = findPart(version, ref);
      const index = part ? pinIndex(version, part, pin) : -1;
      const net = part?.nets[index];
      if (net === undefined) continue;
      nets.add(netKey(net));
      found = true;
    }
    return found;
  }

  private note(board: string, ref: string, nets: readonly string[]): void {
    const key = `${board} ${ref.toLowerCase()}`;
    const kept = this.netsOf.get(key) ?? new Set<string>();
    for (const net of nets) if (netKey(net) !== 'nc') kept.add(netKey(net));
    this.netsOf.set(key, kept);
  }
}

const factsOf = (line: LedgerLine): readonly Fact[] => entriesOf(line.id, line.entry).map(({ fact }) => fact);

function factTouches(fact: Fact, part: (ref: string) => void, spot: (s: Spot) => void, nets: Set<string>): void {
  switch (fact.kind) {
    case 'part':
      part(fact.ref);
      for (const { net } of fact.pins ?? []) nets.add(netKey(net));
      return;
    case 'joined':
    case 'low-path':
    case 'not-joined':
    case 'reads':
    case 'drops':
      fact.spots.forEach(spot);
      return;
    case 'rename':
      nets.add(netKey(fact.from)).add(netKey(fact.to));
      part(fact.from.split('.')[0] ?? '');
      return;
    case 'split':
      nets.add(netKey(fact.net)).add(netKey(fact.to));
      fact.pins.forEach(spot);
      return;
    case 'drop':
    case 'empty':
      part(fact.ref);
      return;
    case 'datasheet':
    case 'settled':
    case 'plate':
      return;
  }
}
