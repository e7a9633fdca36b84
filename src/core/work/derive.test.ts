import { archetypeBoard } from '../archetype';
import { judgePowered } from '../expect';
import { readNetlist } from '../netlist';
import type { Board } from '../circuit';
import { parseFault } from '../fault';
import { operateUnit } from './operate';
import { runSum } from '../sums';
import { PoweredReader, alivePoints, startTimes, workPlan } from '.';

const readers = new Map<string, PoweredReader>();
function reader(name: string, load: 'none' | 'half' | 'full' = 'half', ...faults: string[]): PoweredReader {
  const key = [name, load, ...faults].join(' ');
  const known = readers.get(key);
  if (known) return known;
  const board = archetypeBoard(name)!;
  const made = PoweredReader.at(
    board,
    { source: workPlan(board).inputs.nominal, load },
    faults.map((text) => {
      const fault = parseFault(board, text);
      if (!fault.ok) throw new Error(text);
      return fault.value;
    }),
  );
  readers.set(key, made);
  return made;
}

const words = (r: PoweredReader, red: string, black: string): string =>
  r
    .derive(red, black)
    .steps.map((s) => s.words)
    .join('; ');

test('a regulated rail names its reference and its divider, with the sum', () => {
  const { steps } = reader('flyback-opto').derive('OUT+', 'OUT-');
  expect(steps).toHaveLength(1);
  expect(steps[0]!.refs).toEqual(['U3', 'R12', 'R13']);
  // 2.495 V x (1 + 21.5/2.49) = 24.04 V.
  expect(steps[0]!.words).toContain('24.04\u2009V = 2.495\u2009V x (1 + 21.5\u2009kΩ/2.49\u2009kΩ)');
});

test('the rectified mains: crest, what it passes, what it falls to, the mean that the meter shows', () => {
  const r = reader('flyback-opto');
  const told = words(r, 'HV+', 'HV-');
  expect(told).toContain('230\u2009V x 1.414 = 325.3\u2009V');
  const mean = r.read('dcv', 'HV+', 'HV-')!.value!;
  expect(told).toContain(`${mean.toPrecision(4)}\u2009V in the mean`);
});

test('an auxiliary rail goes by the turns from the winding that gives most', () => {
  const told = words(reader('flyback-opto'), 'VCC', 'HV-');
  // Turns: the root of 11 uH over 30 uH.
  expect(told).toMatch(/across LT1S x 0\.606 turns of LT1A/u);
  expect(told).toMatch(/VCC hangs on AUXR .* by R8/u);
});

test('a tap says its resistors and what they hang on, in the order in which it comes about', () => {
  const { steps } = reader('buck-module').derive('EN', 'GND');
  expect(steps[0]!.words).toMatch(/The source brings 12/u);
  expect(steps.at(-1)!.refs).toEqual(['R1', 'R2']);
  expect(steps.map((s) => s.refs.join()).join(' ')).toMatch(/F1 D1 R1,R2$/u);
});

test('a feedback pin tells what it asks of the switch', () => {
  expect(words(reader('flyback-opto'), 'FB', 'HV-')).toMatch(/U1 pulls FB up .* U2 takes .* lets the switch rise to/u);
});

test('between two nets that hang on one rail only what parts them counts', () => {
  const r = reader('flyback-opto');
  const apart = r.derive('OUT+', 'OPA').spread;
  expect(apart).toBeLessThan(r.derive('OUT+', 'OUT-').spread + 0.5);
  expect(words(r, 'OUT+', 'OPA')).toMatch(/OUT\+ stands .* above OPA/u);
});

test('what saws between two thresholds says so, with its period', () => {
  const r = reader('flyback-opto', 'half', 'D3:open');
  expect(r.operation.unitState).toBe('hiccup');
  expect(words(r, 'VCC', 'HV-')).toMatch(/U1 starts at 15\u2009V and stops at 9\u2009V, every/u);
});

test.each(['flyback-opto', 'buck-module', 'boost', 'half-bridge', 'boost-pfc', 'linear', 'flyback-primary-sensed'])(
  '%s: every point of a unit coming alive has steps that end where it reads, and lies in its own band',
  (name) => {
    const r = reader(name);
    const points = alivePoints(r);
    expect(points.length).toBeGreaterThan(2);
    for (const p of points) {
      const { value, low, high } = p.reading;
      expect(low!).toBeLessThanOrEqual(value!);
      expect(high!).toBeGreaterThanOrEqual(value!);
      expect(judgePowered(p.reading, { value: value! }, true)).toBe('agree');
      if (p.mode !== 'dcv') continue;
      expect(p.steps.length).toBeGreaterThan(0);
      const refs = p.steps.flatMap((s) => s.refs);
      for (const ref of refs) expect(r.board.parts.some((part) => part.ref === ref)).toBe(true);
    }
  },
);

