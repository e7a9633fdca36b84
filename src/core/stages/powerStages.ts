import { claimOpto } from './signalStages';
import { islandOf } from './anatomy';
import { diodesAt } from './cells';
import { cone, isEdge } from './claims';
import type { Scene } from './claims';
import type { Converter } from './converter';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { alongDrive } from './pinRoles';
import { heldOn, isRail, isSteady } from './rails';
import type { StageKind } from './stageKinds';

/** Stages of one converter: switches, coils, dampers, shunts, gate drive. */
export function claimConverter(scene: Scene, c: Converter): void {
  const { book } = scene;
  const pfc = c.topology === 'boost-pfc';
  const bridge = c.core === null && c.coils.length === 0;
  const switchKind: StageKind = pfc ? 'pfc' : bridge ? 'inverter-bridge' : 'switch';
  for (const t of c.transistors) book.add(t.branch, switchKind, 0.95, c.why);
  for (const ic of c.ics) book.add(ic, 'controller', 0.93, 'controls the converter, with its switch inside');
  if (c.core) {
    book.addAll(c.core.windings, 'transformer', 0.95, 'windings on one core');
    for (const node of c.nodes) claimBlocking(scene, c, node);
    for (const w of c.core.windings) claimReset(scene, c, w);
  } else {
    const kind: StageKind = pfc
      ? 'pfc'
      : c.topology === 'boost'
        ? 'switch'
        : c.topology === 'unknown'
          ? 'tank'
          : 'output-filter';
    book.addAll(c.coils, kind, 0.9, 'the choke of the converter');
  }
  for (const node of c.nodes) {
    claimNodeDiodes(scene, c, node);
    claimDampers(scene, node, 'clamp');
  }
  for (const w of c.coils) for (const end of w.nets) if (!isSteady(scene.a, end)) claimDampers(scene, end, 'clamp');
  for (const t of c.transistors) claimDrive(scene, t);
  if (bridge) claimBridgeFilter(scene, c);
}

/** A switch on a coil that no topology fits, or that is off the board: with its drive and what rings at it. */
export function claimLoneSwitches(scene: Scene): void {
  const { a, book, converters, switches } = scene;
  const used = new Set(converters.flatMap((c) => c.transistors));
  for (const t of switches.singles) {
    if (used.has(t) || a.graph.on(t.high, 'connector').length === 0 || !a.grounds.has(t.low)) continue;
    const rings = a.graph
      .on(t.high, 'capacitor')
      .filter((p) => p.branch.value! >= 50e-9 && isRail(a, farEnd(p.branch, t.high)));
    if (rings.length === 0) continue;
    book.add(t.branch, 'switch', 0.9, 'switches a coil off the board');
    for (const { branch } of rings) book.add(branch, 'tank', 0.87, 'rings with the coil off the board');
    claimDrive(scene, t);
  }
}

/** Capacitors that hold the far end of a load that leaves the board: they ring with it. */
function claimLoadTank({ a, book }: Scene, c: Converter, reached: ReadonlySet<string>): void {
  const leads = a.graph.all('connector').filter((k) => k.nets.some((n) => reached.has(n)));
  for (const far of leads.flatMap((k) => k.nets)) {
    if (reached.has(far) || a.grounds.has(far) || isRail(a, far)) continue;
    for (const { branch } of a.graph.on(far, 'capacitor')) {
      const end = farEnd(branch, far);
      if (end === c.supply || a.grounds.has(end) || reached.has(end))
        book.add(branch, 'tank', 0.87, 'rings with the load');
    }
  }
}

