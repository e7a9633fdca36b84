import { easiestPlace, netKey, pinNames } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { ProbeSearch, isCheck, pinType, typicalAffinity } from '@/core/trace';
import type { Reference, Spot, TraceEntry } from '@/core/trace';

/**
 * The check proposed next: two spots with their places in words.
 *
 * beep    whether both are one net.
 * diode   the diode test of the second, the first being a reference on which one lead rests: the red one or the black.
 */
export interface TouchProposal {
  readonly key: string;
  readonly kind: 'beep' | 'diode';
  readonly spots: readonly [string, string];
  readonly places: readonly [string, string];
  readonly resting: 'red' | 'black';
}

/**
 * What to touch next while tracing. With many pins not followed yet: the diode test of one after the other from a reference,
 * since what reads differently is no one net; then of all pairs that are left the likeliest to be one.
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
  // Nets that someone gave names are different ones; what touches joined may yet grow together.
  const settled = [...firstOf.values()].filter((i) => !open(i) && !pins[i]!.net.includes('.'));
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
    // What was checked is not asked again: a low path that a part may carry is a question of its own.
    if (!isCheck(fact)) continue;
    const [a, b] = fact.spots.map(indexOf);
    if (a !== undefined && b !== undefined && a >= 0 && b >= 0 && search.group(a) !== search.group(b))
      search.take(a, b, 'apart');
  }
  for (const { reference, pin, volts } of referenceReadings(entries, indexOf, (i) => search.group(i)))
    search.read(reference, pin, volts);
  const isLow = lowPaths(entries, indexOf, (i) => search.group(i));
  const spot = (i: number): string => spotOf(pins[i]!, open(i));
  const made = (kind: TouchProposal['kind'], a: number, b: number, resting: 'red' | 'black'): TouchProposal => {
    const spots = [spot(a), spot(b)] as const;
    const places = [easiestPlace(board, pins[a]!.net), easiestPlace(board, pins[b]!.net)] as const;
    return { key: `${kind === 'beep' ? '' : `${resting} `}${spots.join(' ')}`, kind, spots, places, resting };
  };
  for (;;) {
    const reading = search.nextReading();
    if (reading) {
      const { reference, pin } = reading;
      const proposal = made('diode', reference.pin, pin, reference.red ? 'red' : 'black');
      const beeped = isLow(reference.pin, pin);
      if (!beeped && !skipped.has(proposal.key)) return proposal;
      search.read(reference, pin, beeped ? 0 : NaN);
      continue;
    }
    const pair = search.next();
    if (!pair) return null;
    const proposal = made('beep', pair.a, pair.b, 'red');
    if (!skipped.has(proposal.key)) return proposal;
    search.take(pair.a, pair.b, 'apart');
  }
}

type IndexOf = (spot: Spot) => number | undefined;

/**
 * Diode tests as readings from references: each belongs to the lead's place that has the most of those not told yet, one that
 * is a reference already before others.
 */
function referenceReadings(
  entries: readonly TraceEntry[],
  indexOf: IndexOf,
  group: (pin: number) => number,
): readonly { readonly reference: Reference; readonly pin: number; readonly volts: number }[] {
  let left = entries.flatMap(({ fact }) => {
    if (fact.kind !== 'drops') return [];
    const [red = -1, black = -1] = fact.spots.map(indexOf);
    return red < 0 || black < 0 || group(red) === group(black) ? [] : [{ red, black, volts: fact.volts ?? Infinity }];
  });
  const out: { reference: Reference; pin: number; volts: number }[] = [];
  const chosen = new Set<number>();
  while (left.length > 0) {
    const places = new Map<string, Reference & { count: number }>();
    for (const test of left)
      for (const lead of ['red', 'black'] as const) {
        const key = `${lead} ${group(test[lead])}`;
        const place = places.get(key) ?? { pin: test[lead], red: lead === 'red', count: 0 };
        places.set(key, { ...place, count: place.count + 1 });
      }
    const rank = (r: Reference & { count: number }): number => 2 * r.count + (chosen.has(group(r.pin)) ? 1 : 0);
    const reference = [...places.values()].reduce((best, r) => (rank(r) > rank(best) ? r : best));
    const lead = reference.red ? 'red' : 'black';
    const own = left.filter((test) => group(test[lead]) === group(reference.pin));
    chosen.add(group(reference.pin));
    out.push(...own.map((t) => ({ reference, pin: reference.red ? t.black : t.red, volts: t.volts })));
    left = left.filter((test) => !own.includes(test));
  }
  return out;
}

/** Whether a beep is written down between the groups of two pins. */
function lowPaths(
  entries: readonly TraceEntry[],
  indexOf: IndexOf,
  group: (pin: number) => number,
): (a: number, b: number) => boolean {
  const beeps = entries.flatMap(({ fact }) => {
    if (fact.kind !== 'low-path') return [];
    const [a = -1, b = -1] = fact.spots.map(indexOf);
    return a < 0 || b < 0 ? [] : [[a, b] as const];
  });
  return (a, b) =>
    beeps.some(([p, q]) => {
      const [x, y] = [group(p), group(q)];
      return (x === group(a) && y === group(b)) || (x === group(b) && y === group(a));
    });
}

function spotOf(pin: { readonly ref: string; readonly pin: number; readonly net: string }, alone: boolean): string {
  return alone || pin.net.includes('.') ? `${pin.ref}.${pin.pin + 1}` : pin.net;
}

/** How many pins are followed and how many are not. */
export function followed(board: Board): { readonly done: number; readonly of: number } {
  const count = new Map<string, number>();
  const nets = board.parts.filter((p) => p.fitted).flatMap((p) => p.nets.map(netKey));
  for (const n of nets) count.set(n, (count.get(n) ?? 0) + 1);
  return { done: nets.filter((n) => n === 'nc' || count.get(n)! > 1).length, of: nets.length };
}
