import { archetypeBoard } from '../archetype';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { Broyden } from './broyden';
import { MeanNetwork } from './meanNetwork';
import { operateUnit } from './operate';
import { SwitchedRun } from './switched';
import type { Spot, SwitchedCircuit } from './switched';
import { held, passRegulator, resistance, shuntReference, sink, twoPole } from './workDevice';
import type { WorkDevice } from './workDevice';
import { workPlan } from './workPlan';

const unknown = (n: number): Spot => ({ unknown: n, given: -1 });
const given = (n: number): Spot => ({ unknown: -1, given: n });
const EMPTY: SwitchedCircuit = {
  unknowns: 0,
  resistors: [],
  windings: [],
  diodes: [],
  switches: [],
  capacitors: [],
  drains: [],
};

test('a choke at a steady voltage ramps straight, its diode lets go at nothing', () => {
  const run = new SwitchedRun({
    ...EMPTY,
    unknowns: 1,
    windings: [{ names: ['L1'], ends: [given(0), unknown(0)], ohms: [1e-6], henries: [100e-6] }],
    diodes: [{ name: 'D1', a: unknown(0), k: given(1), volts: 0.5, ohms: 1e-3 }],
  });
  // 10 V, less 0.5 V and 4 V behind the diode: 5.5 V across 100 uH for 10 us is 0.55 A.
  for (let i = 0; i < 10; i++) {
    expect(run.try(1e-6, Float64Array.from([10, 4]))).toBe(true);
    run.take(1e-6);
  }
  expect(run.diodeAmps[0]).toBeCloseTo(0.55, 4);
  // Then 20 V behind it: 10.5 V the other way empties it in 5.24 us, and no current turns round.
  const back = Float64Array.from([10, 20]);
  run.try(10e-6, back);
  expect(run.crossing).toBeCloseTo(0.524, 2);
  run.take(10e-6);
  expect(Math.abs(run.diodeAmps[0]!)).toBeLessThan(1e-5);
});

test('a capacitor behind a resistor charges as it must', () => {
  const run = new SwitchedRun({
    ...EMPTY,
    unknowns: 1,
    resistors: [{ a: given(0), b: unknown(0), ohms: 1000 }],
    capacitors: [{ a: unknown(0), b: { unknown: -1, given: -1 }, farads: 1e-6, ohms: 0 }],
  });
  for (let i = 0; i < 1000; i++) {
    run.try(1e-6, Float64Array.from([10]));
    run.take(1e-6);
  }
  expect(run.capVolts[0]).toBeCloseTo(10 * (1 - Math.exp(-1)), 1);
});

test('steps that learn find a fixed point that plain steps run away from', () => {
  // x = F(x) with slopes -3 and 0.9 about (2, 5).
  const target = [2, 5];
  const slopes = [-3, 0.9];
  const shooter = new Broyden(2);
  let x = Float64Array.from([0, 0]);
  for (let i = 0; i < 12; i++) {
    const at = x;
    const f = Float64Array.from(slopes, (s, k) => target[k]! + s * (at[k]! - target[k]!) - at[k]!);
    x = shooter.next(x, f);
  }
  expect([...x].map((v) => Number(v.toFixed(6)))).toEqual(target);
});

/** Kirchhoff's law at every node that nothing holds. */
function worstImbalance(devices: readonly WorkDevice[], x: Float64Array, grounds: ReadonlySet<number>): number {
  const sums = new Float64Array(x.length);
  const sizes = new Float64Array(x.length).fill(1e-9);
  for (const d of devices) {
    const flow = new Float64Array(d.nodes.length);
    d.evaluate(
      Float64Array.from(d.nodes, (n) => x[n]!),
      flow,
      new Float64Array(d.nodes.length ** 2),
    );
    d.nodes.forEach((n, i) => {
      sums[n] = sums[n]! + flow[i]!;
      sizes[n] = Math.max(sizes[n]!, Math.abs(flow[i]!));
    });
  }
  return Math.max(...sums.map((s, n) => (grounds.has(n) ? 0 : Math.abs(s) / sizes[n]!)));
}

test('a reference closes its loop, a regulator holds and drops out, and the currents balance', () => {
  // 24 V through 1k into a shunt reference set to 2.495 V x (1 + 10k/10k).
  const reference = [
    held('source', 0, 1, 24, 1e-3),
    resistance('R1', 0, 2, 1000),
    resistance('R2', 2, 3, 10e3),
    resistance('R3', 3, 1, 10e3),
    shuntReference('U1', [3, 1, 2], 2.495),
  ];
  const x = new MeanNetwork(4, reference, new Map(), [1]).solve()!;
  expect(x[2]).toBeCloseTo(4.99, 1);
  expect(worstImbalance(reference, x, new Set([1]))).toBeLessThan(1e-5);
  const supply = (volts: number): number => {
    const devices = [
      held('source', 0, 1, volts, 1e-3),
      passRegulator('U2', [0, 1, 2], 5, 1.2, 0.003),
      resistance('load', 2, 1, 100),
      sink('draws', 2, 1, 0.01),
    ];
    return new MeanNetwork(3, devices, new Map(), [1]).solve()![2]!;
  };
  expect(supply(12)).toBeCloseTo(5, 1);
  expect(supply(4)).toBeCloseTo(2.8, 1);
  expect(Math.abs(supply(0))).toBeLessThan(1e-6);
});

