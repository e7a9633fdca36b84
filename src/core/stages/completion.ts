import { netKey } from '../circuit';
import type { Board, Coupling } from '../circuit';
import type { Part } from '../part';
import { controllersOf, inductorsAt } from './anatomy';
import type { Anatomy } from './anatomy';
import type { PowerSwitches } from './cells';
import { diodesAt } from './cells';
import type { Converter } from './converter';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, railCapacitors } from './rails';
import { railVolts } from './icSupply';
import type { Core } from './shapes';
import type { Transistor } from './transistors';
import { SUPPOSED, isSupposed } from './supposed';

/** A part that a board must have and that nobody has traced yet: what stands around its place says so. */
export interface Supposed {
  readonly part: Part;
  readonly couplings: readonly Coupling[];
  /** What is missing and where, as a sentence of its own. */
  readonly words: string;
}

/** What completion looks at. */
export interface Half {
  readonly a: Anatomy;
  readonly switches: PowerSwitches;
  readonly converters: readonly Converter[];
}

/** A board with a supposed part. */
export function withSupposed(board: Board, { part, couplings }: Supposed): Board {
  return { ...board, parts: [...board.parts, part], couplings: [...board.couplings, ...couplings] };
}

/**
 * The part that a half-traced board most surely lacks, or null where nothing asks for one: a gate with no transistor, a
 * leg with one switch, a winding or choke that nothing works on, a switch that works on nothing.
 */
export function supposeMissing(half: Half): Supposed | null {
  for (const rule of [
    openUpper,
    openGate,
    halfLeg,
    splitSwitches,
    nodeWithoutChoke,
    switchWithoutCoil,
    idlePrimary,
    idleChoke,
    coilWithoutRectifier,
  ])
    for (const found of rule(half)) if (found) return found;
  return null;
}

type Rule = (half: Half) => readonly (Supposed | null)[];

/** Resistors that carry a drive to a gate, ohm. */
const DRIVE_OHMS = 330;

/** A net with a drive, a resistor or clamp that holds it down, and no transistor that it steers. */
interface OpenGate {
  readonly gate: string;
  readonly low: string;
}

function openGates({ a, switches }: Half): readonly OpenGate[] {
  const controls = new Set(a.transistors.map((t) => t.control));
  const drivers = new Set(switches.driveCores.flatMap((c) => c.windings.flatMap((w) => w.nets)));
  const found = new Map<string, OpenGate>();
  for (const start of new Set([...controllersOf(a).flatMap((ic) => ic.nets), ...drivers])) {
    if (a.grounds.has(start) || isRail(a, start)) continue;
    for (const { branch, pin } of a.graph.on(start, 'resistor', 'diode')) {
      if (branch.kind === 'diode' && pin !== 0) continue;
      const far = farEnd(branch, start);
      const onward = branch.kind === 'resistor' && branch.value! <= DRIVE_OHMS ? diodesAt(a, far, 'anode') : [];
      for (const gate of [gateBehind(a, branch, start), ...onward.map((d) => gateBehind(a, d, far))])
        if (gate && !controls.has(gate.gate)) found.set(gate.gate, gate);
    }
  }
  return [...found.values()];
}

/** A gate net between a small resistor from its drive and a larger one that holds it down. */
function gateBehind(a: Anatomy, branch: Branch, start: string): OpenGate | null {
  const [first, second] = branch.parts;
  const far = farEnd(branch, start);
  if (branch.kind === 'resistor' && branch.parts.length === 2 && first && second) {
    // With nothing else on it the net lies inside the chain.
    const values = branch.parts.map((p) => ('value' in p ? p.value : 0));
    const mid = first.nets.map(netKey).find((n) => second.nets.map(netKey).includes(n));
    const gate = Math.min(...values) <= DRIVE_OHMS && Math.max(...values) >= 1e3;
    return gate && mid !== undefined && mid !== start && mid !== far ? { gate: mid, low: far } : null;
  }
  if ((branch.value ?? 0) > DRIVE_OHMS || a.grounds.has(far) || isRail(a, far)) return null;
  if (a.graph.on(far, 'ic', 'inductor', 'opto', 'connector', 'capacitor', 'regulator', 'switch', 'fuse').length > 0)
    return null;
  const holds = a.graph.on(far, 'resistor').filter((p) => p.branch.value! >= 1e3 && p.branch !== branch);
  return holds.length === 1 ? { gate: far, low: farEnd(holds[0]!.branch, far) } : null;
}

