import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { DisjointSets } from '../graph';
import { isFuse, isOpenSwitch, partFigure } from '../part';
import type { Part } from '../part';
import { anatomy } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';

const RAIL_FARADS = 90e-9;
/** A smaller capacitor holds a rail too where it stores as much as this, joule: high voltage takes little capacity. */
const RAIL_JOULES = 0.02;
/** Printed volts from which a rail is one of high voltage. */
const HIGH_VOLTS = 250;

/** Whether a net is kept steady, by a capacitor to ground or as a bridge's plus: a rail. */
export function isRail(a: Anatomy, net: string): boolean {
  if (a.rectifiers.some((r) => r.plus === net)) return true;
  // What alternates against ground is no rail, whatever lies across it.
  if (a.lines.some((l) => l.rectifier.branches.length === 0 && l.poles.some((p) => p.has(net)))) return false;
  if (railCapacitors(a, net).length > 0) return isFed(a, net);
  if (behindRectifier(a, net)) return true;
  return heldOn(a, net) !== null;
}

/** Whether nothing swings at a net: a ground or a rail. */
export function isSteady(a: Anatomy, net: string): boolean {
  return a.grounds.has(net) || isRail(a, net);
}

/** Whether only a choke, a fuse or an inrush limiter lies between a net that feeds a winding and a rectifier. */
function behindRectifier(a: Anatomy, net: string): boolean {
  if (a.grounds.has(net) || a.graph.on(net, 'mosfet', 'bjt', 'ic', 'diode').length > 0) return false;
  const coils = new Set(a.cores.flatMap((c) => c.windings));
  return a.graph.on(net, 'inductor', 'fuse', 'ntc', 'resistor').some(({ branch }) => {
    if (coils.has(branch) || (branch.kind === 'resistor' && branch.value! > 100)) return false;
    return (
      a.rectifiers.some((r) => r.plus === farEnd(branch, net)) &&
      a.graph.on(net, 'inductor').some((p) => coils.has(p.branch))
    );
  });
}

/** The rail that an output is held on, where its capacitor does not go to ground: an output above its own supply. */
export function heldOn(a: Anatomy, net: string): string | null {
  if (a.grounds.has(net)) return null;
  const rectified = a.graph.on(net, 'diode').some((p) => p.pin === 1 && isPlain(a, p.branch));
  if (!rectified) return null;
  const stores = a.graph.on(net, 'capacitor').filter((p) => p.branch.value! >= RAIL_FARADS);
  const ends = stores.map((p) => farEnd(p.branch, net));
  return ends.find((n) => railCapacitors(a, n).length > 0 || a.rectifiers.some((r) => r.plus === n)) ?? null;
}

const isPlain = (a: Anatomy, diode: Branch): boolean => !['led', 'zener'].includes(diodeClass(a.board, diode));

/** Whether a capacitor is large enough, for its voltage, to hold a rail. */
function holds(c: Branch): boolean {
  const volts = Math.max(0, ...c.parts.map((p) => partFigure(p, 'ratedVolts') ?? 0));
  return c.value! >= RAIL_FARADS || (c.value! * volts ** 2) / 2 >= RAIL_JOULES;
}

const FEED_OHMS = 330;
const HIGH_FEED_OHMS = 1000;
const STORE_FARADS = 4.7e-6;

/** Up to how many ohm a resistor feeds a rail: more where its volts are high. */
function feedOhms(a: Anatomy, net: string): number {
  const volts = railCapacitors(a, net).flatMap((c) => c.parts.map((p) => partFigure(p, 'ratedVolts') ?? 0));
  return Math.max(0, ...volts) >= HIGH_VOLTS ? HIGH_FEED_OHMS : FEED_OHMS;
}

/** Whether something that carries power leads to a net: a signal behind its filter resistor is no rail. */
function isFed(a: Anatomy, net: string): boolean {
  return a.graph.on(net).some(({ branch, pin }) => {
    switch (branch.kind) {
      case 'diode':
        // A negative rail's rectifier points to the winding.
        return isPlain(a, branch) && (pin === 1 || a.graph.on(branch.nets[1]!, 'inductor').length > 0);
      case 'ic':
        return branch.nets.length >= 3 && !isDivided(a, net);
      case 'resistor':
        return branch.value! <= feedOhms(a, net) && !a.grounds.has(farEnd(branch, net));
      case 'relay':
        return pin >= 2;
      case 'capacitor': {
        // The midpoint of two storage capacitors in series.
        const far = farEnd(branch, net);
        return branch.value! >= 1e-6 && a.rectifiers.some((r) => r.plus === far);
      }
      case 'connector':
        return railCapacitors(a, net).some((c) => c.value! >= STORE_FARADS);
      case 'inductor':
      case 'bridge':
      case 'regulator':
      case 'fuse':
      case 'switch':
        return true;
      default:
        return false;
    }
  });
}

