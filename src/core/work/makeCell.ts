import { isCapacitor } from '../device';
import type { Device } from '../device';
import { factorDense, solveDense } from '../linear';
import { partFigure } from '../part';
import type { PowerConverter } from '../stages';
import { Cell } from './cell';
import type { UnitCircuit } from './unitCircuit';
import type { PlannedOutput, WorkIc } from './workPlan';

/** Topologies whose switching is worked out period by period. */
const SWITCHED: ReadonlySet<string> = new Set([
  'flyback',
  'forward',
  'two-switch-forward',
  'half-bridge',
  'push-pull',
  'full-bridge',
  'buck',
  'synchronous-buck',
  'boost',
  'buck-boost',
]);

/** Frequency where no data sheet tells, hertz: behind the mains or with a transformer, and of small chokes on low volts. */
const USUAL_HERTZ = 65e3;
const USUAL_CHOKE_HERTZ = 300e3;
const CHOKE_STAGES: ReadonlySet<string> = new Set(['buck', 'synchronous-buck', 'boost', 'buck-boost']);

/** The controller of a converter, if it is one that works. */
export function controllerOf(unit: UnitCircuit, c: PowerConverter): WorkIc | undefined {
  return c.controller === null ? undefined : unit.plan.ics.get(c.controller);
}

/** What a converter is made to hold: whether the law of a feedback pin is known, and the printed output that it makes. */
export function aimOf(
  unit: UnitCircuit,
  c: PowerConverter,
): { readonly told: boolean; readonly made: PlannedOutput | undefined } {
  const ic = controllerOf(unit, c);
  const told = ic !== undefined && unit.pin(ic, 'FB') >= 0 && (ic.facts['fbRef'] ?? ic.facts['fbOffset']) !== undefined;
  return { told, made: unit.plan.outputs.find((o) => o.kind === 'dc' && o.volts > 0 && c.outputs.includes(o.rail)) };
}

/** Whether anything tells what a converter makes: the law of a feedback pin, a limit, or an output of the nameplate. */
export function hasAim(unit: UnitCircuit, c: PowerConverter): boolean {
  const { told, made } = aimOf(unit, c);
  return told || made !== undefined || controllerOf(unit, c)?.facts['ccDuty'] !== undefined;
}

