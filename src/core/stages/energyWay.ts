import { inductorsAt, transformerOf } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import type { PowerSwitches } from './cells';
import type { SwitchNode } from './converter';
import { icSupply, railVolts } from './icSupply';
import { farEnd } from './partGraph';
import type { Branch, BranchPin } from './partGraph';
import { isRail, railCapacitors } from './rails';
import { railBehind } from './secondaries';
import type { Core } from './shapes';
import { isSupposed } from './supposed';
import type { Transistor } from './transistors';

/** The far higher rail on which an integrated switch stands above its winding; null where it stands on ground. */
export function icAbove(a: Anatomy, node: SwitchNode, far: string): string | null {
  if (node.ics.length === 0) return null;
  const supply = icSupply(a, node, far);
  const high = railVolts(a, supply) >= 160 || a.rectifiers.some((r) => r.plus === supply);
  return supply !== far && high && railVolts(a, supply) > 3 * railVolts(a, far) ? supply : null;
}

/** Whether nothing but resistors and windings reaches the drives of switches: no integrated circuit and no other side. */
export function undriven(
  a: Anatomy,
  switches: PowerSwitches,
  { transistors, ics }: { readonly transistors: readonly Transistor[]; readonly ics: readonly Branch[] },
): boolean {
  const told = a.graph.all('opto').length > 0 || a.graph.all('ic').some((b) => b.nets.length >= 3);
  if (ics.length > 0 || transistors.length === 0 || told) return false;
  return transistors.every(
    (t) =>
      (isSupposed(t.branch.parts[0]!.ref) && idleDrive(a, t)) ||
      (t.branch.kind === 'bjt' && (switches.drives.get(t)?.nets.size ?? 0) > 0),
  );
}

/** Whether a core gives its energy in one direction only: a choke behind a winding that is neither tapped nor bridged. */
function oneWay(a: Anatomy, core: Core, driven: readonly Branch[]): boolean {
  const rest = core.windings.filter((w) => !driven.includes(w));
  const rectified = rest.filter((w) =>
    w.nets.some((n) => !a.grounds.has(n) && a.graph.on(n, 'diode', 'bridge').length > 0),
  );
  const bridged = rest.some((w) => a.rectifiers.some((r) => w.nets.some((n) => r.ac.includes(n))));
  const tapped = rectified.some((x) => rectified.some((y) => x !== y && x.nets.some((n) => y.nets.includes(n))));
  return !bridged && !tapped && rest.some((w) => hasFreewheelChoke(a, w));
}

/** Whether a winding of the core that a switch works on ends on nothing but resistors and capacitors: a drive. */
function idleDrive(a: Anatomy, t: Transistor): boolean {
  const core = a.cores.find((c) => c.windings.some((w) => w.nets.includes(t.high)));
  const passive = (n: string): boolean => {
    const kinds = new Set(a.graph.on(n).map((p) => p.branch.kind));
    const behind = a.graph.on(n, 'resistor').some((p) => a.graph.on(farEnd(p.branch, n), 'diode').length > 0);
    return (
      kinds.has('resistor') && !behind && !['diode', 'bridge', 'ic', 'connector'].some((k) => kinds.has(k as 'diode'))
    );
  };
  return (core?.windings ?? []).some(
    (w) => !w.nets.includes(t.high) && w.nets.some((n) => !a.grounds.has(n) && !isRail(a, n) && passive(n)),
  );
}

/** Whether a winding is one half of a tapped one: another of its kind begins at its far end. */
export function halfOfPair(a: Anatomy, core: Core, w: Branch): boolean {
  const alike = core.windings.filter((x) => x !== w && Math.abs(x.value! / w.value! - 1) < 0.1);
  // One that a diode from ground returns to the supply only resets the core.
  const resets = (x: Branch, shared: string): boolean => diodesAt(a, farEnd(x, shared), 'cathode').length > 0;
  return alike.some(
    (x) => x.nets.some((n) => w.nets.includes(n) && !a.grounds.has(n) && !resets(x, n)) && !oneWay(a, core, [w, x]),
  );
}