test('a waveform: from its own figures the mean, the duty and the heights come out again', () => {
  const r = reader('buck-module', 'full');
  const wave = r.waveform('SW', 'GND')!;
  expect(wave.hertz).toBe(340e3);
  // A buck at 11.6 V gives 5 V: on for a little over 5.4 of 11.6 (its diode counts), never above its input.
  expect(wave.duty).toBeGreaterThan(0.42);
  expect(wave.duty).toBeLessThan(0.52);
  expect(wave.high).toBeLessThan(12);
  expect(wave.low).toBeGreaterThan(-1);
  expect(wave.mean).toBeCloseTo(r.read('dcv', 'SW', 'GND')!.value!, 1);
  expect(wave.points.at(-1)![0]).toBeCloseTo(1 / wave.hertz, 9);
  expect(r.waveform('OUT+', 'nowhere')).toBeNull();
});

test('gate, current sense, ripple and a supply pin that saws have their waveforms', () => {
  const r = reader('flyback-opto');
  const of = (red: string, black: string) => r.waveform(red, black)!;
  const [gate, sense, drain] = [of('GATE', 'HV-'), of('CS', 'HV-'), of('DRAIN', 'HV-')];
  const vcc = r.read('dcv', 'VCC', 'HV-')!.value!;
  expect(gate.high).toBeCloseTo(vcc, 2);
  expect(gate.mean / (vcc * gate.duty)).toBeCloseTo(1, 1);
  // A triangle from nothing: mean half its peak for the share that it lasts, rms peak x root(duty / 3).
  expect(sense.mean / (sense.high * sense.duty * 0.5)).toBeCloseTo(1, 1);
  expect(sense.rms / (sense.high * Math.sqrt(sense.duty / 3))).toBeCloseTo(1, 1);
  expect(sense.mean).toBeCloseTo(r.read('dcv', 'CS', 'HV-')!.value!, 2);
  expect(drain.mean / r.read('dcv', 'DRAIN', 'HV-')!.value!).toBeCloseTo(1, 2);
  // Between its thresholds, straight both ways.
  const saw = reader('flyback-opto', 'half', 'D3:open').waveform('VCC', 'HV-')!;
  const { hiccup } = reader('flyback-opto', 'half', 'D3:open').operation;
  expect([saw.high, saw.low, saw.mean]).toEqual([15, 9, 12]);
  expect(saw.hertz).toBeCloseTo(1 / hiccup!.period, 9);
  // What a transformer brings to a gate has no mean: no square wave is made up for it.
  expect(reader('half-bridge').waveform('GL', 'HV-')).toBeNull();
});

test('how long a supply pin takes to start: through its resistors as the sum has it, never with one of them open', () => {
  const r = reader('flyback-opto');
  const board = archetypeBoard('flyback-opto')!;
  const own = board.parts.filter((p) => p.kind === 'resistor' && ['R1', 'R2'].includes(p.ref));
  const ohms = own.reduce((sum, p) => sum + ('value' in p ? p.value : 0), 0);
  const { U1 } = startTimes(r.operation) as { readonly U1: number };
  const { iStart, vccStart } = board.facts!['U1'] as { readonly iStart: number; readonly vccStart: number };
  const bus = r.read('dcv', 'HV+', 'HV-')!.value!;
  const farads = board.parts.filter((p) => p.kind === 'capacitor' && p.nets.includes('VCC') && p.nets.includes('HV-'));
  const total = farads.reduce((sum, p) => sum + ('value' in p ? p.value : 0), 0);
  const sum = runSum('startup-time', { vBulk: bus, r: ohms, c: total, vOn: vccStart, iStart });
  if (!sum.ok) throw new Error(JSON.stringify(sum.problem));
  expect(U1 / (sum.value.results['time'] as number)).toBeCloseTo(1, 1);
  expect(startTimes(reader('flyback-opto', 'half', 'R1:open').operation)['U1']).toBe(Infinity);
  // Asking leaves the unit as it was.
  expect(r.read('dcv', 'HV+', 'HV-')!.value).toBe(bus);
});

test('a figure outside its band disagrees, one that wanders or hangs on nothing certain is noted', () => {
  const reading = { value: 24, low: 23, high: 25 };
  expect(judgePowered(reading, { value: 25.4 }, true)).toBe('agree');
  expect(judgePowered(reading, { value: 26 }, true)).toBe('disagree');
  expect(judgePowered(reading, { value: 26, unsteady: true }, true)).toBe('noted');
  expect(judgePowered(reading, { value: 26 }, false)).toBe('noted');
  expect(judgePowered({ value: null, low: null, high: null }, { value: 26 }, true)).toBe('noted');
});

