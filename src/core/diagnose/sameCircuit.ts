import { findPart, netKey, pinIndex } from '../circuit';
import type { Board } from '../circuit';
import { SHORT_OHMS } from '../fault';
import type { Fault } from '../fault';

/**
 * A key that faults share which make the same circuit of a board: shorts and leaks of one resistance between the same nets
 * do, whichever part they are in. What a part opens besides is its own.
 */
export function circuitKey(board: Board, faults: readonly Fault[]): string {
  const opened = new Set(faults.filter((f) => f.kind === 'open').map((f) => f.ref));
  return faults
    .map((fault) => {
      if (fault.kind === 'short') return joined(board, fault, SHORT_OHMS, opened);
      if (fault.kind === 'leak') return joined(board, fault, fault.ohms, opened);
      return JSON.stringify(fault);
    })
    .sort()
    .join(' + ');
}

function joined(
  board: Board,
  fault: Extract<Fault, { kind: 'short' | 'leak' }>,
  ohms: number,
  opened: ReadonlySet<string>,
): string {
  const part = findPart(board, fault.ref)!;
  const places = (fault.pins?.map((pin) => pinIndex(board, part, pin)) ?? part.nets.map((_, i) => i)).map((i) => {
    const net = netKey(part.nets[i]!);
    return net === 'nc' || opened.has(fault.ref) ? `${part.ref} ${i}` : net;
  });
  const pairs = places.flatMap((a, i) => places.slice(i + 1).map((b) => (a < b ? `${a} ${b}` : `${b} ${a}`)));
  return `${pairs.sort().join(', ')}: ${ohms}`;
}
