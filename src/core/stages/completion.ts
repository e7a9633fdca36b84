import { controllersOf, groundOf, inductorsAt, sameIsland, writtenNet } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt, fromGround } from './cells';
import {
  idle,
  idleCores,
  idleEnds,
  lineFed,
  mostWorked,
  openDrives,
  rides,
  senseEnd,
  steadyFar,
  supplyOf,
  unfed,
  upperRail,
} from './halfPlaces';
import { railVolts } from './icSupply';
import { halfLeg, openGate } from './openGates';
import type { Rule } from './openGates';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { heldOn, isRail, railCapacitors } from './rails';
import type { Half, Supposed } from './supposed';
import { choke, diode, transistor, winding } from './supposedParts';

/**
 * The part that a half-traced board most surely lacks, or null where nothing asks for one: a gate with no transistor, a
 * leg with one switch, a winding or choke that nothing works on, a switch that works on nothing.
 */
export function supposeMissing(half: Half): Supposed | null {
  for (const rule of [
    openUpper,
    openGate,
    halfLeg,
    splitSwitches,
    nodeWithoutChoke,
    switchWithoutCoil,
    bridgeWithoutWinding,
    idlePrimary,
    idleChoke,
    coilWithoutRectifier,
  ])
    for (const found of rule(half)) if (found) return found;
  return null;
}

/** Two legs that work on nothing, and a core on which nothing works. */
const bridgeWithoutWinding: Rule = (half) => {
  const { a, converters } = half;
  const core = idleCores(half).find((c) => !lineFed(a, c));
  if (!core) return [];
  return converters.map((c) => {
    const [x, y, ...more] = c.nodes;
    if (c.core !== null || c.coils.length > 0 || x === undefined || y === undefined || more.length > 0) return null;
    const like = Math.max(...core.windings.map((w) => w.value!));
    return winding(half, core, x, y, like, `No winding found yet between ${writtenNet(a, x)} and ${y}.`);
  });
};

/** A transformer with rectified windings on which nothing works. */
const idlePrimary: Rule = (half) => {
  const { a } = half;
  return idleCores(half).map((core) => {
    const ends = core.windings
      .flatMap((w) => w.nets)
      .filter((n) => idle(half, n) && steadyFar(a, core, n) && !fromGround(a, n));
    const high = mostWorked(a, [...new Set(ends)]);
    if (high === null || lineFed(a, core)) return null;
    const ground = groundOf(a, high);
    return ground === null
      ? null
      : transistor(half, high, null, senseEnd(a, ground), `No switch found yet at the winding end ${high}.`);
  });
};

/** A switch driven from ground whose upper end leads to no coil, and a core that no switch works on. */
const switchWithoutCoil: Rule = (half) => {
  const { a, converters } = half;
  const worked = new Set(converters.flatMap((c) => c.transistors));
  const gates = new Set(openDrives(half));
  const clamped = clampedPins(a);
  const free = a.transistors.filter(
    (t) =>
      !worked.has(t) &&
      (t.type === 'NPN' || t.type === 'NMOS') &&
      a.transistors.every((u) => u.control !== t.high) &&
      a.grounds.has(t.low) &&
      !a.grounds.has(t.high) &&
      !isRail(a, t.high) &&
      inductorsAt(a, t.high).length === 0 &&
      (gates.has(t.control) ||
        t.sensedBy.length > 0 ||
        a.currents.has(t.low) ||
        a.graph.on(t.control, 'inductor').length > 0) &&
      a.graph.on(t.high, 'connector', 'relay', 'opto').length === 0,
  );
  const cores = a.cores.filter((c) => c.purpose === 'transformer');
  const places = [
    ...free.map((t) => ({ node: t.high, near: t.low })),
    ...clamped.map((node) => ({ node, near: node })),
  ];
  return places.map(({ node, near }) => {
    const core = cores.find(
      (c) => !lineFed(a, c) && c.windings.some((w) => w.nets.some((n) => diodesAt(a, n, 'anode').length > 0)),
    );
    const twin = converters.find((c) => c.core === core);
    const supply = twin?.supply ?? supplyOf(a, near);
    if (!core || !supply) return null;
    const like = twin?.coils[0]?.value ?? Math.max(...core.windings.map((w) => w.value!));
    return winding(half, core, supply, node, like, `No winding found yet between ${node} and the supply.`);
  });
};

