import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { linesOf, standingLines } from '../ledger';
import type { LedgerLine } from '../ledger';
import { recogniseStages } from '../stages';

/**
 * The DC volts that were read last at each net, by key, against the reference of its island: since a part was fitted on this
 * board or it was changed. What was read between two other places says nothing of one net.
 */
export function readAtNets(board: Board, lines: readonly LedgerLine[], boardId: string): ReadonlyMap<string, number> {
  const written = standingLines(lines).filter((l) => l.boardId === boardId);
  const changed = written.findLastIndex((l) => l.entry.kind === 'replacement' || l.entry.kind === 'modification');
  const references = new Map(
    recogniseStages(board).islands.flatMap(({ nets, references: own }) => {
      const keys = new Set(own.map(netKey));
      return nets.map((net) => [netKey(net), keys] as const);
    }),
  );
  const read = new Map<string, number>();
  for (const { body } of linesOf(written.slice(changed + 1), 'powered-reading')) {
    if (body.mode !== 'dcv') continue;
    const [red, black] = [netKey(body.red), netKey(body.black)];
    if (references.get(red)?.has(black)) read.set(red, body.value);
    else if (references.get(black)?.has(red)) read.set(black, -body.value);
  }
  return read;
}
