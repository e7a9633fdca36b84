import { inductorsAt, transformerOf } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt, fromGround } from './cells';
import type { Leg, PowerSwitches } from './cells';
import { ABOVE_SUPPLY, chokeConverter, loadedAbove, unfedAbove } from './chokeConverter';
import type { Converter, SwitchNode } from './converter';
import { betweenSwitches, drivingSide, phases } from './converterSides';
import {
  alternatingOutput,
  drivenByCore,
  halfOfPair,
  hasFreewheelChoke,
  icAbove,
  leavesBoard,
  outputRails,
  undriven,
} from './energyWay';
import { icSupply } from './icSupply';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail } from './rails';
import { railBehind } from './secondaries';
import { settledTopology } from './settled';
import type { Core } from './shapes';
import type { Transistor } from './transistors';

/** Recognises the converters of a board from its switches and coils. */
export function findConverters(a: Anatomy, switches: PowerSwitches): readonly Converter[] {
  return phases(workedOut(a, switches)).map((c) => {
    const said = settledTopology(c);
    return said === null ? c : { ...c, topology: said, why: 'set by hand' };
  });
}

function workedOut(a: Anatomy, switches: PowerSwitches): readonly Converter[] {
  const nodes = switchingNodes(switches);
  const driveWindings = new Set(switches.driveCores.flatMap((c) => c.windings));
  const found: Converter[] = [];
  const used = new Set<SwitchNode>();
  for (const core of a.cores) {
    if (core.purpose !== 'transformer' || switches.driveCores.includes(core)) continue;
    const all = nodes.filter((n) => core.windings.some((w) => reaches(a, n.net, w, driveWindings)));
    const here = drivingSide(a, all);
    const converter = here.length > 0 ? transformerConverter(a, switches, core, here) : null;
    if (!converter) continue;
    all.forEach((n) => used.add(n));
    found.push(converter);
  }
  const free = nodes.filter((n) => !used.has(n));
  const bridges = legGroups(
    a,
    free.filter((n) => n.leg !== null),
  );
  for (const group of bridges) {
    group.forEach((n) => used.add(n));
    found.push(bridgeConverter(group));
  }
  for (const node of free) {
    const pair = betweenSwitches(a, node, free);
    if (pair && !found.some((f) => sameCell(f, pair))) found.push(pair);
  }
  for (const node of free.filter((n) => !used.has(n))) {
    const converter = chokeConverter(a, node, nodes, driveWindings);
    if (converter && !found.some((f) => sameCell(f, converter))) found.push(converter);
  }
  return found;
}

function sameCell(a: Converter, b: Converter): boolean {
  return a.coils.length > 0 && a.coils.some((c) => b.coils.includes(c));
}

function switchingNodes(switches: PowerSwitches): readonly SwitchNode[] {
  const nodes = new Map<string, { net: string; leg: Leg | null; transistors: Transistor[]; ics: Branch[] }>();
  const at = (net: string): { leg: Leg | null; transistors: Transistor[]; ics: Branch[] } => {
    const node = nodes.get(net) ?? { net, leg: null, transistors: [], ics: [] };
    nodes.set(net, node);
    return node;
  };
  for (const leg of switches.legs) {
    const node = at(leg.node);
    node.leg = leg;
    node.transistors.push(...leg.top, ...leg.bottom);
  }
  for (const t of switches.singles) at(t.high).transistors.push(t);
  for (const t of switches.singles)
    if (nodes.get(t.low) === undefined || !nodes.get(t.low)!.leg) at(t.low).transistors.push(t);
  for (const { ic, node } of switches.inside) at(node).ics.push(ic);
  return [...nodes.values()];
}

/** Whether a node works on a winding: directly, or through a blocking capacitor or series coil. */
export function reaches(a: Anatomy, net: string, w: Branch, driveWindings: ReadonlySet<Branch>): boolean {
  if (driveWindings.has(w)) return false;
  const free = (n: string): boolean => !isRail(a, n) && !a.grounds.has(n);
  let near = free(net) ? [net] : [];
  const seen = new Set(near);
  for (let step = 0; near.length > 0; step++) {
    if (near.some((n) => w.nets.includes(n))) return true;
    if (step === 2) return false;
    near = near.flatMap((n) =>
      a.graph.on(n, 'capacitor', 'inductor').flatMap(({ branch }) => {
        const far = farEnd(branch, n);
        const blocks =
          branch.kind === 'capacitor'
            ? branch.value! < 20e-9
            : transformerOf(a, branch) !== undefined && !driveWindings.has(branch);
        if (blocks || seen.has(far) || !free(far)) return [];
        seen.add(far);
        return [far];
      }),
    );
  }
  return false;
}

