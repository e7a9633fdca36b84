import { OPEN_OHMS, parseFault } from '../fault';
import { netKey } from '../circuit';
import { readNetlist } from '../netlist';
import { seededRandom } from '../quantity';
import { DcSolver, buildNetwork } from '.';

function boardOf(lines: readonly string[]) {
  const made = readNetlist(['t', ...lines].join('\n'));
  if (!made.ok) throw new Error(made.problem.map((p) => p.sentence).join('\n'));
  return made.value.board;
}

const nets = ['a', 'b', 'c', 'd', 'e', 'f'] as const;
const MODELS = ['.model DD D(IS=2n N=1.7)', '.model QQ NPN(IS=1e-14 BF=150)', '.model MM NMOS(VTO=3 KP=2)'];

/** A random network of resistors and junctions, a transistor and a channel that stays off. */
function randomLines(seed: number): readonly string[] {
  const random = seededRandom(seed);
  const pick = (): string => nets[Math.floor(random() * nets.length)]!;
  const ohms = (): string => (10 ** (1 + 4 * random())).toFixed(1);
  const chain = nets.slice(1).map((n, i) => `R${i + 1} ${nets[i]!} ${n} ${ohms()}`);
  const more = Array.from({ length: 4 }, (_, i) => `R${i + 10} ${pick()} ${pick()} ${ohms()}`);
  const junctions = Array.from({ length: 4 }, (_, i) => `D${i + 1} ${pick()} ${pick()} DD`);
  const different = (line: string): boolean => line.split(' ')[1] !== line.split(' ')[2];
  return [...chain, ...[...more, ...junctions].filter(different), 'Q1 c b a QQ', 'M1 f e d MM', ...MODELS];
}

const CASES = Array.from({ length: 40 }, (_, k) => [k + 1] as const);

test.each(CASES)(
  'conductances added to network %i: what is said to be solved equals a full solve of the changed one',
  (seed) => {
    const random = seededRandom(900 + seed);
    const lines = randomLines(seed);
    const solver = new DcSolver(buildNetwork(boardOf(lines), []));
    const node = (s: DcSolver, net: string): number => s.network.nodeOfNet.get(net)!;
    const amps = [1e-3, 50e-6, 5e-6][seed % 3]!;
    const drive = { kind: 'current', amps, limitVolts: 3 } as const;
    const [red, black] = ['a', 'f'];
    if (!solver.solve(node(solver, red), node(solver, black), drive).ok) throw new Error('solve');
    const kept = solver.keep(node(solver, red));
    const [p, q] = [nets[Math.floor(random() * 3)]!, nets[3 + Math.floor(random() * 3)]!];
    const ohms = 10 ** (6 * random());
    const ends = Int32Array.from([node(solver, p), node(solver, q)]);
    const out = new Float64Array(solver.network.nodeCount);
    const found = solver.nearby(kept, ends, Float64Array.from([1 / ohms]), out, 1e-4 * amps);
    const changed = new DcSolver(buildNetwork(boardOf([...lines, `R99 ${p} ${q} ${ohms}`]), []));
    const full = changed.solve(node(changed, red), node(changed, black), drive);
    if (!full.ok) throw new Error('full solve');
    if (!found) return expect(ohms).toBeLessThan(1e6);
    const near = out[node(solver, red)]! - out[node(solver, black)]!;
    expect(Math.abs(near - full.value.volts)).toBeLessThanOrEqual(3e-4 * Math.abs(full.value.volts) + 1e-7);
  },
);

test('most small changes need no solve; a junction turned on by a short does', () => {
  const lines = ['R1 a b 1k', 'D1 b f DD', 'R2 a c 10k', 'R3 c f 10k', ...MODELS];
  const solver = new DcSolver(buildNetwork(boardOf(lines), []));
  const node = (net: string): number => solver.network.nodeOfNet.get(net)!;
  solver.solve(node('a'), node('f'), { kind: 'current', amps: 1e-3, limitVolts: 3 });
  const kept = solver.keep(node('a'));
  const out = new Float64Array(solver.network.nodeCount);
  const nearby = (p: string, q: string, ohms: number): boolean =>
    solver.nearby(kept, Int32Array.from([node(p), node(q)]), Float64Array.from([1 / ohms]), out, 1e-7);
  expect(nearby('c', 'f', 1e6)).toBe(true);
  expect(nearby('a', 'c', 1e5)).toBe(true);
  // Short across the junction: its current goes from a milliampere to nothing.
  expect(nearby('b', 'f', 0.1)).toBe(false);
  // Taking a resistor away is a conductance less than nothing.
  expect(solver.nearby(kept, Int32Array.from([node('c'), node('f')]), Float64Array.from([-1e-6]), out, 1e-7)).toBe(
    true,
  );
});

