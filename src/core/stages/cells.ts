import { partFigure } from '../part';
import { controllersOf, inductorsAt } from './anatomy';
import type { Anatomy } from './anatomy';
import { diodeClass, farEnd, ratedVolts } from './partGraph';
import type { Branch } from './partGraph';
import { isRail, isSteady } from './rails';
import type { Core } from './shapes';
import { drivePath } from './transistors';
import type { DrivePath, Transistor } from './transistors';

/** Two transistors in series between a rail and its return, with the node between them. */
export interface Leg {
  readonly top: readonly Transistor[];
  readonly bottom: readonly Transistor[];
  readonly rail: string;
  readonly node: string;
  readonly low: string;
}

/** The switches of a board and the cores that only drive them. */
export interface PowerSwitches {
  readonly legs: readonly Leg[];
  /** Power transistors that are in no leg. */
  readonly singles: readonly Transistor[];
  readonly inside: readonly { readonly ic: Branch; readonly node: string }[];
  readonly drives: ReadonlyMap<Transistor, DrivePath>;
  readonly driveCores: readonly Core[];
}

/** Finds the power switches: transistors that work on a winding or choke, or pair up across a rail. */
export function findPowerSwitches(a: Anatomy): PowerSwitches {
  const stops = (net: string): boolean => isSteady(a, net);
  const paths = new Map(a.transistors.map((t) => [t, drivePath(a.graph, t, a.transistors, stops)]));
  const driveCores = findDriveCores(a, paths);
  const driveWindings = new Set(driveCores.flatMap((c) => c.windings));
  const followers = new Set([...paths.values()].flatMap((d) => d.branches));
  const works = (net: string): boolean =>
    !stops(net) && (resonates(a, net) || inductorsAt(a, net).some((w) => !driveWindings.has(w)));
  const candidates = a.transistors.filter((t) => !followers.has(t.branch) && !worksRelay(a, t));
  const legs = findLegs(a, candidates, paths);
  const inLegs = new Set(legs.flatMap((l) => [...l.top, ...l.bottom]));
  const singles = candidates.filter(
    (t) => !inLegs.has(t) && !a.grounds.has(t.high) && (works(t.high) || works(t.low)) && isPower(t),
  );
  const drives = new Map([...inLegs, ...singles].map((t) => [t, paths.get(t)!]));
  return { legs, singles, inside: findInside(a, driveWindings, new Set([...inLegs, ...singles])), drives, driveCores };
}

function worksRelay(a: Anatomy, t: Transistor): boolean {
  return [t.high, t.low].some((net) => a.graph.on(net, 'relay').some((p) => p.pin < 2));
}

/** Signal transistors carry no more than a few hundred milliamperes. */
function isPower(t: Transistor): boolean {
  const amps = partFigure(t.branch.parts[0]!, 'ratedAmps');
  return amps === undefined || amps >= 0.3 || t.branch.kind === 'mosfet';
}

/** Cores that only carry drive: they feed control pins of transistors that do not work on the core's other windings. */
function findDriveCores(a: Anatomy, paths: ReadonlyMap<Transistor, DrivePath>): readonly Core[] {
  const highs = new Set([...paths.keys()].map((t) => t.high));
  const driven = (w: Branch): readonly Transistor[] =>
    [...paths].flatMap(([t, d]) => (w.nets.some((n) => d.nets.has(n) && !highs.has(n)) ? [t] : []));
  return a.cores.filter((core) => {
    if (core.purpose === 'drive') return true;
    if (core.purpose !== 'transformer') return false;
    const fed = core.windings.flatMap(driven);
    const others = core.windings.filter((w) => driven(w).length === 0);
    if (fed.length > 0 && others.some((w) => w.nets.some((n) => toldByIc(a, n)))) return true;
    return (
      fed.length > 0 &&
      !others.some((w) =>
        fed.some(
          (t) =>
            w.nets.includes(t.high) && !isRail(a, t.high) && !(fewest(core, w) && inSeries(a, core, farEnd(w, t.high))),
        ),
      )
    );
  });
}

/** Whether no winding of a core has fewer turns. */
const fewest = (core: Core, w: Branch): boolean => core.windings.every((x) => w.value! <= x.value! * 1.01);

/** Whether a winding's far end goes on into the winding of another core, through a capacitor at most: it only senses that current. */
function inSeries(a: Anatomy, core: Core, far: string): boolean {
  const next = [far, ...a.graph.on(far, 'capacitor').map((p) => farEnd(p.branch, far))].filter(
    (n) => !a.grounds.has(n) && !isRail(a, n),
  );
  const coils = a.graph
    .on(far, 'inductor')
    .filter(
      (p) =>
        !core.windings.includes(p.branch) && !isRail(a, farEnd(p.branch, far)) && !a.grounds.has(farEnd(p.branch, far)),
    );
  return (
    coils.length > 0 ||
    next.some((n) =>
      a.cores.some((c) => c !== core && c.purpose === 'transformer' && c.windings.some((w) => w.nets.includes(n))),
    )
  );
}