function transformerConverter(
  a: Anatomy,
  switches: PowerSwitches,
  core: Core,
  nodes: readonly SwitchNode[],
): Converter | null {
  const drive = new Set(switches.driveCores.flatMap((c) => c.windings));
  const windings = core.windings.filter((w) => nodes.some((n) => reaches(a, n.net, w, drive)));
  const legs = nodes.flatMap((n) => (n.leg ? [n.leg] : []));
  const selfDriven = nodes.flatMap((n) => n.transistors).filter((t) => drivenByCore(a, switches, core, t));
  const base = {
    transistors: [...new Set(nodes.flatMap((n) => n.transistors))],
    ics: [...new Set(nodes.flatMap((n) => n.ics))],
    legs,
    coils: windings,
    core,
    nodes: nodes.map((n) => n.net),
  };
  const outputs = outputRails(a, core, windings);
  if (legs.length > 0) {
    const full = legs.length >= 2;
    const topology = alternatingOutput(a, core, windings)
      ? 'line-frequency-inverter'
      : full
        ? 'full-bridge'
        : 'half-bridge';
    const why = full
      ? 'two legs work on the two ends of one winding'
      : 'one leg works on a winding whose other end is held by capacitors';
    return { ...base, topology, why, supply: legs[0]!.rail, outputs };
  }
  if (nodes.length >= 2) {
    const both = windings.find((w) => nodes.filter((n) => w.nets.includes(n.net)).length >= 2);
    const highSide =
      base.transistors.some((t) => isRail(a, t.high)) && base.transistors.some((t) => a.grounds.has(t.low));
    if (both && highSide) {
      const top = base.transistors.find((t) => isRail(a, t.high))!;
      return {
        ...base,
        topology: 'two-switch-forward',
        why: 'a switch at either end of one winding',
        supply: top.high,
        outputs,
      };
    }
    const supply = centreTap(a, windings, nodes);
    const oscillates =
      base.transistors.length > 0 && (selfDriven.length === base.transistors.length || undriven(a, switches, base));
    const topology = oscillates
      ? 'royer'
      : alternatingOutput(a, core, windings)
        ? 'line-frequency-inverter'
        : 'push-pull';
    const why = oscillates
      ? 'two switches at the ends of a tapped winding, driven by the transformer itself'
      : 'two switches at the ends of a tapped winding';
    return { ...base, topology, why, supply, outputs };
  }
  const node = nodes[0]!;
  const own = ownOutput(a, core, node, windings);
  if (own) return own;
  const winding = windings.find((w) => w.nets.includes(node.net)) ?? windings[0]!;
  const far = farEnd(winding, node.net);
  const freewheel = fromGround(a, node.net);
  if (freewheel && isRail(a, far)) {
    const supply = node.transistors.find((t) => t.low === node.net)?.high ?? icSupply(a, node, far);
    return {
      ...base,
      topology: 'buck',
      why: 'the switch feeds a choke from above, a diode carries on from ground',
      supply,
      outputs: railBehind(a, far),
    };
  }
  const tapped = halfOfPair(a, core, winding);
  if (tapped && node.transistors.every((t) => a.grounds.has(t.low))) {
    const oscillates = selfDriven.length > 0 || undriven(a, switches, base);
    return {
      ...base,
      topology: oscillates ? 'royer' : 'push-pull',
      why: 'a switch at one end of a tapped winding, the other one not traced yet',
      supply: far,
      outputs,
    };
  }
  const above = node.transistors.find((t) => t.low === node.net && isRail(a, t.high))?.high ?? icAbove(a, node, far);
  if (above !== null && !a.grounds.has(far)) {
    return {
      ...base,
      topology: 'buck',
      why: 'the switch feeds a choke from above',
      supply: above,
      outputs: railBehind(a, far),
    };
  }
  if (selfDriven.length > 0 || undriven(a, switches, base)) {
    return {
      ...base,
      topology: 'blocking-oscillator',
      why: 'one switch, driven by a winding of its own transformer',
      supply: far,
      outputs,
    };
  }
  const others = core.windings.filter((w) => !windings.includes(w));
  const standing = unfedAbove(a, far) ?? loadedAbove(a, node.net, far);
  if (standing !== null && !others.some((w) => feedsLoad(a, w)))
    return { ...base, ...ABOVE_SUPPLY, supply: far, outputs: railBehind(a, standing) };
  const forward = others.some((w) => hasFreewheelChoke(a, w));
  return forward
    ? {
        ...base,
        topology: 'forward',
        why: 'one switch; the secondary has a freewheel diode and a choke',
        supply: far,
        outputs,
      }
    : {
        ...base,
        topology: 'flyback',
        why: 'one switch on a winding; the secondary charges its capacitor straight through a diode',
        supply: far,
        outputs,
      };
}

