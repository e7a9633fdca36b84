import { inductorsAt } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import type { Converter, SwitchNode, Topology } from './converter';
import { icSupply, railVolts } from './icSupply';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { heldOn, isRail, railCapacitors } from './rails';
import { railBehind } from './secondaries';
import { SUPPLY_FARADS } from './windings';

/** A switch on a plain choke (or on the only winding of a coupled one that carries power). */
export function chokeConverter(
  a: Anatomy,
  node: SwitchNode,
  nodes: readonly SwitchNode[],
  drive: ReadonlySet<Branch>,
): Converter | null {
  if (isRail(a, node.net) || a.grounds.has(node.net)) return null;
  const sensing = new Set(a.cores.filter((c) => c.purpose === 'current').flatMap((c) => c.windings));
  const choke = inductorsAt(a, node.net).find((l) => !drive.has(l) && !sensing.has(l));
  if (!choke) return null;
  const far = farEnd(choke, node.net);
  const base = { transistors: node.transistors, ics: node.ics, coils: [choke], core: null, nodes: [node.net] };
  const legs = node.leg ? [node.leg] : [];
  const other = nodes.find((n) => n !== node && n.net === far && n.leg);
  if (node.leg && other?.leg) {
    const supply = [node.leg.rail, other.leg.rail].sort((x, y) => inletRank(a, y) - inletRank(a, x))[0]!;
    return {
      ...base,
      transistors: [...node.transistors, ...other.transistors],
      nodes: [node.net, far],
      legs: [node.leg, other.leg],
      topology: 'buck-boost',
      why: 'a leg at either end of one choke',
      supply,
      outputs: new Set([node.leg.rail, other.leg.rail].filter((r) => r !== supply)),
    };
  }
  if (node.leg) {
    const raises = cameFrom(a, far, node.leg.rail);
    return raises
      ? {
          ...base,
          legs,
          topology: boostKind(a, far, node.leg.rail),
          why: 'the choke comes from the inlet, the upper switch leads on',
          supply: far,
          outputs: railBehind(a, node.leg.rail),
        }
      : {
          ...base,
          legs,
          topology: 'synchronous-buck',
          why: 'a leg across the input feeds a choke into the output',
          supply: node.leg.rail,
          outputs: railBehind(a, far),
        };
  }
  const onward = diodesAt(a, node.net, 'anode').find((d) => isRail(a, d.nets[1]!) && d.nets[1] !== far);
  // The output stands on the supply itself.
  if (onward && heldOn(a, onward.nets[1]!) === far) {
    return {
      ...base,
      legs,
      topology: 'buck-boost',
      why: 'the choke draws from the supply and gives to an output that stands on it',
      supply: far,
      outputs: railBehind(a, onward.nets[1]!),
    };
  }
  // The choke below the load, the diode back to the supply: a buck with its switch at ground.
  if (onward && !a.grounds.has(far) && loadBetween(a, onward.nets[1]!, far)) {
    return {
      ...base,
      legs,
      topology: 'buck',
      why: 'the switch at ground draws the load and choke down, a diode leads back to the supply',
      supply: onward.nets[1]!,
      outputs: railBehind(a, far),
    };
  }
  const freewheel = diodesAt(a, node.net, 'cathode').find((d) => d.nets[0] !== far);
  const feeds =
    node.transistors.find((t) => t.low === node.net)?.high ?? (node.ics.length > 0 ? icSupply(a, node, far) : '');
  if (freewheel && a.grounds.has(far)) {
    return {
      ...base,
      legs,
      topology: 'buck-boost',
      why: 'the choke stands between switch and ground, the diode draws below it',
      supply: feeds,
      outputs: railBehind(a, freewheel.nets[0]!),
    };
  }
  if (freewheel) {
    return {
      ...base,
      legs,
      topology: 'buck',
      why: 'the switch feeds a choke from above, a diode carries on from ground',
      supply: feeds,
      outputs: railBehind(a, far),
    };
  }
  const upper = node.transistors.find((t) => t.low === node.net && isRail(a, t.high));
  if (!onward && upper && isRail(a, far)) {
    return {
      ...base,
      legs,
      topology: 'buck',
      why: 'the switch feeds a choke from above, its freewheel diode not traced yet',
      supply: upper.high,
      outputs: railBehind(a, far),
    };
  }
  if (onward) {
    return {
      ...base,
      legs,
      topology: boostKind(a, far, onward.nets[1]!),
      why: 'the choke comes from the input, a diode leads on to a higher rail',
      supply: far,
      outputs: railBehind(a, onward.nets[1]!),
    };
  }
  const unfed = unfedAbove(a, far);
  if (unfed !== null) return { ...base, legs, ...ABOVE_SUPPLY, supply: far, outputs: railBehind(a, unfed) };
  return {
    ...base,
    legs,
    topology: 'unknown',
    why: 'a switch on a coil without a rectifier',
    supply: far,
    outputs: new Set(),
  };
}

/** What gives to an output that stands on its supply while the diode between or the store is not traced yet. */
export const ABOVE_SUPPLY = {
  topology: 'buck-boost',
  why: 'the coil draws from the supply, an output stands on that; its diode or its capacitor is not traced yet',
} as const;