/** Whether a resistor to ground and another one from elsewhere make the volts of a net: a signal, however well held. */
export function isDivided(a: Anatomy, net: string): boolean {
  const ends = a.graph.on(net, 'resistor').map((p) => farEnd(p.branch, net));
  return ends.some((n) => a.grounds.has(n)) && ends.some((n) => !a.grounds.has(n));
}

/** A rail that an IC makes and nothing else feeds: a reference. */
export function isReference(a: Anatomy, net: string): boolean {
  const pins = a.graph.on(net);
  const ics = pins.filter((p) => p.branch.kind === 'ic').map((p) => p.branch);
  const fed = pins.some(({ branch, pin }) => {
    if (branch.kind === 'diode') return pin === 1 && !ics.some((ic) => ic.nets.includes(branch.nets[0]!));
    return ['inductor', 'bridge', 'regulator', 'fuse', 'relay', 'switch', 'mosfet', 'bjt'].includes(branch.kind);
  });
  return ics.length > 0 && !fed;
}

/** Capacitors from a net to a ground that hold it: of 0.1 µF and more, or of high voltage. */
export function railCapacitors(a: Anatomy, net: string): readonly Branch[] {
  if (a.grounds.has(net)) return [];
  return a.graph
    .on(net, 'capacitor')
    .map((p) => p.branch)
    .filter((c) => holds(c) && a.grounds.has(farEnd(c, net)));
}

/**
 * A part that joins two nets into one rail while it is in order; keys of its nets.
 *
 * burnsOpen  whether a short on the rail may burn it open: then nothing proves any more that its ends stand alike.
 */
export interface RailJoint {
  readonly ref: string;
  readonly kind: 'fuse' | 'contact' | 'inrush' | 'choke' | 'shunt';
  readonly nets: readonly [string, string];
  readonly burnsOpen: boolean;
}

/**
 * What a rail is asked for. `work`: which nets stand at one voltage while every joint is in order. `burnt`: which do so
 * whatever a fault has burnt open.
 */
export type RailPurpose = 'work' | 'burnt';

/** Shunts and links up to this drop next to nothing, ohm. */
const JOINT_OHMS = 1;
/** An inrush limiter is not more than this when cold, ohm; warm it is a tenth. */
const INRUSH_OHMS = 100;

/** Which nets of a board are one rail, through which parts. Nets go in as written or as keys, and come out as keys. */
export class Rails {
  readonly joints: readonly RailJoint[];
  private readonly numbers = new Map<string, number>();
  private readonly sets: Readonly<Record<RailPurpose, DisjointSets>>;
  private readonly coupled: ReadonlySet<string>;

  constructor(private readonly a: Anatomy) {
    for (const part of a.board.parts) for (const net of part.nets.map(netKey)) this.numberOf(net);
    this.coupled = new Set(a.board.couplings.flatMap((k) => [k.first.toLowerCase(), k.second.toLowerCase()]));
    const { coupled } = this;
    const quiet = new Set([...this.numbers.keys()].filter((net) => this.isQuiet(net)));
    this.joints = a.board.parts.flatMap((part): readonly RailJoint[] => {
      const kind = part.fitted ? jointKind(part, coupled) : null;
      if (kind === null) return [];
      const [x, y] = (part.kind === 'relay' ? part.nets.slice(2) : part.nets).map(netKey) as [string, string];
      if (x === 'nc' || y === 'nc' || x === y) return [];
      const steady = kind === 'choke' || kind === 'shunt' ? quiet.has(x) && quiet.has(y) : true;
      return steady ? [{ ref: part.ref, kind, nets: [x, y], burnsOpen: kind !== 'choke' && kind !== 'contact' }] : [];
    });
    const sets = (joints: readonly RailJoint[]): DisjointSets => {
      const made = new DisjointSets(this.numbers.size);
      for (const { nets } of joints) made.union(this.numbers.get(nets[0])!, this.numbers.get(nets[1])!);
      return made;
    };
    this.sets = { work: sets(this.joints), burnt: sets(this.joints.filter((j) => !j.burnsOpen)) };
  }