const openGate: Rule = (half) => {
  const { a, switches } = half;
  return openGates(half).map(({ gate, low }) => {
    if (a.grounds.has(low)) {
      const tops = a.transistors.flatMap((t) =>
        switches.legs.some((l) => l.node === t.low) ? [] : lowerPlace(half, t),
      );
      const highs = [...new Set(tops.length > 0 ? tops : idleEnds(half))];
      const near = highs.filter((n) => sameIsland(a, n, low));
      const high = mostWorked(a, near);
      return high === null
        ? null
        : transistor(half, high, gate, senseEnd(a, low), `No transistor found yet at the gate net ${gate}.`);
    }
    const rail = !isRail(a, low) && (rides(half, low) || inductorsAt(a, low).length > 0) ? upperRail(half, low) : null;
    return rail === null
      ? null
      : transistor(half, rail, gate, low, `No upper transistor found yet at the gate net ${gate}.`);
  });
};

/** Where the partner of an upper switch works: at the same node, or at the far end of the winding that both work on. */
function lowerPlace(half: Half, t: Transistor): readonly string[] {
  const { a } = half;
  if (!isRail(a, t.high) || a.grounds.has(t.high) || a.grounds.has(t.low) || isRail(a, t.low)) return [];
  if (diodesAt(a, t.low, 'cathode').some((d) => a.grounds.has(d.nets[0]!))) {
    const drives = new Set(half.switches.driveCores.flatMap((c) => c.windings));
    const far = inductorsAt(a, t.low).flatMap((w) => (drives.has(w) ? [] : [farEnd(w, t.low)]));
    return far.filter((n) => idle(half, n) && diodesAt(a, n, 'anode').length > 0);
  }
  return rides(half, t.low) || inductorsAt(a, t.low).length > 0 ? [t.low] : [];
}

/** A node that a supply rides on, with one transistor of two and no diode that would do for the other. */
const halfLeg: Rule = (half) => {
  const { a, switches } = half;
  const inLegs = new Set(switches.legs.flatMap((l) => [...l.top, ...l.bottom]));
  return a.transistors.map((t) => {
    if (inLegs.has(t)) return null;
    const node = a.grounds.has(t.low) ? t.high : isRail(a, t.high) ? t.low : null;
    if (node === null || !rides(half, node)) return null;
    if (diodesAt(a, node, 'cathode').some((d) => a.grounds.has(d.nets[0]!))) return null;
    const lone = node === t.low && inductorsAt(a, node).some((l) => isRail(a, farEnd(l, node)));
    if (lone && !endsInAir(a, node)) {
      const ground = groundOf(a, node);
      return ground === null ? null : diode(half, ground, node, `No freewheel diode found yet at ${node}.`);
    }
    if (node === t.low) {
      const ground = switches.legs.find((l) => sameIsland(a, l.node, node))?.low ?? groundOf(a, node);
      return ground === null ? null : transistor(half, node, null, ground, `No lower transistor found yet at ${node}.`);
    }
    const rail = upperRail(half, node);
    return rail === null ? null : transistor(half, rail, null, node, `No upper transistor found yet at ${node}.`);
  });
};

/** Whether the controller that rides on a node has a pin whose track leads to nothing traced. */
function endsInAir(a: Anatomy, node: string): boolean {
  const own = controllersOf(a).filter((ic) => ic.nets.includes(node));
  const inAir = (n: string): boolean => {
    const [first, second, ...more] = a.graph.touching(n);
    const resistor = first?.kind === 'resistor' ? first : second;
    if (second === undefined) return !n.startsWith('nc ');
    return (
      more.length === 0 &&
      resistor?.kind === 'resistor' &&
      resistor.value! <= DRIVE_OHMS &&
      a.graph.touching(farEnd(resistor, n)).length === 1
    );
  };
  return own.some((ic) => ic.nets.some(inAir));
}

function groundOf(a: Anatomy, net: string): string | null {
  return a.islands.find((i) => i.nets.has(net))?.references[0] ?? null;
}

/** Whether a supply rides on a net: a capacitor to a point that a diode charges from a rail. */
function rides({ a }: Half, node: string): boolean {
  if (a.grounds.has(node) || isRail(a, node)) return false;
  return a.graph.on(node, 'capacitor').some(({ branch }) => {
    const top = farEnd(branch, node);
    return branch.value! >= 47e-9 && !a.grounds.has(top) && diodesAt(a, top, 'cathode').length > 0;
  });
}

