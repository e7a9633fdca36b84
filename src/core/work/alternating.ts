import { netKey } from '../circuit';
import { flatten } from '../device';
import type { Fault } from '../fault';
import { SmallSignal, solveAt } from '../signal';
import type { PowerConverter } from '../stages';
import { isInverter } from './simpleConverter';
import type { UnitUnderPower } from './unit';
import { loadShare, boardAtWork } from './workBoard';
import type { WorkState } from './unitCircuit';

/** The alternating side of an inverter: volts rms between two nets, watts that the load takes, hertz. */
export interface Alternating {
  readonly watts: number;
  readonly hertz: number;
  /** Volts rms that its legs make, bus volts that they make it from. */
  readonly legs: number;
  readonly bus: number;
  /** Volts rms between two nets (keys). */
  volts(red: string, black: string): number;
}

/** Watts of a three-phase output over volts and amperes, and of a work coil over its apparent power. */
const MOTOR_FACTOR = 0.95;
const COIL_FACTOR = 0.33;
/** Share of the bus that an inverter of line frequency can make, rms. */
const MOST_DEPTH = 0.95;
/** Stands for the legs of a bridge: they hold their volts, siemens. */
const LEG_SIEMENS = 1e4;

/** The inverter of a unit and its first alternating output, where it has both. */
export function inverterOf(unit: UnitUnderPower, state: WorkState): PowerConverter | undefined {
  return [...state.running].map((i) => unit.plan.converters[i]!).find(isInverter);
}

/** Volts between high and low of an inverter's bus in a solution. */
export function busVolts(unit: UnitUnderPower, c: PowerConverter, x: Float64Array): number {
  const low = c.switches.find((s) => s.side !== 'top')?.low;
  return low === undefined ? 0 : x[unit.node(c.supply)]! - x[unit.node(low)]!;
}

/** What the running inverter of a unit gives at the bus volts of a solution; null where none runs. */
export function alternatingOf(
  unit: UnitUnderPower,
  state: WorkState,
  x: Float64Array,
  faults: readonly Fault[],
): Alternating | null {
  const c = inverterOf(unit, state);
  const { plan, condition } = unit;
  const own = plan.outputs.filter((o) => o.kind === 'ac');
  const [output] = own;
  if (!c || !output) return null;
  const bus = busVolts(unit, c, x);
  const share = loadShare(condition);
  const usual = plan.usualBus.volts ?? plan.inputs.nominal;
  // Three phases are held as long as the bus allows; others follow it, but give no more than is printed: they are controlled.
  const least = c.nodes.length === 3 ? Math.SQRT2 * output.volts : Math.max(usual, 1);
  const part = Math.min(Math.max(bus, 0) / least, 1);
  if (c.nodes.length !== 2) {
    const factor = c.nodes.length === 3 ? Math.sqrt(3) * MOTOR_FACTOR : COIL_FACTOR;
    const watts = factor * output.volts * output.amps * share * part * part;
    const phases = new Set(c.nodes);
    return {
      watts,
      hertz: output.hertz ?? 50,
      legs: output.volts * part,
      bus,
      volts: (red, black) => (red !== black && phases.has(red) && phases.has(black) ? output.volts * part : 0),
    };
  }
  const loads = own.map((o, i) => ({
    kind: 'resistor' as const,
    ref: `RLOAD~${i}`,
    nets: [o.rail, o.return],
    keys: [],
    numbers: {},
    fitted: true,
    basis: 'seen' as const,
    value: o.volts / Math.max(o.amps * share, 1e-6),
    valueText: '',
  }));
  const board = boardAtWork({ ...plan.board, parts: [...plan.board.parts, ...loads] }, condition);
  const closed = board.parts.flatMap((p, i) =>
    p.kind === 'relay' && state.closed.has(p.ref)
      ? [{ ...loads[0]!, ref: `RCLOSED~${i}`, nets: [p.nets[2]!, p.nets[3]!], value: 0.02 }]
      : [],
  );
  const signal = new SmallSignal(flatten({ ...board, parts: [...board.parts, ...closed] }, faults));
  const [a, b] = [signal.nodeOf(c.nodes[0]!), signal.nodeOf(c.nodes[1]!)];
  if (a === undefined || b === undefined || a === b) return null;
  const system = signal.system(a, b);
  const { n, red } = system;
  system.g[red * n + red] = system.g[red * n + red]! + LEG_SIEMENS;
  const hertz = output.hertz ?? 50;
  const drive = new Float64Array(n);
  drive[red] = LEG_SIEMENS;
  const one = solveAt(system, { re: 0, im: 2 * Math.PI * hertz }, drive);
  const at = (net: string): readonly [number, number] => {
    const node = signal.nodeOf(netKey(net));
    const i = node === undefined ? -1 : (system.unknowns.get(node) ?? -1);
    return i < 0 ? [0, 0] : [one.re[i]!, one.im[i]!];
  };
  const gain = (p: string, q: string): number => Math.hypot(at(p)[0] - at(q)[0], at(p)[1] - at(q)[1]);
  // A sine bridge works at a fixed depth; one of line frequency holds its output as long as its bus allows.
  const full = gain(output.rail, output.return);
  const regulated = c.topology === 'line-frequency-inverter';
  const legs = regulated ? (full > 0 ? output.volts / full : 0) : output.volts * part;
  // Either half of a tapped winding has the whole bus in its turn.
  const halves = c.switches.every((s) => s.side === 'single') ? 2 : 1;
  const most = MOST_DEPTH * halves * Math.max(bus, 0);
  const volts = regulated ? Math.min(legs, most) : legs;
  const watts = own.reduce((sum, o) => {
    const v = volts * gain(o.rail, o.return);
    return sum + (v * v * o.amps * share) / o.volts;
  }, 0);
  return { watts, hertz, legs: volts, bus, volts: (p, q) => volts * gain(p, q) };
}
