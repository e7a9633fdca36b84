import { inductorsAt } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodesAt } from './cells';
import type { Converter, SwitchNode } from './converter';
import { railVolts } from './icSupply';
import { farEnd } from './partGraph';
import { isRail } from './rails';

/** Nodes on the side of a core that power comes from: transistors on its other sides rectify. */
export function drivingSide(a: Anatomy, nodes: readonly SwitchNode[]): readonly SwitchNode[] {
  const sides = new Map<number, SwitchNode[]>();
  for (const n of nodes) {
    const side = a.islands.findIndex((i) => i.nets.has(n.net));
    sides.set(side, [...(sides.get(side) ?? []), n]);
  }
  if (sides.size < 2) return nodes;
  const rank = ([side, list]: readonly [number, readonly SwitchNode[]]): number => {
    const nets = a.islands[side]?.nets ?? new Set<string>();
    const line = a.rectifiers.some((r) => nets.has(r.plus)) ? 1e6 : 0;
    const leg = list.some((n) => n.leg) ? 1e3 : 0;
    const fused = [...nets].some((n) => a.graph.on(n, 'fuse').length > 0) ? 500 : 0;
    return line + leg + fused + Math.max(0, ...[...nets].map((n) => railVolts(a, n)));
  };
  return [...sides].sort((x, y) => rank(y) - rank(x))[0]![1];
}

/** Phases of one converter: the same kind of cell, several times between the same rails. */
export function phases(list: readonly Converter[]): readonly Converter[] {
  const out: Converter[] = [];
  for (const c of list) {
    const i = out.findIndex(
      (o) =>
        o.topology === c.topology &&
        o.core === null &&
        c.core === null &&
        c.coils.length > 0 &&
        o.coils.length > 0 &&
        o.supply === c.supply &&
        [...c.outputs].some((n) => o.outputs.has(n)),
    );
    if (i < 0) out.push(c);
    else
      out[i] = {
        ...out[i]!,
        transistors: [...out[i]!.transistors, ...c.transistors],
        ics: [...new Set([...out[i]!.ics, ...c.ics])],
        legs: [...out[i]!.legs, ...c.legs],
        coils: [...out[i]!.coils, ...c.coils],
        nodes: [...out[i]!.nodes, ...c.nodes],
      };
  }
  return out;
}

/** A lone coil between an upper and a lower switch, clamped to the rail that feeds it: its core's other windings are not traced. */
export function betweenSwitches(a: Anatomy, node: SwitchNode, nodes: readonly SwitchNode[]): Converter | null {
  const top = node.transistors.find((t) => t.low === node.net && isRail(a, t.high) && !a.grounds.has(t.high));
  if (!top || node.leg) return null;
  for (const coil of inductorsAt(a, node.net)) {
    const other = nodes.find((n) => n !== node && n.net === farEnd(coil, node.net) && !n.leg);
    const low = other?.transistors.find((t) => t.high === other.net && a.grounds.has(t.low));
    if (!other || !low || !diodesAt(a, other.net, 'anode').some((d) => d.nets[1] === top.high)) continue;
    return {
      topology: 'two-switch-forward',
      why: 'a switch at either end of one winding',
      transistors: [top, low],
      ics: [],
      legs: [],
      coils: [coil],
      core: null,
      nodes: [node.net, other.net],
      supply: top.high,
      outputs: new Set(),
    };
  }
  return null;
}
