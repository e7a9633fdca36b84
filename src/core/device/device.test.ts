import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseFault } from '../fault';
import { readNetlist } from '../netlist';
import { THERMAL_VOLTS, channelFigures, junctionFigures, plainJunction, transistorFigures } from '../part';
import { flatten, roomFor, windings } from '.';
import type { Circuit, DeviceModel } from '.';
import { CHANNEL, channelCurrent, channelParameters, isCutOff } from './channel';
import { JUNCTION, criticalVolts, junctionAt, junctionParameters, limitJunction, wrightOmega } from './junction';
import { CAPACITOR, CURRENT_SOURCE, LOSSY_CAPACITOR, RESISTOR, VOLTAGE_SOURCE } from './passives';
import { TRANSISTOR, transistorParameters } from './transistor';

const model = (type: 'D' | 'NPN' | 'PNP' | 'NMOS' | 'PMOS', numbers: Record<string, number>) =>
  ({ name: 'X', type, numbers, written: '' }) as const;
const NPN = transistorParameters(transistorFigures(model('NPN', { bf: 80, br: 3, nr: 1.2 })));
const PNP = transistorParameters(transistorFigures(model('PNP', { bf: 60, br: 2 })));
const NMOS = channelParameters(channelFigures(model('NMOS', { vto: 2.5, kp: 3, ron: 0.4 })));
const PMOS = channelParameters(channelFigures(model('PMOS', { vto: -2, kp: 2, ron: 0.8 })));
const DIODE = junctionParameters(junctionFigures(model('D', { is: 2e-9, n: 1.7, rs: 0.4, bv: 30, cjo: 4e-11 })));
const BARE = junctionParameters(plainJunction(1e-12, 1.3));
/** Three windings, the first two tightly coupled. */
const CORE = [0.2, 0.05, 1, ...[1e-3, 0.9e-3, 1e-4], ...[0.9e-3, 1e-3, 1e-4], ...[1e-4, 1e-4, 2e-4]];

/** Model, its parameters, the index of each drawn parameter in them (windings: their own way), where to evaluate. */
const CASES: readonly (readonly [
  string,
  DeviceModel,
  readonly number[],
  readonly number[] | null,
  readonly number[],
])[] = [
  ['resistor', RESISTOR, [470], [0], [1.5, -0.2]],
  ['capacitor', CAPACITOR, [1e-6], [0], [3, 1]],
  ['lossy capacitor', LOSSY_CAPACITOR, [1e-6, 0.5], [0, 1], [3, 1, 1.7]],
  ['three windings', windings(3), CORE, null, [1, 0, 0.3, 0.1, -0.2, 0, 0.4, -0.1, 0.7]],
  ['diode, forward', JUNCTION, DIODE, [0], [0.6, 0]],
  ['diode, backward', JUNCTION, DIODE, [0], [-4, 0]],
  ['diode, broken down', JUNCTION, DIODE, [0], [0, 30.02]],
  ['bare junction', JUNCTION, BARE, [0], [0.65, 0]],
  ['NPN, active', TRANSISTOR, NPN, [1, 2], [3, 0.62, 0]],
  ['NPN, saturated', TRANSISTOR, NPN, [1, 2], [0.1, 0.64, 0]],
  ['PNP, inverse', TRANSISTOR, PNP, [1, 2], [0.7, 0.1, 0]],
  ['NMOS, saturated', CHANNEL, NMOS, [1], [8, 3, 0]],
  ['NMOS, triode', CHANNEL, NMOS, [1], [0.4, 5, 0]],
  ['NMOS, reversed', CHANNEL, NMOS, [1], [-0.3, 4, 0]],
  ['PMOS, triode', CHANNEL, PMOS, [1], [-0.2, -4, 0.1]],
  ['volts', VOLTAGE_SOURCE, [12], [], [11, 0, 0.3]],
  ['amperes', CURRENT_SOURCE, [0.02], [], [5, 0]],
];