/** A transformer with rectified windings on which nothing works. */
const idlePrimary: Rule = (half) => {
  const { a, converters, switches } = half;
  if (converters.length > 0 && switches.singles.length + switches.legs.length > 0) {
    const worked = converters.flatMap((c) => (c.core ? [c.core] : []));
    if (worked.length > 0 && idleCores(half).every((k) => lineFed(a, k))) return [];
  }
  return idleCores(half).map((core) => {
    const resets = (n: string): boolean => diodesAt(a, n, 'cathode').some((d) => a.grounds.has(d.nets[0]!));
    const ends = core.windings
      .flatMap((w) => w.nets)
      .filter((n) => idle(half, n) && steadyFar(a, core, n) && !resets(n));
    const high = mostWorked(a, [...new Set(ends)]);
    if (high === null || lineFed(a, core)) return null;
    const ground = a.islands.find((i) => i.nets.has(high))?.references[0];
    return ground === undefined
      ? null
      : transistor(half, high, null, senseEnd(a, ground), `No switch found yet at the winding end ${high}.`);
  });
};

/** Cores that no switch and no integrated circuit works on. */
function idleCores({ a, converters, switches }: Half): readonly Core[] {
  const used = new Set(converters.flatMap((c) => (c.core ? [c.core] : [])));
  return a.cores.filter((c) => c.purpose === 'transformer' && !used.has(c) && !switches.driveCores.includes(c));
}

/** A switching transformer has no winding of this many henry and more: fifty or sixty hertz need them. */
const LINE_HENRIES = 0.5;

function lineFed(a: Anatomy, core: Core): boolean {
  if (core.windings.some((w) => w.value! >= LINE_HENRIES)) return true;
  return a.lines.some((l) => core.windings.some((w) => w.nets.every((n) => l.poles.some((p) => p.has(n)))));
}

/** The far end of a winding is a direct-current supply. */
function steadyFar(a: Anatomy, core: Core, net: string): boolean {
  return core.windings.some((w) => w.nets.includes(net) && isRail(a, farEnd(w, net)) && !a.grounds.has(farEnd(w, net)));
}

/** A switch driven from ground whose upper end leads to no coil, and a core that no switch works on. */
const switchWithoutCoil: Rule = (half) => {
  const { a, converters } = half;
  const worked = new Set(converters.flatMap((c) => c.transistors));
  const gates = new Set(openDrives(half));
  const clamped = clampedPins(a);
  const free = a.transistors.filter(
    (t) =>
      !worked.has(t) &&
      (t.type === 'NPN' || t.type === 'NMOS') &&
      a.transistors.every((u) => u.control !== t.high) &&
      a.grounds.has(t.low) &&
      !a.grounds.has(t.high) &&
      !isRail(a, t.high) &&
      inductorsAt(a, t.high).length === 0 &&
      (gates.has(t.control) ||
        t.sensedBy.length > 0 ||
        a.currents.has(t.low) ||
        a.graph.on(t.control, 'inductor').length > 0) &&
      a.graph.on(t.high, 'connector', 'relay', 'opto').length === 0,
  );
  const cores = a.cores.filter((c) => c.purpose === 'transformer');
  const places = [
    ...free.map((t) => ({ node: t.high, near: t.low })),
    ...clamped.map((node) => ({ node, near: node })),
  ];
  return places.map(({ node, near }) => {
    const core = cores.find(
      (c) => !lineFed(a, c) && c.windings.some((w) => w.nets.some((n) => diodesAt(a, n, 'anode').length > 0)),
    );
    const twin = converters.find((c) => c.core === core);
    const supply = twin?.supply ?? supplyOf(a, near);
    if (!core || !supply) return null;
    const like = twin?.coils[0]?.value ?? Math.max(...core.windings.map((w) => w.value!));
    return winding(half, core, supply, node, like, `No winding found yet between ${node} and the supply.`);
  });
};

