import { boardNets, netKey } from '../circuit';
import type { Board } from '../circuit';
import { partFigure, isFuse } from '../part';
import type { Part } from '../part';
import { printedOutputs, supplyOf } from '../operate';
import { STORING_FARADS, findEnergyPoles, passes, recogniseStages, switchedNets, throughNets } from '../stages';
import type { EnergyPole } from '../stages';

/** The leak that a reading must tell from a healthy board, ohm; where a few ohm belong, less (`SMALLER_LEAKS`). */
export const LEAK_OHMS = 47;
/** The barrier must read at least this, ohm. */
export const BARRIER_OHMS = 1e6;

/**
 * A short or leak that power must not meet: two nets that a fault may join, as it would be hardest to see.
 *
 * red, black  the nets, as written on the board. ohms: the leak. opens: parts that such a fault burns open on its way
 *             from the source; what they part off must be read behind them.
 * kind        `path`: between two poles of the energy's way; `barrier`: between two galvanic islands.
 */
export interface Threat {
  readonly kind: 'path' | 'barrier';
  readonly red: string;
  readonly black: string;
  readonly ohms: number;
  readonly opens: readonly string[];
  readonly volts: number;
}

/** The energy's ways through a board and all that may short them. */
export interface FedPath {
  readonly poles: readonly EnergyPole[];
  readonly threats: readonly Threat[];
  /** Number of a net's galvanic island, by key; a net of no island has none. */
  readonly islandOf: ReadonlyMap<string, number>;
  /** The net that stands for all that next to no resistance joins to a net; keys. */
  near(net: string): string;
}

/** Nets of one pole this near each other are one as far as leaks go, ohm. */
const SPAN_OHMS = 39;

/** Finds every threat on a board. */
export function findThreats(board: Board): FedPath {
  const poles = findEnergyPoles(board);
  const written = new Map(boardNets(board).map((n) => [netKey(n), n]));
  const named = (key: string): string => written.get(key) ?? key;
  const { islands } = recogniseStages(board);
  const islandOf = new Map(islands.flatMap((island, i) => island.nets.map((n) => [netKey(n), i] as const)));
  const upstream = poles.map((pole) => burntBefore(board, pole));
  const anchorOf = anchors(board, poles);
  const near = (net: string): string => anchorOf.get(net) ?? net;
  const fed = poles.filter((p) => p.kind === 'line' || p.kind === 'bus');
  const fuses = board.parts.filter(
    (part) =>
      part.fitted &&
      (isFuse(part) || part.kind === 'ntc') &&
      fed.some((p) => part.nets.every((n) => p.nets.has(netKey(n)))),
  );
  const found = new Map<string, Threat>();
  const add = (t: Threat): void => {
    const ends = [near(netKey(t.red)), near(netKey(t.black))];
    const key = [t.kind, ...ends.toSorted(), ...new Set(t.opens.toSorted())].join(' ');
    if (ends[0] !== ends[1] && !found.has(key)) found.set(key, { ...t, opens: [...new Set(t.opens)] });
  };
  poles.forEach((p, i) => {
    poles.slice(i + 1).forEach((q, k) => {
      const volts = Math.max(poleVolts(board, p), poleVolts(board, q));
      for (const a of p.nets)
        for (const b of q.nets) {
          if (islandOf.get(a) !== islandOf.get(b) || islandOf.get(a) === undefined) continue;
          const elsewhere = fuses.filter((f) => !f.nets.some((n) => p.nets.has(netKey(n)) || q.nets.has(netKey(n))));
          const opens = [
            ...(upstream[i]!.get(a) ?? []),
            ...(upstream[i + 1 + k]!.get(b) ?? []),
            ...elsewhere.map((f) => f.ref),
            ...sensedBy(board, a, b),
          ];
          add({ kind: 'path', red: named(a), black: named(b), ohms: LEAK_OHMS, opens, volts });
        }
    });
    for (const [a, b] of boosts(board, p))
      add({ kind: 'path', red: named(a), black: named(b), ohms: LEAK_OHMS, opens: [], volts: poleVolts(board, p) });
  });
  for (const [a, b] of barrierPairs(board, poles, islandOf))
    add({ kind: 'barrier', red: named(a), black: named(b), ohms: BARRIER_OHMS, opens: [], volts: 0 });
  return { poles, threats: [...found.values()], islandOf, near };
}