test.each(CASES)(
  '%s: slopes and capacities are derivatives, and what goes in comes out',
  (_name, device, p, _at, x) => {
    const parameters = Float64Array.from([9, ...p]);
    const at = (moved: readonly number[]) => {
      const out = roomFor(device);
      device.evaluate(parameters, 1, Float64Array.from(moved), out);
      return out;
    };
    const here = at(x);
    const n = x.length;
    expect(n).toBe(device.terminals + device.states);
    const terminals = [...here.flow.slice(0, device.terminals)];
    const largest = Math.max(...terminals.map(Math.abs), 1e-12);
    expect(Math.abs(terminals.reduce((a, b) => a + b, 0)) / largest).toBeLessThan(1e-9);
    for (let column = 0; column < n; column++) {
      const step = 1e-6;
      const [up, down] = [1, -1].map((s) => at(x.map((v, i) => (i === column ? v + s * step : v))));
      for (let row = 0; row < n; row++) {
        const slope = (up!.flow[row]! - down!.flow[row]!) / (2 * step);
        const capacity = (up!.charge[row]! - down!.charge[row]!) / (2 * step);
        const rounding = (1e-15 * largest) / step;
        expect(Math.abs(here.slope[row * n + column]! - slope)).toBeLessThan(
          2e-5 * Math.abs(slope) + 1e3 * rounding + 1e-12,
        );
        expect(Math.abs(here.capacity[row * n + column]! - capacity)).toBeLessThan(1e-6 * Math.abs(capacity) + 1e-15);
      }
    }
  },
);

test.each(CASES)('%s: what a parameter does to it is the derivative by its logarithm', (_name, device, p, at, x) => {
  const m = device.drawn.length;
  const evaluate = (parameters: readonly number[]) => {
    const out = roomFor(device);
    device.evaluate(Float64Array.from(parameters), 0, Float64Array.from(x), out);
    return out;
  };
  const here = evaluate(p);
  /** The parameters with drawn one k multiplied: of a junction all that follow from it too; of a winding what it induces. */
  const scaled = (k: number, by: number): readonly number[] => {
    if (at === null)
      return k < 3 ? p.map((v, i) => (i === k ? v * by : v)) : p.map((v, i) => v * inducedBy(i, k - 3, by));
    const changed = p.map((v, i) => (i === at[k] ? v * by : v));
    if (device === JUNCTION && p[2]! > 0) changed[6] = Math.log((changed[0]! * p[2]!) / p[1]!);
    return changed;
  };
  const step = 1e-4;
  for (let k = 0; k < m; k++) {
    const [up, down] = [evaluate(scaled(k, Math.exp(step))), evaluate(scaled(k, Math.exp(-step)))];
    for (let row = 0; row < x.length; row++) {
      const flow = (up.flow[row]! - down.flow[row]!) / (2 * step);
      const charge = (up.charge[row]! - down.charge[row]!) / (2 * step);
      expect(Math.abs(here.flowByLog[row * m + k]! - flow)).toBeLessThan(1e-5 * Math.abs(flow) + 1e-13);
      expect(Math.abs(here.chargeByLog[row * m + k]! - charge)).toBeLessThan(1e-6 * Math.abs(charge) + 1e-16);
    }
  }
});

/** Factor on entry i of the parameters of three windings when the henries of one of them grow at constant coupling. */
function inducedBy(i: number, winding: number, by: number): number {
  if (i < 3) return 1;
  const [row, column] = [Math.floor((i - 3) / 3), (i - 3) % 3];
  return by ** ((Number(row === winding) + Number(column === winding)) / 2);
}

function circuitOf(lines: readonly string[], faults: readonly string[] = []): Circuit {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  const { board } = read.value;
  return flatten(
    board,
    faults.map((f) => {
      const fault = parseFault(board, f);
      if (!fault.ok) throw new Error(fault.problem.sentence);
      return fault.value;
    }),
  );
}

const boards = join(__dirname, '../../../fixtures/boards');

