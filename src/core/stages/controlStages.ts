import { isRail, railCapacitors } from './rails';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import { cone, isEdge } from './claims';
import type { Scene } from './claims';
import { claimRelay } from './inputStages';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import type { StageKind } from './stageKinds';

/** Stages around the pins of each controller, by what each pin does. */
export function claimControllers(scene: Scene): void {
  const { a, book } = scene;
  for (const [ic, findings] of scene.pins) {
    const roles = findings.map((f) => f.role);
    const driver = isDriver(scene, ic);
    const amplifies = driver ? null : amplifierStage(scene, ic);
    if (amplifies) {
      claimAmplifier(scene, ic, amplifies);
      roles.forEach((role, i) => role === 'VCC' && claimSupply(scene, ic, ic.nets[i]!));
      continue;
    }
    book.add(
      ic,
      driver ? 'gate-drive' : 'controller',
      0.9,
      driver ? 'lifts the drive to the upper switch' : 'decides when the switches work',
    );
    roles.forEach((role, i) => {
      const net = ic.nets[i]!;
      if (a.grounds.has(net) && role !== 'CS') return;
      claimPin(scene, ic, role, net);
    });
  }
}

/** What an IC that only amplifies is for: a current or a voltage, for the loop or to be told. Null: it does more. */
function amplifierStage({ a, pins, loops }: Scene, ic: Branch): StageKind | null {
  const own = loops.get(ic) ?? [];
  const roles = (pins.get(ic) ?? []).map((f) => f.role);
  if (own.length === 0 || roles.some((r) => ['GATE', 'SW', 'DRAIN', 'SOURCE', 'BST', 'RT'].includes(r))) return null;
  const currents = own.some((l) => [l.input, ...ic.nets].some((n) => nearCurrent(a, n)));
  const acts = own.some((l) =>
    a.graph.on(l.output, 'diode', 'opto', 'resistor').some(({ branch }) => {
      const far = branch.kind === 'opto' ? '' : farEnd(branch, l.output);
      return branch.kind === 'opto' || a.graph.on(far, 'ic').some((p) => p.branch !== ic && regulates(pins, p.branch));
    }),
  );
  if (currents) return acts ? 'charge-control' : 'current-sense';
  return acts ? 'feedback' : 'sensing';
}

function nearCurrent(a: Anatomy, net: string): boolean {
  return (
    !a.grounds.has(net) &&
    (a.currents.has(net) ||
      a.graph.on(net, 'resistor').some((p) => p.branch.value! > 5 && a.currents.has(farEnd(p.branch, net))))
  );
}

function regulates(pins: Scene['pins'], ic: Branch): boolean {
  return (pins.get(ic) ?? []).some((f) => f.role === 'GATE' || f.role === 'SW' || f.role === 'DRAIN');
}

/** An amplifier with the networks of its signal pins. */
function claimAmplifier(scene: Scene, ic: Branch, kind: StageKind): void {
  const { a, book } = scene;
  const why =
    kind === 'sensing'
      ? 'amplifies a signal'
      : kind === 'feedback'
        ? 'compares for the loop'
        : 'amplifies what a shunt tells';
  book.add(ic, kind, 0.9, why);
  for (const net of new Set(ic.nets))
    if (!a.grounds.has(net) && !isRail(a, net)) {
      book.addAll(cone(scene, net), kind, 0.79, why);
      if (nearCurrent(a, net)) claimSense(scene, net, 0.7);
    }
}

/** An IC that is told by another IC what to drive. */
function isDriver({ a, pins }: Scene, ic: Branch): boolean {
  const findings = pins.get(ic) ?? [];
  const gates = findings.some((f) => f.role === 'GATE');
  const told = ic.nets.some((net) => {
    const here = a.graph.on(net).filter((p) => p.branch !== ic);
    return (
      here.length > 0 &&
      here.every((p) => p.branch.kind === 'ic' || p.branch.kind === 'resistor') &&
      here.some((p) => p.branch.kind === 'ic') &&
      !a.grounds.has(net)
    );
  });
  const regulates = findings.some((f) => f.role === 'FB' || f.role === 'COMP');
  return gates && told && !regulates;
}

