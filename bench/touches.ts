import { netKey } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { partFigure } from '@/core/part';
import type { Part } from '@/core/part';
import { readBoard, solverFor } from '@/core/meter';
import { gaussian, seededRandom } from '@/core/quantity';
import { BEEP_VOLTS, ProbeSearch, pinType, typicalAffinity } from '@/core/trace';

/** Touches per pin of tracing one board, by our proposals and by the fixed ways. */
export interface TouchCount {
  readonly pins: number;
  readonly nets: number;
  readonly ours: number;
  readonly allPairs: number;
  readonly representatives: number;
  readonly guesswork: number;
  /** Pairs of groups that are one net and were not found to be. */
  readonly missed: number;
}

interface Pin {
  readonly net: string;
  readonly part: number;
  readonly type: string;
  readonly twoPin: boolean;
  readonly ohms: number | null;
}

/** Simulated tracing over seeded pin orders, answered by the continuity meter. */
export function touchesPerPin(board: Board, seeds: readonly number[]): TouchCount {
  const meter = continuityOf(board);
  const runs = seeds.map((seed) => oneOrder(board, meter, seed));
  const mean = (of: (t: TouchCount) => number): number => runs.reduce((s, r) => s + of(r), 0) / runs.length;
  return {
    pins: runs[0]!.pins,
    nets: runs[0]!.nets,
    ours: mean((r) => r.ours),
    allPairs: mean((r) => r.allPairs),
    representatives: mean((r) => r.representatives),
    guesswork: mean((r) => r.guesswork),
    missed: mean((r) => r.missed),
  };
}

type Meter = (a: string, b: string) => { readonly ohms: number; readonly joined: boolean };

/** The meter's answer between two points: a beep, and whether its ohms are no more than the shorted leads. */
function continuityOf(board: Board): Meter {
  const solver = solverFor(board, []);
  const known = new Map<string, { ohms: number; joined: boolean }>();
  return (a, b) => {
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const before = known.get(key);
    if (before) return before;
    const read = readBoard(board, solver, 'continuity', a, b);
    const reading = read.ok ? read.value.reading : { kind: 'overload' as const };
    const ohms = a === b ? 0 : reading.kind === 'figure' ? Math.abs(reading.value) : Infinity;
    const answer = { ohms, joined: ohms < 1e-4 };
    known.set(key, answer);
    return answer;
  };
}

type DiodeTest = (reference: string, net: string, red: boolean) => number;

/** How far one meter is from itself when it reads one place twice, one sigma: a share of the figure, and volts. */
const AGAIN_SHARE = 0.002;
const AGAIN_VOLTS = 0.0015;

/** The meter's diode test from a reference, as it comes out each time anew. */
function diodeTestOf(board: Board, random: () => number): DiodeTest {
  const solver = solverFor(board, []);
  const known = new Map<string, number>();
  return (reference, net, red) => {
    const [a, b] = red ? [reference, net] : [net, reference];
    const key = `${netKey(a)} ${netKey(b)}`;
    let volts = known.get(key);
    if (volts === undefined) {
      const read = netKey(a) === netKey(b) ? null : readBoard(board, solver, 'diode', a, b);
      volts = read === null ? 0 : read.ok && read.value.reading.kind === 'figure' ? read.value.reading.value : Infinity;
      known.set(key, volts);
    }
    return volts < BEEP_VOLTS || volts === Infinity
      ? volts
      : volts * (1 + AGAIN_SHARE * gaussian(random)) + AGAIN_VOLTS * gaussian(random);
  };
}

function oneOrder(board: Board, meter: Meter, seed: number): TouchCount {
  const random = seededRandom(seed);
  const pins: Pin[] = board.parts
    .flatMap((part, index) =>
      part.fitted
        ? part.nets.flatMap((net, i) =>
            netKey(net) === 'nc'
              ? []
              : [
                  {
                    net,
                    part: index,
                    type: pinType(board, part, i),
                    twoPin: part.nets.length === 2,
                    ohms: part.kind === 'resistor' ? part.value : null,
                  },
                ],
          )
        : [],
    )
    .map((pin) => ({ pin, key: random() }))
    .sort((x, y) => x.key - y.key)
    .map((x) => x.pin);
  const sizes = new Map<string, number>();
  for (const p of pins) sizes.set(netKey(p.net), (sizes.get(netKey(p.net)) ?? 0) + 1);
  const ordered = [...sizes.values()].sort((x, y) => y - x);
  const guesswork = ordered.reduce((sum, size, i) => sum + (size / pins.length) * (i + 1), 0);
  const ours = followProposals(board, pins, meter, diodeTestOf(board, random));
  return {
    pins: pins.length,
    nets: sizes.size,
    ours: ours.touches / pins.length,
    missed: ours.missed,
    allPairs: (pins.length - 1) / 2,
    representatives: representatives(board, pins, meter) / pins.length,
    guesswork,
  };
}

/** Below this a beep is within the residual of the shorted leads. */
const RESIDUAL_OHMS = 0.3;