/** Pins of integrated switches by what clamps them: a diode to a resistor and a capacitor that hang on a rail, no winding. */
function clampedPins(a: Anatomy): readonly string[] {
  const nets = [...new Set(controllersOf(a).flatMap((ic) => ic.nets))].filter(
    (n) => !a.grounds.has(n) && !isRail(a, n),
  );
  return nets.filter(
    (n) =>
      inductorsAt(a, n).length === 0 &&
      diodesAt(a, n, 'anode').some((d) => {
        const held = a.graph.on(d.nets[1]!, 'resistor', 'capacitor').map((p) => p.branch);
        const rails = held.filter((b) => isRail(a, farEnd(b, d.nets[1]!)));
        return ['resistor', 'capacitor'].every((k) => rails.some((b) => b.kind === k));
      }),
  );
}

/** Gate nets that an integrated circuit drives. */
function openDrives({ a }: Half): readonly string[] {
  return controllersOf(a).flatMap((ic) =>
    ic.nets.flatMap((n) => [
      n,
      ...a.graph.on(n, 'resistor').flatMap((p) => (p.branch.value! <= DRIVE_OHMS ? [farEnd(p.branch, n)] : [])),
    ]),
  );
}

/** An upper and a lower switch, each node clamped to the other rail, and no winding between them. */
const splitSwitches: Rule = (half) => {
  const { a } = half;
  const bare = (n: string): boolean =>
    !a.grounds.has(n) && !isRail(a, n) && half.converters.every((c) => !c.nodes.includes(n));
  const tops = a.transistors.filter(
    (t) => isRail(a, t.high) && bare(t.low) && diodesAt(a, t.low, 'cathode').some((d) => a.grounds.has(d.nets[0]!)),
  );
  return tops.flatMap((top) =>
    a.transistors.map((t) => {
      const clamped =
        a.grounds.has(t.low) && bare(t.high) && diodesAt(a, t.high, 'anode').some((d) => d.nets[1] === top.high);
      if (!clamped || t.high === top.low) return null;
      return choke(half, top.low, t.high, `No winding found yet between ${top.low} and the supply.`, 3e-3);
    }),
  );
};

/** A switching node with its diode and no choke. */
const nodeWithoutChoke: Rule = (half) => {
  const { a, switches, converters } = half;
  const used = new Set(converters.flatMap((c) => c.nodes));
  const ics = controllersOf(a);
  const gates = new Set(openDrives(half));
  const nodes = [
    ...a.transistors.flatMap((t) => [t.high, t.low]),
    ...switches.legs.map((l) => l.node),
    ...ics.flatMap((ic) => ic.nets),
  ].filter((n) => !used.has(n) && !a.grounds.has(n) && !isRail(a, n) && inductorsAt(a, n).length === 0);
  return [...new Set(nodes)].map((node) => {
    const below = diodesAt(a, node, 'cathode').some((d) => a.grounds.has(d.nets[0]!));
    const onward = diodesAt(a, node, 'anode').find(
      (d) => isRail(a, d.nets[1]!) && railCapacitors(a, d.nets[1]!).some((c) => c.value! >= 1e-6),
    );
    const leg = switches.legs.some((l) => l.node === node);
    if ((below && rides(half, node)) || (leg && switches.legs.length === 1 && rides(half, node))) {
      const output = unfed(half, node)[0];
      return output === undefined ? null : choke(half, node, output, `No choke found yet at ${node}.`);
    }
    // A relay's transistor has such a diode too: a switch has its shunt or a driven gate.
    const sinks =
      a.transistors.some(
        (t) =>
          t.high === node &&
          a.grounds.has(t.low) &&
          (a.currents.has(t.low) || (t.branch.kind === 'mosfet' && gates.has(t.control))),
      ) ||
      (onward !== undefined && ics.some((ic) => ic.nets.includes(node)) && onlyFeed(a, onward));
    if (onward && sinks) {
      const supply = supplyOf(a, node, onward.nets[1]);
      return supply ? choke(half, supply, node, `No choke found yet at ${node}.`) : null;
    }
    return null;
  });
};

/** Whether a diode is all that feeds a rail. */
function onlyFeed(a: Anatomy, d: Branch): boolean {
  const rail = d.nets[1]!;
  const others = diodesAt(a, rail, 'cathode').filter((x) => x !== d);
  return (
    others.length === 0 && a.graph.on(rail, 'inductor', 'regulator', 'bridge', 'fuse', 'switch', 'relay').length === 0
  );
}

