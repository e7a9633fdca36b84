import { parseFault } from '../fault';
import { readNetlist } from '../netlist';
import { gaussian, seededRandom } from '../quantity';
import type { PartDraw } from '../device';
import { DcSolver, buildNetwork } from '.';

/** Laws that every solution keeps, on random networks: no digits copied from anywhere. */
function solverOf(lines: readonly string[], faults: readonly string[] = [], draw?: PartDraw) {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  const { board } = read.value;
  const parsed = faults.map((f) => {
    const fault = parseFault(board, f);
    if (!fault.ok) throw new Error(fault.problem.sentence);
    return fault.value;
  });
  const solver = new DcSolver(buildNetwork(board, parsed, draw));
  return { solver, node: (net: string): number => solver.network.nodeOfNet.get(net)! };
}

const MILLI = { kind: 'current', amps: 1e-3, limitVolts: 3 } as const;
const UNLIMITED = { ...MILLI, limitVolts: 1e9 } as const;

function volts(lines: readonly string[], red: string, black: string, amps = 1e-3): number {
  const { solver, node } = solverOf(lines);
  const solved = solver.solve(node(red), node(black), { kind: 'current', amps, limitVolts: 1e9 });
  if (!solved.ok) throw new Error(solved.problem.sentence);
  return solved.value.volts;
}

/** A connected random network of resistors, diodes and transistors on n nodes. */
function randomLines(seed: number, n: number, nonlinear: boolean): string[] {
  const random = seededRandom(seed);
  const any = (): number => Math.floor(random() * n);
  const lines: string[] = [];
  for (let i = 1; i < n; i++) lines.push(`R${i} n${i} n${Math.floor(random() * i)} ${10 ** (1 + 5 * random())}`);
  for (let k = 0; k < n; k++) {
    const [a, b, c] = [any(), any(), any()];
    if (a === b || b === c || a === c) continue;
    if (!nonlinear || k % 3 === 0) lines.push(`RX${k} n${a} n${b} ${10 ** (1 + 5 * random())}`);
    else if (k % 3 === 1) lines.push(`D${k} n${a} n${b} DD`);
    else lines.push(`Q${k} n${a} n${b} n${c} QQ`);
  }
  return [...lines, '.model DD D(IS=2n N=1.6 RS=0.2)', '.model QQ NPN(BF=80 BR=2)'];
}

const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8];

test.each(SEEDS)('Kirchhoff: at every node of random network %p the currents add up to nothing', (seed) => {
  const { solver, node } = solverOf(randomLines(seed, 14, true));
  expect(solver.solve(node('n0'), node('n5'), UNLIMITED).ok).toBe(true);
  const sums = new Map<number, number>();
  const most = new Map<number, number>();
  for (const f of solver.flows(node('n0'))) {
    f.nodes.forEach((end, t) => {
      sums.set(end, (sums.get(end) ?? 0) + f.amps[t]!);
      most.set(end, Math.max(most.get(end) ?? 0, Math.abs(f.amps[t]!)));
    });
  }
  expect(sums.size).toBe(14);
  for (const [at, sum] of sums) {
    const wanted = at === node('n0') ? 1e-3 : at === node('n5') ? -1e-3 : 0;
    expect(Math.abs(sum - wanted)).toBeLessThan(2e-6 * most.get(at)! + 1e-12);
  }
});

test.each(SEEDS)('Tellegen: what the meter gives is what the parts of network %p take', (seed) => {
  const { solver, node } = solverOf(randomLines(seed, 12, true));
  const solved = solver.solve(node('n1'), node('n8'), { kind: 'current', amps: 1e-4, limitVolts: 1e9 });
  if (!solved.ok) throw new Error('no convergence');
  const taken = solver
    .flows(node('n1'))
    .reduce((sum, f) => f.amps.reduce((own, amps, t) => own + amps * f.volts[t]!, sum), 0);
  expect(Math.abs(taken / (1e-4 * solved.value.volts) - 1)).toBeLessThan(1e-5);
});

