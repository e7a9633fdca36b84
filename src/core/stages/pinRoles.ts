import { settledRole } from './settled';
import { assign } from '../graph';
import { controllersOf } from './anatomy';
import type { Anatomy } from './anatomy';
import type { PowerSwitches } from './cells';
import type { Converter } from './converter';
import { amplifierLoops } from './icClasses';
import { farEnd } from './partGraph';
import { PIN_RULES } from './pinRules';
import { PIN_ROLES } from './pinScene';
import type { PinRole, PinScene, RoleScore } from './pinScene';
import { isRail } from './rails';
import { railBehind } from './secondaries';
import type { Secondary } from './secondaries';

/** What one pin of an IC most likely is, with the next best and the reasons in words. */
export interface PinFinding {
  readonly pin: string;
  readonly role: PinRole;
  readonly score: number;
  readonly runnerUp: { readonly role: PinRole; readonly score: number } | null;
  readonly reasons: readonly string[];
}

/** How many pins of one part may have a role; others may have one. */
const SEATS: Partial<Record<PinRole, number>> = { GATE: 6, EN: 3, SW: 3, BST: 3, RT: 2, CS: 3, FB: 2, VIN: 2, VCC: 2 };
const MANY: readonly PinRole[] = ['GND', 'DRAIN', 'SOURCE', 'NC', 'UNKNOWN'];
const UNKNOWN_SCORE = 0.3;

/** The roles of all pins of a controller: every pin scored against every role, assigned together. */
export function findPinRoles(scene: PinScene): readonly PinFinding[] {
  const { ic } = scene;
  const ranked = ic.nets.map((net, i) => rolesOf(scene, net, i));
  const seats = PIN_ROLES.flatMap((role) => {
    const count = MANY.includes(role) ? ic.nets.length : (SEATS[role] ?? 1);
    return Array.from({ length: count }, () => role);
  });
  const columns = assign(ranked.map((scores) => seats.map((role) => scores.find((s) => s.role === role)?.score ?? 0)));
  return ranked.map((scores, i) => {
    const said = settledRole(ic.parts[0]!, i + 1);
    if (said !== null) return { pin: String(i + 1), role: said, score: 1, runnerUp: null, reasons: ['set by hand'] };
    const role = seats[columns[i]!]!;
    const own = scores.find((s) => s.role === role);
    const next = scores.find((s) => s.role !== role);
    return {
      pin: String(i + 1),
      role: own ? role : 'UNKNOWN',
      score: own?.score ?? 0,
      runnerUp: next ? { role: next.role, score: next.score } : null,
      reasons: own ? [own.why] : [],
    };
  });
}

/** The best score for each role of one pin, best first. What its cold inside shows settles ties. */
function rolesOf(scene: PinScene, net: string, pin: number): readonly RoleScore[] {
  const best = new Map<PinRole, RoleScore>([
    ['UNKNOWN', { role: 'UNKNOWN', score: UNKNOWN_SCORE, why: 'nothing around it tells' }],
  ]);
  for (const rule of PIN_RULES) {
    for (const s of rule(scene, net)) if (s.score > (best.get(s.role)?.score ?? 0)) best.set(s.role, s);
  }
  const inner = insidePaths(scene, pin);
  return [...best.values()]
    .map((s) => (s.role === 'VOUT' || s.role === 'VCC' ? { ...s, score: s.score + 0.01 * Math.min(inner, 5) } : s))
    .sort((a, b) => b.score - a.score);
}

/** Paths that a diode test finds inside the part at this pin, where its cold inside is known. */
function insidePaths({ anatomy: a, ic }: PinScene, pin: number): number {
  const part = ic.parts[0]!;
  const inside = part.kind === 'ic' ? a.board.subcircuits.get(part.subcircuit.toLowerCase()) : undefined;
  const node = inside?.pins[pin]?.toLowerCase();
  return inside && node !== undefined
    ? inside.parts.filter((p) => p.nets.some((n) => n.toLowerCase() === node)).length
    : 0;
}

/** Gathers what the pin rules look at, once for each controller. */
export function pinScenes(
  a: Anatomy,
  switches: PowerSwitches,
  converters: readonly Converter[],
  secondaries: readonly Secondary[],
): readonly PinScene[] {
  const gateNets = new Set([...switches.drives.values()].flatMap((d) => [...d.nets]));
  for (const core of switches.driveCores) {
    for (const winding of core.windings) {
      if (winding.nets.some((n) => gateNets.has(n))) continue;
      for (const end of winding.nets) {
        if (a.grounds.has(end) || isRail(a, end)) continue;
        for (const n of alongDrive(a, end)) gateNets.add(n);
      }
    }
  }
  // A transistor that passes the drive on is driven by the pin behind its own base.
  for (const t of a.transistors) {
    if (switches.drives.has(t) || !gateNets.has(t.high) || !a.grounds.has(t.low)) continue;
    for (const { branch } of a.graph.on(t.control, 'resistor')) {
      const far = farEnd(branch, t.control);
      if (!a.grounds.has(far) && !isRail(a, far)) gateNets.add(far);
    }
  }
  const outputs = new Set([
    ...converters.flatMap((c) => [...c.outputs]),
    ...secondaries.filter((s) => !s.auxiliary).flatMap((s) => [...s.rails]),
  ]);
  const supplies = new Set(
    converters.flatMap((c) => [...railBehind(a, c.supply)]).filter((n) => n !== '' && !outputs.has(n)),
  );
  const nodes = new Set([...converters.flatMap((c) => c.nodes), ...switches.legs.map((l) => l.node)]);
  const power = new Set([...nodes, ...gateNets]);
  return controllersOf(a).map((ic) => ({
    loops: amplifierLoops(a, ic, power),
    anatomy: a,
    switches,
    converters,
    secondaries,
    ic,
    gateNets,
    outputs,
    supplies,
    nodes,
  }));
}

/** Nets that a drive transformer's primary is fed from, through blocking capacitor and damping resistor. */
export function alongDrive(a: Anatomy, end: string): readonly string[] {
  const seen = new Set([end]);
  const queue = [end];
  for (let net = queue.shift(); net !== undefined; net = queue.shift()) {
    for (const { branch } of a.graph.on(net, 'resistor', 'capacitor')) {
      const next = farEnd(branch, net);
      if (seen.has(next) || a.grounds.has(next) || (branch.kind === 'resistor' && branch.value! > 1000)) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return [...seen];
}
