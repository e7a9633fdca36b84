import type { Board } from '../circuit';
import type { StageMap } from '../stages';

/** What is written at the pins of ICs: their role where it is known, else their number; by designator. */
export function pinLabels(board: Board, map: StageMap): ReadonlyMap<string, readonly string[]> {
  return new Map(
    board.parts.flatMap((part) =>
      part.kind === 'ic'
        ? [
            [
              part.ref,
              part.nets.map((_, i) => {
                const role = map.pins[part.ref]?.[i]?.role;
                return role === undefined || role === 'UNKNOWN' || role === 'NC' ? String(i + 1) : `${role} ${i + 1}`;
              }),
            ] as const,
          ]
        : [],
    ),
  );
}
