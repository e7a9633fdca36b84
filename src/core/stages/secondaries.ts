import { controllersOf, sameIsland, transformerOf } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodeClass, farEnd, ratedVolts } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, railCapacitors } from './rails';
import type { Core, Rectifier } from './shapes';
import type { Transistor } from './transistors';

/** Nets that a rail leads to through chokes, fuses, contacts and links, itself included. */
export function railBehind(a: Anatomy, start: string): ReadonlySet<string> {
  const seen = new Set([start]);
  const queue = [start];
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch, pin } of a.graph.on(net, 'inductor', 'fuse', 'relay', 'switch', 'resistor')) {
      if (branch.kind === 'inductor' && transformerOf(a, branch)) continue;
      if (branch.kind === 'resistor' && branch.value! > 1) continue;
      if (branch.kind === 'relay' && pin < 2) continue;
      const next = branch.kind === 'relay' ? branch.nets[5 - pin]! : farEnd(branch, net);
      if (seen.has(next) || a.grounds.has(next)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return seen;
}

/** A winding that is not driven, what rectifies it and the rails it makes. */
export interface Secondary {
  readonly core: Core;
  readonly winding: Branch;
  readonly rectifiers: readonly Branch[];
  /** Series parts between the winding and its rectifier. */
  readonly series: readonly Branch[];
  readonly rails: ReadonlySet<string>;
  /** Feeds the supply pin of an IC of its own island and nothing that leaves the board. */
  readonly auxiliary: boolean;
}

const SERIES_OHMS = 120;

/** All rectified windings of the given cores, but those that are driven or drive. */
export function findSecondaries(
  a: Anatomy,
  cores: readonly Core[],
  driven: ReadonlySet<Branch>,
  primaries: ReadonlySet<string>,
  power: ReadonlySet<Transistor>,
): readonly Secondary[] {
  const all = cores.flatMap((core) =>
    core.windings.flatMap((winding) => {
      if (driven.has(winding)) return [];
      const rectifiers = new Set<Branch>();
      const series = new Set<Branch>();
      const rails = new Set<string>();
      for (const end of winding.nets) {
        if (a.grounds.has(end) || railCapacitors(a, end).length > 0) continue;
        rectifyEnd(a, winding, end, primaries, rectifiers, series, rails);
      }
      for (const t of synchronousRectifiers(a, winding, power)) {
        rectifiers.add(t.branch);
        for (const end of winding.nets)
          if (end !== t.high && end !== t.low) for (const n of railBehind(a, end)) rails.add(n);
      }
      // A core that no switch works on beside converters that live on another supplies their control.
      const line = primaries.size > 0 && !core.windings.some((w) => driven.has(w));
      return apart(a, [...rectifiers], rails).map((own) => ({
        core,
        winding,
        rectifiers: own.rectifiers,
        series: [...series].filter(
          (b) => own.whole || b.nets.some((n) => own.rails.has(n) || own.rectifiers.some((r) => r.nets.includes(n))),
        ),
        rails: own.rails,
        auxiliary: isAuxiliary(a, own.rails, primaries, line),
      }));
    }),
  );
  // What leads nowhere, beside a winding of its core that leads off the board, serves the board itself.
  const leads = (x: Secondary): boolean => [...x.rails].some((n) => a.graph.on(n, 'connector').length > 0);
  return all.map((x) => {
    const inside = !leads(x) && [...primaries].some((n) => [...x.rails].some((rail) => sameIsland(a, n, rail)));
    const beside = all.some((y) => y !== x && y.core === x.core && leads(y));
    return inside && beside ? { ...x, auxiliary: true } : x;
  });
}

/** Rectifiers of one winding by the rails that they make, where these have nothing in common. */
function apart(
  a: Anatomy,
  rectifiers: readonly Branch[],
  rails: ReadonlySet<string>,
): readonly { readonly rectifiers: readonly Branch[]; readonly rails: ReadonlySet<string>; readonly whole: boolean }[] {
  if (rectifiers.length === 0) return [];
  const plain = rectifiers.every((r) => r.kind === 'diode');
  const groups: { rectifiers: Branch[]; rails: Set<string> }[] = [];
  for (const r of plain ? rectifiers : []) {
    const behind = railBehind(a, r.nets[1]!);
    const onward = dropperBehind(a, r.nets[1]!);
    const own = new Set(
      [...behind, ...(onward ? railBehind(a, farEnd(onward, r.nets[1]!)) : [])].filter((n) => rails.has(n)),
    );
    const group = groups.find((g) => [...own].some((n) => g.rails.has(n)));
    if (group) {
      group.rectifiers.push(r);
      for (const n of own) group.rails.add(n);
    } else groups.push({ rectifiers: [r], rails: own });
  }
  const clear = plain && groups.length > 1 && groups.every((g) => g.rails.size > 0);
  return clear ? groups.map((g) => ({ ...g, whole: false })) : [{ rectifiers, rails, whole: true }];
}

function rectifyEnd(
  a: Anatomy,
  winding: Branch,
  end: string,
  primaries: ReadonlySet<string>,
  rectifiers: Set<Branch>,
  series: Set<Branch>,
  rails: Set<string>,
): void {
  const starts = [{ net: end, through: null as Branch | null }];
  for (const { branch } of a.graph.on(end, 'resistor', 'capacitor', 'inductor', 'fuse', 'switch')) {
    const small = branch.kind !== 'resistor' || branch.value! <= SERIES_OHMS;
    const passes = branch.kind !== 'capacitor' || branch.value! >= 100e-9 || (ratedVolts(branch) ?? 0) >= 1000;
    const coil = branch.kind === 'inductor' && transformerOf(a, branch) !== undefined;
    const far = farEnd(branch, end);
    if (
      small &&
      passes &&
      !coil &&
      !a.grounds.has(far) &&
      a.graph.on(far, 'diode', 'bridge').length > 0 &&
      !isRail(a, far)
    )
      starts.push({ net: far, through: branch });
  }
  for (const { net, through } of starts) {
    for (const { branch, pin } of a.graph.on(net, 'diode', 'bridge')) {
      if (branch === through) continue;
      if (branch.kind === 'diode' && ['led', 'zener'].includes(diodeClass(a.board, branch))) continue;
      const rail = branch.kind === 'bridge' ? branch.nets[2]! : branch.nets[1 - pin]!;
      // A damper's diode ends on a capacitor of its own, not on a rail.
      const behind = a.grounds.has(rail) ? new Set<string>() : railBehind(a, rail);
      const onward = [...behind].some((n) => isRail(a, n)) ? null : dropperBehind(a, rail);
      if (![...behind].some((n) => isRail(a, n)) && onward === null && !a.grounds.has(rail)) continue;
      if (winding.nets.includes(rail)) continue;
      // A reset winding returns its energy to the supply it hangs on.
      const returns = a.grounds.has(rail) && isRail(a, farEnd(winding, end));
      if (returns && primaries.has(farEnd(winding, end))) continue;
      rectifiers.add(branch);
      // A rectifier in the return charges the rail at the winding's other end.
      if (returns) for (const n of railBehind(a, farEnd(winding, end))) rails.add(n);
      if (through) series.add(through);
      for (const n of behind) rails.add(n);
      if (onward) {
        series.add(onward);
        for (const n of railBehind(a, farEnd(onward, rail))) rails.add(n);
      }
    }
  }
}

/** A series resistor between a rectifier and its rail. */
function dropperBehind(a: Anatomy, net: string): Branch | null {
  const found = a.graph
    .on(net, 'resistor')
    .find((p) => p.branch.value! <= SERIES_OHMS && isRail(a, farEnd(p.branch, net)));
  return found?.branch ?? null;
}

function isAuxiliary(a: Anatomy, rails: ReadonlySet<string>, primaries: ReadonlySet<string>, line: boolean): boolean {
  const near = new Set(rails);
  for (const net of rails) {
    for (const { branch } of a.graph.on(net, 'resistor'))
      if (branch.value! <= SERIES_OHMS) near.add(farEnd(branch, net));
  }
  const feedsIc = controllersOf(a).some((ic) => ic.nets.some((n) => near.has(n)));
  const leaves = [...near].some((n) => a.graph.on(n, 'connector').length > 0 || regulatedOut(a, n, line));
  if (line) return !leaves;
  const island = a.islands.find((i) => [...rails].some((n) => i.nets.has(n)));
  const own = island !== undefined && [...primaries].some((n) => island.nets.has(n));
  return feedsIc && !leaves && (own || !hasOpto(a, rails));
}

/** Whether a regulator leads on from here, out of the board where that is asked for. */
function regulatedOut(a: Anatomy, net: string, out: boolean): boolean {
  const next = a.graph.on(net, 'regulator').flatMap((p) => (p.pin === 0 ? [p.branch.nets[2]!] : []));
  return out ? next.some((n) => a.graph.on(n, 'connector').length > 0) : next.length > 0;
}

function hasOpto(a: Anatomy, rails: ReadonlySet<string>): boolean {
  return [...rails].some((n) => a.graph.on(n, 'opto').length > 0);
}

/** Transistors that rectify a winding in place of diodes. */
export function synchronousRectifiers(
  a: Anatomy,
  winding: Branch,
  power: ReadonlySet<Transistor>,
): readonly Transistor[] {
  return a.transistors.filter(
    (t) =>
      !power.has(t) &&
      winding.nets.some((n) => (n === t.high && a.grounds.has(t.low)) || (n === t.low && isRail(a, t.high))),
  );
}

/** Whether a rectifier is fed by a winding of the board. */
export function fedByWinding(a: Anatomy, rectifier: Rectifier): boolean {
  return rectifier.ac.some((net) => a.graph.on(net, 'inductor').some((p) => transformerOf(a, p.branch) !== undefined));
}