/**
 * Names for each net of a pole the net that stands for it: what at most `SPAN_OHMS` join is one, since a leak of
 * `LEAK_OHMS` at the one is no less to see than a leak of 8 ohm at the other.
 */
function anchors(board: Board, poles: readonly EnergyPole[]): ReadonlyMap<string, string> {
  const anchorOf = new Map<string, string>();
  for (const pole of poles) {
    for (const net of pole.nets) {
      if (anchorOf.has(net)) continue;
      for (const near of within(board, pole, net, SPAN_OHMS)) if (!anchorOf.has(near)) anchorOf.set(near, net);
    }
  }
  return anchorOf;
}

/** Nets of a pole that chokes, links and small resistors join to one of them, nearest first. */
function within(board: Board, pole: EnergyPole, from: string, most: number): readonly string[] {
  const ohms = new Map([[from, 0]]);
  for (let grown = true; grown;) {
    grown = false;
    for (const p of board.parts) {
      const [x, y] = throughNets(p);
      if (!p.fitted || x === undefined || y === undefined || !pole.nets.has(x) || !pole.nets.has(y)) continue;
      const own = joinOhms(p);
      for (const [a, b] of [
        [x, y],
        [y, x],
      ] as const) {
        const far = (ohms.get(a) ?? Infinity) + own;
        if (far > most || far >= (ohms.get(b) ?? Infinity)) continue;
        ohms.set(b, far);
        grown = true;
      }
    }
  }
  return [...ohms].sort((a, b) => a[1] - b[1]).map(([net]) => net);
}

/** What may burn open joins nothing. */
function joinOhms(part: Part): number {
  if (burns(part)) return Infinity;
  if (part.kind === 'inductor') return partFigure(part, 'windingOhms') ?? 0;
  return part.kind === 'resistor' ? part.value : Infinity;
}

/**
 * Volts that may stand at a pole, for judging what a leak there would burn: the source's peak, on a rail what the
 * nameplate prints for it. Where nothing tells, mains is what it may be.
 */
function poleVolts(board: Board, pole: EnergyPole): number {
  const input = supplyOf(board).peak ?? UNKNOWN_PEAK;
  if (pole.kind !== 'rail') return input;
  const own = printedOutputs(board).find((o) => [o.rail, o.return].some((n) => n !== null && pole.nets.has(netKey(n))));
  return own?.peak ?? input;
}

/** The peak of 264 V mains. */
const UNKNOWN_PEAK = Math.SQRT2 * 264;

/** Whether a part burns open under a short: a fuse, an inrush limiter, a rectifier, a small resistor. */
function burns(part: Part): boolean {
  return (
    isFuse(part) ||
    part.kind === 'ntc' ||
    part.kind === 'diode' ||
    (part.kind === 'resistor' && part.value <= SENSE_OHMS)
  );
}

/** For each net of a pole the parts without which nothing joins it to the pole's first net, as far as they may burn open. */
function burntBefore(board: Board, pole: EnergyPole): ReadonlyMap<string, readonly string[]> {
  const joins = board.parts.filter((p) => {
    const [x, y] = throughNets(p);
    if (!p.fitted || x === undefined || y === undefined || !pole.nets.has(x) || !pole.nets.has(y)) return false;
    return passes(p) || p.kind === 'diode';
  });
  const ends = (p: Part): string => throughNets(p).toSorted().join('\n');
  const groups = new Map<string, Part[]>();
  for (const p of joins) groups.set(ends(p), [...(groups.get(ends(p)) ?? []), p]);
  const before = new Map<string, string[]>();
  for (const [key, group] of groups) {
    if (!group.every(burns)) continue;
    const reached = new Set([pole.seed]);
    for (let grown = true; grown;) {
      grown = false;
      for (const p of joins) {
        const [x, y] = throughNets(p) as [string, string];
        if (ends(p) === key || reached.has(x) === reached.has(y)) continue;
        reached.add(x).add(y);
        grown = true;
      }
    }
    for (const net of pole.nets)
      if (!reached.has(net)) before.set(net, [...(before.get(net) ?? []), ...group.map((p) => p.ref)]);
  }
  return before;
}

