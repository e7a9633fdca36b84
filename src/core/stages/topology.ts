import { partFigure } from '../part';
import { isRail } from './rails';
import type { Scene } from './claims';
import type { Converter } from './converter';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import { fedByWinding } from './secondaries';

/** The board's topology: its converters in power order, or what it is without one. */
export function nameTopology(scene: Scene): { readonly topology: string; readonly topologyWhy: readonly string[] } {
  const ordered = inPowerOrder(scene.converters.filter((c) => c.topology !== 'unknown'));
  if (ordered.length > 0) {
    return {
      topology: ordered.map((c) => c.topology).join('+'),
      topologyWhy: ordered.map((c) => `${c.topology}: ${c.why}`),
    };
  }
  const { a } = scene;
  const passes = a.graph.all('regulator').length > 0 || seriesPass(scene);
  const rectified = a.rectifiers.some((r) => fedByWinding(a, r)) || a.cores.some((c) => c.purpose === 'transformer');
  if (switchesLoad(scene))
    return { topology: 'solid-state-relay', topologyWhy: ['an isolated input fires a switch in series with a load'] };
  if (
    passes ||
    (rectified && a.graph.all('triac').length === 0 && scene.converters.length === 0 && a.rectifiers.length > 0)
  )
    return {
      topology: 'linear',
      topologyWhy: ['no switch works on a coil; a regulator or pass transistor holds the output'],
    };
  return { topology: 'unknown', topologyWhy: ['no switch works on a coil yet'] };
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
  const amps = [...c.transistors.map((t) => t.branch), ...c.coils, ...c.ics].flatMap((b) =>
    b.parts.map((p) => partFigure(p, 'ratedAmps') ?? 0),
  );
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
  return !stores && a.graph.on(high!, 'inductor').length + a.graph.on(low!, 'inductor').length === 0;
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