/** Coils, capacitors and fuses between a bridge's nodes and what leaves the board. */
function claimBridgeFilter(scene: Scene, c: Converter): void {
  const { a, book } = scene;
  const seen = new Set(c.nodes);
  const queue = [...c.nodes];
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch } of a.graph.on(net, 'inductor', 'fuse')) {
      const far = farEnd(branch, net);
      book.add(
        branch,
        branch.kind === 'fuse' ? 'protection' : c.legs.length === 1 ? 'tank' : 'output-filter',
        0.87,
        'between the bridge and the output',
      );
      if (seen.has(far) || a.grounds.has(far) || isRail(a, far)) continue;
      seen.add(far);
      queue.push(far);
    }
  }
  if (c.legs.length === 1) claimLoadTank(scene, c, seen);
  for (const net of seen) {
    for (const { branch } of a.graph.on(net, 'capacitor', 'mov')) {
      if (seen.has(farEnd(branch, net)))
        book.add(branch, branch.kind === 'mov' ? 'surge' : 'output-filter', 0.87, 'across the output of the bridge');
    }
  }
}

/** Drive transformers: their windings and what feeds the primary. */
export function claimDriveCores(scene: Scene): void {
  const { a, book, switches } = scene;
  for (const core of switches.driveCores) {
    book.addAll(core.windings, 'gate-drive', 0.92, 'carries the drive to the switches');
    for (const end of core.windings.flatMap((w) => w.nets)) {
      if (a.grounds.has(end) || isRail(a, end) || scene.converters.some((c) => c.nodes.includes(end))) continue;
      const way = alongDrive(a, end);
      for (const { branch } of way.flatMap((n) => a.graph.on(n, 'resistor', 'capacitor'))) {
        if (branch.nets.every((n) => way.includes(n)))
          book.add(branch, 'gate-drive', 0.8, 'on the way to the drive transformer');
      }
    }
  }
}

/** The diode of a reset winding: from ground to the end that is not on the supply. */
function claimReset({ a, book }: Scene, c: Converter, winding: Branch): void {
  if (c.coils.includes(winding) || !winding.nets.includes(c.supply)) return;
  for (const d of diodesAt(a, farEnd(winding, c.supply), 'cathode')) {
    if (a.grounds.has(d.nets[0]!)) book.add(d, 'clamp', 0.9, 'lets the reset winding return its energy');
  }
}

/** A capacitor in series with the winding, or across two switching nodes. */
function claimBlocking(scene: Scene, c: Converter, node: string): void {
  const { a, book } = scene;
  const ends = c.coils.flatMap((w) => w.nets);
  for (const { branch } of a.graph.on(node, 'capacitor')) {
    const far = farEnd(branch, node);
    if (c.nodes.includes(far)) book.add(branch, 'tank', 0.85, 'resonates with the winding');
    else if (branch.value! >= 20e-9 && ends.includes(far) && !isRail(a, far) && !a.grounds.has(far))
      book.add(branch, 'transformer', 0.85, 'blocks direct current in the winding');
  }
  for (const end of ends) {
    if (end === node || isRail(a, end) || a.grounds.has(end)) continue;
    for (const { branch } of a.graph.on(end, 'capacitor')) {
      if (branch.value! >= 20e-9 && (isRail(a, farEnd(branch, end)) || a.grounds.has(farEnd(branch, end))))
        book.add(branch, 'transformer', 0.85, 'blocks direct current in the winding');
    }
    for (const { branch } of a.graph.on(end, 'inductor'))
      if (!c.core?.windings.includes(branch) && branch.nets.includes(node))
        book.add(branch, 'tank', 0.85, 'in series with the winding');
  }
}

/** Diodes at a switching node: rectifier of a choke converter, or clamp. */
function claimNodeDiodes(scene: Scene, c: Converter, node: string): void {
  const { a, book } = scene;
  const below = ['buck', 'buck-boost', 'synchronous-buck'].includes(c.topology);
  for (const d of diodesAt(a, node, 'cathode')) {
    const from = d.nets[0]!;
    if (below && (a.grounds.has(from) || c.outputs.has(from)))
      book.add(d, 'output-rectifier', 0.9, "carries the choke's current while the switch is off");
    else if (a.grounds.has(from)) book.add(d, 'clamp', 0.8, 'keeps the node from swinging below ground');
  }
  for (const d of diodesAt(a, node, 'anode')) {
    const to = d.nets[1]!;
    if (c.outputs.has(to))
      book.add(d, c.topology === 'boost-pfc' ? 'pfc' : 'output-rectifier', 0.9, 'leads on to the higher rail');
    else if (to === c.supply && below)
      book.add(d, 'output-rectifier', 0.9, "carries the choke's current back to the supply");
    else if (to === c.supply) book.add(d, 'clamp', 0.85, 'returns the spike to the supply');
  }
}