/** Random networks with sources, junction-like laws and loose ends end in a solution that balances, or in none. */
test('300 random networks never give nonsense', () => {
  let seed = 7;
  const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
  let solved = 0;
  for (let round = 0; round < 300; round++) {
    const nodes = 2 + Math.floor(random() * 10);
    const pick = (): number => Math.floor(random() * nodes);
    const devices = Array.from({ length: 1 + Math.floor(random() * 16) }, (_, i): WorkDevice => {
      const [a, b, kind] = [pick(), pick(), random()];
      const size = 10 ** (random() * 9 - 2);
      if (kind < 0.5) return resistance(`R${i}`, a, b, size);
      if (kind < 0.65) return held(`V${i}`, a, b, (random() - 0.3) * 400, 1e-3);
      if (kind < 0.8) return sink(`I${i}`, a, b, random() * 0.1);
      if (kind < 0.9) return passRegulator(`U${i}`, [a, b, pick()], random() * 20, 1, 0.001);
      return twoPole(`D${i}`, a, b, (v) => {
        const e = Math.exp(Math.min(v / 0.05, 40));
        return [1e-9 * (e - 1), (1e-9 * e) / 0.05 + 1e-12];
      });
    });
    const x = new MeanNetwork(nodes, devices, new Map(), []).solve();
    if (!x) continue;
    solved++;
    expect(x.every(Number.isFinite)).toBe(true);
  }
  expect(solved).toBeGreaterThan(240);
});

/** A converter of a few parts with its nameplate and facts. */
function boost(load: string, facts: Readonly<Record<string, number>>): Board {
  const read = readNetlist(`Boost
L1 VIN SW 100u
M1 SW G GND NM
D1 SW OUT DS
C1 VIN GND 100u
C2 OUT GND 100u
R1 OUT FB 90k
R2 FB GND 10k
XU1 VIN GND FB G EN IC
R3 VIN EN 10k
XJ1 VIN GND CONN
XJ2 OUT GND CONN
.model NM NMOS(VTO=2 KP=100 RON=0.001)
.model DS D(IS=1m N=1)
`);
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  const amps = Number(load);
  return {
    ...read.value.board,
    nameplate: {
      source: 'dc',
      inputRail: 'VIN',
      inputReturn: 'GND',
      inputMin: 10,
      inputNominal: 12,
      inputMax: 15,
      hertz: 0,
      outputs: [{ rail: 'OUT', return: 'GND', volts: 24, amps, kind: 'dc' }],
    },
    facts: { U1: facts },
  };
}

test.each([
  // Continuous: mean choke current 24 V x 1 A / 12 V = 2 A and half of 12 V x 0.5 x 10 us / 100 uH on top; duty 1 - 12/24.
  ['1', 0.5, 2.3],
  // Discontinuous: I² L f / 2 x 24/(24 - 12) = 24 V x 0.02 A, so 0.219 A; duty I L f / 12 V.
  ['0.02', 0.183, 0.219],
] as const)('a boost stage at %s A works at the duty and peak of the formula', (load, duty, peak) => {
  const board = boost(load, { fSwitch: 100e3, fbRef: 2.4 });
  const { unit, unitState, volts } = operateUnit(workPlan(board), { source: 12, load: 'full' }, []);
  const running = unit.cells[0]!;
  expect(unitState).toBe('run');
  expect(volts[unit.node('OUT')]! - volts[unit.node('GND')]!).toBeCloseTo(24, 1);
  expect(running.result!.duty).toBeCloseTo(duty, 1);
  expect(Math.abs(running.result!.top / peak - 1)).toBeLessThan(0.05);
});

/** Typical circuits carry no data sheet: what they are assumed to do gives the volts that are printed on them. */
test.each([
  ['flyback-opto', 'OUT+', 'OUT-', 24],
  ['forward', 'OUT+', 'OUT-', 12],
  ['half-bridge', 'OUT+', 'OUT-', 13.8],
  ['buck-module', 'OUT+', 'GND', 5],
  ['synchronous-buck', 'OUT', 'GND', 3.3],
  ['boost', 'OUT', 'GND', 12],
  ['linear', 'OUT', 'GND', 12],
] as const)('the typical circuit %s gives its printed output', (name, red, black, volts) => {
  const board = archetypeBoard(name)!;
  const { unit, volts: x } = operateUnit(workPlan(board), { source: workPlan(board).inputs.nominal, load: 'half' }, []);
  expect(Math.abs((x[unit.node(red)]! - x[unit.node(black)]!) / volts - 1)).toBeLessThan(0.03);
});
