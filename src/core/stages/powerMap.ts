import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { farEnd } from './partGraph';
import type { Branch } from './partGraph';
import type { PinRole } from './pinScene';
import { isRail } from './rails';
import { readScene } from './readScene';
import type { Scene } from './claims';
import type { Converter, Topology } from './converter';
import type { Transistor } from './transistors';

/** A power switch of a converter by its nets (lower case); `side` within its leg, `leg` counts the legs of the converter. */
export interface PowerSwitch {
  readonly refs: readonly string[];
  readonly high: string;
  readonly low: string;
  readonly control: string;
  readonly side: 'single' | 'top' | 'bottom';
  readonly leg: number;
}

/**
 * A converter as the powered model needs it: its switches, integrated switches, coils, the nets of its supply and outputs
 * (lower case), the parts that drive its switches and the one that closes the loop.
 */
export interface PowerConverter {
  readonly topology: Topology;
  readonly switches: readonly PowerSwitch[];
  readonly ics: readonly string[];
  readonly coils: readonly string[];
  readonly nodes: readonly string[];
  readonly supply: string;
  readonly outputs: readonly string[];
  readonly drivers: readonly string[];
  readonly controller: string | null;
}

const maps = new WeakMap<Board, readonly PowerConverter[]>();

/** The converters of a board as they stand, in power order, kept for the board. */
export function powerConverters(board: Board): readonly PowerConverter[] {
  const known = maps.get(board);
  if (known) return known;
  const scene = readScene(board);
  const made = scene.converters.map((c) => describe(scene, c));
  maps.set(board, made);
  return made;
}

const refs = (b: Branch): readonly string[] => b.parts.map((p) => p.ref);

function describe(scene: Scene, c: Converter): PowerConverter {
  const switches = c.transistors.map((t): PowerSwitch => {
    const leg = c.legs.findIndex((l) => [...l.top, ...l.bottom].some((x) => x.branch === t.branch));
    const side = leg < 0 ? 'single' : c.legs[leg]!.top.some((x) => x.branch === t.branch) ? 'top' : 'bottom';
    return { refs: refs(t.branch), high: t.high, low: t.low, control: t.control, side, leg };
  });
  const drivers = [...new Set([...c.ics, ...c.transistors.flatMap((t) => driversOf(scene, t))])];
  return {
    topology: c.topology,
    switches,
    ics: c.ics.flatMap(refs),
    coils: c.coils.flatMap(refs),
    nodes: c.nodes,
    supply: netKey(c.supply),
    outputs: [...c.outputs],
    drivers: drivers.flatMap(refs),
    controller: controllerOf(scene, drivers)?.parts[0]!.ref ?? null,
  };
}

const hasRole = ({ pins }: Scene, ic: Branch, role: PinRole): boolean =>
  (pins.get(ic) ?? []).some((f) => f.role === role);

/** Integrated circuits that a gate hangs on, through what passes a drive on: resistors, capacitors, diodes, windings, optos. */
function driversOf(scene: Scene, t: Transistor): readonly Branch[] {
  const { graph } = scene.a;
  const seen = new Set([t.control]);
  let edge = [t.control];
  for (let round = 0; round < 9 && edge.length > 0; round++) {
    const found = edge.flatMap((net) =>
      graph.on(net, 'ic').flatMap((p) => {
        const role = scene.pins.get(p.branch)?.[p.pin]?.role;
        return role === 'GATE' || role === 'UNKNOWN' ? [p.branch] : [];
      }),
    );
    if (found.length > 0) return [...new Set(found)];
    const next: string[] = [];
    const visit = (net: string): void => {
      if (seen.has(net) || isRail(scene.a, net) || scene.a.grounds.has(net) || net === t.high || net === t.low) return;
      seen.add(net);
      next.push(net);
    };
    for (const net of edge) {
      for (const { branch } of graph.on(net, 'resistor', 'capacitor', 'diode')) visit(farEnd(branch, net));
      for (const { branch } of graph.on(net, 'bjt')) visit(branch.nets[1]!);
      for (const { branch } of graph.on(net, 'opto')) branch.nets.slice(0, 1).forEach(visit);
      for (const { branch } of graph.on(net, 'inductor')) {
        const core = scene.switches.driveCores.find((x) => x.windings.includes(branch));
        for (const w of core?.windings ?? []) w.nets.forEach(visit);
      }
    }
    edge = next;
  }
  return [];
}

/** The one of the drivers, or the part that speaks to them, that closes a loop. */
function controllerOf(scene: Scene, drivers: readonly Branch[]): Branch | undefined {
  const regulating = (ic: Branch): boolean => hasRole(scene, ic, 'FB');
  const own = drivers.find(regulating);
  if (own) return own;
  const { a } = scene;
  const near = drivers.flatMap((d) =>
    d.nets.flatMap((net) => (a.grounds.has(net) || isRail(a, net) ? [] : a.graph.on(net, 'ic').map((p) => p.branch))),
  );
  const others = [...new Set(near)].filter((ic) => !drivers.includes(ic));
  return others.find(regulating) ?? others[0] ?? drivers[0];
}