test.each(SEEDS)('reciprocity: leads and sense exchanged, linear network %p reads the same', (seed) => {
  const lines = randomLines(seed, 12, false);
  const { solver, node } = solverOf(lines);
  const between = (red: string, black: string, a: string, b: string): number => {
    expect(solver.solve(node(red), node(black), UNLIMITED).ok).toBe(true);
    return solver.voltsOf(node(a)) - solver.voltsOf(node(b));
  };
  const there = between('n0', 'n4', 'n7', 'n2');
  const back = between('n7', 'n2', 'n0', 'n4');
  expect(Math.abs(there - back)).toBeLessThan(1e-8 * Math.abs(volts(lines, 'n0', 'n4')));
});

test.each(SEEDS)('twice the current, twice the volts on linear network %p', (seed) => {
  const lines = randomLines(seed, 10, false);
  expect(volts(lines, 'n0', 'n3', 2e-6) / volts(lines, 'n0', 'n3', 1e-6)).toBeCloseTo(2, 6);
});

test.each(SEEDS)('more current never gives fewer volts on network %p', (seed) => {
  const lines = randomLines(seed, 12, true);
  let last = 0;
  for (const amps of [1e-7, 1e-6, 1e-5, 1e-4]) {
    const now = volts(lines, 'n2', 'n9', amps);
    expect(now).toBeGreaterThan(last);
    last = now;
  }
});

test.each(SEEDS)('the adjoint of network %p is the finite difference', (seed) => {
  const lines = randomLines(seed, 12, true);
  const drive = { kind: 'current', amps: 1e-5, limitVolts: 1e9 } as const;
  const { solver, node } = solverOf(lines);
  const solved = solver.solve(node('n0'), node('n6'), drive);
  if (!solved.ok) throw new Error('no convergence');
  const adjoint = new Float64Array(solver.network.nodeCount);
  solver.adjoint(node('n0'), node('n6'), adjoint);
  // One more ampere into the leads: volts per ampere at the leads themselves is the slope of the reading.
  const h = 1e-9;
  const more = solverOf(lines);
  const moved = more.solver.solve(more.node('n0'), more.node('n6'), { ...drive, amps: 1e-5 + h });
  if (!moved.ok) throw new Error('no convergence');
  const slope = (moved.value.volts - solved.value.volts) / h;
  expect(Math.abs((adjoint[node('n0')]! - adjoint[node('n6')]!) / slope - 1)).toBeLessThan(2e-3);
});

test('the spread by the adjoint is the spread of a hundred drawn boards', () => {
  const lines = [
    'R1 a b 10k tol=10%',
    'R2 b c 4.7k tol=10%',
    'D1 c d DD',
    'R3 a d 22k tol=20%',
    '.model DD D(IS=2n N=1.7)',
  ];
  const drive = { kind: 'current', amps: 5e-5, limitVolts: 3 } as const;
  const { solver, node } = solverOf(lines);
  solver.solve(node('a'), node('d'), drive);
  const sigma = solver.readingSigma(node('a'), node('d')).sigma;
  const random = seededRandom(9);
  const draws = Array.from({ length: 300 }, () => {
    const kept = new Map<string, number>();
    const draw: PartDraw = (owner, part, property) => {
      const key = `${owner} ${property}`;
      if (!kept.has(key)) {
        const tolerance = (part.numbers['tol'] ?? 0) / 2;
        kept.set(key, property === 'saturation' ? 1.6 ** gaussian(random) : 1 + tolerance * gaussian(random));
      }
      return kept.get(key)!;
    };
    const drawn = solverOf(lines, [], draw);
    const solved = drawn.solver.solve(drawn.node('a'), drawn.node('d'), drive);
    return solved.ok ? solved.value.volts : NaN;
  });
  const mean = draws.reduce((a, b) => a + b, 0) / draws.length;
  const deviation = Math.sqrt(draws.reduce((sum, v) => sum + (v - mean) ** 2, 0) / draws.length);
  // 300 draws know a deviation to 4 %; the first order adds a little.
  expect(Math.abs(sigma / deviation - 1)).toBeLessThan(0.15);
});

