import { cone, isEdge } from './claims';
import type { Scene } from './claims';
import { claimRelay } from './inputStages';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, isSteady, railCapacitors } from './rails';
import type { StageKind } from './stageKinds';

/** An opto and the network of its LED. */
export function claimOpto(scene: Scene, opto: Branch, kind: StageKind): void {
  scene.book.add(opto, kind, 0.85, 'carries the signal across the isolation');
  for (const net of opto.nets.slice(0, 2)) {
    if (isEdge(scene, net)) continue;
    scene.book.addAll(cone(scene, net), kind, 0.8, "works the opto's LED");
    for (const { branch } of scene.a.graph.on(net, 'resistor'))
      scene.book.add(branch, kind, 0.8, "feeds the opto's LED");
  }
}

/** Lamps with their series resistors. */
export function claimIndicators(scene: Scene): void {
  const { a, book } = scene;
  for (const b of a.graph.branches) {
    const lit =
      (b.kind === 'diode' && diodeClass(a.board, b) === 'led') ||
      (b.kind === 'lamp' && a.graph.on(b.nets[0]!).length + a.graph.on(b.nets[1]!).length > 2);
    if (!lit) continue;
    book.add(b, 'indicator', 0.92, 'a light');
    const ends = b.nets.filter((n) => !a.grounds.has(n) && !isRail(a, n));
    const shown = ends.some((n) => a.graph.on(n, 'opto').length > 0);
    for (const net of ends) {
      // Together with an opto's LED it only shows what the opto is told.
      if (shown || a.graph.touching(net).length > 3) continue;
      for (const { branch } of a.graph.on(net, 'resistor', 'diode')) {
        if (branch === b) continue;
        book.add(branch, 'indicator', 0.9, 'in series with the light');
        const far = farEnd(branch, net);
        if (a.graph.touching(far).length !== 2) continue;
        for (const next of a.graph.on(far, 'resistor', 'diode'))
          book.add(next.branch, 'indicator', 0.89, 'in series with the light');
      }
    }
  }
}

/** Three-terminal regulators with their capacitors. */
export function claimRegulators(scene: Scene): void {
  const { a, book } = scene;
  for (const r of a.graph.all('regulator')) {
    book.add(r, 'regulator', 0.95, 'holds its output');
    for (const net of [r.nets[0]!, r.nets[2]!]) {
      for (const c of railCapacitors(a, net))
        book.add(c, 'regulator', net === r.nets[2] ? 0.85 : c.value! < 2e-6 ? 0.85 : 0.4, 'steadies the regulator');
    }
  }
}

/** A transistor in series between two rails with what holds its control: a regulator of single parts. */
export function claimPasses(scene: Scene): void {
  const { a, book, switches } = scene;
  for (const t of a.transistors) {
    if (
      switches.drives.has(t) ||
      !isRail(a, t.high) ||
      !isRail(a, t.low) ||
      a.grounds.has(t.high) ||
      a.grounds.has(t.low)
    )
      continue;
    const network = cone(scene, t.control, (b) => b === t.branch);
    const holds = network.some(
      (b) => ['shunt-reference', 'opto'].includes(b.kind) || (b.kind === 'diode' && diodeClass(a.board, b) === 'zener'),
    );
    const told = network.some((b) => b.nets.some((n) => a.graph.on(n, 'connector').length > 0 && !isEdge(scene, n)));
    const kind: StageKind = told && !holds ? 'aux-supply' : 'regulator';
    book.add(t.branch, kind, 0.9, 'stands in series between two rails');
    book.addAll(
      network,
      kind,
      0.8,
      kind === 'regulator' ? 'holds the pass transistor' : 'switches the supply on from outside',
    );
  }
}

/** Relays in outputs, thermistors that sense, level shifters to connectors, droppers, links, connectors. */
export function claimSignals(scene: Scene): void {
  const { a, book } = scene;
  for (const relay of a.graph.all('relay')) if (!book.has(relay)) claimRelay(scene, relay, 'protection');
  for (const s of a.graph.all('switch')) {
    const carries = s.nets.every((n) => isEdge(scene, n) || a.graph.on(n, 'fuse', 'regulator', 'connector').length > 0);
    book.add(s, carries ? 'aux-supply' : 'protection', 0.45, carries ? 'switches a supply on' : 'opens a signal');
  }
  for (const f of a.graph.all('fuse')) if (!book.has(f)) book.add(f, 'protection', 0.6, 'a fuse in a line of its own');
  for (const c of a.graph.all('connector')) book.add(c, 'connector', 0.6, 'leads off the board');
  for (const ntc of a.graph.all('ntc')) {
    if (book.has(ntc)) continue;
    book.add(ntc, 'sensing', 0.8, 'measures a temperature');
    for (const net of ntc.nets)
      if (!isEdge(scene, net)) book.addAll(cone(scene, net), 'sensing', 0.66, 'measures a temperature');
  }
  for (const t of a.transistors) {
    claimBlocker(scene, t);
    claimBackToBack(scene, t);
    claimShifter(scene, t.branch, t.high, t.control);
    claimLoadSwitch(scene, t);
  }
  for (const r of a.graph.all('resistor')) claimDropper(scene, r);
  for (const { branch } of a.graph.all('opto').map((branch) => ({ branch })))
    if (!book.has(branch)) claimOpto(scene, branch, 'sensing');
}

