import { netKey, pinsOnNet } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';

/** Two nets that some part bridges: where two probes may go. Named as first written on the board. */
export interface ProbePair {
  readonly a: string;
  readonly b: string;
}

/** Index of the pin of a part that sits on its most connected net: where its voltages are counted from. */
export function referencePin(board: Board, part: Part): number {
  let best = 0;
  let most = -1;
  part.nets.forEach((net, i) => {
    const pins = pinsOnNet(board, net).length;
    if (pins > most) [best, most] = [i, pins];
  });
  return best;
}

/**
 * Every unordered net pair that some fitted part bridges: all pin pairs of parts with up to four pins,
 * else each pin to the reference pin. Empty positions count too: nothing should be read there.
 */
export function probePairs(board: Board): readonly ProbePair[] {
  const pairs = new Pairs();
  for (const part of board.parts) {
    if (part.nets.length <= 4) {
      part.nets.forEach((a, i) => part.nets.slice(i + 1).forEach((b) => pairs.add(a, b)));
    } else {
      const reference = part.nets[referencePin(board, part)]!;
      part.nets.forEach((net) => pairs.add(net, reference));
    }
  }
  return pairs.list;
}

/** Net pairs of neighbouring pins of parts with more than four pins, without those of `probePairs`. */
export function neighbourPins(board: Board): readonly ProbePair[] {
  const pairs = new Pairs();
  for (const { a, b } of probePairs(board)) pairs.add(a, b);
  const known = pairs.list.length;
  for (const part of board.parts)
    if (part.fitted && part.nets.length > 4) part.nets.slice(1).forEach((net, i) => pairs.add(part.nets[i]!, net));
  return pairs.list.slice(known);
}

/** Net pairs that fitted parts of two pins bridge, of those that are wanted. */
export function pairsAcross(board: Board, wanted: (part: Part) => boolean): readonly ProbePair[] {
  const pairs = new Pairs();
  for (const part of board.parts)
    if (part.fitted && part.nets.length === 2 && wanted(part)) pairs.add(part.nets[0]!, part.nets[1]!);
  return pairs.list;
}

/** Unordered pairs of different nets, each once. */
class Pairs {
  private readonly found = new Map<string, ProbePair>();

  get list(): readonly ProbePair[] {
    return [...this.found.values()];
  }

  add(a: string, b: string): void {
    const [x, y] = [netKey(a), netKey(b)];
    if (x === y || x === 'nc' || y === 'nc') return;
    const key = x < y ? `${x}\n${y}` : `${y}\n${x}`;
    if (!this.found.has(key)) this.found.set(key, { a, b });
  }
}