/** Pins of integrated switches by what clamps them: a diode to a resistor and a capacitor that hang on a rail, no winding. */
function clampedPins(a: Anatomy): readonly string[] {
  const nets = [...new Set(controllersOf(a).flatMap((ic) => ic.nets))].filter(
    (n) => !a.grounds.has(n) && !isRail(a, n),
  );
  return nets.filter(
    (n) =>
      inductorsAt(a, n).length === 0 &&
      diodesAt(a, n, 'anode').some((d) => {
        const held = a.graph.on(d.nets[1]!, 'resistor', 'capacitor').map((p) => p.branch);
        const rails = held.filter((b) => isRail(a, farEnd(b, d.nets[1]!)));
        return ['resistor', 'capacitor'].every((k) => rails.some((b) => b.kind === k));
      }),
  );
}

/** An upper and a lower switch, each node clamped to the other rail, and no winding between them. */
const splitSwitches: Rule = (half) => {
  const { a } = half;
  const bare = (n: string): boolean =>
    !a.grounds.has(n) && !isRail(a, n) && half.converters.every((c) => !c.nodes.includes(n));
  const tops = a.transistors.filter((t) => isRail(a, t.high) && bare(t.low) && fromGround(a, t.low));
  return tops.flatMap((top) =>
    a.transistors.map((t) => {
      const clamped =
        a.grounds.has(t.low) && bare(t.high) && diodesAt(a, t.high, 'anode').some((d) => d.nets[1] === top.high);
      if (!clamped || t.high === top.low) return null;
      return choke(half, top.low, t.high, `No winding found yet between ${top.low} and the supply.`, 3e-3);
    }),
  );
};

/** A switching node with its diode and no choke. */
const nodeWithoutChoke: Rule = (half) => {
  const { a, switches, converters } = half;
  const used = new Set(converters.flatMap((c) => c.nodes));
  const ics = controllersOf(a);
  const gates = new Set(openDrives(half));
  const nodes = [
    ...a.transistors.flatMap((t) => [t.high, t.low]),
    ...switches.legs.map((l) => l.node),
    ...ics.flatMap((ic) => ic.nets),
  ].filter((n) => !used.has(n) && !a.grounds.has(n) && !isRail(a, n) && inductorsAt(a, n).length === 0);
  return [...new Set(nodes)].map((node) => {
    const below = fromGround(a, node);
    const onward = diodesAt(a, node, 'anode').find(
      (d) =>
        heldOn(a, d.nets[1]!) !== null ||
        (isRail(a, d.nets[1]!) && railCapacitors(a, d.nets[1]!).some((c) => c.value! >= 1e-6)),
    );
    const leg = switches.legs.some((l) => l.node === node);
    if ((below && rides(half, node)) || (leg && switches.legs.length === 1 && rides(half, node))) {
      const output = unfed(half, node)[0];
      return output === undefined ? null : choke(half, node, output, `No choke found yet at ${node}.`);
    }
    // A relay's transistor has such a diode too: a switch has its shunt or a driven gate.
    const sinks =
      a.transistors.some(
        (t) =>
          t.high === node &&
          a.grounds.has(t.low) &&
          (a.currents.has(t.low) || (t.branch.kind === 'mosfet' && gates.has(t.control))),
      ) ||
      (onward !== undefined && ics.some((ic) => ic.nets.includes(node)) && onlyFeed(a, onward));
    if (onward && sinks) {
      const supply = heldOn(a, onward.nets[1]!) ?? supplyOf(a, node, onward.nets[1]);
      return supply ? choke(half, supply, node, `No choke found yet at ${node}.`) : null;
    }
    return null;
  });
};

