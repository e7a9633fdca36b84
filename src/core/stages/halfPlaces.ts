import { controllersOf, inductorsAt, sameIsland } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import { railVolts } from './icSupply';
import { farEnd } from './partGraph';
import { isRail, railCapacitors } from './rails';
import type { Core } from './shapes';
import type { Half } from './supposed';

/** Resistors that carry a drive to a gate, ohm. */
export const DRIVE_OHMS = 330;

/** Whether a supply rides on a net: a capacitor to a point that a diode charges from a rail. */
export function rides({ a }: Half, node: string): boolean {
  if (a.grounds.has(node) || isRail(a, node)) return false;
  return a.graph.on(node, 'capacitor').some(({ branch }) => {
    const top = farEnd(branch, node);
    return branch.value! >= 47e-9 && !a.grounds.has(top) && diodesAt(a, top, 'cathode').length > 0;
  });
}

/** Cores that no switch and no integrated circuit works on. */
export function idleCores({ a, converters, switches }: Half): readonly Core[] {
  const used = new Set(converters.flatMap((c) => (c.core ? [c.core] : [])));
  return a.cores.filter((c) => c.purpose === 'transformer' && !used.has(c) && !switches.driveCores.includes(c));
}

/** A switching transformer has no winding of this many henry and more: fifty or sixty hertz need them. */
const LINE_HENRIES = 0.5;

export function lineFed(a: Anatomy, core: Core): boolean {
  if (core.windings.some((w) => w.value! >= LINE_HENRIES)) return true;
  return a.lines.some((l) => core.windings.some((w) => w.nets.every((n) => l.poles.some((p) => p.has(n)))));
}

/** The far end of a winding is a direct-current supply. */
export function steadyFar(a: Anatomy, core: Core, net: string): boolean {
  return core.windings.some((w) => w.nets.includes(net) && isRail(a, farEnd(w, net)) && !a.grounds.has(farEnd(w, net)));
}

/** Gate nets that an integrated circuit drives. */
export function openDrives({ a }: Half): readonly string[] {
  return controllersOf(a).flatMap((ic) =>
    ic.nets.flatMap((n) => [
      n,
      ...a.graph.on(n, 'resistor').flatMap((p) => (p.branch.value! <= DRIVE_OHMS ? [farEnd(p.branch, n)] : [])),
    ]),
  );
}

/** Ends of windings and chokes that nothing works on. */
export function idleEnds(half: Half): readonly string[] {
  const { a } = half;
  return [...new Set(a.graph.all('inductor').flatMap((l) => l.nets))].filter((n) => {
    const fed = inductorsAt(a, n).some((l) => isRail(a, farEnd(l, n)) && !a.grounds.has(farEnd(l, n)));
    return fed && idle(half, n);
  });
}

export function idle({ a }: Half, net: string): boolean {
  if (a.grounds.has(net) || isRail(a, net) || a.lines.some((l) => l.poles.some((p) => p.has(net)))) return false;
  return a.graph.on(net, 'mosfet', 'bjt', 'ic', 'triac', 'connector', 'fuse', 'bridge', 'relay').length === 0;
}

/** The net with the most small parts that take spikes; null where there is none. */
export function mostWorked(a: Anatomy, nets: readonly string[]): string | null {
  const worked = (n: string): number => a.graph.on(n, 'diode', 'resistor', 'capacitor').length;
  return [...nets].sort((x, y) => worked(y) - worked(x) || (x < y ? -1 : 1))[0] ?? null;
}

/** A shunt's upper end that no transistor stands on yet, or the ground itself. */
export function senseEnd(a: Anatomy, ground: string): string {
  const ends = [...a.currents].filter((n) => a.grounds.has(n) && a.graph.on(n, 'mosfet', 'bjt').length === 0);
  const open = ends.filter(
    (n) => a.graph.between(n, ground, 'resistor').length > 0 && a.graph.on(n, 'connector').length === 0,
  );
  return open[0] ?? ground;
}

/** Rails of an island that nothing feeds yet. */
export function unfed({ a, converters }: Half, near: string): readonly string[] {
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
export function supplyOf(a: Anatomy, near: string, except = ''): string | null {
  const stored = (n: string): number =>
    railVolts(a, n) ** 2 * Math.max(0, ...railCapacitors(a, n).map((c) => c.value!));
  const rails = [...a.graph.nets.keys()].filter((n) => n !== except && sameIsland(a, n, near) && isRail(a, n));
  return rails.sort((x, y) => stored(y) - stored(x) || (x < y ? -1 : 1))[0] ?? null;
}

/** The rail above a node: that of another leg, the one that small parts at the node lead to, or the supply of its island. */
export function upperRail({ a, switches }: Half, node: string, except = ''): string | null {
  const leg = switches.legs.find((l) => sameIsland(a, l.node, node));
  if (leg) return leg.rail;
  const beside = a.graph.on(node, 'capacitor', 'diode').map((p) => farEnd(p.branch, node));
  const near = beside.find((n) => isRail(a, n) && !a.grounds.has(n) && n !== except);
  return near ?? supplyOf(a, node, except);
}