test.each(readdirSync(boards).filter((f) => f.endsWith('.cir')))('%s: every fitted part is in the circuit', (file) => {
  const read = readNetlist(readFileSync(join(boards, file), 'utf8'));
  if (!read.ok) throw new Error(file);
  const { board } = read.value;
  const circuit = flatten(board);
  const there = new Set([...circuit.devices.flatMap((d) => d.owners), ...circuit.dormant.map((d) => d.owner)]);
  const lost = board.parts.filter((p, i) => p.fitted && p.kind !== 'connector' && !there.has(i));
  expect(lost.map((p) => p.ref)).toEqual([]);
  expect(circuit.devices.every((d) => d.nodes.length === d.model.terminals && d.owners.length === d.nodes.length)).toBe(
    true,
  );
});

test('faults edit the devices they are on', () => {
  const figures = (circuit: Circuit) =>
    circuit.devices.map((d) => [
      d.model.kind,
      ...circuit.parameters.slice(d.at, d.at + (d.model.kind === 'windings' ? 2 : 1)),
    ]);
  const lines = ['C1 a b 100u esr=0.1', 'L1 a c 1m dcr=0.2 rp=5k', 'R1 c b 10', 'V1 a 0 12', 'I1 b 0 1m'];
  expect(figures(circuitOf(lines))).toEqual([
    ['lossy-capacitor', 1e-4],
    ['windings', 0.2, 1e-3],
    ['resistor', 5000],
    ['resistor', 10],
    ['voltage-source', 12],
    ['current-source', 1e-3],
  ]);
  const dried = circuitOf(lines, ['C1:esr=3', 'C1:value=20u', 'L1:value=0.3m', 'R1:leak=47']);
  expect(figures(dried).slice(0, 2)).toEqual([
    ['lossy-capacitor', 2e-5],
    ['windings', 0.2, 3e-4],
  ]);
  expect([...dried.parameters.slice(0, 2)]).toEqual([2e-5, 3]);
  expect(figures(dried)[4]).toEqual(['resistor', 47]);
  // What opens a pin stands between the net and everything of the part, its core loss too.
  const opened = circuitOf(lines, ['L1:open']);
  const gigaohm = opened.devices.find((d) => opened.parameters[d.at] === 1e9)!;
  expect(gigaohm.nodes[0]).toBe(opened.nodeOfNet.get('a'));
  const inner = opened.devices.filter((d) => d.nodes[0] === gigaohm.nodes[1]);
  expect(inner.map((d) => d.model.kind)).toEqual(['windings', 'resistor']);
});

test('windings on one core are one device, their mutual inductances k times the root of the product', () => {
  const circuit = circuitOf([
    'L1 a b 4m dcr=1',
    'R1 b 0 1',
    'L2 c d 1m',
    'L3 e f 9u',
    'K1 L1 L2 0.98',
    'X1 a c BOX',
    '.subckt BOX p q',
    'LA p q 1m',
    'LB q x 1m',
    'R2 x p 1',
    'K2 LA LB 1',
    '.ends',
  ]);
  const cores = circuit.devices.filter((d) => d.model.kind === 'windings');
  expect(cores.map((d) => d.name)).toEqual(['L1+L2', 'L3', 'X1/LA+X1/LB'].map((n) => n.replaceAll('X1', '1')));
  const [first] = cores;
  expect([...circuit.parameters.slice(first!.at, first!.at + 6)]).toEqual([
    1,
    0,
    4e-3,
    expect.closeTo(0.98 * 2e-3, 12),
    expect.closeTo(0.98 * 2e-3, 12),
    1e-3,
  ]);
  expect(first!.owners).toEqual([0, 0, 2, 2]);
});

test('the omega function solves w + ln w = c', () => {
  for (const c of [-60, -5, -1, 0, 0.5, 1, 2, 10, 100, 1e4]) {
    const w = wrightOmega(c);
    expect(Math.abs(w + Math.log(w) - c)).toBeLessThan(1e-9 * Math.max(1, Math.abs(c)));
  }
});