/** A switch whose upper end is in the air, above a winding or choke: a conductor or what senses its current. */
const openUpper: Rule = (half) => {
  const { a } = half;
  return a.transistors.map((t) => {
    const alone = !a.grounds.has(t.high) && a.graph.touching(t.high).length === 1;
    if (alone && a.grounds.has(t.low)) {
      const end = mostWorked(
        a,
        idleEnds(half).filter((n) => sameIsland(a, n, t.low) && diodesAt(a, n, 'cathode').length === 0),
      );
      return end === null ? null : { ...choke(half, end, t.high, `Nothing found yet above ${t.high}.`, 1e-6) };
    }
    if (!alone || inductorsAt(a, t.low).length === 0 || a.grounds.has(t.low) || isRail(a, t.low)) return null;
    const rail = supplyOf(a, t.low);
    return rail === null ? null : { ...choke(half, rail, t.high, `Nothing found yet above ${t.high}.`, 1e-6) };
  });
};

/** A choke from a supply with a diode onward and no switch. */
const idleChoke: Rule = (half) => {
  const { a } = half;
  const used = new Set(half.converters.flatMap((c) => c.core?.windings ?? c.coils));
  const aside = new Set([
    ...used,
    ...a.cores.flatMap((c) => (c.purpose === 'transformer' && !half.switches.driveCores.includes(c) ? [] : c.windings)),
  ]);
  return a.graph.all('inductor').flatMap((l) =>
    aside.has(l)
      ? []
      : l.nets.map((node) => {
          if (!idle(half, node) || !isRail(a, farEnd(l, node))) return null;
          const onward = diodesAt(a, node, 'anode').some((d) => isRail(a, d.nets[1]!) && d.nets[1] !== farEnd(l, node));
          const below = diodesAt(a, node, 'cathode').some((d) => a.grounds.has(d.nets[0]!));
          const ground = a.islands.find((i) => i.nets.has(node))?.references[0];
          if (onward && ground !== undefined)
            return transistor(half, node, null, senseEnd(a, ground), `No switch found yet at the choke end ${node}.`);
          const supply = below ? upperRail(half, node, farEnd(l, node)) : null;
          const higher = supply !== null && railVolts(a, supply) > 2 * railVolts(a, farEnd(l, node));
          if (!rides(half, node) && !higher) return null;
          return supply === null
            ? null
            : transistor(half, supply, null, node, `No switch found yet at the choke end ${node}.`);
        }),
  );
};

/** A switch to ground on a choke from a rail, and a higher rail that nothing charges. */
const coilWithoutRectifier: Rule = (half) => {
  const { a, converters } = half;
  return converters.flatMap((c) => {
    const [node] = c.nodes;
    if (c.topology !== 'unknown' || node === undefined || c.coils.length !== 1 || !isRail(a, farEnd(c.coils[0]!, node)))
      return [];
    const rings = a.graph.on(node, 'capacitor').some((p) => p.branch.value! >= 10e-9);
    const output = unfed(half, node).filter((n) => n !== c.supply)[0];
    if (rings || output === undefined || !c.transistors.every((t) => a.grounds.has(t.low))) return [];
    return [diode(half, node, output, `No rectifier found yet at ${node}.`)];
  });
};

/** Ends of windings and chokes that nothing works on. */
function idleEnds(half: Half): readonly string[] {
  const { a } = half;
  return [...new Set(a.graph.all('inductor').flatMap((l) => l.nets))].filter((n) => {
    const fed = inductorsAt(a, n).some((l) => isRail(a, farEnd(l, n)) && !a.grounds.has(farEnd(l, n)));
    return fed && idle(half, n);
  });
}

function idle({ a }: Half, net: string): boolean {
  if (a.grounds.has(net) || isRail(a, net) || a.lines.some((l) => l.poles.some((p) => p.has(net)))) return false;
  return a.graph.on(net, 'mosfet', 'bjt', 'ic', 'triac', 'connector', 'fuse', 'bridge', 'relay').length === 0;
}

function sameIsland(a: Anatomy, x: string, y: string): boolean {
  return a.islands.some((i) => i.nets.has(x) && i.nets.has(y));
}

/** The net with the most small parts that take spikes; null where there is none. */
function mostWorked(a: Anatomy, nets: readonly string[]): string | null {
  const worked = (n: string): number => a.graph.on(n, 'diode', 'resistor', 'capacitor').length;
  return [...nets].sort((x, y) => worked(y) - worked(x) || (x < y ? -1 : 1))[0] ?? null;
}

