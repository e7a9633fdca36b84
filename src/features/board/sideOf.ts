import { findPart, netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import type { Selection } from '@/features/schematic/selection';
import type { PhotoMarks, Side } from '@/wire/photoMarks';

/** The side of the board that all pinned places of what is picked lie on; null where both show it, or none. */
export function sideOf(board: Board, marks: PhotoMarks, { part, nets = [] }: Selection): Side | null {
  const keys = new Set(nets.map(netKey));
  const sides = new Set(
    marks.pinned.flatMap(({ ref, pin, side }) => {
      const net = pin === null ? undefined : findPart(board, ref)?.nets[pin];
      const picked = part === undefined ? net !== undefined && keys.has(netKey(net)) : ref === part;
      return picked ? [side] : [];
    }),
  );
  return sides.size === 1 ? [...sides][0]! : null;
}
