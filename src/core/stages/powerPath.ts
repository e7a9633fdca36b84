import { boardNets, netKey } from '../circuit';
import type { Board, Part } from '../circuit';
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
}

/** Up to this many ohm a resistor passes a short-circuit current on. */
const PASSING_OHMS = 100;
/** A fault of at most this many ohm counts as a short. */
const SHORT_LIMIT_OHMS = 100;

/** Finds the poles of a board's supply path, from its nameplate where it has one, else from its inlet connector. */
export function findPowerPath(board: Board): PowerPath {
  const inlets = inletNets(board);
  const input: ReadonlySet<string>[] = [];
  for (const inlet of inlets) {
    const a = reach(board, inlet.rail, inlet.alternating ? 'lines' : 'forward');
    const b = reach(board, inlet.return, 'lines');
    const { plus, minus } = inlet.alternating ? rectified(board, a, b) : { plus: null, minus: null };
    input.push(a, b);
    if (plus !== null) input.push(reach(board, plus, 'forward'));
    if (minus !== null) input.push(reach(board, minus, 'lines'));
  }
  const outputs = outputNets(board).map(
    (o) => [reach(board, o.rail, 'lines'), reach(board, o.return, 'lines')] as const,
  );
  return { input, outputs };
}

interface Inlet {
  readonly rail: string;
  readonly return: string;
  readonly alternating: boolean;
}

function inletNets(board: Board): readonly Inlet[] {
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

function outputNets(board: Board): readonly { readonly rail: string; readonly return: string }[] {
  return (board.nameplate?.outputs ?? []).flatMap((o) =>
    o.rail !== undefined && o.return !== undefined ? [{ rail: o.rail, return: o.return }] : [],
  );
}

/** A fuse, or a resistor marked as one. */
export function isFuse(part: Part): boolean {
  return part.kind === 'fuse' || (part.kind === 'resistor' && part.keys.some((k) => k.key.toLowerCase() === 'fusible'));
}

/** Nets reached from one by parts that pass a short-circuit current; `forward` also through diodes, anode to cathode. */
function reach(board: Board, from: string, how: 'lines' | 'forward'): ReadonlySet<string> {
  const reached = new Set([netKey(from)]);
  for (let grown = true; grown;) {
    grown = false;
    for (const part of board.parts) {
      if (!part.fitted) continue;
      const [a, b] = part.nets.map(netKey);
      if (a === undefined || b === undefined) continue;
      const pairs = part.kind === 'relay' ? [[netKey(part.nets[2]!), netKey(part.nets[3]!)]] : [[a, b]];
      for (const [x = '', y = ''] of pairs) {
        if (reached.has(x) === reached.has(y)) continue;
        if (passes(part) || (how === 'forward' && part.kind === 'diode' && reached.has(x))) {
          reached.add(x);
          reached.add(y);
          grown = true;
        }
      }
    }
  }
  return reached;
}

function passes(part: Part): boolean {
  if (part.kind === 'inductor' || part.kind === 'fuse' || part.kind === 'switch' || part.kind === 'relay') return true;
  if (part.kind === 'ntc') return (part.numbers['r25'] ?? 0) <= PASSING_OHMS;
  return part.kind === 'resistor' && part.value <= PASSING_OHMS;
}

/** Plus and minus of the rectifier between two alternating poles, block bridge or four diodes. */
function rectified(
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
