import { boardNets, netKey } from '../circuit';
import type { Board } from '../circuit';
import { partFigure, isFuse } from '../part';
import type { Part } from '../part';
import type { Fault } from '../fault';
import { pinIndex } from '../circuit';

/**
 * Nets that carry the supply's full current, by pole: the two inlet poles, plus and minus behind the rectifier,
 * and rail and return of each output. A low-ohm fault that joins two different poles is a short in that path.
 *
 * Keys are lower-case net names.
 */
export interface PowerPath {
  readonly input: readonly ReadonlySet<string>[];
  readonly outputs: readonly (readonly [ReadonlySet<string>, ReadonlySet<string>])[];
  /** Plus and minus right behind each rectifier of an inlet, as keys; null where it is not traced. */
  readonly buses: readonly { readonly plus: string | null; readonly minus: string | null }[];
}

/** Up to this many ohm a resistor passes a short-circuit current on. */
const PASSING_OHMS = 100;
/** A fault of at most this many ohm counts as a short. */
const SHORT_LIMIT_OHMS = 100;

/** Finds the poles of a board's supply path, from its nameplate where it has one, else from its inlet connector. */
export function findPowerPath(board: Board): PowerPath {
  const inlets = inletNets(board);
  const input: ReadonlySet<string>[] = [];
  const buses: PowerPath['buses'][number][] = [];
  for (const inlet of inlets) {
    const seeds = [
      { net: inlet.rail, forward: !inlet.alternating },
      { net: inlet.return, forward: false },
    ];
    const [a = NOWHERE, b = NOWHERE] = spread(board, seeds, []);
    input.push(a, b);
    if (!inlet.alternating) continue;
    const bus = rectified(board, a, b);
    const { plus, minus } = bus;
    buses.push(bus);
    const behind = [
      ...(plus === null ? [] : [{ net: plus, forward: true }]),
      ...(minus === null ? [] : [{ net: minus, forward: false }]),
    ];
    input.push(...spread(board, behind, [a, b]));
  }
  const outputs = outputNets(board).map((o) => {
    const seeds = [o.rail, o.return].map((net) => ({ net, forward: false }));
    const [rail = NOWHERE, back = NOWHERE] = spread(board, seeds, []);
    return [rail, back] as const;
  });
  return { input, outputs, buses };
}

/** Where a pole begins to grow; `forward`: through diodes too, anode to cathode. */
export interface PoleSeed {
  readonly net: string;
  readonly forward: boolean;
}

interface Inlet {
  readonly rail: string;
  readonly return: string;
  readonly alternating: boolean;
}

/** Where energy comes in: by the nameplate, else connectors behind a fuse. */
export function inletNets(board: Board): readonly Inlet[] {
  const plate = board.nameplate;
  const found: Inlet[] = [];
  if (plate?.inputRail !== undefined && plate.inputReturn !== undefined) {
    found.push({ rail: plate.inputRail, return: plate.inputReturn, alternating: plate.source === 'mains' });
  }
  for (const aux of plate?.auxInputs ?? []) found.push({ rail: aux.rail, return: aux.return, alternating: false });
  if (found.length > 0) return found;
  // No nameplate: a connector with a fuse (or fusible resistor) on its first net is an inlet.
  for (const part of board.parts) {
    const [first, second] = part.nets;
    if (part.kind !== 'connector' || first === undefined || second === undefined) continue;
    const fused = board.parts.some((p) => isFuse(p) && p.nets.some((n) => netKey(n) === netKey(first)));
    if (fused) found.push({ rail: first, return: second, alternating: hasRectifier(board) });
  }
  return found;
}

function hasRectifier(board: Board): boolean {
  return board.parts.some((p) => p.kind === 'bridge' || p.kind === 'mov');
}

/** Rail and return of each output of the nameplate. */
export function outputNets(board: Board): readonly { readonly rail: string; readonly return: string }[] {
  return (board.nameplate?.outputs ?? []).flatMap((o) =>
    o.rail !== undefined && o.return !== undefined ? [{ rail: o.rail, return: o.return }] : [],
  );
}

export const NOWHERE: ReadonlySet<string> = new Set();

/**
 * Lets poles grow from their first nets over the parts that pass a short-circuit current; `forward` also through
 * diodes, anode to cathode. A net belongs to the pole that comes first: a winding or a filter between two poles joins
 * neither to the other. Windings come after everything else, so that one straight across the line has poles at both
 * of its ends. `taken` nets are left alone.
 */