export function drivenByCore(a: Anatomy, switches: PowerSwitches, core: Core, t: Transistor): boolean {
  const drive = switches.drives.get(t);
  if (!drive) return false;
  const ic = [...drive.nets].some((n) => a.graph.on(n, 'ic').some((p) => p.branch.nets.length >= 3));
  return !ic && core.windings.some((w) => w.nets.some((n) => drive.nets.has(n)));
}

/** A secondary that leaves the board as it is, with no rectifier. */
export function alternatingOutput(a: Anatomy, core: Core, driven: readonly Branch[]): boolean {
  const rest = core.windings.filter((w) => !driven.includes(w));
  const rectified = (w: Branch): boolean =>
    w.nets.some(
      (n) =>
        !a.grounds.has(n) &&
        [
          ...diodesAt(a, n, 'anode'),
          ...diodesAt(a, n, 'cathode').filter((d) => a.grounds.has(d.nets[0]!)),
          ...a.graph.on(n, 'bridge').filter((p) => carriesBoth(a, w, p)),
        ].length > 0,
    );
  return (
    rest.length > 0 &&
    rest.some((w) => !rectified(w) && w.nets.every((n) => a.grounds.has(n) || leavesFar(a, n))) &&
    !rest.some((w) => rectified(w) && w.value! > 1e-3)
  );
}

/** Whether a bridge's other conductor comes from the winding too, and not through what passes milliamperes only. */
function carriesBoth(a: Anatomy, w: Branch, { branch, pin }: BranchPin): boolean {
  if (pin > 1) return true;
  const other = branch.nets[1 - pin]!;
  const series = a.graph.on(other).filter((p) => p.branch !== branch);
  return (
    series.length === 0 ||
    series.some((p) => p.branch.kind !== 'resistor' || p.branch.value! <= 1000 || w.nets.includes(other))
  );
}

/** Whether a net leads off the board, through coils, fuses and contacts too. */
function leavesFar(a: Anatomy, start: string): boolean {
  const seen = new Set([start]);
  const queue = [start];
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    if (a.graph.on(net, 'connector').length > 0) return true;
    for (const { branch, pin } of a.graph.on(net, 'inductor', 'fuse', 'switch', 'relay')) {
      if (branch.kind === 'relay' && pin < 2) continue;
      const next = branch.kind === 'relay' ? branch.nets[5 - pin]! : farEnd(branch, net);
      if (seen.has(next) || a.grounds.has(next) || transformerOf(a, branch) !== undefined) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return false;
}

export function leavesBoard(a: Anatomy, net: string): boolean {
  const next = a.graph.on(net, 'fuse', 'switch', 'inductor').map((p) => farEnd(p.branch, net));
  return [net, ...next].some((n) => a.graph.on(n, 'connector').length > 0);
}

export function hasFreewheelChoke(a: Anatomy, w: Branch): boolean {
  return w.nets.some((end) =>
    diodesAt(a, end, 'anode').some((d) => {
      const behind = d.nets[1]!;
      const choke = inductorsAt(a, behind).some(
        (l) => !railCapacitors(a, behind).length && isRail(a, farEnd(l, behind)),
      );
      return choke && (diodesAt(a, behind, 'cathode').length >= 2 || smoothing(a, behind));
    }),
  );
}

/** A choke of a smoothing size: small ones only keep noise back. */
function smoothing(a: Anatomy, net: string): boolean {
  return inductorsAt(a, net).some((l) => l.value! >= 10e-6 && isRail(a, farEnd(l, net)));
}

/** Rails that the windings which are not driven charge. */
export function outputRails(a: Anatomy, core: Core, driven: readonly Branch[]): ReadonlySet<string> {
  const rails = new Set<string>();
  for (const w of core.windings) {
    if (driven.includes(w)) continue;
    for (const end of w.nets) {
      if (a.grounds.has(end)) continue;
      for (const d of diodesAt(a, end, 'anode')) for (const n of railBehind(a, d.nets[1]!)) rails.add(n);
      // A transistor there rectifies: the winding's other end is the output.
      const rectifies = a.transistors.some((t) => t.high === end && a.grounds.has(t.low));
      if (rectifies) for (const n of railBehind(a, farEnd(w, end))) rails.add(n);
      for (const r of a.rectifiers) if (r.ac.includes(end)) for (const n of railBehind(a, r.plus)) rails.add(n);
    }
  }
  return rails;
}