/** A coil that gives its energy out where it is switched: the core's other windings only supply or sense. */
function ownOutput(a: Anatomy, core: Core, node: SwitchNode, windings: readonly Branch[]): Converter | null {
  if (windings.length !== 1) return null;
  const onward = diodesAt(a, node.net, 'anode').find((d) => {
    const to = d.nets[1]!;
    return !windings[0]!.nets.includes(to) && isRail(a, to) && carries(a, to);
  });
  const others = core.windings.filter((w) => !windings.includes(w));
  if (!onward || others.some((w) => feedsLoad(a, w))) return null;
  const converter = chokeConverter(a, node, [node], new Set(others));
  return converter && converter.topology !== 'unknown' ? { ...converter, core } : null;
}

/** Whether a winding feeds, through a diode, what leaves the board. */
function feedsLoad(a: Anatomy, winding: Branch): boolean {
  return winding.nets.some((n) => !a.grounds.has(n) && diodesAt(a, n, 'anode').some((d) => leads(a, d.nets[1]!)));
}

/** Whether a rail stores what a load takes. */
function carries(a: Anatomy, net: string): boolean {
  return a.graph.on(net, 'capacitor').some((p) => p.branch.value! >= 1e-6);
}

export function leads(a: Anatomy, net: string): boolean {
  return [...railBehind(a, net)].some((n) => a.graph.on(n, 'connector').length > 0);
}

function centreTap(a: Anatomy, windings: readonly Branch[], nodes: readonly SwitchNode[]): string {
  const ends = windings.flatMap((w) => w.nets).filter((n) => !nodes.some((node) => node.net === n));
  return ends.find((n) => isRail(a, n)) ?? ends[0] ?? '';
}

/** Legs that make one bridge: on the same rail, their nodes joined by what they feed, not by a rail of their own. */
function legGroups(a: Anatomy, nodes: readonly SwitchNode[]): readonly (readonly SwitchNode[])[] {
  const groups = new Map<string, SwitchNode[]>();
  for (const node of nodes) {
    const regulates = inductorsAt(a, node.net).some((l) => isRail(a, farEnd(l, node.net)));
    if (!regulates) groups.set(node.leg!.rail, [...(groups.get(node.leg!.rail) ?? []), node]);
  }
  return [...groups.values()].filter((g) => g.length >= 2 || leavesBoard(a, g[0]!.net) || rings(a, g[0]!));
}

/** A leg whose load is not traced, beside capacitors in series across its rail: they ring with it. */
function rings(a: Anatomy, { leg, net }: SwitchNode): boolean {
  const halves = a.graph.on(leg!.rail, 'capacitor').map((p) => farEnd(p.branch, leg!.rail));
  return halves.some(
    (n) => n !== net && !a.grounds.has(n) && a.graph.on(n, 'capacitor').some((p) => a.grounds.has(farEnd(p.branch, n))),
  );
}

function bridgeConverter(nodes: readonly SwitchNode[]): Converter {
  const legs = nodes.map((n) => n.leg!);
  const topology = legs.length >= 3 ? 'three-phase-inverter' : legs.length === 2 ? 'full-bridge' : 'half-bridge';
  return {
    topology,
    why: `${legs.length} legs on one rail, their nodes lead off the board`,
    transistors: nodes.flatMap((n) => n.transistors),
    ics: [],
    legs,
    coils: [],
    core: null,
    nodes: nodes.map((n) => n.net),
    supply: legs[0]!.rail,
    outputs: new Set(),
  };
}
