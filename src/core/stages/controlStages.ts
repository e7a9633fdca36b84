import type { AmplifierLoop } from './icClasses';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import { cone, isEdge } from './claims';
import type { Scene } from './claims';
import { diodeClass, farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, isReference, railCapacitors } from './rails';
import { claimOpto } from './signalStages';
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
function amplifierStage(scene: Scene, ic: Branch): StageKind | null {
  const { pins, loops } = scene;
  const own = loops.get(ic) ?? [];
  const roles = (pins.get(ic) ?? []).map((f) => f.role);
  if (own.length === 0 || roles.some((r) => ['GATE', 'SW', 'DRAIN', 'SOURCE', 'BST', 'RT'].includes(r))) return null;
  return own.length === 0 ? null : loopStage(scene, ic, own);
}

/** What some of an amplifier's loops are for. */
function loopStage(scene: Scene, ic: Branch, own: readonly AmplifierLoop[]): StageKind {
  const { a, pins } = scene;
  const looped = new Set((scene.loops.get(ic) ?? []).flatMap((l) => [l.input, l.output]));
  // The other inputs of its amplifiers: where all of them see a current, every loop amplifies one.
  const plus = [...new Set(ic.nets)].filter((n) => !looped.has(n) && !a.grounds.has(n) && !isRail(a, n));
  const all = plus.length > 0 && plus.every((n) => nearCurrent(a, n));
  const currents = all || own.some((l) => nearCurrent(a, l.input));
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
      const loop = (scene.loops.get(ic) ?? []).filter((l) => l.input === net || l.output === net);
      book.addAll(cone(scene, net), loop.length > 0 ? loopStage(scene, ic, loop) : kind, 0.79, why);
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
  const lowered = network.some((b) => b.kind === 'resistor' && b.nets.some((n) => a.grounds.has(n)));
  const warm = network.some((b) => b.kind === 'ntc');
  const divider =
    warm ||
    network.some((b) => ['resistor', 'ntc'].includes(b.kind) && b.nets.some((n) => isMeasured(scene, ic, n, lowered)));
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
function isMeasured(scene: Scene, ic: Branch, net: string, lowered = false): boolean {
  const { a } = scene;
  if (a.grounds.has(net)) return false;
  const powered = (scene.pins.get(ic) ?? []).some((f) => f.role === 'VCC' || f.role === 'VIN');
  if (powered && a.graph.on(net, 'connector').length > 0) return true;
  const makes = scene.converters.some((c) => c.outputs.has(net)) || (lowered && isRail(a, net) && !isReference(a, net));
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
