import { branchesOf } from './converter';
import { partFigure } from '../part';
import { transformerOf } from './anatomy';
import type { Scene } from './claims';
import type { Converter } from './converter';
import { explain } from './explain';
import type { Explanation } from './explain';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { isRail } from './rails';
import { fedByWinding } from './secondaries';

/** The board's topology: its converters in power order, or what it is without one. */
export function nameTopology(scene: Scene): NamedTopology {
  const ordered = inPowerOrder(scene.converters.filter((c) => c.topology !== 'unknown'));
  if (ordered.length > 0) {
    const explained = ordered.map((c) => explain(scene, c));
    return {
      topology: ordered.map((c) => c.topology).join('+'),
      topologyWhy: ordered.map((c) => `${c.topology}: ${c.why}`),
      confidence: explained.reduce((sure, e) => sure * e.confidence, 1) * (strays(scene) ? STRAY : 1),
      converters: explained,
    };
  }
  const named = withoutConverter(scene);
  const open = scene.converters.map((c) => explain(scene, c));
  return {
    ...named,
    confidence: scene.missing.length > 0 || open.length > 0 ? 0.5 : named.confidence,
    converters: open,
  };
}

export interface NamedTopology {
  readonly topology: string;
  readonly topologyWhy: readonly string[];
  readonly confidence: number;
  /** Each converter's explanation, in power order; those that no topology fits where there is nothing else. */
  readonly converters: readonly Explanation[];
}

/** How sure a topology is when switches or drives are left over that belong to none of its converters. */
const STRAY = 0.85;

/** Power switches, gates or driven coils that no recognised converter takes in: there may be another one. */
function strays({ a, switches, converters, secondaries }: Scene): boolean {
  const used = new Set(converters.flatMap((c) => (c.topology === 'unknown' ? [] : c.transistors)));
  const rectify = new Set(secondaries.flatMap((s) => s.rectifiers));
  const idle = switches.singles.some(
    (t) => !used.has(t) && !rectify.has(t.branch) && a.graph.on(t.high, 'connector').length === 0,
  );
  return idle || converters.some((c) => c.topology === 'unknown');
}

function withoutConverter(scene: Scene): Omit<NamedTopology, 'converters'> {
  const { a } = scene;
  const passes = a.graph.all('regulator').length > 0 || seriesPass(scene);
  const rectified = a.rectifiers.some((r) => fedByWinding(a, r)) || a.cores.some((c) => c.purpose === 'transformer');
  if (switchesLoad(scene))
    return {
      topology: 'solid-state-relay',
      topologyWhy: ['an isolated input fires a switch in series with a load'],
      confidence: 0.95,
    };
  if (
    passes ||
    (rectified && a.graph.all('triac').length === 0 && scene.converters.length === 0 && a.rectifiers.length > 0)
  )
    return {
      topology: 'linear',
      topologyWhy: ['no switch works on a coil; a regulator or pass transistor holds the output'],
      confidence: a.graph.all('ic').length + a.graph.all('opto').length > 0 ? 0.5 : 0.9,
    };
  return { topology: 'unknown', topologyWhy: ['no switch works on a coil yet'], confidence: 0.3 };
}

/** What feeds another comes first; otherwise the stronger one. */
function inPowerOrder(converters: readonly Converter[]): readonly Converter[] {
  const feeds = (x: Converter, y: Converter): boolean => x !== y && x.outputs.has(y.supply);
  const rest = [...converters];
  const ordered: Converter[] = [];
  while (rest.length > 0) {
    const free = rest.filter((c) => !rest.some((d) => feeds(d, c)));
    const next = (free.length > 0 ? free : rest).sort((x, y) => strength(y) - strength(x))[0]!;
    ordered.push(next);
    rest.splice(rest.indexOf(next), 1);
  }
  return ordered;
}

/** Amperes that the switches and coils of a converter are made for. */
function strength(c: Converter): number {
  const amps = branchesOf(c).flatMap((b) => b.parts.map((p) => partFigure(p, 'ratedAmps') ?? 0));
  return c.transistors.length * 0.5 + Math.max(0, ...amps);
}

/** A transistor between two rails with its control held by a reference or opamp. */
function seriesPass({ a }: Scene): boolean {
  return a.transistors.some(
    (t) => isRail(a, t.high) && isRail(a, t.low) && !a.grounds.has(t.high) && !a.grounds.has(t.low),
  );
}

/** Whether a thyristor that an isolator fires switches a load: no store lies across it and no winding on it. */
function seriesWithLoad(a: Scene['a'], { nets: [high, low] }: Branch): boolean {
  const stores = a.graph.between(high!, low!, 'capacitor').some((c) => c.value! >= 1e-6);
  const winds = [high!, low!].some((n) =>
    a.graph.on(n, 'inductor').some((p) => transformerOf(a, p.branch) !== undefined),
  );
  return !stores && !winds;
}

/** A triac, or two transistors source to source, between two connector nets, worked through an opto. */
function switchesLoad({ a }: Scene): boolean {
  const isolated = a.graph.all('opto').length > 0 || a.islands.length > 1;
  if (!isolated) return false;
  const leads = (net: string): boolean =>
    [
      net,
      ...a.graph
        .on(net, 'fuse', 'inductor', 'resistor')
        .filter((p) => p.branch.kind !== 'resistor' || p.branch.value! < 5)
        .map((p) => farEnd(p.branch, net)),
    ].some((n) => a.graph.on(n, 'connector').length > 0);
  const fired = (gate: string): boolean =>
    [gate, ...a.graph.on(gate, 'resistor').map((p) => farEnd(p.branch, gate))].some(
      (n) => a.graph.on(n, 'opto', 'ic').length > 0,
    );
  const triac = a.graph
    .all('triac')
    .some((t) => (fired(t.nets[2]!) ? seriesWithLoad(a, t) : [t.nets[0]!, t.nets[1]!].every(leads)));
  const pair = a.transistors.some((t) =>
    a.transistors.some((u) => t !== u && t.low === u.low && leads(t.high) && leads(u.high)),
  );
  const single = a.transistors.some((t) => leads(t.high) && leads(t.low) && !a.grounds.has(t.high));
  return triac || pair || single;
}