function claimPin(scene: Scene, ic: Branch, role: string, net: string): void {
  const { a, book } = scene;
  switch (role) {
    case 'FB':
      book.addAll(cone(scene, net), 'feedback', 0.8, 'what the controller regulates by');
      for (const { branch } of a.graph.on(net, 'opto')) claimOpto(scene, branch, 'feedback');
      break;
    case 'COMP':
      for (const b of cone(scene, net)) book.add(b, 'controller', 0.66, 'loop compensation');
      for (const { branch } of a.graph.on(net, 'opto')) claimOpto(scene, branch, 'feedback');
      break;
    case 'CS':
      claimSense(scene, net);
      break;
    case 'RT':
    case 'VOUT':
    case 'UNKNOWN':
      claimUnknown(scene, ic, net);
      break;
    case 'EN':
      claimEnable(scene, ic, net);
      break;
    case 'HV':
      for (const { branch } of a.graph.on(net, 'resistor', 'diode'))
        book.add(branch, 'startup', 0.85, 'feeds the start-up pin');
      break;
    case 'VCC':
    case 'VIN':
      claimSupply(scene, ic, net);
      break;
    case 'BST':
      for (const { branch } of a.graph.on(net, 'capacitor', 'diode', 'resistor'))
        book.add(branch, 'gate-drive', 0.85, 'lifts the upper drive');
      break;
    default:
      break;
  }
}

/** What lets a controller run or stops it: an opto from the other side protects, a divider senses. */
function claimEnable(scene: Scene, ic: Branch, net: string): void {
  const { a, book } = scene;
  if (isEdge(scene, net)) return claimUnknown(scene, ic, net);
  const network = cone(scene, net);
  const [opto] = a.graph.on(net, 'opto').filter((p) => p.pin >= 2);
  const measures = network.some((b) => b.nets.some((n) => isMeasured(scene, ic, n)));
  const told = network.some((b) => ['bjt', 'mosfet', 'ntc'].includes(b.kind));
  const kind: StageKind = opto ? 'protection' : measures || told ? 'sensing' : 'controller';
  book.addAll(network, kind, 0.7, 'tells the controller whether it may run');
  if (opto) claimOpto(scene, opto.branch, 'protection');
}

function claimSense(scene: Scene, net: string, weight = 0.78): void {
  const { a, book } = scene;
  for (const b of cone(scene, net)) book.add(b, 'current-sense', weight, 'filters the current signal');
  const sources = [net, ...a.graph.on(net, 'resistor').map((p) => farEnd(p.branch, net))].filter((n) =>
    a.currents.has(n),
  );
  for (const source of sources) {
    for (const { branch } of a.graph.on(source, 'resistor')) {
      const far = farEnd(branch, source);
      if (branch.value! <= 5 && a.grounds.has(far))
        book.add(branch, 'current-sense', 0.9, 'turns a current into volts');
    }
  }
}

/** Timing, references, soft start: what hangs on a pin alone; dividers from rails sense something. */
function claimUnknown(scene: Scene, ic: Branch, net: string): void {
  const { a, book } = scene;
  const network = isEdge(scene, net) ? [] : cone(scene, net, (b) => b === ic);
  const divider = network.some(
    (b) => ['resistor', 'ntc'].includes(b.kind) && b.nets.some((n) => isMeasured(scene, ic, n)),
  );
  if (!divider)
    for (const { branch } of a.graph.on(net, 'capacitor'))
      if (a.grounds.has(farEnd(branch, net))) book.add(branch, 'controller', 0.68, 'on a pin of the controller alone');
  const own = network.every((b) => b.kind !== 'bjt' && b.kind !== 'mosfet');
  const kind: StageKind = divider ? 'sensing' : 'controller';
  if (own)
    book.addAll(
      network,
      kind,
      0.62,
      divider ? 'measures a rail for the controller' : 'timing or reference of the controller',
    );
}