/** Whether a part of next to no ohms may be what a beep between two groups of pins went through. */
function mayCarry(
  board: Board,
  pins: readonly Pin[],
  where: (pin: number) => 'here' | 'there' | 'open' | 'elsewhere',
): boolean {
  return board.parts.some((part, index) => {
    if (!part.fitted || !isLow(part)) return false;
    const ends = pins.flatMap((p, i) => (p.part === index ? [where(i)] : []));
    const may = (end: string | undefined, side: 'here' | 'there'): boolean => end === side || end === 'open';
    const [x, y] = part.kind === 'relay' ? ends.slice(2) : ends;
    return (may(x, 'here') && may(y, 'there')) || (may(y, 'here') && may(x, 'there'));
  });
}

function isLow(part: Part): boolean {
  if (part.kind === 'fuse' || part.kind === 'switch') return true;
  if (part.kind === 'inductor') return (partFigure(part, 'windingOhms') ?? 0) <= RESIDUAL_OHMS;
  return part.kind === 'resistor' && part.value <= RESIDUAL_OHMS;
}

function followProposals(
  board: Board,
  given: readonly Pin[],
  meter: Meter,
  diodeTest: DiodeTest,
): { touches: number; missed: number } {
  const pins = [...given];
  const search = new ProbeSearch(pins, typicalAffinity());
  let touches = 0;
  const ask = (a: number, b: number): { joined: boolean; ohms: number } => {
    const { joined, ohms } = meter(pins[a]!.net, pins[b]!.net);
    touches++;
    const where = (pin: number): 'here' | 'there' | 'open' | 'elsewhere' => {
      const group = search.group(pin);
      if (group === search.group(a)) return 'here';
      if (group === search.group(b)) return 'there';
      return search.isApart(pin, a) && search.isApart(pin, b) ? 'elsewhere' : 'open';
    };
    // Ohms within the leads' residual that a low-ohm part may have carried are asked again with a leg lifted.
    if (ohms < RESIDUAL_OHMS && mayCarry(board, pins, where)) touches++;
    search.take(a, b, joined ? 'joined' : 'apart');
    return { joined, ohms };
  };
  const untouched = (pin: number): boolean => pins.every((_, i) => i === pin || search.group(i) !== search.group(pin));
  for (;;) {
    const reading = search.nextReading();
    if (reading) {
      const { reference, pin } = reading;
      const volts = diodeTest(pins[reference.pin]!.net, pins[pin]!.net, reference.red);
      touches++;
      search.read(reference, pin, volts);
      // A beep: continuity tells what carried it.
      if (volts < BEEP_VOLTS) ask(reference.pin, pin);
      continue;
    }
    const proposal = search.next();
    if (!proposal) break;
    const { a, b } = proposal;
    const { joined, ohms } = ask(a, b);
    if (joined || ohms > 600) continue;
    // A resistor's ohms were read: its ends are tried here and there. Which end is called the first is free until touched.
    for (const [x, y] of search.resistorsBetween(a, b, ohms)) {
      if (search.isApart(x, a) || search.isApart(y, b)) continue;
      const swapped = netKey(pins[x]!.net) === netKey(pins[b]!.net) || netKey(pins[y]!.net) === netKey(pins[a]!.net);
      if (swapped && untouched(x) && untouched(y))
        [pins[x], pins[y]] = [
          { ...pins[x]!, net: pins[y]!.net },
          { ...pins[y]!, net: pins[x]!.net },
        ];
      const here = search.group(x) === search.group(a) || ask(x, a).joined;
      if (!here) continue;
      if (search.group(y) !== search.group(b) && !search.isApart(y, b)) ask(y, b);
      break;
    }
  }
  const groups = new Map<string, Set<number>>();
  pins.forEach((p, i) => groups.set(netKey(p.net), (groups.get(netKey(p.net)) ?? new Set()).add(search.group(i))));
  const missed = [...groups.values()].reduce((sum, g) => sum + g.size - 1, 0);
  return { touches, missed };
}

/** The fixed way: each pin in turn against one pin of each known net, the largest net first. */
function representatives(board: Board, pins: readonly Pin[], meter: Meter): number {
  const nets: { members: number[] }[] = [];
  const netOf = new Map<number, { members: number[] }>();
  let touches = 0;
  pins.forEach((pin, i) => {
    const found = [...nets]
      .sort((x, y) => y.members.length - x.members.length)
      .find((net) => {
        if (pin.twoPin && net.members.some((m) => pins[m]!.part === pin.part)) return false;
        const { joined, ohms } = meter(pin.net, pins[net.members[0]!]!.net);
        touches++;
        const where = (m: number): 'here' | 'there' | 'open' | 'elsewhere' =>
          m === i ? 'here' : netOf.get(m) === net ? 'there' : netOf.has(m) ? 'elsewhere' : 'open';
        if (ohms < RESIDUAL_OHMS && mayCarry(board, pins, where)) touches++;
        return joined;
      });
    const net = found ?? { members: [] };
    if (!found) nets.push(net);
    net.members.push(i);
    netOf.set(i, net);
  });
  return touches;
}
