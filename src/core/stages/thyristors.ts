import { cone } from './claims';
import type { Scene } from './claims';
import { farEnd } from './partGraph';
import { isRail } from './rails';
import type { StageKind } from './stageKinds';

/** A thyristor or triac: empties a store through a winding, or switches a load. */
export function claimThyristors(scene: Scene): void {
  const { a, book } = scene;
  for (const t of a.graph.all('triac')) {
    const [high, low, gate] = t.nets as [string, string, string];
    const through = a.graph.on(high, 'inductor').map((p) => farEnd(p.branch, high));
    // Straight across a rail it can only be there to short it.
    const crowbar = isRail(a, high) && a.grounds.has(low) && !a.lines.some((l) => l.poles.some((p) => p.has(high)));
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