/** A point whose volts tell an IC something: not a ground, and no rail that the IC itself lives on or makes. */
function isMeasured(scene: Scene, ic: Branch, net: string): boolean {
  const { a } = scene;
  if (a.grounds.has(net)) return false;
  const powered = (scene.pins.get(ic) ?? []).some((f) => f.role === 'VCC' || f.role === 'VIN');
  if (powered && a.graph.on(net, 'connector').length > 0) return true;
  const makes = scene.converters.some((c) => c.outputs.has(net));
  return (makes || !ic.nets.includes(net)) && (isEdge(scene, net) || a.graph.on(net, 'switch', 'fuse').length > 0);
}

function claimSupply(scene: Scene, ic: Branch, net: string): void {
  const { a, book } = scene;
  const supply = scene.converters.some((c) => c.supply === net);
  if (supply) return;
  let fed = false;
  for (const { branch, pin } of a.graph.on(net)) {
    if (branch.nets.length !== 2) continue;
    const far = farEnd(branch, net);
    if (a.grounds.has(far)) {
      if (branch.kind === 'diode' && pin === 1)
        book.add(
          branch,
          diodeClass(a.board, branch) === 'led' ? 'indicator' : 'protection',
          0.78,
          'limits the control supply',
        );
      continue;
    }
    if (branch.kind === 'resistor' && isSource(scene, far)) {
      const slow = branch.value! >= 10e3 && !scene.secondaries.some((s) => s.rails.has(far));
      fed = true;
      book.add(
        branch,
        slow ? 'startup' : 'aux-supply',
        slow ? 0.8 : 0.76,
        slow ? 'charges the control supply before the first start' : 'feeds the control supply',
      );
      claimFeed(scene, far);
    }
    if (branch.kind === 'diode' && pin === 1 && diodeClass(a.board, branch) !== 'zener') {
      fed = true;
      book.add(branch, 'aux-supply', 0.74, 'feeds the control supply');
    }
  }
  if (scene.converters.some((c) => c.outputs.has(net))) return;
  const secondary = scene.secondaries.some((s) => s.rails.has(net));
  for (const c of railCapacitors(a, net))
    book.add(c, fed || secondary ? 'aux-supply' : 'controller', 0.76, 'holds the control supply');
  const local = ic.nets.filter((n) => scene.converters.some((c) => c.nodes.includes(n)));
  for (const { branch } of a.graph.on(net, 'capacitor'))
    if (local.includes(farEnd(branch, net)))
      book.add(branch, 'controller', 0.76, 'holds the supply of the floating controller');
}

/** Where a control supply can take its current from: a rail, a line, a winding, a rectified point, a switch to one. */
function isSource(scene: Scene, net: string): boolean {
  const { a } = scene;
  return (
    (a.graph.on(net, 'connector').length > 0 && a.graph.on(net, 'ic').length === 0) ||
    isEdge(scene, net) ||
    diodesAt(a, net, 'cathode').length > 0 ||
    a.graph.on(net, 'switch').length > 0
  );
}

/** A switch between a supply and the control supply's feed resistor. */
function claimFeed(scene: Scene, net: string): void {
  for (const { branch } of scene.a.graph.on(net, 'switch'))
    scene.book.add(branch, 'aux-supply', 0.7, 'switches the control supply');
}