/** Dampers and clamps that hang on a switching node or winding end through nets of their own. */
export function claimDampers(scene: Scene, node: string, kind: StageKind): void {
  const { a, book } = scene;
  for (const { branch, pin } of a.graph.on(node, 'resistor', 'capacitor', 'diode')) {
    const diode = branch.kind === 'diode';
    if (diode && pin !== 0 && diodeClass(a.board, branch) !== 'zener') continue;
    const far = farEnd(branch, node);
    if (branch.kind === 'capacitor' && branch.value! <= 22e-9 && isEdge(scene, far)) {
      book.add(branch, kind, 0.7, 'damps the switching edge');
      continue;
    }
    if (diode && diodeClass(a.board, branch) === 'zener' && isEdge(scene, far))
      book.add(branch, kind, 0.7, 'clamps the spike');
    if (isEdge(scene, far) || a.graph.on(far, 'ic', 'connector', 'opto').length > 0) continue;
    const network = [...cluster(scene, far)];
    const damps =
      network.some((b) => b.kind === 'capacitor') ||
      network.some((b) => b.kind === 'diode' && diodeClass(a.board, b) === 'zener');
    const plain = network.every((b) => ['resistor', 'capacitor', 'diode'].includes(b.kind));
    // Between two points that both swing nothing is held.
    const slow = network.some((b) => b.kind === 'capacitor' && b.value! > 0.3e-6 && b.nets.some((n) => isSteady(a, n)));
    const dissipates = [branch, ...network].some(
      (b) => b.kind === 'resistor' || (b.kind === 'diode' && diodeClass(a.board, b) === 'zener'),
    );
    if (damps && dissipates && plain && !slow)
      book.addAll([branch, ...network], kind, 0.8, 'takes the spike of the switching node');
  }
}

/** All two-terminal branches reached from a private net without crossing an edge. */
function cluster(scene: Scene, start: string): ReadonlySet<Branch> {
  const found = new Set<Branch>();
  const seen = new Set([start]);
  const queue = [start];
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const branch of scene.a.graph.touching(net)) {
      found.add(branch);
      if (branch.nets.length > 2) continue;
      const far = farEnd(branch, net);
      if (seen.has(far) || isEdge(scene, far)) continue;
      seen.add(far);
      queue.push(far);
    }
  }
  return found;
}

/** What drives one power transistor, and the shunt in its low side. */
function claimDrive(scene: Scene, t: Converter['transistors'][number]): void {
  const { a, switches, book } = scene;
  const drive = switches.drives.get(t);
  if (!drive) return;
  for (const b of drive.branches)
    if (b.kind !== 'ic') book.add(b, 'gate-drive', 0.85, 'between the drive and the control pin');
  for (const b of drive.bias) {
    const far = farEnd(b, t.control);
    const up = isRail(a, far) && !a.grounds.has(far);
    const told =
      reachesIc(scene, drive.nets) || a.transistors.some((x) => drive.nets.has(x.high) && isShifter(scene, x));
    if (b.kind === 'resistor' && up && !told) book.add(b, 'startup', 0.8, 'gives the first drive to the control pin');
    else book.add(b, 'gate-drive', 0.85, 'keeps the control pin in bounds');
  }
  claimDiac(scene, drive.nets);
  for (const diverter of a.transistors) {
    if (switches.drives.has(diverter) || !drive.nets.has(diverter.high) || drive.branches.includes(diverter.branch))
      continue;
    const sense = a.graph
      .on(diverter.control, 'resistor')
      .some(
        (p) =>
          p.branch.value! <= 10e3 &&
          a.grounds.has(farEnd(p.branch, diverter.control)) &&
          farEnd(p.branch, diverter.control) === t.low,
      );
    const kind: StageKind = isShifter(scene, diverter) ? 'gate-drive' : sense ? 'current-sense' : 'feedback';
    const network = cone(scene, diverter.control, (b) => b === diverter.branch);
    book.addAll(network, kind, 0.75, 'takes the drive away when the output is reached');
    for (const b of network) if (b.kind === 'opto') claimOpto(scene, b, 'feedback');
    book.add(diverter.branch, kind, 0.8, 'takes the drive away');
  }
  for (const b of t.sensedBy) book.add(b, 'current-sense', 0.95, `senses the current of ${t.branch.parts[0]!.ref}`);
  const main = islandOf(a, t.low)?.references[0];
  if (t.low === main || !a.grounds.has(t.low)) return;
  for (const { branch } of a.graph.on(t.low, 'resistor')) {
    if (branch.value! <= 5 && a.grounds.has(farEnd(branch, t.low)))
      book.add(branch, 'current-sense', 0.95, `turns the current of ${t.branch.parts[0]!.ref} into volts`);
  }
}