/** A shunt's upper end that no transistor stands on yet, or the ground itself. */
function senseEnd(a: Anatomy, ground: string): string {
  const ends = [...a.currents].filter((n) => a.grounds.has(n) && a.graph.on(n, 'mosfet', 'bjt').length === 0);
  const open = ends.filter(
    (n) => a.graph.between(n, ground, 'resistor').length > 0 && a.graph.on(n, 'connector').length === 0,
  );
  return open[0] ?? ground;
}

/** Rails of an island that nothing feeds yet. */
function unfed({ a, converters }: Half, near: string): readonly string[] {
  const made = new Set(converters.flatMap((c) => [...c.outputs, c.supply]));
  const nets = [...a.graph.nets.keys()].filter((n) => sameIsland(a, n, near) && !a.grounds.has(n) && !made.has(n));
  const stores = (n: string): number => Math.max(0, ...railCapacitors(a, n).map((c) => c.value!));
  const open = nets.filter((n) => {
    const kinds = new Set(a.graph.on(n).map((p) => p.branch.kind));
    const source = a.rectifiers.some((r) => r.plus === n) || kinds.has('fuse') || diodesAt(a, n, 'cathode').length > 0;
    return stores(n) >= 4.7e-6 && !kinds.has('inductor') && !source && !a.transistors.some((t) => t.high === n);
  });
  return open.sort((x, y) => stores(y) - stores(x) || (x < y ? -1 : 1));
}

/** The supply rail of an island: the one that stores most, by what is printed on its capacitors. */
function supplyOf(a: Anatomy, near: string, except = ''): string | null {
  const stored = (n: string): number =>
    railVolts(a, n) ** 2 * Math.max(0, ...railCapacitors(a, n).map((c) => c.value!));
  const rails = [...a.graph.nets.keys()].filter((n) => n !== except && sameIsland(a, n, near) && isRail(a, n));
  return rails.sort((x, y) => stored(y) - stored(x) || (x < y ? -1 : 1))[0] ?? null;
}

/** The rail above a node: that of another leg, the one that small parts at the node lead to, or the supply of its island. */
function upperRail({ a, switches }: Half, node: string, except = ''): string | null {
  const leg = switches.legs.find((l) => sameIsland(a, l.node, node));
  if (leg) return leg.rail;
  const beside = a.graph.on(node, 'capacitor', 'diode').map((p) => farEnd(p.branch, node));
  const near = beside.find((n) => isRail(a, n) && !a.grounds.has(n) && n !== except);
  return near ?? supplyOf(a, node, except);
}

const written = (a: Anatomy, key: string): string =>
  a.board.parts.flatMap((p) => p.nets).find((n) => netKey(n) === key) ?? key;

function ref(a: Anatomy): string {
  return `${SUPPOSED}${a.board.parts.filter((p) => isSupposed(p.ref)).length + 1}`;
}

const plain = { keys: [], numbers: {}, fitted: true, basis: 'assumed' } as const;

function transistor({ a }: Half, high: string, gate: string | null, low: string, words: string): Supposed {
  const name = ref(a);
  const nets = [written(a, high), gate === null ? `${name} gate` : written(a, gate), written(a, low)];
  return { part: { ...plain, kind: 'mosfet', ref: name, nets, model: name }, couplings: [], words: named(a, words) };
}

function diode({ a }: Half, x: string, y: string, words: string): Supposed {
  const name = ref(a);
  const nets = [written(a, x), written(a, y)];
  return { part: { ...plain, kind: 'diode', ref: name, nets, model: name }, couplings: [], words: named(a, words) };
}

function choke({ a }: Half, x: string, y: string, words: string, value = 47e-6): Supposed {
  const nets = [written(a, x), written(a, y)];
  return {
    part: { ...plain, kind: 'inductor', ref: ref(a), nets, value, valueText: String(value) },
    couplings: [],
    words: named(a, words),
  };
}

function winding({ a }: Half, core: Core, x: string, y: string, henries: number, words: string): Supposed {
  const name = ref(a);
  const nets = [written(a, x), written(a, y)];
  const first = (core.windings[0] as Branch).parts[0]!.ref;
  return {
    part: { ...plain, kind: 'inductor', ref: name, nets, value: henries, valueText: String(henries) },
    couplings: [{ name: `K ${name}`, first, second: name, factor: 0.99 }],
    words: named(a, words),
  };
}

/** The sentence with nets as they are written. */
function named(a: Anatomy, words: string): string {
  return words.replace(/\S+(?= and the supply\.$|\.$)/u, (key) => written(a, key));
}
