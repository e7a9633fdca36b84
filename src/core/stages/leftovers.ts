import { cone, isEdge } from './claims';
import type { Scene } from './claims';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail } from './rails';
import type { StageKind } from './stageKinds';
import type { Transistor } from './transistors';

/** Small parts that nothing has spoken for, joined by nets of their own. */
interface Cluster {
  readonly branches: readonly Branch[];
  /** All nets of its parts. */
  readonly nets: ReadonlySet<string>;
}

/** Signal parts that no pin and no switch explains: by what they are joined to at both ends. */
export function claimLeftovers(scene: Scene): void {
  for (const cluster of clusters(scene)) {
    const told = functionOf(scene, cluster);
    if (told) scene.book.addAll(cluster.branches, told[0], 0.5, told[1]);
  }
}

const SMALL: readonly Branch['kind'][] = [
  'resistor',
  'capacitor',
  'diode',
  'ntc',
  'bjt',
  'mosfet',
  'opto',
  'shunt-reference',
];

function clusters(scene: Scene): readonly Cluster[] {
  const { a, book } = scene;
  const open = (b: Branch): boolean => SMALL.includes(b.kind) && !book.has(b);
  const seen = new Set<Branch>();
  return a.graph.branches.flatMap((start) => {
    if (!open(start) || seen.has(start)) return [];
    const branches: Branch[] = [];
    const queue = [start];
    seen.add(start);
    for (let b = queue.pop(); b !== undefined; b = queue.pop()) {
      branches.push(b);
      for (const net of b.nets) {
        if (isEdge(scene, net) || a.graph.on(net, 'ic').length > 0) continue;
        for (const next of a.graph.touching(net)) {
          if (!open(next) || seen.has(next)) continue;
          seen.add(next);
          queue.push(next);
        }
      }
    }
    return [{ branches, nets: new Set(branches.flatMap((b) => b.nets)) }];
  });
}

function functionOf(scene: Scene, { branches, nets }: Cluster): readonly [StageKind, string] | null {
  const { a } = scene;
  const some = (test: (net: string) => boolean): boolean => [...nets].some(test);
  const driven = scene.converters.flatMap((c) => c.core?.windings ?? []).flatMap((w) => w.nets);
  const bases = new Set([...scene.switches.drives.values()].flatMap((d) => [...d.nets]));
  if (branches.some((b) => b.kind === 'ntc')) return ['sensing', 'measures a temperature'];
  // What lets current into the drive of an oscillator starts it.
  const starts = some((n) => driven.includes(n) && bases.size > 0 && !isRail(a, n) && feedsBase(scene, n, bases));
  if (starts && some((n) => isRail(a, n) && !a.grounds.has(n)))
    return ['startup', 'lets current into the drive of the switches'];
  const leads = some((n) => a.graph.on(n, 'connector').length > 0 && !isEdge(scene, n));
  const measured = some((n) => !a.grounds.has(n) && isEdge(scene, n));
  const divides = [...nets].some((n) => !isEdge(scene, n) && a.graph.on(n, 'resistor').length >= 2);
  if (branches.some((b) => b.kind === 'opto')) return ['sensing', 'tells the other side of the isolation'];
  if (leads && branches.every((b) => b.kind !== 'mosfet'))
    return ['sensing', 'a signal that leaves the board or enters it'];
  if (measured && divides && branches.some((b) => b.kind === 'resistor'))
    return ['sensing', 'divides what it measures'];
  return null;
}

/** Whether a winding's net is on the way of a drive: the winding's other end is. */
function feedsBase({ a }: Scene, net: string, bases: ReadonlySet<string>): boolean {
  return a.graph.on(net, 'inductor').some((p) => bases.has(farEnd(p.branch, net)));
}

/** Small transistors that take a control pin of an IC down: what their own control measures says why. */
export function claimDiverters(scene: Scene): void {
  const { a, book, pins } = scene;
  for (const t of a.transistors) {
    if (scene.switches.drives.has(t) || isEdge(scene, t.high)) continue;
    const [pin] = a.graph.on(t.high, 'ic');
    const role = pin && pins.get(pin.branch)?.[pin.pin]?.role;
    if (role !== 'COMP' && role !== 'FB') continue;
    const network = cone(scene, t.control, (b) => b === t.branch);
    const kind = diverts(scene, t, network);
    if (kind === null) continue;
    book.add(t.branch, kind, 0.84, 'takes the controller back');
    book.addAll(network, kind, 0.82, 'tells when the controller is to be taken back');
  }
}

function diverts({ a, converters }: Scene, t: Transistor, network: readonly Branch[]): StageKind | null {
  const nets = new Set([t.control, ...network.flatMap((b) => b.nets)]);
  if ([...nets].some((n) => a.currents.has(n))) return 'current-sense';
  const limit = network.some((b) => b.kind === 'diode' && diodeClass(a.board, b) === 'zener');
  const output = [...nets].some((n) => converters.some((c) => c.outputs.has(n)));
  return limit || output ? 'protection' : null;
}

/** Supplies that ride on a switching node: a capacitor to the node, a diode that charges it from a rail. */
export function claimBootstraps(scene: Scene): void {
  const { a, book } = scene;
  const nodes = new Set([...scene.converters.flatMap((c) => c.nodes), ...scene.switches.legs.map((l) => l.node)]);
  for (const node of nodes)
    for (const { branch } of a.graph.on(node, 'capacitor')) {
      const top = farEnd(branch, node);
      if (branch.value! < 47e-9 || a.grounds.has(top) || isRail(a, top) || nodes.has(top)) continue;
      const fed = a.graph.on(top, 'ic', 'opto', 'bjt');
      const floats = fed.some((p) => p.branch.kind === 'ic' && !p.branch.nets.some((n) => a.grounds.has(n)));
      const diodes = a.graph.on(top, 'diode').filter((p) => p.pin === 1);
      if (fed.length === 0 || floats || diodes.length === 0) continue;
      book.add(branch, 'gate-drive', 0.86, 'holds the supply that rides on the switching node');
      for (const { branch: d } of diodes) {
        book.add(d, 'gate-drive', 0.86, 'charges the supply that rides on the switching node');
        for (const { branch: r } of a.graph.on(farEnd(d, top), 'resistor'))
          if (r.value! <= 100 && isRail(a, farEnd(r, farEnd(d, top))))
            book.add(r, 'gate-drive', 0.86, 'limits that charging');
      }
    }
}