/** An output that stands on a rail and that nothing traced feeds: its store, and a connector with both, no diode to it. */
export function unfedAbove(a: Anatomy, rail: string): string | null {
  if (!isRail(a, rail)) return null;
  const stores = a.graph.on(rail, 'capacitor').filter((p) => p.branch.value! >= SUPPLY_FARADS);
  const unfed = stores
    .map((p) => farEnd(p.branch, rail))
    .find((net) => {
      if (a.grounds.has(net) || a.graph.on(net, 'inductor', 'regulator').length > 0) return false;
      // A clamp across it feeds nothing.
      const rectified = a.graph.on(net, 'diode').some((p) => p.pin === 1 && farEnd(p.branch, net) !== rail);
      const fed = rectified || a.graph.on(net, 'mosfet', 'bjt').length > 0;
      return !fed && connectorAcross(a, net, rail);
    });
  return unfed ?? null;
}

/** An output that a switching node gives to through a diode, its load between it and the supply; its store is not traced yet. */
export function loadedAbove(a: Anatomy, node: string, supply: string): string | null {
  const nets = diodesAt(a, node, 'anode').map((d) => d.nets[1]!);
  const loaded = nets.find(
    (n) => (!isRail(a, n) || a.graph.between(n, supply, 'capacitor').length > 0) && connectorAcross(a, n, supply),
  );
  return loaded ?? null;
}

/** An output for this printed voltage comes from a line. */
const LINE_VOLTS = 385;

function boostKind(a: Anatomy, supply: string, output: string): Topology {
  // Storage on its input makes that a direct voltage, whatever comes out.
  const stored = railCapacitors(a, supply).some((c) => c.value! >= 10e-6);
  const line = a.rectifiers.some((r) => r.plus === supply) || (railVolts(a, output) >= LINE_VOLTS && !stored);
  return line ? 'boost-pfc' : 'boost';
}

/** Whether power comes in at one rail and goes out at the other: by what is regulated, by the inlet, by what lives on it. */
function cameFrom(a: Anatomy, rail: string, other: string): boolean {
  const score = (net: string): number => inletRank(a, net) - (regulated(a, net) ? 1.5 : 0);
  const ahead = score(rail) - score(other);
  return ahead > 1 || (ahead > 0 && users(a, rail) < users(a, other));
}

/** Parts that live on a rail. */
function users(a: Anatomy, net: string): number {
  return a.graph.on(net, 'ic', 'regulator', 'connector', 'resistor').length;
}

/** Whether the load hangs between two nets and not on ground: a capacitor or a connector's two pins between them. */
function loadBetween(a: Anatomy, rail: string, net: string): boolean {
  if (railCapacitors(a, net).length > 0 || a.rectifiers.some((r) => r.plus === net)) return false;
  const stores = a.graph.between(rail, net, 'capacitor').length > 0;
  return stores || connectorAcross(a, net, rail);
}

/** Whether a connector has both nets. */
function connectorAcross(a: Anatomy, net: string, other: string): boolean {
  return a.graph.on(net, 'connector').some((p) => p.branch.nets.includes(other));
}

/** Whether a divider from a rail leads to an integrated circuit: it is what that regulates. */
function regulated(a: Anatomy, net: string): boolean {
  return a.graph.on(net, 'resistor').some(({ branch }) => {
    const far = farEnd(branch, net);
    const lower = a.graph.on(far, 'resistor').some((p) => p.branch !== branch && a.grounds.has(farEnd(p.branch, far)));
    return lower && a.graph.on(far, 'ic').length > 0;
  });
}

/** How directly a rail comes from an inlet: a connector behind a fuse or series diode counts most. */
function inletRank(a: Anatomy, net: string): number {
  let rank = 0;
  const seen = new Set([net]);
  const queue: [string, number][] = [[net, 0]];
  for (let item = queue.shift(); item !== undefined; item = queue.shift()) {
    const [here, fuses] = item;
    if (a.graph.on(here, 'connector').length > 0) rank = Math.max(rank, 1 + fuses);
    // A transistor in the conductor that nothing switches: it blocks a supply connected the wrong way round.
    for (const t of a.transistors) {
      const next = t.high === here ? t.low : t.low === here ? t.high : here;
      if (seen.has(next) || a.grounds.has(next) || a.graph.on(next, 'fuse', 'connector').length === 0) continue;
      seen.add(next);
      queue.push([next, fuses + 1]);
    }
    for (const { branch, pin } of a.graph.on(here, 'relay')) {
      const next = pin >= 2 ? branch.nets[5 - pin]! : here;
      if (seen.has(next) || a.grounds.has(next)) continue;
      seen.add(next);
      queue.push([next, fuses]);
    }
    for (const { branch, pin } of a.graph.on(here, 'fuse', 'switch', 'ntc', 'diode')) {
      if (branch.kind === 'diode' && pin === 0) continue;
      const next = branch.nets[1 - pin]!;
      if (seen.has(next) || a.grounds.has(next)) continue;
      seen.add(next);
      queue.push([next, fuses + 1]);
    }
  }
  return rank;
}