test('an opened pin of a diode, a transistor or a channel: what is said to be solved equals a full solve; most are', () => {
  const off: string[] = [];
  let said = 0;
  let asked = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const board = boardOf(randomLines(seed));
    const solver = new DcSolver(buildNetwork(board, []));
    const node = (s: DcSolver, net: string): number => s.network.nodeOfNet.get(netKey(net))!;
    const amps = [1e-3, 50e-6, 5e-6][seed % 3]!;
    const drive = { kind: 'current', amps, limitVolts: 3 } as const;
    if (!solver.solve(node(solver, 'a'), node(solver, 'f'), drive).ok) throw new Error('solve');
    const kept = solver.keep(node(solver, 'a'));
    const out = new Float64Array(solver.network.nodeCount);
    for (const text of [
      'Q1.c:open',
      'Q1.b:open',
      'Q1.e:open',
      'M1.d:open',
      'M1.s:open',
      'D1:open',
      'D2:open',
      'D3:open',
    ]) {
      const ref = text.slice(0, 2);
      const owner = board.parts.findIndex((p) => p.ref === ref);
      if (owner < 0) continue;
      const at = Math.max(0, { Q1: 'cbe', M1: 'dgs' }[ref]?.indexOf(text[3]!) ?? 0);
      const pin = { owner, node: node(solver, board.parts[owner]!.nets[at]!), ohms: OPEN_OHMS };
      asked++;
      if (!solver.opened(kept, pin, out, 1e-4 * amps)) continue;
      said++;
      const fault = parseFault(board, text);
      if (!fault.ok) throw new Error(fault.problem.sentence);
      const changed = new DcSolver(buildNetwork(board, [fault.value]));
      const full = changed.solve(node(changed, 'a'), node(changed, 'f'), drive);
      if (!full.ok) throw new Error('full solve');
      const near = out[node(solver, 'a')]! - out[node(solver, 'f')]!;
      if (!(Math.abs(near - full.value.volts) <= 3e-4 * Math.abs(full.value.volts) + 1e-7))
        off.push(`${seed} ${text} ${near} ${full.value.volts}`);
    }
  }
  expect(off).toEqual([]);
  expect(said).toBeGreaterThan(0.6 * asked);
});

test('where the source holds its leads, what is missing inside moves them by no more than the share', () => {
  // Two junctions against each other: hardly anything flows, the source stands at its limit.
  const lines = ['D1 a m DD', 'D2 f m DD', 'D3 m n DD', 'D4 f n DD', 'R1 n f 22meg', 'R2 a f 4.7k', ...MODELS];
  for (const [ohms, clamped] of [
    ['4.7k', true],
    ['2.2k', false],
  ] as const) {
    const solver = new DcSolver(buildNetwork(boardOf(lines.map((l) => l.replace('4.7k', ohms))), []));
    const node = (net: string): number => solver.network.nodeOfNet.get(net)!;
    const drive = { kind: 'current', amps: 1e-3, limitVolts: 3 } as const;
    const whole = solver.solve(node('a'), node('f'), drive);
    const steps = solver.steps;
    const quick = new DcSolver(solver.network);
    const read = quick.solve(node('a'), node('f'), drive, false, 1e-4);
    if (!whole.ok || !read.ok) throw new Error('solve');
    expect(whole.value.volts > 2.9).toBe(clamped);
    expect(Math.abs(read.value.volts / whole.value.volts - 1)).toBeLessThan(1e-4);
    expect(quick.steps).toBeLessThan(steps);
  }
});