/** Above this a resistor at a switch is no current sense. */
const SENSE_OHMS = 5;

/** The current-sense resistors at a switch that lies between two nets: shorted, it takes them along. */
function sensedBy(board: Board, a: string, b: string): readonly string[] {
  const isSwitch = board.parts.some((p) => {
    const ends = p.fitted ? switchedNets(p) : null;
    return ends !== null && ends.includes(a) && ends.includes(b);
  });
  if (!isSwitch) return [];
  return board.parts.flatMap((p) =>
    p.fitted &&
    p.kind === 'resistor' &&
    p.value <= SENSE_OHMS &&
    p.nets.some((n) => netKey(n) === a || netKey(n) === b) &&
    !p.nets.every((n) => netKey(n) === a || netKey(n) === b)
      ? [p.ref]
      : [],
  );
}

/** Diodes of one pole from a switched choke to a store: shorted, the switch shorts the store. */
function boosts(board: Board, pole: EnergyPole): readonly (readonly [string, string])[] {
  const on = (net: string, test: (p: Part) => boolean): boolean =>
    board.parts.some((p) => p.fitted && p.nets.some((n) => netKey(n) === net) && test(p));
  return board.parts.flatMap((p) => {
    const [a = '', k = ''] = p.nets.map(netKey);
    if (p.kind !== 'diode' || !p.fitted || !pole.nets.has(a) || !pole.nets.has(k)) return [];
    const switched = on(a, (x) => x.kind === 'inductor') && on(a, (x) => switchedNets(x)?.includes(a) ?? false);
    return switched && on(k, (x) => x.kind === 'capacitor' && x.value >= STORING_FARADS) ? [[a, k] as const] : [];
  });
}

/** Net pairs across which the barrier between the fed island and each other one is read. */
function barrierPairs(
  board: Board,
  poles: readonly EnergyPole[],
  islandOf: ReadonlyMap<string, number>,
): readonly (readonly [string, string])[] {
  const { islands } = recogniseStages(board);
  const fed = poles[0] && islandOf.get(poles[0].seed);
  if (fed === undefined) return [];
  const home = netKey(islands[fed]!.reference);
  const others = islands.flatMap((island, i) => (i === fed ? [] : [netKey(island.reference)]));
  const across = board.parts.flatMap((p) => {
    if (!p.fitted || (p.kind !== 'opto' && p.kind !== 'capacitor' && p.kind !== 'resistor')) return [];
    const nets = p.nets.map(netKey).filter((n) => islandOf.has(n));
    const near = nets.filter((n) => islandOf.get(n) === fed);
    return near.flatMap((a) => nets.flatMap((b) => (islandOf.get(b) === fed ? [] : [[a, b] as const])));
  });
  // A net of its own that only capacitors and a connector reach: the earth of a mains unit.
  const lone = board.parts.flatMap((p) =>
    p.kind === 'capacitor' && p.fitted && p.nets.some((n) => islandOf.get(netKey(n)) === fed)
      ? p.nets.map(netKey).filter((n) => !islandOf.has(n) && hasConnector(board, n))
      : [],
  );
  return [...[...new Set([...others, ...lone])].map((far) => [home, far] as const), ...across];
}

function hasConnector(board: Board, net: string): boolean {
  return board.parts.some((p) => p.kind === 'connector' && p.nets.some((n) => netKey(n) === net));
}