/** A board whose names are all others: nets, designators of passive parts kept. */
function renamed(board: Board): Board {
  const net = (n: string): string => (n === 'NC' ? n : `Q${[...n].map((c) => c.charCodeAt(0)).join('')}`);
  const plate = board.nameplate!;
  return {
    ...board,
    parts: board.parts.map((p) => ({ ...p, nets: p.nets.map(net) })),
    nameplate: {
      ...plate,
      inputRail: net(plate.inputRail!),
      inputReturn: net(plate.inputReturn!),
      outputs: plate.outputs!.map((o) => ({ ...o, rail: net(o.rail!), return: net(o.return!) })),
    },
  };
}

test.each(['buck-module', 'flyback-opto', 'boost'])('%s reads the same whatever its nets are called', (name) => {
  const board = archetypeBoard(name)!;
  const condition = { source: workPlan(board).inputs.nominal, load: 'half' } as const;
  const other = operateUnit(workPlan(renamed(board)), condition, []);
  const { volts, unit } = reader(name).operation;
  unit.circuit.nodeNames.forEach((_, i) => expect(other.volts[i]!).toBeCloseTo(volts[i]!, 3));
});

test('leads the other way round read the same with the other sign', () => {
  const r = reader('flyback-opto');
  for (const [a, b] of [
    ['OUT+', 'OUT-'],
    ['VCC', 'HV-'],
    ['HV+', 'CL'],
  ] as const)
    expect(r.read('dcv', a, b)!.value!).toBeCloseTo(-r.read('dcv', b, a)!.value!, 6);
});

test('a divider of ten times the ohms and an input of ten times the volts: a network without bends scales', () => {
  const at = (scale: number): number => {
    const read = readNetlist(
      `t\nXJ1 IN GND CONN\nR1 IN MID ${10 * scale}k\nR2 MID GND ${20 * scale}k\nC1 MID GND 10u vr=50`,
    );
    if (!read.ok) throw new Error('netlist');
    const nameplate = {
      source: 'dc',
      inputRail: 'IN',
      inputReturn: 'GND',
      inputNominal: 9 * scale,
      hertz: 0,
      outputs: [],
    } as const;
    const plan = workPlan({ ...read.value.board, nameplate });
    const { unit, volts } = operateUnit(plan, { source: 9 * scale, load: 'none' }, []);
    return volts[unit.node('MID')]! - volts[unit.node('GND')]!;
  };
  expect(at(1)).toBeCloseTo(6, 6);
  expect(at(10)).toBeCloseTo(60, 3);
});

test('loops begun at a healthy unit come to rest where they do from switch-on', () => {
  const board = archetypeBoard('buck-module')!;
  const plan = workPlan(board);
  const condition = { source: 12, load: 'full' } as const;
  const healthy = operateUnit(plan, condition, []);
  for (const text of ['R3:open', 'R4:open', 'C4:open', 'L1:open', 'D2:open', 'R1:value=470k', 'U1.5:open']) {
    const fault = parseFault(board, text);
    if (!fault.ok) throw new Error(text);
    const [cold, warm] = [null, healthy].map((near) => operateUnit(plan, condition, [fault.value], near));
    expect(warm!.unitState).toBe(cold!.unitState);
    cold!.unit.circuit.nodeNames.forEach((name, i) => {
      if (name !== 'NC')
        expect(Math.abs(warm!.volts[i]! - cold!.volts[i]!)).toBeLessThan(0.02 * Math.abs(cold!.volts[i]!) + 0.02);
    });
  }
});

/** The same board with two nets exchanged at some parts: a leg of a bridge where the other one was. */
function exchanged(board: Board, refs: readonly string[], one: string, other: string): Board {
  const net = (n: string): string => (n === one ? other : n === other ? one : n);
  return { ...board, parts: board.parts.map((p) => (refs.includes(p.ref) ? { ...p, nets: p.nets.map(net) } : p)) };
}

test.each([
  // The winding between the legs the other way round; of a push-pull its halves.
  ['full-bridge', ['LT1P'], 'PBK', 'SWB'],
  ['half-bridge', ['LT1P'], 'SW', 'PB'],
  ['push-pull', ['LT1A', 'LT1B'], 'DA', 'DB'],
] as const)('%s mirrored reads the same', (name, refs, one, other) => {
  const board = archetypeBoard(name)!;
  const mirrored = exchanged(board, refs, one, other);
  expect(mirrored.parts.some((p, i) => p.nets.join() !== board.parts[i]!.nets.join())).toBe(true);
  const condition = { source: workPlan(board).inputs.nominal, load: 'full' } as const;
  const [own, far] = [board, mirrored].map((b) => operateUnit(workPlan(b), condition, []));
  expect(far!.unitState).toBe('run');
  own!.unit.circuit.nodeNames.forEach((net, i) => {
    if (net === 'NC') return;
    const there = far!.volts[far!.unit.node(net)]!;
    expect(Math.abs(there - own!.volts[i]!)).toBeLessThan(0.01 * Math.abs(own!.volts[i]!) + 0.05);
  });
});