/** Whether a diode is all that feeds a rail. */
function onlyFeed(a: Anatomy, d: Branch): boolean {
  const rail = d.nets[1]!;
  const others = diodesAt(a, rail, 'cathode').filter((x) => x !== d);
  return (
    others.length === 0 && a.graph.on(rail, 'inductor', 'regulator', 'bridge', 'fuse', 'switch', 'relay').length === 0
  );
}

/** A switch whose upper end is in the air, above a winding or choke: a conductor or what senses its current. */
const openUpper: Rule = (half) => {
  const { a } = half;
  return a.transistors.map((t) => {
    const alone = !a.grounds.has(t.high) && a.graph.touching(t.high).length === 1;
    if (alone && a.grounds.has(t.low)) {
      const end = mostWorked(
        a,
        idleEnds(half).filter((n) => sameIsland(a, n, t.low) && diodesAt(a, n, 'cathode').length === 0),
      );
      return end === null ? null : choke(half, end, t.high, `Nothing found yet above ${t.high}.`, 1e-6);
    }
    if (!alone || inductorsAt(a, t.low).length === 0 || a.grounds.has(t.low) || isRail(a, t.low)) return null;
    const rail = supplyOf(a, t.low);
    return rail === null ? null : choke(half, rail, t.high, `Nothing found yet above ${t.high}.`, 1e-6);
  });
};

/** A choke from a supply with a diode onward and no switch. */
const idleChoke: Rule = (half) => {
  const { a } = half;
  const used = new Set(half.converters.flatMap((c) => c.core?.windings ?? c.coils));
  const aside = new Set([
    ...used,
    ...a.cores.flatMap((c) => (c.purpose === 'transformer' && !half.switches.driveCores.includes(c) ? [] : c.windings)),
  ]);
  return a.graph.all('inductor').flatMap((l) =>
    aside.has(l)
      ? []
      : l.nets.map((node) => {
          if (!idle(half, node) || !isRail(a, farEnd(l, node))) return null;
          const onward = diodesAt(a, node, 'anode').some((d) => isRail(a, d.nets[1]!) && d.nets[1] !== farEnd(l, node));
          const below = fromGround(a, node);
          const ground = groundOf(a, node);
          if (onward && ground !== null)
            return transistor(half, node, null, senseEnd(a, ground), `No switch found yet at the choke end ${node}.`);
          const supply = below ? upperRail(half, node, farEnd(l, node)) : null;
          const higher = supply !== null && railVolts(a, supply) > 2 * railVolts(a, farEnd(l, node));
          if (!rides(half, node) && !higher) return null;
          return supply === null
            ? null
            : transistor(half, supply, null, node, `No switch found yet at the choke end ${node}.`);
        }),
  );
};

/** A switch to ground on a choke from a rail, and a higher rail that nothing charges. */
const coilWithoutRectifier: Rule = (half) => {
  const { a, converters } = half;
  return converters.flatMap((c) => {
    const [node] = c.nodes;
    const shared = converters.some(
      (o) => o !== c && (o.ics.some((x) => c.ics.includes(x)) || o.transistors.some((x) => c.transistors.includes(x))),
    );
    if (
      shared ||
      c.topology !== 'unknown' ||
      node === undefined ||
      c.coils.length !== 1 ||
      !isRail(a, farEnd(c.coils[0]!, node))
    )
      return [];
    const rings = a.graph.on(node, 'capacitor').some((p) => p.branch.value! >= 10e-9);
    const output = unfed(half, node).filter((n) => n !== c.supply)[0];
    if (rings || output === undefined || !c.transistors.every((t) => a.grounds.has(t.low))) return [];
    return [diode(half, node, output, `No rectifier found yet at ${node}.`)];
  });
};