export function spread(
  board: Board,
  seeds: readonly PoleSeed[],
  taken: readonly ReadonlySet<string>[],
): readonly ReadonlySet<string>[] {
  const poleOf = new Map<string, number>();
  for (const pole of taken) for (const net of pole) poleOf.set(net, -1);
  seeds.forEach(({ net }, i) => poleOf.set(netKey(net), i));
  const grow = (windings: boolean): boolean => {
    for (const part of board.parts) {
      if (!part.fitted || (part.kind === 'inductor') !== windings) continue;
      const [x, y] = throughNets(part);
      if (x === undefined || y === undefined || poleOf.has(x) === poleOf.has(y)) continue;
      const [known, open] = poleOf.has(x) ? [x, y] : [y, x];
      const pole = poleOf.get(known)!;
      if (pole < 0 || !(passes(part) || (part.kind === 'diode' && known === x && seeds[pole]!.forward))) continue;
      poleOf.set(open, pole);
      return true;
    }
    return false;
  };
  while (grow(false) || grow(true));
  return seeds.map((_, i) => new Set([...poleOf].flatMap(([net, pole]) => (pole === i ? [net] : []))));
}

/** The two nets between which a part may pass a large current: the contact of a relay, else the first two pins. */
export function throughNets(part: Part): readonly (string | undefined)[] {
  const [a, b] = part.kind === 'relay' ? part.nets.slice(2) : part.nets;
  return [a, b].map((net) => (net === undefined ? undefined : netKey(net)));
}

export function passes(part: Part): boolean {
  if (part.kind === 'inductor' || part.kind === 'fuse' || part.kind === 'switch' || part.kind === 'relay') return true;
  if (part.kind === 'ntc') return (partFigure(part, 'ohmsAt25') ?? 0) <= PASSING_OHMS;
  return part.kind === 'resistor' && part.value <= PASSING_OHMS;
}

/** Plus and minus of the rectifier between two alternating poles, block bridge or four diodes. */
export function rectified(
  board: Board,
  a: ReadonlySet<string>,
  b: ReadonlySet<string>,
): { readonly plus: string | null; readonly minus: string | null } {
  const cathodes: [string, string][] = [];
  for (const part of board.parts) {
    if (part.kind === 'bridge') {
      const [ac1 = '', ac2 = '', plus = '', minus = ''] = part.nets.map(netKey);
      cathodes.push([ac1, plus], [ac2, plus], [minus, ac1], [minus, ac2]);
    }
    if (part.kind === 'diode') cathodes.push([netKey(part.nets[0]!), netKey(part.nets[1]!)]);
  }
  const nets = boardNets(board).map(netKey);
  const outside = (net: string): boolean => !a.has(net) && !b.has(net);
  const plus = nets.find(
    (n) =>
      outside(n) && cathodes.some(([x, k]) => k === n && a.has(x)) && cathodes.some(([x, k]) => k === n && b.has(x)),
  );
  const minus = nets.find(
    (n) =>
      outside(n) && cathodes.some(([x, k]) => x === n && a.has(k)) && cathodes.some(([x, k]) => x === n && b.has(k)),
  );
  return { plus: plus ?? null, minus: minus ?? null };
}

/** Pole number of a net in the input path, or -1. */
export function inputPole(path: PowerPath, net: string): number {
  return path.input.findIndex((pole) => pole.has(netKey(net)));
}

/** Net pairs that a fault joins with next to no resistance. */
function joinedPairs(board: Board, part: Part, fault: Fault): readonly (readonly [string, string])[] {
  if (fault.kind !== 'short' && !(fault.kind === 'leak' && fault.ohms <= SHORT_LIMIT_OHMS)) return [];
  const nets = fault.pins ? fault.pins.map((p) => part.nets[pinIndex(board, part, p)] ?? '') : part.nets;
  return nets.flatMap((x, i) => nets.slice(i + 1).map((y) => [x, y] as const));
}

/** Whether a fault is a short in the mains- or battery-fed path, or across an output rail. */
export function shortsPower(board: Board, path: PowerPath, part: Part, fault: Fault): 'input' | 'output' | null {
  for (const [x, y] of joinedPairs(board, part, fault)) {
    const [px, py] = [inputPole(path, x), inputPole(path, y)];
    if (px >= 0 && py >= 0 && px !== py) return 'input';
  }
  for (const [x, y] of joinedPairs(board, part, fault)) {
    for (const [rail, back] of path.outputs) {
      const crosses = (p: string, q: string): boolean => rail.has(netKey(p)) && back.has(netKey(q));
      if (crosses(x, y) || crosses(y, x)) return 'output';
    }
  }
  return null;
}
