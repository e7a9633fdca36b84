import { netKey, pinNames, placesOnNet } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { ProbeSearch, pinType, typicalAffinity } from '@/core/trace';
import type { Spot, TraceEntry } from '@/core/trace';

/** The check proposed next: two spots with their places in words. */
export interface TouchProposal {
  readonly key: string;
  readonly spots: readonly [string, string];
  readonly places: readonly [string, string];
}

/**
 * What to touch next while tracing: of all pairs with a pin not followed yet, the likeliest to be one net.
 *
 * skipped  keys of proposals that were put aside.
 */
export function nextTouch(
  board: Board,
  entries: readonly TraceEntry[],
  skipped: ReadonlySet<string>,
): TouchProposal | null {
  const pins = board.parts.flatMap((part, index) =>
    part.fitted
      ? part.nets.flatMap((net, pin) =>
          netKey(net) === 'nc'
            ? []
            : [
                {
                  ref: part.ref,
                  pin,
                  net,
                  part: index,
                  type: pinType(board, part, pin),
                  twoPin: part.nets.length === 2,
                  ohms: part.kind === 'resistor' ? part.value : null,
                },
              ],
        )
      : [],
  );
  const search = new ProbeSearch(pins, typicalAffinity());
  const firstOf = new Map<string, number>();
  pins.forEach((p, i) => {
    const first = firstOf.get(netKey(p.net));
    if (first === undefined) firstOf.set(netKey(p.net), i);
    else search.take(first, i, 'joined');
  });
  const open = (i: number): boolean => pins.filter((p) => netKey(p.net) === netKey(pins[i]!.net)).length === 1;
  // Nets that were followed are taken to be different ones.
  const settled = [...firstOf.values()].filter((i) => !open(i));
  settled.forEach((i, k) => settled.slice(0, k).forEach((j) => search.take(i, j, 'apart')));
  const indexOf = (spot: Spot): number | undefined => {
    if (spot.kind === 'net') return firstOf.get(netKey(spot.net));
    const part = board.parts.find((p) => p.ref.toLowerCase() === spot.ref.toLowerCase());
    if (!part) return undefined;
    const named = pinNames(part).findIndex((n) => n.toLowerCase() === spot.pin.toLowerCase());
    const pin = named >= 0 ? named : Number(spot.pin) - 1;
    return pins.findIndex((p) => p.ref === part.ref && p.pin === pin);
  };
  for (const { fact } of entries) {
    const apart = fact.kind === 'not-joined' || fact.kind === 'low-path' || (fact.kind === 'reads' && fact.ohms > 0.3);
    if (!apart || !('spots' in fact)) continue;
    const [a, b] = fact.spots.map(indexOf);
    if (a !== undefined && b !== undefined && a >= 0 && b >= 0 && search.group(a) !== search.group(b))
      search.take(a, b, 'apart');
  }
  for (let proposal = search.next(); proposal; proposal = search.next()) {
    const [a, b] = [pins[proposal.a]!, pins[proposal.b]!];
    const spots = [spotOf(a, open(proposal.a)), spotOf(b, open(proposal.b))] as const;
    const key = spots.join(' ');
    if (!skipped.has(key)) return { key, spots, places: [placeOf(board, a.net), placeOf(board, b.net)] };
    search.take(proposal.a, proposal.b, 'apart');
  }
  return null;
}

function spotOf(pin: { readonly ref: string; readonly pin: number; readonly net: string }, alone: boolean): string {
  return alone || pin.net.includes('.') ? `${pin.ref}.${pin.pin + 1}` : pin.net;
}

/** The easiest place of a net. */
function placeOf(board: Board, net: string): string {
  return placesOnNet(board, net)[0]?.words ?? net;
}

/** How many pins are followed and how many are not. */
export function followed(board: Board): { readonly done: number; readonly of: number } {
  const count = new Map<string, number>();
  const nets = board.parts.filter((p) => p.fitted).flatMap((p) => p.nets.map(netKey));
  for (const n of nets) count.set(n, (count.get(n) ?? 0) + 1);
  return { done: nets.filter((n) => n === 'nc' || count.get(n)! > 1).length, of: nets.length };
}
