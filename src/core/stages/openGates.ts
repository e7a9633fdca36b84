import { controllersOf, groundOf, inductorsAt, sameIsland } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt, fromGround } from './cells';
import { DRIVE_OHMS, idle, idleEnds, mostWorked, rides, senseEnd, upperRail } from './halfPlaces';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail } from './rails';
import type { Half, Supposed } from './supposed';
import { diode, transistor } from './supposedParts';
import type { Transistor } from './transistors';

export type Rule = (half: Half) => readonly (Supposed | null)[];

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

/** A gate net between a small resistor or diode from its drive and a larger resistor that holds it down. */
function gateBehind(a: Anatomy, branch: Branch, start: string): OpenGate | null {
  const far = farEnd(branch, start);
  if ((branch.value ?? 0) > DRIVE_OHMS || a.grounds.has(far) || isRail(a, far)) return null;
  if (a.graph.on(far, 'ic', 'inductor', 'opto', 'connector', 'capacitor', 'regulator', 'switch', 'fuse').length > 0)
    return null;
  const holds = a.graph.on(far, 'resistor').filter((p) => p.branch.value! >= 1e3 && p.branch !== branch);
  return holds.length === 1 ? { gate: far, low: farEnd(holds[0]!.branch, far) } : null;
}

export const openGate: Rule = (half) => {
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
  if (fromGround(a, t.low)) {
    const drives = new Set(half.switches.driveCores.flatMap((c) => c.windings));
    const far = inductorsAt(a, t.low).flatMap((w) => (drives.has(w) ? [] : [farEnd(w, t.low)]));
    return far.filter((n) => idle(half, n) && diodesAt(a, n, 'anode').length > 0);
  }
  return rides(half, t.low) || inductorsAt(a, t.low).length > 0 ? [t.low] : [];
}

/** A node that a supply rides on, with one transistor of two and no diode that would do for the other. */
export const halfLeg: Rule = (half) => {
  const { a, switches } = half;
  const inLegs = new Set(switches.legs.flatMap((l) => [...l.top, ...l.bottom]));
  return a.transistors.map((t) => {
    if (inLegs.has(t)) return null;
    const node = a.grounds.has(t.low) ? t.high : isRail(a, t.high) ? t.low : null;
    if (node === null || !rides(half, node)) return null;
    if (fromGround(a, node)) return null;
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