/** A coil that is off the board: a net on a connector with a capacitor of high voltage to a rail, which rings with it. */
function resonates(a: Anatomy, net: string): boolean {
  if (a.graph.on(net, 'connector').length === 0) return false;
  return a.graph
    .on(net, 'capacitor')
    .some((p) => p.branch.value! >= 50e-9 && (ratedVolts(p.branch) ?? 0) >= 400 && isRail(a, farEnd(p.branch, net)));
}

/** Whether an integrated circuit's pin leads to a net through no more than a small resistor and a capacitor. */
function toldByIc(a: Anatomy, net: string): boolean {
  if (a.grounds.has(net) || isRail(a, net)) return false;
  const near = new Set([net]);
  for (let round = 0; round < 2; round++)
    for (const n of [...near])
      for (const { branch } of a.graph.on(n, 'resistor', 'capacitor')) {
        const far = farEnd(branch, n);
        const passes = branch.kind === 'capacitor' || branch.value! <= 1000;
        if (passes && !a.grounds.has(far) && !isRail(a, far)) near.add(far);
      }
  return [...near].some((n) => a.graph.on(n, 'ic').some((p) => p.branch.nets.length >= 3));
}

function findLegs(
  a: Anatomy,
  candidates: readonly Transistor[],
  paths: ReadonlyMap<Transistor, DrivePath>,
): readonly Leg[] {
  const legs = new Map<string, { top: Transistor[]; bottom: Transistor[]; rail: string; node: string; low: string }>();
  for (const top of candidates) {
    for (const bottom of candidates) {
      if (top === bottom || top.low !== bottom.high || a.grounds.has(top.low) || isRail(a, top.low)) continue;
      if (top.control === bottom.control && top.branch.kind === 'bjt') continue;
      if (!goesOut(a, top.low, paths)) continue;
      const key = `${top.high} ${top.low}`;
      const leg = legs.get(key) ?? { top: [], bottom: [], rail: top.high, node: top.low, low: bottom.low };
      if (!leg.top.includes(top)) leg.top.push(top);
      if (!leg.bottom.includes(bottom)) leg.bottom.push(bottom);
      legs.set(key, leg);
    }
  }
  return [...legs.values()];
}

/** A leg's node feeds power: a winding, choke or connector; a driver's output feeds gates only. */
function goesOut(a: Anatomy, node: string, paths: ReadonlyMap<Transistor, DrivePath>): boolean {
  const drivesOnly = [...paths.values()].some((d) => d.nets.has(node));
  if (drivesOnly) return false;
  // An integrated circuit's pin there drives what lies above it.
  return a.graph.on(node, 'inductor', 'connector', 'capacitor', 'fuse', 'ic').length > 0;
}

/** Pins of integrated circuits that stand directly on a winding's or choke's switching node. */
function findInside(
  a: Anatomy,
  driveWindings: ReadonlySet<Branch>,
  power: ReadonlySet<Transistor>,
): readonly { readonly ic: Branch; readonly node: string }[] {
  const found: { ic: Branch; node: string }[] = [];
  for (const ic of controllersOf(a)) {
    for (const node of new Set(ic.nets)) {
      if (a.grounds.has(node) || isRail(a, node)) continue;
      const coils = inductorsAt(a, node).filter((w) => !driveWindings.has(w));
      const worked = [...power].some((t) => t.high === node || t.low === node);
      if (coils.length === 0 || worked || isBurdened(a, node, coils) || !switchesHere(a, coils, node)) continue;
      found.push({ ic, node });
    }
  }
  return found;
}

/** A current transformer's secondary has its burden right across it. */
function isBurdened(a: Anatomy, node: string, coils: readonly Branch[]): boolean {
  return a.graph.on(node, 'resistor').some((p) => {
    const far = farEnd(p.branch, node);
    return p.branch.value! <= 200 && (a.grounds.has(far) || coils.some((w) => w.nets.includes(far)));
  });
}

/** The far end of a switched coil is steady: a rail, a ground, a line conductor or a bridge output. */
function switchesHere(a: Anatomy, coils: readonly Branch[], node: string): boolean {
  return coils.some((w) => {
    const far = farEnd(w, node);
    return (
      isRail(a, far) ||
      a.grounds.has(far) ||
      a.rectifiers.some((r) => r.plus === far) ||
      a.graph.on(far, 'connector', 'fuse').length > 0
    );
  });
}

/** Plain diodes at a net by which end is there. */
export function diodesAt(a: Anatomy, net: string, end: 'anode' | 'cathode'): readonly Branch[] {
  return a.graph
    .on(net, 'diode')
    .filter((p) => p.pin === (end === 'anode' ? 0 : 1))
    .map((p) => p.branch)
    .filter((d) => !['led', 'zener'].includes(diodeClass(a.board, d)));
}

/** Whether a diode leads from a ground to a net: it carries on there while the switch is off, or resets a core. */
export function fromGround(a: Anatomy, net: string): boolean {
  return diodesAt(a, net, 'cathode').some((d) => a.grounds.has(d.nets[0]!));
}