test('omega: rising, and its slope is w/(1+w)', () => {
  let last = 0;
  for (let c = -60; c < 60; c += 0.37) {
    const w = wrightOmega(c);
    expect(w).toBeGreaterThan(last);
    last = w;
    const h = 1e-5;
    const slope = (wrightOmega(c + h) - wrightOmega(c - h)) / (2 * h);
    expect(Math.abs(slope / (w / (1 + w)) - 1)).toBeLessThan(1e-5);
  }
});

test('a junction with series resistance obeys its own equation, and its conductance is its slope', () => {
  const out = new Float64Array(3);
  const figures = { ...plainJunction(5e-9, 1.75, 2), breakdownVolts: 40 };
  const p = Float64Array.from(junctionParameters(figures));
  const current = (v: number): number => (junctionAt(p, 0, v, out), out[0]!);
  for (const v of [-39, -1, 0.1, 0.45, 0.7, 1.5, 3]) {
    const i = current(v);
    const back = 5e-9 * Math.expm1((v - 2 * i) / (1.75 * THERMAL_VOLTS));
    if (v > 0) expect(Math.abs(i / back - 1)).toBeLessThan(1e-7);
    const slope = out[1]!;
    const h = 1e-6;
    const numeric = (current(v + h) - current(v - h)) / (2 * h);
    expect(Math.abs(slope - numeric)).toBeLessThan(1e-4 * slope + 1e-12);
  }
  // 1 mA in breakdown: V = -(BV + Vt ln(1)) - I RS.
  expect(current(-(40 + 1e-3 * 2))).toBeCloseTo(-1e-3, 7);
});

test('a channel is continuous in both directions and its slopes are its derivatives', () => {
  const out = new Float64Array(3);
  const amps = (vgs: number, vds: number): number => (channelCurrent(vgs, vds, 2, 5, 0.5, out), out[0]!);
  for (const [vgs, vds] of [
    [3, 0.1],
    [3, 5],
    [2.5, -0.3],
    [1.5, -0.8],
    [4, 1],
  ] as const) {
    amps(vgs, vds);
    const [, gm, gd] = [...out];
    const h = 1e-6;
    expect((amps(vgs + h, vds) - amps(vgs - h, vds)) / (2 * h)).toBeCloseTo(gm!, 4);
    expect((amps(vgs, vds + h) - amps(vgs, vds - h)) / (2 * h)).toBeCloseTo(gd!, 4);
  }
  expect(amps(1.9, 3)).toBe(0);
});

test('a channel is cut off exactly where it carries nothing and nothing near by makes it carry more', () => {
  const out = new Float64Array(3);
  let off = 0;
  for (let vgs = -4; vgs <= 4; vgs += 0.5) {
    for (let vds = -4; vds <= 4; vds += 0.25) {
      channelCurrent(vgs, vds, 2, 5, 0.5, out);
      // At no volts across it nothing flows, but it conducts.
      expect(isCutOff(vgs, vds, 2)).toBe(out.every((x) => x === 0));
      if (isCutOff(vgs, vds, 2)) off++;
    }
  }
  // A gate at -2 V or lower whatever the drain; above, up to the threshold, while the drain is not 2 V below it.
  const drains = [33, 33, 33, 33, 33, 31, 29, 27, 25, 23, 21, 19, 17];
  expect(off).toBe(drains.reduce((sum, n) => sum + n, 0));
});

test('limiting leaves small steps alone, keeps the direction, and never overshoots a large one', () => {
  const slope = 0.045;
  const critical = criticalVolts(1e-9, slope);
  for (const last of [-2, 0, 0.2, 0.5, 0.7]) {
    for (const next of [-3, 0.1, 0.4, 0.8, 3, 50]) {
      const limited = limitJunction(next, last, slope, critical);
      if (next <= critical || Math.abs(next - last) <= 2 * slope) expect(limited).toBe(next);
      else {
        expect(limited).toBeLessThanOrEqual(next);
        if (next > last) expect(limited).toBeGreaterThan(Math.min(last, critical) - 1e-12);
      }
    }
  }
});