/** An opto and the network of its LED. */
function claimOpto(scene: Scene, opto: Branch, kind: StageKind): void {
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

/** A thyristor or triac: empties a store through a winding, or switches a load. */
export function claimThyristors(scene: Scene): void {
  const { a, book } = scene;
  for (const t of a.graph.all('triac')) {
    const [high, low, gate] = t.nets as [string, string, string];
    const through = a.graph.on(high, 'inductor').map((p) => farEnd(p.branch, high));
    // Straight across a rail it can only be there to short it.
    const crowbar = isRail(a, high) && a.grounds.has(low);
    const empties = !crowbar && [high, ...through].some((n) => isRail(a, n));
    const kind: StageKind = crowbar ? 'protection' : empties ? 'discharge' : 'switch';
    book.add(
      t,
      kind,
      0.9,
      crowbar
        ? 'shorts the rail when it rises too high'
        : empties
          ? 'empties the store into the winding'
          : 'switches the load',
    );
    if (crowbar) {
      book.addAll(cone(scene, gate), kind, 0.8, 'fires the gate');
      continue;
    }
    for (const d of a.graph.between(high, low, 'diode')) book.add(d, kind, 0.85, 'carries the current back');
    for (const d of a.graph.between(high, low, 'mov')) book.add(d, 'surge', 0.9, 'clamps surges at the switch');
    for (const r of a.graph.between(high, low, 'resistor')) book.add(r, 'clamp', 0.85, 'across the switch');
    for (const d of a.graph.between(high, low, 'capacitor')) book.add(d, 'clamp', 0.85, 'damps the switch');
    claimDampers(scene, high, low);
    claimFiring(scene, gate);
    book.addAll(cone(scene, gate), empties ? 'discharge' : 'gate-drive', 0.8, 'fires the gate');
  }
}

/** The resistors around an isolating driver whose output fires a gate. */
function claimFiring(scene: Scene, gate: string): void {
  const { a, book } = scene;
  for (const { branch: ic } of a.graph.on(gate, 'ic', 'opto')) {
    const island = a.islands.find((i) => i.nets.has(gate));
    for (const net of ic.nets) {
      if (!island?.nets.has(net)) continue;
      for (const { branch } of a.graph.on(net, 'resistor')) book.add(branch, 'gate-drive', 0.85, 'fires the gate');
    }
  }
}

function claimDampers(scene: Scene, high: string, low: string): void {
  const { a, book } = scene;
  for (const { branch } of a.graph.on(high, 'resistor', 'capacitor')) {
    const mid = farEnd(branch, high);
    const onward = a.graph.on(mid).filter((p) => p.branch !== branch);
    const partner = onward[0]?.branch;
    if (onward.length === 1 && partner && partner.nets.length === 2 && farEnd(partner, mid) === low)
      book.addAll([branch, partner], 'clamp', 0.85, 'damps the switch');
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
    book.add(t.branch, 'regulator', 0.9, 'stands in series between two rails');
    book.addAll(
      cone(scene, t.control, (b) => b === t.branch),
      'regulator',
      0.8,
      'holds the pass transistor',
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
  const steady = (net: string): boolean => a.grounds.has(net) || isRail(a, net);
  const [end, other] = steady(t.low) ? [t.high, t.low] : [t.low, t.high];
  if (!steady(other) || scene.switches.drives.has(t)) return;
  // The inlet's other conductor keeps it on.
  const inlet = along(end).flatMap((n) => a.graph.on(n, 'connector').map((p) => p.branch));
  const conductors = new Set(inlet.flatMap((c) => c.nets.flatMap(along)));
  const network = cone(scene, t.control, (b) => b === t.branch);
  const passive = network.every((b) => ['resistor', 'capacitor', 'diode'].includes(b.kind));
  const told = a.graph.on(t.control, 'ic', 'opto').length > 0;
  const kept = network.some((b) => b.nets.some((n) => conductors.has(n) && steady(n) && n !== end && n !== other));
  if (!passive || told || !kept) return;
  book.add(t.branch, 'protection', 0.86, 'blocks a supply connected the wrong way round');
  book.addAll(network, 'protection', 0.8, 'keeps the blocking transistor on');
}

/** A transistor to ground or a rail with what it switches outside the board: a fan, a lamp, a coil. */
function claimLoadSwitch(scene: Scene, t: Scene['a']['transistors'][number]): void {
  const { a, book } = scene;
  const outside = (net: string): boolean =>
    a.graph.on(net, 'connector').length > 0 && !isEdge(scene, net) && a.graph.on(net, 'resistor', 'ic').length === 0;
  const steady = (net: string): boolean => a.grounds.has(net) || isRail(a, net);
  const switches = (steady(t.low) && outside(t.high)) || (steady(t.high) && outside(t.low));
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
