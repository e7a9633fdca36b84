import type { Board } from '../circuit';
import { diodeClass, farEnd } from './partGraph';
import type { Branch, PartGraph } from './partGraph';

/** A transistor by its three nets, the same way for every type: current runs from `high` to `low`, `control` steers it. */
export interface Transistor {
  readonly branch: Branch;
  readonly high: string;
  readonly low: string;
  readonly control: string;
  readonly type: 'NPN' | 'PNP' | 'NMOS' | 'PMOS';
  /** What only senses its current: shunts and primaries of current transformers that `high` and `low` lie beyond. */
  readonly sensedBy: readonly Branch[];
}

/** All transistors of a board. */
export function findTransistors(graph: PartGraph): readonly Transistor[] {
  return graph.all('mosfet', 'bjt').map((branch) => {
    const part = branch.parts[0]!;
    const [first = '', control = '', third = ''] = branch.nets;
    const type = transistorType(graph.board, part);
    const reversed = type === 'PNP' || type === 'PMOS';
    return { branch, control, type, high: reversed ? third : first, low: reversed ? first : third, sensedBy: [] };
  });
}

function transistorType(board: Board, part: Branch['parts'][number]): Transistor['type'] {
  const fallback = part.kind === 'bjt' ? 'NPN' : 'NMOS';
  const type =
    part.kind === 'bjt' || part.kind === 'mosfet' ? board.models.get(part.model.toLowerCase())?.type : undefined;
  return type === undefined || type === 'D' ? fallback : type;
}

/** Series parts of a shunt or link: nets this close to a reference count as ground. */
const SHUNT_OHMS = 5;

/** A transistor with its ends beyond what only senses its current. Shunts to ground stay: their net counts as ground. */
export function beyondSense(
  graph: PartGraph,
  grounds: ReadonlySet<string>,
  sensing: ReadonlySet<Branch>,
  t: Transistor,
): Transistor {
  const sensedBy: Branch[] = [];
  const beyond = (net: string): string => {
    if (grounds.has(net)) return net;
    const pins = graph.on(net).flatMap((p) => (sensedBy.includes(p.branch) ? [] : [p.branch]));
    const ways = pins.filter((b) => senses(b, sensing));
    const [way] = ways;
    if (!way || ways.length > 1 || farEnd(way, net) === net) return net;
    const carries = pins.some((b) => b !== way && b !== t.branch && !SIGNAL_KINDS.has(b.kind) && !isTwin(b, t));
    if (carries) return net;
    sensedBy.push(way);
    const far = farEnd(way, net);
    return way.kind === 'inductor' && sensedBy.length < 4 ? beyond(far) : far;
  };
  const [high, low] = [beyond(t.high), beyond(t.low)];
  return { ...t, high, low, sensedBy };
}

const SIGNAL_KINDS: ReadonlySet<string> = new Set(['resistor', 'capacitor', 'ic', 'opto']);

/** A turn or a bead in a conductor, henry. */
const BEAD_HENRIES = 3e-6;

function senses(branch: Branch, sensing: ReadonlySet<Branch>): boolean {
  if (branch.kind === 'inductor') return sensing.has(branch) || branch.value! <= BEAD_HENRIES;
  return branch.kind === 'resistor' && branch.value! <= SHUNT_OHMS;
}

/** A transistor in parallel to another. */
function isTwin(branch: Branch, t: Transistor): boolean {
  return branch.kind === t.branch.kind && branch.nets[0] === t.branch.nets[0] && branch.nets[2] === t.branch.nets[2];
}

/** Nets that a shunt or link joins to one of the given references, these included. */
export function groundNets(graph: PartGraph, references: readonly string[]): ReadonlySet<string> {
  const seen = new Set(references);
  const queue = [...references];
  for (let net = queue.pop(); net !== undefined; net = queue.pop()) {
    for (const { branch } of graph.on(net, 'resistor')) {
      const next = farEnd(branch, net);
      if (branch.value! > SHUNT_OHMS || seen.has(next)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return seen;
}

/** Resistors that pass a drive signal on; above it they only bias. */
const DRIVE_OHMS = 3300;

/** What drives a transistor: the branches between its control pin and the source of the drive, and where they end. */
export interface DrivePath {
  readonly branches: readonly Branch[];
  readonly nets: ReadonlySet<string>;
  /** Branches that only bias: from the control pin to the low side, or high-ohm. */
  readonly bias: readonly Branch[];
}

/**
 * Follows the drive back from the control pin through resistors, capacitors, diodes, follower transistors, stopping
 * at rails, grounds and at the transistor's own power pins.
 */
export function drivePath(
  graph: PartGraph,
  transistor: Transistor,
  transistors: readonly Transistor[],
  stops: (net: string) => boolean,
): DrivePath {
  const nets = new Set([transistor.control]);
  const branches = new Set<Branch>();
  const bias = new Set<Branch>();
  const queue = [transistor.control];
  const halts = (net: string): boolean => stops(net) || net === transistor.high || net === transistor.low;
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch } of graph.on(net, 'resistor', 'capacitor', 'diode')) {
      const next = farEnd(branch, net);
      if (nets.has(next)) {
        branches.add(branch);
        continue;
      }
      const biases = halts(next) || (branch.kind === 'resistor' && branch.value! > DRIVE_OHMS);
      const clamps = branch.kind === 'diode' && diodeClass(graph.board, branch) === 'zener';
      if (biases || clamps) {
        if (halts(next)) bias.add(branch);
        continue;
      }
      branches.add(branch);
      nets.add(next);
      queue.push(next);
    }
    for (const { branch, pin } of graph.on(net, 'opto')) {
      // An opto's transistor as a follower: what works its LED is the drive.
      if (pin !== 3 || branches.has(branch)) continue;
      branches.add(branch);
      for (const led of branch.nets.slice(0, 2)) {
        if (halts(led) || nets.has(led)) continue;
        nets.add(led);
        queue.push(led);
      }
    }
    for (const follower of transistors) {
      if (follower.branch === transistor.branch) continue;
      const emitter = follower.branch.kind === 'bjt' ? follower.branch.nets[2] : undefined;
      if (emitter !== net || stops(net)) continue;
      branches.add(follower.branch);
      if (!nets.has(follower.control)) {
        nets.add(follower.control);
        queue.push(follower.control);
      }
    }
  }
  return { branches: [...branches], nets, bias: [...bias] };
}