test.each(SEEDS)('the spread of network %p is that of every parameter moved a little, one after the other', (seed) => {
  const lines = randomLines(seed, 10, true);
  const drive = { kind: 'current', amps: 1e-4, limitVolts: 1e9 } as const;
  const { solver, node } = solverOf(lines);
  const at = (draw?: PartDraw): number => {
    const drawn = solverOf(lines, [], draw);
    const solved = drawn.solver.solve(drawn.node('n0'), drawn.node('n6'), drive);
    if (!solved.ok) throw new Error('no convergence');
    return solved.value.volts;
  };
  at();
  solver.solve(node('n0'), node('n6'), drive);
  let squares = 0;
  const step = 1e-3;
  const parts = new Set(lines.map((l) => l.split(' ')[0]!).filter((name) => /^[RDQ]/u.test(name)));
  for (const ref of parts) {
    for (const property of ref.startsWith('R')
      ? ['value']
      : ref.startsWith('Q')
        ? ['saturation', 'gain']
        : ['saturation']) {
      const moved = (by: number): number =>
        at((owner, _part, p) => (owner === ref && p === property ? Math.exp(by) : 1));
      const sigma = property === 'value' ? 0.025 : property === 'gain' ? Math.log(1.5) : Math.log(1.6);
      squares += (((moved(step) - moved(-step)) / (2 * step)) * sigma) ** 2;
    }
  }
  expect(Math.abs(solver.readingSigma(node('n0'), node('n6')).sigma / Math.sqrt(squares) - 1)).toBeLessThan(2e-3);
});

test('a stiff source and a current source agree on the same point', () => {
  const lines = ['D1 a b DD', 'R1 b c 1k', 'D2 c d DD', '.model DD D(IS=1n N=1.8)'];
  const { solver, node } = solverOf(lines);
  const byCurrent = solver.solve(node('a'), node('d'), { kind: 'current', amps: 2e-4, limitVolts: 9 });
  if (!byCurrent.ok) throw new Error('no convergence');
  const byVolts = solver.solve(node('a'), node('d'), { kind: 'voltage', volts: byCurrent.value.volts });
  expect(byVolts.ok && Math.abs(byVolts.value.amps / 2e-4 - 1)).toBeLessThan(1e-4);
});

test('a current source gives way at its limit and not before', () => {
  for (const [ohms, wanted] of [
    [2000, 2],
    [2900, 2.9],
    [1e9, 3],
  ] as const) {
    const { solver, node } = solverOf([`R1 a b ${ohms}`]);
    const solved = solver.solve(node('a'), node('b'), MILLI);
    expect(solved.ok && solved.value.volts).toBeCloseTo(wanted, 1);
  }
});

test('an open adds a gigaohm, a short a tenth of an ohm, and both together keep their places', () => {
  const ohms = (faults: readonly string[]): number => {
    const { solver, node } = solverOf(['R1 a b 1k'], faults);
    const solved = solver.solve(node('a'), node('b'), { kind: 'current', amps: 1e-9, limitVolts: 9 });
    return solved.ok ? solved.value.volts / 1e-9 : NaN;
  };
  expect(ohms(['R1:open'])).toBeCloseTo(1e9 + 1000, -2);
  expect(ohms(['R1:short'])).toBeCloseTo(1 / (10 + 1e-3), 6);
  expect(ohms(['R1:short', 'R1:open'])).toBeCloseTo(1e9, -2);
  expect(ohms(['R1:leak=1k'])).toBeCloseTo(500, 6);
  expect(ohms(['R1:leak=1k', 'R1:leak=1k'])).toBeCloseTo(1000 / 3, 6);
  expect(ohms(['R1:value=2k', 'R1:leak=2k'])).toBeCloseTo(1000, 6);
});