/** The cell of a converter; null for topologies that have models of their own. */
export function makeCell(unit: UnitCircuit, c: PowerConverter): Cell | null {
  const { circuit, plan } = unit;
  // A bridge without a transformer or choke of its own makes an alternating voltage: no cell of direct volts.
  if (!SWITCHED.has(c.topology) || (c.topology.endsWith('bridge') && c.coils.length === 0)) return null;
  const byName = (ref: string): readonly Device[] =>
    circuit.devices.filter((d) => d.name === ref && (d.model.kind === 'channel' || d.model.kind === 'transistor'));
  const inside = c.ics.flatMap((ref) =>
    circuit.devices.filter((d) => d.model.kind === 'channel' && d.name.startsWith(`${ref}/`)).slice(0, 1),
  );
  const of = (side: string, leg?: number): readonly Device[] =>
    c.switches.flatMap((s) => (s.side === side && (leg === undefined || s.leg === leg) ? s.refs.flatMap(byName) : []));
  const all = [...c.switches.flatMap((s) => s.refs.flatMap(byName)), ...inside];
  if (all.length === 0) return null;
  const facts = controllerOf(unit, c)?.facts ?? {};
  let phases: readonly (readonly Device[])[] = [all];
  let sync: readonly Device[] = [];
  let series = false;
  switch (c.topology) {
    case 'synchronous-buck':
      phases = [of('top')];
      sync = of('bottom');
      break;
    case 'boost':
      // A leg that steps up: its upper switch does what a diode would.
      if (of('top').length > 0) [phases, sync] = [[of('bottom')], of('top')];
      break;
    case 'half-bridge':
      phases = [of('top'), of('bottom')];
      break;
    case 'full-bridge':
      phases = [
        [...of('top', 0), ...of('bottom', 1)],
        [...of('top', 1), ...of('bottom', 0)],
      ];
      series = true;
      break;
    case 'push-pull': {
      const first = c.switches[0]!.high;
      phases = [
        c.switches.filter((s) => s.high === first).flatMap((s) => s.refs.flatMap(byName)),
        c.switches.filter((s) => s.high !== first).flatMap((s) => s.refs.flatMap(byName)),
      ];
      break;
    }
    case 'two-switch-forward':
      series = true;
      break;
    default:
      break;
  }
  if (phases.some((p) => p.length === 0)) return null;
  const hertz = facts['fSwitch'] ?? (!plan.mains && CHOKE_STAGES.has(c.topology) ? USUAL_CHOKE_HERTZ : USUAL_HERTZ);
  const nodeOf = (net: string): number => unit.node(net);
  const cell = new Cell(unit.powerDevices, circuit.parameters, {
    phases,
    sync,
    hertz,
    dutyMax: facts['dutyMax'] ?? (phases.length > 1 ? 0.48 : c.topology.includes('forward') ? 0.48 : 0.9),
    isStatic: (node) => unit.isSteady(node),
    riding: [...plan.riding].flatMap(([a, b]) =>
      nodeOf(a) >= 0 && nodeOf(b) >= 0 ? [[nodeOf(a), nodeOf(b)] as const] : [],
    ),
    levels: levelsOf(unit, c),
    aside: new Set(circuit.devices.filter((d) => isAside(unit, d, inside))),
    bears: (d) => bearsVolts(unit, d),
    rippleOhms: (node) => rippleOhms(unit, node, hertz),
  });
  cell.series = series;
  return cell;
}

/**
 * Where the capacitors of a bridge settle that switches alike both ways: a winding carries no mean volts. The far end of a
 * half bridge's winding stands half way between its rails, a capacitor in a full bridge's holds nothing.
 */
function levelsOf(unit: UnitCircuit, c: PowerConverter): ReadonlyMap<number, readonly number[]> {
  const levels = new Map<number, readonly number[]>();
  if (c.topology !== 'half-bridge' && c.topology !== 'full-bridge') return levels;
  const low = c.switches.find((s) => s.side === 'bottom')?.low;
  const rails = [c.supply, ...(low === undefined ? [] : [low])].map((n) => unit.node(n));
  const legs = new Set(c.nodes.map((n) => unit.node(n)));
  const rides = new Map([...unit.plan.riding].map(([a, b]) => [unit.node(a), unit.node(b)] as const));
  const isLeg = (n: number): boolean => legs.has(n) || legs.has(rides.get(n) ?? -1);
  for (const d of unit.powerDevices) {
    if (d.model.kind !== 'windings') continue;
    for (let k = 0; k + 1 < d.nodes.length; k += 2) {
      const ends = [d.nodes[k]!, d.nodes[k + 1]!];
      if (!ends.some(isLeg)) continue;
      for (const n of ends) {
        if (unit.isSteady(n) && !rails.includes(n)) levels.set(n, rails);
        else if (!legs.has(n) && isLeg(n)) levels.set(n, []);
      }
    }
  }
  return levels;
}

/** Whether a device takes no part in the switching: drive and sense windings, the pins' own parts of integrated circuits. */
function isAside(unit: UnitCircuit, d: Device, inside: readonly Device[]): boolean {
  if (unit.bootstraps.some((b) => b.diode === d)) return true;
  if (d.model.kind === 'windings') return d.name.split('+').some((n) => unit.plan.driveWindings.has(n));
  return unit.isInsideIc(d) && !inside.some((s) => s.name === d.name);
}