/** A diac that fires into a drive from a capacitor that a resistor charges: it starts what then runs by itself. */
function claimDiac({ a, book }: Scene, nets: Iterable<string>): void {
  for (const net of nets)
    for (const { branch } of a.graph.on(net, 'ic')) {
      if (branch.nets.length !== 2) continue;
      const charged = farEnd(branch, net);
      const feeds = a.graph
        .on(charged, 'resistor')
        .filter((p) => p.branch.value! >= 10e3 && isRail(a, farEnd(p.branch, charged)));
      if (feeds.length === 0) continue;
      const own = [branch, ...a.graph.on(charged, 'resistor', 'capacitor', 'diode').map((p) => p.branch)];
      book.addAll(own, 'startup', 0.88, 'fires the first pulse into the drive');
    }
}

function reachesIc({ a }: Scene, nets: Iterable<string>): boolean {
  return [...nets].some((n) => a.graph.on(n, 'ic').some((p) => p.branch.nets.length >= 3));
}

/** A small transistor that an IC's pin works through resistors: it passes the drive on, it does not take it away. */
function isShifter(scene: Scene, t: Scene['a']['transistors'][number]): boolean {
  const { a } = scene;
  const behind = a.graph
    .on(t.control, 'resistor')
    .filter((p) => !a.grounds.has(farEnd(p.branch, t.control)) && !isRail(a, farEnd(p.branch, t.control)));
  return (
    !scene.switches.drives.has(t) && reachesIc(scene, [t.control, ...behind.map((p) => farEnd(p.branch, t.control))])
  );
}

/** What hangs between a rail and ground, and what stands in series in it. */
export function claimRail(scene: Scene, rail: string, filter: StageKind): void {
  const { a, book } = scene;
  const windings = new Set(a.cores.flatMap((c) => c.windings));
  const base = heldOn(a, rail);
  for (const { branch, pin } of a.graph.on(rail)) {
    const joins = branch.kind === 'resistor' && branch.value! <= 1000 && isRail(a, farEnd(branch, rail));
    if (joins) book.add(branch, filter, 0.5, 'between two capacitors of the rail');
    if (branch.kind === 'inductor' && !windings.has(branch)) book.add(branch, filter, 0.8, 'choke in the rail');
    if (branch.kind === 'fuse') book.add(branch, 'protection', 0.8, 'fuse in the output');
    const far = branch.nets.length === 2 ? farEnd(branch, rail) : null;
    if (far === null || (!a.grounds.has(far) && far !== base)) continue;
    if (branch.kind === 'capacitor') book.add(branch, filter, 0.75, 'holds the rail');
    if (branch.kind === 'resistor' && branch.value! > 5)
      book.add(branch, 'discharge', 0.72, 'a load of its own across the rail');
    if (branch.kind === 'mov') book.add(branch, 'protection', 0.8, 'clamps the rail');
    if (branch.kind === 'diode' && pin === 1 && diodeClass(a.board, branch) === 'zener')
      book.add(branch, 'protection', 0.8, 'clamps the rail');
    else if (branch.kind === 'diode' && pin === 1)
      book.add(branch, 'protection', 0.5, 'keeps the rail from going below ground');
  }
}