  /** The nets of a rail; a net that is on no rail is one of its own. */
  at(net: string, purpose: RailPurpose = 'work'): ReadonlySet<string> {
    const number = this.numbers.get(netKey(net));
    if (number === undefined || netKey(net) === 'nc') return new Set([netKey(net)]);
    const sets = this.sets[purpose];
    return new Set([...this.numbers].flatMap(([key, i]) => (key !== 'nc' && sets.joined(i, number) ? [key] : [])));
  }

  /** Whether two nets are one rail. */
  same(a: string, b: string, purpose: RailPurpose = 'work'): boolean {
    const [x, y] = [this.numbers.get(netKey(a)), this.numbers.get(netKey(b))];
    if (netKey(a) === netKey(b)) return netKey(a) !== 'nc';
    return x !== undefined && y !== undefined && this.sets[purpose].joined(x, y);
  }

  /** Parts that join the nets of a rail. */
  jointsAt(net: string): readonly RailJoint[] {
    return this.joints.filter((j) => this.same(j.nets[0], net));
  }

  /** Farads of the fitted capacitors between two nets. */
  farads(net: string, back: string): number {
    const [a, b] = [netKey(net), netKey(back)];
    return this.a.board.parts.reduce((sum, p) => {
      if (p.kind !== 'capacitor' || !p.fitted) return sum;
      const keys = p.nets.map(netKey);
      return keys.includes(a) && keys.includes(b) ? sum + p.value : sum;
    }, 0);
  }

  /** The rail at the far end of a resistor on this net: of several the one with most capacitance to the return. */
  above(net: string, back: string): string | null {
    const ends = this.a.board.parts
      .filter((p) => p.kind === 'resistor' && p.fitted && p.nets.some((n) => netKey(n) === netKey(net)))
      .map((p) => p.nets.find((n) => netKey(n) !== netKey(net)) ?? net)
      .filter((n) => netKey(n) !== netKey(back) && netKey(n) !== netKey(net));
    const best = [...ends].sort((x, y) => this.farads(y, back) - this.farads(x, back))[0];
    return best !== undefined && this.farads(best, back) > 0 ? best : null;
  }

  /** Whether a net is kept steady by a capacitor, is a reference, or has nothing on it that switches. */
  private isQuiet(net: string): boolean {
    if (net === 'nc') return false;
    return (
      this.a.grounds.has(net) ||
      railCapacitors(this.a, net).length > 0 ||
      !this.a.graph.on(net).some((p) => switches(p.branch, this.coupled))
    );
  }

  private numberOf(net: string): number {
    const known = this.numbers.get(net);
    if (known !== undefined) return known;
    this.numbers.set(net, this.numbers.size);
    return this.numbers.size - 1;
  }
}

const STILL_KINDS: ReadonlySet<string> = new Set([
  'resistor',
  'capacitor',
  'connector',
  'fuse',
  'switch',
  'mov',
  'ntc',
  'lamp',
]);

function switches(branch: Branch, coupled: ReadonlySet<string>): boolean {
  if (branch.kind === 'inductor') return branch.parts.some((p) => coupled.has(p.ref.toLowerCase()));
  return !STILL_KINDS.has(branch.kind);
}

function jointKind(part: Part, coupled: ReadonlySet<string>): RailJoint['kind'] | null {
  if (isFuse(part)) return 'fuse';
  switch (part.kind) {
    case 'switch':
      return isOpenSwitch(part) ? null : 'contact';
    case 'ntc':
      return (partFigure(part, 'ohmsAt25') ?? Infinity) <= INRUSH_OHMS ? 'inrush' : null;
    case 'inductor':
      return coupled.has(part.ref.toLowerCase()) ? null : 'choke';
    case 'resistor':
      return part.value <= JOINT_OHMS ? 'shunt' : null;
    default:
      return null;
  }
}

/** The rails of a board; a board never changes, so they are kept as long as it is. */
export function rails(board: Board): Rails {
  const known = railsOf.get(board);
  if (known) return known;
  const made = new Rails(anatomy(board));
  railsOf.set(board, made);
  return made;
}

const railsOf = new WeakMap<Board, Rails>();
