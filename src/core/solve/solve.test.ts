import { parseFault } from '../fault';
import { readNetlist } from '../netlist';
import { readBoard, solverFor } from '../meter';
import { seededRandom } from '../quantity';
import { partSigma } from '../device';
import { THERMAL_VOLTS } from '../part';
import { DcSolver, buildNetwork } from '.';

function boardOf(...lines: string[]) {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

function reading(
  lines: readonly string[],
  mode: 'diode' | 'ohms',
  red: string,
  black: string,
  faults: readonly string[] = [],
) {
  const board = boardOf(...lines);
  const parsed = faults.map((f) => {
    const fault = parseFault(board, f);
    if (!fault.ok) throw new Error(fault.problem.sentence);
    return fault.value;
  });
  const read = readBoard(board, solverFor(board, parsed), mode, red, black);
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value.reading.kind === 'figure' ? read.value.reading.value : 'OL';
}

test.each([
  ['two in parallel', ['R1 a b 1k', 'R2 a b 1k'], 500],
  ['a wire is nothing', ['R1 a b 1k', 'R2 b c 0', 'R3 c d 2k'], 3000, 'a', 'd'],
  ['an inductor is its winding', ['L1 a b 1m dcr=0.32'], 0.32],
  ['a bridge of five', ['R1 a c 1k', 'R2 a d 2k', 'R3 c b 2k', 'R4 d b 1k', 'R5 c d 1k'], 1400],
  ['nothing fitted', ['R1 a b 1k fit=no', 'R2 a c 1', 'R3 c b 5k'], 5001],
] as const)('resistance: %s', (_name, lines, ohms, ...leads) => {
  const [red = 'a', black = 'b'] = leads as readonly string[];
  expect(reading(lines, 'ohms', red, black)).toBeCloseTo(ohms as number, 4);
});

test('a diode at 1 mA reads its own law', () => {
  const volts = THERMAL_VOLTS * 1.75 * Math.log(1e-3 / 5e-9 + 1) + 1e-3 * 0.05;
  const lines = ['D1 a b DX', '.model DX D(IS=5n N=1.75 RS=0.05)'];
  expect(reading(lines, 'diode', 'a', 'b')).toBeCloseTo(volts, 9);
  expect(reading(lines, 'diode', 'b', 'a')).toBe('OL');
});

test('a transistor’s junctions read as the transport model says', () => {
  // Base to emitter with the collector open: IS (exp(v/Vt)-1) shared with the inverse junction; v from 1 mA of base current.
  const lines = ['Q1 c b e QN', '.model QN NPN(IS=1e-14 BF=100 BR=4)'];
  const both = reading(lines, 'diode', 'b', 'e') as number;
  const base = THERMAL_VOLTS * Math.log(1e-3 / (1e-14 * (1 / 100 + 1 / 4 / (1 + 0.25 / 1))) + 1);
  expect(Math.abs(both - base)).toBeLessThan(0.02);
  expect(reading(lines, 'diode', 'e', 'b')).toBe('OL');
});

test.each([
  ['R1:open', 1e9 + 1000, 'OL'],
  ['R1:short', 0.1, 1 / (1 / 0.1 + 1 / 1000)],
  ['R1:value=2.2k', 0, 2200],
  ['R1:leak=1k', 0, 500],
] as const)('fault %s on 1 kohm', (fault, _unused, value) => {
  const read = reading(['R1 a b 1k', 'R2 a c 5'], 'ohms', 'a', 'b', [fault]);
  if (value === 'OL') expect(read).toBe('OL');
  else expect(read as number).toBeCloseTo(value, 6);
});

test('a short sits inside an opened pin', () => {
  expect(reading(['M1 d g s MM', '.model MM NMOS(VTO=3)'], 'ohms', 'd', 's', ['M1:short(d,s)', 'M1.d:open'])).toBe(
    'OL',
  );
  expect(reading(['M1 d g s MM', '.model MM NMOS(VTO=3)'], 'ohms', 'd', 's', ['M1:short(d,s)'])).toBeCloseTo(0.1, 6);
});

test('the order of the lines does not matter, and currents at every node add up to nothing', () => {
  const lines = [
    'R1 a b 10k',
    'D1 a c DX',
    'R2 c d 470',
    'D2 d b DX',
    'Q1 c b d QN',
    'R3 b d 1MEG',
    '.model DX D(IS=2n N=1.6 RS=1)',
    '.model QN NPN(BF=80)',
  ];
  const random = seededRandom(3);
  const first = reading(lines, 'diode', 'a', 'b');
  for (let k = 0; k < 5; k++) {
    const shuffled = [...lines].sort(() => random() - 0.5);
    expect(reading(shuffled, 'diode', 'a', 'b')).toBeCloseTo(first as number, 7);
  }
  const solver = new DcSolver(buildNetwork(boardOf(...lines), []));
  const node = (net: string): number => solver.network.nodeOfNet.get(net)!;
  expect(solver.solve(node('a'), node('b'), { kind: 'current', amps: 1e-3, limitVolts: 3 }).ok).toBe(true);
  const sums = new Map<number, number>();
  for (const f of solver.flows(node('a')))
    f.nodes.forEach((end, t) => sums.set(end, (sums.get(end) ?? 0) + f.amps[t]!));
  expect(sums.get(node('a'))).toBeCloseTo(1e-3, 9);
  expect(sums.get(node('c'))).toBeCloseTo(0, 9);
  expect(sums.get(node('d'))).toBeCloseTo(0, 9);
});

test('the spread by the adjoint is the spread of a drawn parallel pair', () => {
  const board = boardOf('R1 a b 1k tol=10%', 'R2 a b 1k tol=10%');
  const solver = solverFor(board, []);
  const [a, b] = [solver.network.nodeOfNet.get('a')!, solver.network.nodeOfNet.get('b')!];
  solver.solve(a, b, { kind: 'current', amps: 1e-3, limitVolts: 3 });
  // Each resistor has one sigma of 5 %; the pair's is 5 % over the square root of two, of 0.5 V.
  expect(solver.readingSigma(a, b).sigma).toBeCloseTo((0.05 / Math.SQRT2) * 0.5, 9);
  expect(partSigma(board.parts[0]!, 'value')).toBe(0.05);
});

test('a channel that the meter turns on reads the first solution on the way up', () => {
  // Gate tied to drain through 1 Mohm: a diode-connected channel, Id = KP/2 (V-VTO)^2 = 1 mA at V = VTO + 0.0447.
  const lines = ['M1 d g s MM', 'R1 d g 1MEG', '.model MM NMOS(VTO=1.2 KP=1 RON=0 BODYIS=0)'];
  expect(reading(lines, 'diode', 'd', 's')).toBeCloseTo(1.2 + Math.sqrt(2e-3), 4);
});
