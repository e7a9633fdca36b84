import { inductorsAt, islandOf, transformerOf } from './anatomy';
import { diodesAt } from './cells';
import { cone } from './claims';
import type { Scene } from './claims';
import { farEnd, ratedVolts } from './partGraph';
import type { Branch } from './partGraph';
import { claimDampers, claimRail } from './powerStages';
import { isRail, isSteady } from './rails';
import type { StageKind } from './stageKinds';

/** Stages behind a winding: rectifier, filter or auxiliary supply. */
export function claimSecondaries(scene: Scene): void {
  const { a, book } = scene;
  for (const s of scene.secondaries) {
    const bridged = a.rectifiers.some((r) => r.branches.some((b) => s.rectifiers.includes(b)));
    const pumped = !bridged && s.series.some((b) => b.kind === 'capacitor');
    const kind: StageKind = s.auxiliary ? 'aux-supply' : pumped ? 'multiplier' : 'output-rectifier';
    book.addAll(s.rectifiers, kind, 0.9, s.auxiliary ? 'rectifies the auxiliary winding' : 'rectifies the winding');
    for (const b of s.series)
      book.add(b, bridged && b.kind === 'capacitor' ? 'tank' : kind, 0.85, 'in series with the rectifier');
    const meets = new Set(s.rectifiers.flatMap((r) => r.nets));
    for (const rail of s.rails) {
      claimRail(scene, rail, s.auxiliary ? 'aux-supply' : 'output-filter');
      if (!meets.has(rail) || inductorsAt(a, rail).length === 0) continue;
      for (const d of diodesAt(a, rail, 'cathode'))
        if (a.grounds.has(d.nets[0]!)) book.add(d, kind, 0.85, "carries the choke's current on");
    }
    for (const end of [...s.winding.nets, ...s.rails].filter((n) => !a.grounds.has(n) && !isRail(a, n)))
      claimDampers(scene, end, kind);
  }
  claimChokes(scene);
  claimLadders(scene);
  for (const w of a.cores.flatMap((c) => (c.purpose === 'transformer' ? c.windings : [])))
    if (!scene.secondaries.some((s) => s.winding === w))
      for (const end of w.nets) if (!isSteady(a, end)) claimDampers(scene, end, 'clamp');
  for (const core of a.cores) {
    if (
      core.purpose !== 'transformer' ||
      scene.converters.some((c) => c.core === core) ||
      scene.switches.driveCores.includes(core)
    )
      continue;
    const own = scene.secondaries.filter((s) => s.core === core);
    const kind: StageKind = own.length > 0 && own.every((s) => s.auxiliary) ? 'aux-supply' : 'transformer';
    book.addAll(
      core.windings,
      kind,
      0.85,
      kind === 'aux-supply' ? 'a small transformer for the control supply' : 'windings on one core',
    );
  }
}

/** Diodes and capacitors in a ladder on a winding: each step adds the winding's swing. */
function claimLadders(scene: Scene): void {
  const { a, book } = scene;
  for (const s of scene.secondaries) {
    const found = new Set<Branch>();
    const queue = s.winding.nets.filter((n) => !a.grounds.has(n));
    const seen = new Set(queue);
    for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
      for (const { branch } of a.graph.on(net, 'diode', 'capacitor')) {
        if (branch.kind === 'capacitor' && (branch.value! > 1e-6 || (ratedVolts(branch) ?? 0) < 400)) continue;
        found.add(branch);
        const far = farEnd(branch, net);
        if (seen.has(far) || a.grounds.has(far)) continue;
        seen.add(far);
        queue.push(far);
      }
    }
    const list = [...found];
    const hanging = list.filter((b) => b.kind === 'capacitor' && b.nets.every((n) => !a.grounds.has(n)));
    const steps = list.filter((b) => b.kind === 'diode');
    if (steps.length >= 3 && hanging.length >= 2)
      book.addAll(list, 'multiplier', 0.93, 'a step of the ladder that multiplies the winding');
  }
}

/** Chokes with several windings, chokes in the return of a tapped winding, current transformers with their burden. */
function claimChokes(scene: Scene): void {
  const { a, book } = scene;
  for (const core of a.cores) {
    if (core.purpose === 'output-choke')
      book.addAll(core.windings, 'output-filter', 0.9, 'smooths behind the rectifier');
    if (core.purpose === 'current') book.addAll(core.windings, 'current-sense', 0.97, 'a current transformer');
  }
  for (const net of a.currents)
    if (!a.grounds.has(net))
      book.addAll(
        cone(scene, net, (b) => b.kind === 'bjt' || b.kind === 'mosfet'),
        'current-sense',
        0.82,
        'turns a current into a signal',
      );
  for (const w of a.cores.flatMap((c) => (c.purpose === 'transformer' ? c.windings : [])))
    for (const end of w.nets) {
      for (const choke of inductorsAt(a, end)) {
        const far = farEnd(choke, end);
        if (
          transformerOf(a, choke) === undefined &&
          a.grounds.has(far) &&
          !scene.converters.some((c) => c.nodes.includes(end))
        )
          book.add(choke, 'output-filter', 0.85, 'a choke in the return of the winding');
      }
    }
}

/** Capacitors and high-value resistors from one island to another. */
export function claimBarrier({ a, book }: Scene): readonly Branch[] {
  const crossing: Branch[] = [];
  for (const branch of a.graph.branches) {
    if (branch.nets.length !== 2) continue;
    const [p, q] = branch.nets.map((n) => islandOf(a, n));
    if (!p || !q || p === q) continue;
    crossing.push(branch);
    if (branch.kind === 'capacitor' || branch.kind === 'resistor' || branch.kind === 'mov')
      book.add(branch, 'barrier', 0.95, 'bridges the isolation');
  }
  return crossing;
}