/** Volts that a switch bears: what it is made for, else what is usual in such a unit. */
function bearsVolts({ plan }: UnitCircuit, { name }: Device): number {
  const part = plan.board.parts.find((p) => p.ref === name.split('/')[0]);
  const usual = plan.mains ? USUAL_MAINS_SWITCH : Math.max(LEAST_SWITCH, SWITCH_SHARE * plan.inputs.nominal);
  return (part && partFigure(part, 'ratedVolts')) ?? usual;
}

/** Switches behind a mains rectifier, V; others by the volts of their source, at least so many. */
const USUAL_MAINS_SWITCH = 700;
const SWITCH_SHARE = 5;
const LEAST_SWITCH = 60;

const LEAST_HELD = 0.2e-6;

/** Ohm of the capacitors from a standing node to others: series resistance and, for a ramp, a share of the reactance. */
function rippleOhms(unit: UnitCircuit, node: number, hertz: number): number {
  const { circuit, plan } = unit;
  if (plan.references.some((n) => unit.node(n) === node)) return 0;
  let siemens = 0;
  let held = 0;
  for (const d of circuit.devices) {
    if (!isCapacitor(d)) continue;
    const [a, b] = [d.nodes[0]!, d.nodes[1]!];
    if (a !== node && b !== node) continue;
    // Between two standing nodes that are no reference the one written first takes it.
    const other = a === node ? b : a;
    if (!unit.isSteady(other) || (b === node && !plan.references.some((n) => unit.node(n) === other))) continue;
    const farads = circuit.parameters[d.at]!;
    const ohms = d.model.kind === 'lossy-capacitor' ? circuit.parameters[d.at + 1]! : 0;
    held += farads;
    siemens += 1 / (ohms + 1 / (8 * hertz * farads));
  }
  // A clamp, or a rail whose capacitor is gone, is taken to stand as it is.
  return held > LEAST_HELD ? 1 / siemens : 0;
}

/**
 * Ohm between the low side of a converter's switches and its controller's ground, by the resistors on the way: what a
 * current of one ampere raises there. Infinity where nothing joins them.
 */
export function senseOhms(unit: UnitCircuit, c: PowerConverter): number {
  const known = unit.shunts.get(c);
  if (known !== undefined) return known;
  const ohms = findShunt(unit, c);
  unit.shunts.set(c, ohms);
  return ohms;
}

function findShunt(unit: UnitCircuit, c: PowerConverter): number {
  const ic = controllerOf(unit, c);
  const ground = ic ? unit.ground(ic) : -1;
  const { circuit } = unit;
  const lower = c.switches.find((s) => s.side !== 'top');
  const pins = lower ? unit.pinsOf(lower.refs[0]!) : [];
  const low = pins.length > 2 ? pins[2]! : ic ? unit.pin(ic, 'CS') : -1;
  if (ground < 0 || low < 0 || low === ground) return 0;
  const n = circuit.nodeNames.length;
  const matrix = new Float64Array(n * n);
  for (let i = 0; i < n; i++) matrix[i * n + i] = 1e-7;
  for (const d of circuit.devices) {
    if (d.model.kind !== 'resistor') continue;
    const ohms = Math.max(circuit.parameters[d.at]!, 1e-3);
    if (ohms > 50) continue;
    const [a, b] = [d.nodes[0]!, d.nodes[1]!];
    matrix[a * n + a] = matrix[a * n + a]! + 1 / ohms;
    matrix[b * n + b] = matrix[b * n + b]! + 1 / ohms;
    matrix[a * n + b] = matrix[a * n + b]! - 1 / ohms;
    matrix[b * n + a] = matrix[b * n + a]! - 1 / ohms;
  }
  matrix[ground * n + ground] = matrix[ground * n + ground]! + 1e9;
  const x = new Float64Array(n);
  x[low] = 1;
  const pivots = new Int32Array(n);
  if (!factorDense(matrix, pivots, n).ok) return Infinity;
  solveDense(matrix, pivots, n, x);
  return x[low]! > 1e6 ? Infinity : x[low]!;
}