/**
 * A transistor in an inlet's conductor whose control nothing but resistors and clamps steer: it blocks a supply connected
 * the wrong way round.
 */
function claimBlocker(scene: Scene, t: Scene['a']['transistors'][number]): void {
  const { a, book } = scene;
  const along = (net: string): readonly string[] => [
    net,
    ...a.graph.on(net, 'fuse', 'switch').map((p) => farEnd(p.branch, net)),
  ];
  const [end, other] = isSteady(a, t.low) ? [t.high, t.low] : [t.low, t.high];
  if (!isSteady(a, other) || scene.switches.drives.has(t)) return;
  // The inlet's other conductor keeps it on.
  const inlet = along(end).flatMap((n) => a.graph.on(n, 'connector').map((p) => p.branch));
  const conductors = new Set(inlet.flatMap((c) => c.nets.flatMap(along)));
  const network = cone(scene, t.control, (b) => b === t.branch);
  const passive = network.every((b) => ['resistor', 'capacitor', 'diode'].includes(b.kind));
  const told = a.graph.on(t.control, 'ic', 'opto').length > 0;
  const kept = network.some((b) => b.nets.some((n) => conductors.has(n) && isSteady(a, n) && n !== end && n !== other));
  if (!passive || told || !kept) return;
  book.add(t.branch, 'protection', 0.86, 'blocks a supply connected the wrong way round');
  book.addAll(network, 'protection', 0.8, 'keeps the blocking transistor on');
}

/** Two transistors head to head in a conductor: they break it in both directions. */
function claimBackToBack(scene: Scene, t: Scene['a']['transistors'][number]): void {
  const { a, book } = scene;
  const twin = a.transistors.find(
    (u) =>
      u !== t &&
      u.branch.kind === 'mosfet' &&
      t.branch.kind === 'mosfet' &&
      u.low === t.low &&
      u.control === t.control &&
      u.high !== t.high,
  );
  if (!twin || a.grounds.has(t.low) || isRail(a, t.low) || scene.switches.drives.has(t)) return;
  book.add(t.branch, 'protection', 0.86, 'breaks the conductor, in both directions with its twin');
  book.addAll(
    cone(scene, t.control, (b) => b === t.branch || b === twin.branch),
    'protection',
    0.72,
    'works the two transistors',
  );
}

/** A transistor to ground or a rail with what it switches outside the board: a fan, a lamp, a coil. */
function claimLoadSwitch(scene: Scene, t: Scene['a']['transistors'][number]): void {
  const { a, book } = scene;
  const outside = (net: string): boolean =>
    a.graph.on(net, 'connector').length > 0 && !isEdge(scene, net) && a.graph.on(net, 'resistor', 'ic').length === 0;
  const switches = (isSteady(a, t.low) && outside(t.high)) || (isSteady(a, t.high) && outside(t.low));
  if (!switches || book.has(t.branch) || scene.switches.drives.has(t)) return;
  book.add(t.branch, 'aux-supply', 0.7, 'switches a load outside the board');
  for (const { branch } of a.graph.on(t.control, 'resistor'))
    if (!book.has(branch)) book.add(branch, 'aux-supply', 0.65, 'steers that switch');
}

/** A transistor whose collector leaves the board together with its pull-up: it drives something outside. */
function claimShifter(scene: Scene, branch: Branch, high: string, control: string): void {
  const { a, book } = scene;
  if (book.has(branch) || a.graph.on(high, 'connector').length === 0 || isRail(a, high)) return;
  const pullUp = a.graph.on(high, 'resistor').filter((p) => isRail(a, farEnd(p.branch, high)));
  if (pullUp.length === 0) return;
  book.add(branch, 'gate-drive', 0.8, 'drives a switch off the board');
  for (const { branch: r } of pullUp) book.add(r, 'gate-drive', 0.8, 'pulls the drive up');
  book.addAll(
    cone(scene, control, (b) => b === branch),
    'gate-drive',
    0.75,
    'steers the drive',
  );
}

/** A resistor to a net that only a connector shares, and links between grounds that nobody senses. */
function claimDropper(scene: Scene, r: Branch): void {
  const { a, book } = scene;
  for (const net of r.nets) {
    const others = a.graph.on(net).filter((p) => p.branch !== r);
    const leaves = others.length > 0 && others.every((p) => p.branch.kind === 'connector');
    if (leaves && isEdge(scene, farEnd(r, net))) book.add(r, 'connector', 0.7, 'in series with a connector');
  }
  if (r.value! <= 0.02 && r.nets.every((n) => a.grounds.has(n)))
    book.add(r, 'connector', 0.5, 'a link between two grounds');
}
