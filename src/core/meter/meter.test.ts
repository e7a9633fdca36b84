import { parseFault } from '../fault';
import { readNetlist } from '../netlist';
import { exampleBoard } from '../../../bench/exampleBoards';
import { netKey } from '../circuit';
import { seededRandom } from '../quantity';
import { partSigma } from '../device';
import { THERMAL_VOLTS } from '../part';
import { DEFAULT_METER, beeps, coldMode, drawParts, meterSigma, probe, readBoard, simulateReading, solverFor } from '.';
import type { ColdMode } from '.';

function boardOf(...lines: string[]) {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

function computed(lines: readonly string[], mode: ColdMode, red: string, black: string) {
  const board = boardOf(...lines);
  const read = readBoard(board, solverFor(board, []), mode, red, black);
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value;
}

// A resistor uses the lowest range whose current leaves no more than 0.3 V across it.
test.each([
  ['0.5', 0.5, 0.5e-3],
  ['599', 599, 0.5e-3],
  ['601', 601, 50e-6],
  ['5.9k', 5900, 50e-6],
  ['6.1k', 6100, 5e-6],
  ['61k', 61e3, 0.5e-6],
  ['610k', 610e3, 50e-9],
  ['6.1MEG', 6.1e6, 5e-9],
  ['59MEG', 59e6, 5e-9],
])('%s ohm is read as %p on the range of %p A', (value, ohms, amps) => {
  const { reading, amps: used } = computed([`R1 a b ${value}`], 'ohms', 'a', 'b');
  expect(reading).toEqual({ kind: 'figure', value: expect.closeTo(ohms, 3) });
  expect(used).toBe(amps);
});

test('above 60 Mohm and without a path the meter shows overload', () => {
  expect(computed(['R1 a b 61MEG'], 'ohms', 'a', 'b').reading.kind).toBe('overload');
  expect(computed(['C1 a b 1u', 'R1 b c 1'], 'ohms', 'a', 'b').reading.kind).toBe('overload');
  expect(computed(['R1 a c 1', 'R2 b d 1'], 'diode', 'a', 'b').raw).toBe(Infinity);
});

test.each([
  [29, true],
  [30.5, false],
  [0, true],
])('continuity over %p ohm beeps: %p', (ohms, wanted) => {
  const { reading } = computed([`R1 a b ${ohms}`], 'continuity', 'a', 'b');
  expect(beeps(reading)).toBe(wanted);
});

test('continuity knows its lowest range only', () => {
  expect(computed(['R1 a b 700'], 'continuity', 'a', 'b').reading.kind).toBe('overload');
  expect(computed(['R1 a b 590'], 'continuity', 'a', 'b').reading).toMatchObject({ kind: 'figure' });
});

// One milliampere through IS=1e-9, N=2: V = N Vt ln(I/IS + 1), by hand.
const forward = 2 * THERMAL_VOLTS * Math.log(1e-3 / 1e-9 + 1);
test('a diode test follows the diode equation, series resistance on top; backwards it is overload', () => {
  const model = '.model DD D(IS=1n N=2 RS=10)';
  expect(computed(['D1 a b DD', model], 'diode', 'a', 'b').reading).toEqual({
    kind: 'figure',
    value: expect.closeTo(forward + 10e-3, 6),
  });
  expect(computed(['D1 a b DD', model], 'diode', 'b', 'a').reading.kind).toBe('overload');
});

test('two diodes in parallel share the current: one slope times ln 2 less', () => {
  const lines = ['D1 a b DD', 'D2 a b DD', '.model DD D(IS=1n N=2)'];
  const { reading } = computed(lines, 'diode', 'a', 'b');
  expect(reading).toEqual({ kind: 'figure', value: expect.closeTo(forward - 2 * THERMAL_VOLTS * Math.LN2, 5) });
});

test('a zener reads its forward drop one way and its breakdown the other, when that is below the limit', () => {
  const lines = ['D1 a b DZ', '.model DZ D(IS=1e-12 N=1.1 BV=2.1 IBV=1m)'];
  expect(computed(lines, 'diode', 'b', 'a').reading).toEqual({ kind: 'figure', value: expect.closeTo(2.1, 3) });
  const high = ['D1 a b DZ', '.model DZ D(IS=1e-12 N=1.1 BV=5.1 IBV=1m)'];
  expect(computed(high, 'diode', 'b', 'a').reading.kind).toBe('overload');
});

test('the two leads on one net read nothing, as do two nets joined by a wire', () => {
  expect(computed(['R1 a b 1k'], 'ohms', 'a', 'A').reading).toEqual({ kind: 'figure', value: 0 });
  expect(computed(['L1 a b 1m', 'R1 a c 1k'], 'ohms', 'a', 'b').reading).toEqual({ kind: 'figure', value: 0 });
});

test('an unknown net is named, with what it may have meant', () => {
  const board = boardOf('R1 VCC VCCX 1k');
  const read = readBoard(board, solverFor(board, []), 'ohms', 'VC', 'VCC');
  expect(read).toMatchObject({ ok: false, problem: { code: 'unknown-net', details: { net: 'VC' } } });
  if (!read.ok) expect(read.problem.remedy).toContain('VCC');
  expect(readBoard(board, solverFor(board, []), 'ohms', 'NC', 'VCC').ok).toBe(false);
});

test.each([
  ['diode', true, ''],
  ['ohms', true, ''],
  ['continuity', true, ''],
  ['esr', false, 'mode-not-available'],
  ['cap', false, 'mode-not-available'],
  ['ring', false, 'mode-not-available'],
  ['dcv', false, 'mode-not-available'],
  ['smell', false, 'unknown-mode'],
])('mode %s: built %p', (mode, built, code) => {
  const known = coldMode(mode);
  expect(known.ok).toBe(built);
  if (!known.ok) expect(known.problem.code).toBe(code);
});

test.each([
  ['diode', 0.5, 0.0055],
  ['diode', 0, 0.003],
  ['ohms', 100, 0.5],
  ['ohms', 600, 2.5],
  ['ohms', 601, 2.404],
  ['ohms', 1e6, 4000],
  ['continuity', 5, 0.12],
] as const)('the meter’s own spread in %s at %p is %p', (mode, value, sigma) =>
  expect(meterSigma(mode, value)).toBeCloseTo(sigma, 9),
);

test('a profile is the owner’s to change: another test current, another overload', () => {
  const board = boardOf('D1 a b DD', '.model DD D(IS=1n N=2)');
  const solver = solverFor(board, []);
  const node = (net: string): number => solver.network.nodeOfNet.get(net)!;
  const half = probe(solver, 'diode', node('a'), node('b'), { meter: { ...DEFAULT_METER, diodeAmps: 0.5e-3 } });
  expect(half.ok && half.value.raw).toBeCloseTo(2 * THERMAL_VOLTS * Math.log(0.5e-3 / 1e-9 + 1), 5);
  const low = probe(solver, 'diode', node('a'), node('b'), { meter: { ...DEFAULT_METER, diodeOverloadVolts: 0.5 } });
  expect(low.ok && low.value.reading.kind).toBe('overload');
});

test('a reading that only has to be right is the same to a tenth of a promille', () => {
  const lines = [
    'D1 a c DD',
    'R1 c b 10k',
    'D2 b d DD',
    'R2 d e 1MEG',
    'D3 e a DD',
    'Q1 a d b QQ',
    '.model DD D(IS=2n N=1.7 RS=0.5)',
    '.model QQ NPN(BF=120)',
  ];
  const board = boardOf(...lines);
  for (const mode of ['diode', 'ohms'] as const) {
    for (const [red, black] of [
      ['a', 'b'],
      ['c', 'd'],
      ['e', 'b'],
    ] as const) {
      const solver = solverFor(board, []);
      const node = (net: string): number => solver.network.nodeOfNet.get(net)!;
      const full = probe(solver, mode, node(red), node(black));
      const quick = probe(solver, mode, node(red), node(black), { readingOnly: true });
      if (!full.ok || !quick.ok) throw new Error('no convergence');
      expect(Math.abs(quick.value.raw / full.value.raw - 1)).toBeLessThan(3e-4);
    }
  }
});

test('started from the solution of the healthy board a faulty one reads the same as from zero', () => {
  const board = boardOf('D1 a c DD', 'R1 c b 10k', 'R2 a b 47k', 'D2 c b DD', '.model DD D(IS=2n N=1.7)');
  const fault = parseFault(board, 'R1:short');
  if (!fault.ok) throw new Error('fault');
  const healthy = solverFor(board, []);
  const [a, b] = [healthy.network.nodeOfNet.get('a')!, healthy.network.nodeOfNet.get('b')!];
  probe(healthy, 'diode', a, b);
  const start = Float64Array.from({ length: healthy.network.nodeCount }, (_, i) => healthy.voltsOf(i));
  const cold = probe(solverFor(board, [fault.value]), 'diode', a, b);
  const warm = probe(solverFor(board, [fault.value]), 'diode', a, b, { start });
  expect(cold.ok && warm.ok && Math.abs(warm.value.raw - cold.value.raw)).toBeLessThan(1e-6);
});

test('drawn parts keep their draw, stay within their tolerance, and differ from board to board', () => {
  const board = boardOf(
    'R1 a b 1k tol=5%',
    'C1 a b 470u',
    'M1 a b c MM',
    'D1 a b DD',
    '.model MM NMOS()',
    '.model DD D()',
  );
  const [r, , m, d] = board.parts;
  const factors = Array.from({ length: 400 }, (_, k) => {
    const draw = drawParts(seededRandom(k));
    const first = draw('R1', r!, 'value');
    expect(draw('R1', r!, 'value')).toBe(first);
    return [first, draw('D1', d!, 'saturation'), draw('M1', m!, 'threshold')] as const;
  });
  for (const [value, saturation] of factors) {
    expect(Math.abs(value - 1)).toBeLessThanOrEqual(0.05 + 1e-12);
    expect(saturation).toBeGreaterThan(0);
  }
  expect(new Set(factors.map(([v]) => v)).size).toBeGreaterThan(390);
  const logs = factors.map(([, s]) => Math.log(s));
  const spread = Math.sqrt(logs.reduce((sum, x) => sum + x * x, 0) / logs.length);
  // One sigma is a factor of 1.6; 400 draws know it to 4 %.
  expect(Math.abs(spread / Math.log(1.6) - 1)).toBeLessThan(0.12);
  expect(partSigma(r!, 'value')).toBe(0.025);
});

test('simulated readings scatter by the meter’s spread around the computed one', () => {
  const board = boardOf('R1 a b 1k', 'R2 b c 1');
  const solver = solverFor(board, []);
  const random = seededRandom(2);
  const shown = Array.from({ length: 500 }, () => {
    const reading = simulateReading(solver, 'ohms', 'a', 'b', random);
    return reading.kind === 'figure' ? reading.value : NaN;
  });
  const mean = shown.reduce((a, b) => a + b, 0) / shown.length;
  const deviation = Math.sqrt(shown.reduce((sum, v) => sum + (v - mean) ** 2, 0) / shown.length);
  expect(Math.abs(mean - 1000)).toBeLessThan(4 * (4 / Math.sqrt(500)));
  expect(Math.abs(deviation / 4 - 1)).toBeLessThan(0.15);
  expect(simulateReading(solver, 'diode', 'a', 'b', random)).toMatchObject({ kind: 'figure' });
});

test.each([
  ...[5, 7, 8, 15, 21, 22, 31, 33, 34, 38].map((k) => ['GA', k] as const),
  ...[13, 16, 19, 22, 30, 33, 34, 36, 39].map((k) => ['GB', k] as const),
  ...[5, 13, 15, 22, 31, 33].map((k) => ['GA1', k] as const),
])(
  'a gate that floats near its threshold: at %s drawn board %i settles, and with its volts on the leads the same current flows',
  (gate, k) => {
    const solver = solverFor(exampleBoard('galley-inverter-600'), [], drawParts(seededRandom(20 + k)));
    const [red, black] = [gate, 'BAT-'].map((net) => solver.network.nodeOfNet.get(netKey(net))!) as [number, number];
    const read = probe(solver, 'diode', red, black, { anySolution: true });
    expect(solver.hardStarts).toBeGreaterThan(0);
    if (!read.ok) throw new Error(read.problem.sentence);
    const driven = solver.solve(red, black, { kind: 'voltage', volts: read.value.raw }, true);
    if (!driven.ok) throw new Error(driven.problem.sentence);
    // A little of it the meter keeps to itself near its limit.
    expect(driven.value.amps / DEFAULT_METER.diodeAmps).toBeCloseTo(1, 2);
  },
);
