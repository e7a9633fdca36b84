import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { findPart, netKey } from '../circuit';
import { isElectrolytic } from '../part';
import type { Board, Nameplate } from '../circuit';
import { formatFault, parseFault } from '../fault';
import { DEFAULT_METER, probe, solverFor } from '../meter';
import { readNetlist } from '../netlist';
import { seededRandom } from '../quantity';
import {
  Diagnoser,
  alsoCheck,
  buildWholeDictionary,
  failureKind,
  listHypotheses,
  outcomeSpread,
  logLikelihood,
  scaleOf,
  pointKey,
} from '.';
import type { Observation, TakenReading } from '.';
import { FAULT_MODES } from './faultModes';
import { groupHypotheses } from './groups';
import { settleSeconds } from './settling';
import { changesOf, keepSolution, noneCanChange } from './unaffected';

function boardOf(...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

const folder = join(__dirname, '../../../fixtures/boards');
const boards = readdirSync(folder)
  .filter((f) => f.endsWith('.cir'))
  .map((file): readonly [string, Board] => {
    const read = readNetlist(readFileSync(join(folder, file), 'utf8'));
    const labels = JSON.parse(readFileSync(join(folder, file.replace('.cir', '.labels.json')), 'utf8')) as {
      nameplate: Nameplate;
    };
    if (!read.ok) throw new Error(file);
    return [file, { ...read.value.board, nameplate: labels.nameplate }];
  });

test.each([
  ['C1 a b 470u vr=35', 'electrolytic'],
  ['C1 a b 100n', 'small-capacitor'],
  ['C1 a b 100n mark="X2"', 'safety-capacitor'],
  ['R1 a b 470k', 'high-resistor'],
  ['R1 a b 10', 'low-resistor'],
  ['L1 a b 1m', 'winding'],
  ['XF1 a b FUSE', 'fuse'],
  ['XRT1 a b NTC r25=5', 'ntc'],
  ['XRV1 a b MOV', 'mov'],
  ['XBD1 a b c d BRIDGE', 'bridge'],
  ['XU1 a b c d OPTO', 'opto-or-reference'],
  ['XU1 a b c SHUNTREF', 'opto-or-reference'],
  ['XU1 a b c REG3', 'regulator'],
  ['XK1 a b c d RELAY rcoil=9', 'relay'],
  ['XS1 a b SWITCH', 'contact'],
  ['XT1 a b c TRIAC', 'triac'],
  ['XU1 a b c d e CHIP', 'ic'],
  ['M1 a b c MM', 'switch-transistor'],
  ['Q1 a b c QQ', 'bjt'],
])('%s fails as a %s', (line, kind) => {
  const board = boardOf(line, '.model MM NMOS()', '.model QQ NPN()');
  expect(failureKind(board, board.parts[0]!)).toBe(kind);
});

test.each(boards)(
  '%s: every hypothesis is a sound fault of a fitted part, once, with a weight and a reason',
  (_f, board) => {
    const list = listHypotheses(board);
    expect(list[0]!.label).toBe('none');
    expect(new Set(list.map((h) => h.label)).size).toBe(list.length);
    for (const h of list.slice(1)) {
      expect(h.weight).toBeGreaterThan(0);
      expect(h.why).not.toBe('');
      expect(h.label).toBe(h.faults.map(formatFault).join('+'));
      for (const text of h.label.split('+')) {
        expect(parseFault(board, text).ok).toBe(true);
        expect(findPart(board, text.split(/[:.]/u)[0]!)?.fitted).toBe(true);
      }
    }
  },
);

test.each(boards)('%s: weights are shared by kind, so that many small parts do not outvote one', (_f, board) => {
  const byKind = new Map<string, number>();
  for (const h of listHypotheses(board)) {
    if (h.faults.length === 0) continue;
    const kind = failureKind(board, findPart(board, h.faults[0]!.ref)!)!;
    byKind.set(kind, (byKind.get(kind) ?? 0) + h.weight);
  }
  for (const [kind, total] of byKind) {
    // Linked faults share their first one's weight; the total of a kind stays its table's.
    expect([kind, total > 0 && total < 40]).toEqual([kind, true]);
  }
  if (byKind.has('electrolytic')) expect(byKind.get('electrolytic')!).toBeGreaterThan(byKind.get('low-resistor') ?? 0);
});

test('every kind of failure has modes that the notation knows', () => {
  for (const modes of Object.values(FAULT_MODES))
    for (const { mode, why } of modes) {
      expect(mode).toMatch(
        /^(?:[A-Za-z0-9]+:)?(?:open|short|value=x[\d.]+|esr=x20|leak)(?:\(\w+,\w+\))?(?:=[\d.]+k?)?$/u,
      );
      expect(why).not.toBe('');
    }
});

const chain = boardOf('R1 a b 1k', 'R2 b c 1k', 'R3 c d 1k', 'R4 x y 1k', 'C1 a c 10u', 'D1 b a DD', '.model DD D()');
const parsed = (text: string) => {
  const fault = parseFault(chain, text);
  if (!fault.ok) throw new Error(fault.problem.sentence);
  return fault.value;
};

test.each([
  ['R4:open', true],
  ['R4:short', true],
  ['R3:open', true],
  ['C1:value=1u', true],
  ['C1:esr=5', true],
  ['D1:open', true],
  ['R1:open', false],
  ['R1:value=2k', false],
  ['R2:short', false],
  ['C1:short', false],
  ['D1:short', false],
  ['R4:open R3:open', true],
  ['R4:open R2:open', false],
])('reading ohms a to c, %s cannot matter: %p', (faults, wanted) => {
  const solver = solverFor(chain, []);
  const node = (net: string): number => solver.network.nodeOfNet.get(net)!;
  const read = probe(solver, 'ohms', node('a'), node('c'));
  if (!read.ok) throw new Error('read');
  const drive = { kind: 'current', amps: read.value.amps, limitVolts: DEFAULT_METER.diodeLimitVolts } as const;
  solver.solve(node('a'), node('c'), drive);
  const known = keepSolution({
    board: chain,
    faults: [],
    solver,
    red: node('a'),
    black: node('c'),
    amps: read.value.amps,
  });
  const list = faults.split(' ').map(parsed);
  expect(noneCanChange(known, changesOf(chain, solver.network, list))).toBe(wanted);
  // What is said not to matter does not, computed in full.
  if (!wanted) return;
  const faulty = solverFor(chain, list);
  const full = probe(faulty, 'ohms', faulty.network.nodeOfNet.get('a')!, faulty.network.nodeOfNet.get('c')!);
  expect(full.ok && Math.abs(full.value.raw / read.value.raw - 1)).toBeLessThan(1e-3);
});

test('ohms across a bulk capacitor takes its time, diode test less, and nothing waits without a capacitor', () => {
  const board = boardOf('C1 a b 180u', 'R1 a b 100k', 'R2 c d 100k');
  const solver = solverFor(board, []);
  const node = (net: string): number => solver.network.nodeOfNet.get(net)!;
  const seconds = (a: string, b: string, amps: number): number => {
    solver.solve(node(a), node(b), { kind: 'current', amps, limitVolts: 3 });
    return settleSeconds(board, solver, node(a), node(b), amps);
  };
  // R C = 18 s; a 100 kohm resistor alone is read at 0.5 µA. 5.3 time constants, by hand.
  expect(seconds('a', 'b', 0.5e-6)).toBeCloseTo(5.3 * 18, 0);
  expect(seconds('c', 'd', 0.5e-6)).toBe(0);
  expect(seconds('a', 'b', 1e-3)).toBeLessThan(seconds('a', 'b', 0.5e-6));
});

test.each([
  [
    { kind: 'figure', value: 1000 },
    { kind: 'figure', value: 5000 },
  ],
  [{ kind: 'agrees' }, { kind: 'overload' }],
  [
    { kind: 'at-least', value: 900 },
    { kind: 'at-least', value: 5000 },
  ],
] as readonly (readonly [Observation, Observation])[])('on 1 kohm %p is likelier than %p', (near, far) => {
  const spread = outcomeSpread('ohms', 1000, 20);
  expect(logLikelihood(scaleOf('ohms'), spread, spread, near)).toBeGreaterThan(
    logLikelihood(scaleOf('ohms'), spread, spread, far) + 2,
  );
});

test('no reading convicts or clears by itself: the log likelihood has a floor', () => {
  const spread = outcomeSpread('diode', 0.5, 0.01);
  for (const seen of [
    { kind: 'figure', value: 2.4 },
    { kind: 'figure', value: -1 },
    { kind: 'overload' },
    { kind: 'at-least', value: 2.4 },
  ] as const)
    expect(logLikelihood(scaleOf('diode'), spread, spread, seen)).toBeGreaterThan(Math.log(1e-3));
});

const pair = boardOf(
  'XJ1 in gnd CONN',
  'R1 in mid 1k',
  'R2 mid out 1k',
  'R3 out gnd 1k',
  'RP in mid2 47',
  'RQ in mid2 47',
);
const diagnoser = new Diagnoser(buildWholeDictionary(pair, listHypotheses(pair)));

test('faults that read alike everywhere are one group, and groups cover every hypothesis', () => {
  const groups = groupHypotheses(diagnoser.predictor);
  expect(groups).toHaveLength(diagnoser.predictor.hypotheses.length);
  const groupOf = (label: string): number =>
    groups[diagnoser.predictor.hypotheses.findIndex((h) => h.label === label)]!;
  // Two equal resistors in parallel: which of them is open nobody can read.
  expect(groupOf('RP:open')).toBe(groupOf('RQ:open'));
  expect(groupOf('R1:open')).not.toBe(groupOf('R2:open'));
  expect(groupOf('none')).toBe(0);
});

const read = (...ohms: readonly (number | null)[]) =>
  ohms.map((value): TakenReading => {
    const seen = value === null ? ({ kind: 'overload' } as const) : ({ kind: 'figure', value } as const);
    return { mode: 'ohms', red: 'in', black: 'mid', seen };
  });

test('a reading again that says the same counts once, but the less likely both mean nothing', () => {
  const odds = (...ohms: readonly (number | null)[]): number => {
    const weighed = diagnoser.weigh(read(...ohms));
    return weighed[diagnoser.predictor.hypotheses.findIndex((h) => h.label === 'R1:open')]!;
  };
  // One reading may be a slipped probe, in 2 of 100; the second in the same way in 1 of 10 of those.
  const once = odds(null);
  const doubt = (p: number): number => (1 - p) / p;
  expect(odds(null, null)).toBeGreaterThan(once);
  expect(doubt(once) / doubt(odds(null, null))).toBeGreaterThan(5);
  expect(doubt(once) / doubt(odds(null, null))).toBeLessThan(11);
  expect(odds(null, null, null)).toBeGreaterThan(odds(null, null));
  // Of two that differ the earlier is doubted more; a third decides.
  expect(odds(1000, null, null)).toBeGreaterThan(5 * odds(1000, null));
  expect(odds(1000, null, null)).toBeGreaterThan(odds(null, null, 1000));
  expect(odds(null, 1000)).toBeLessThan(0.05);
  expect(odds(null, null, 1000)).toBeGreaterThan(odds(null, 1000));
  // A creeping figure and the one it crept to are one reading.
  const creeping: TakenReading = { ...read(500)[0]!, seen: { kind: 'at-least', value: 500 } };
  const crept = diagnoser.weigh([creeping, ...read(1000)]);
  diagnoser.weigh(read(1000, 1000)).forEach((p, i) => expect(crept[i]).toBeCloseTo(p, 12));
});

test('probabilities add up to one, whatever was read', () => {
  const random = seededRandom(8);
  const points = diagnoser.predictor.points;
  const readings = Array.from({ length: 12 }, () => {
    const p = points[Math.floor(random() * points.length)]!;
    const seen: Observation =
      random() < 0.3
        ? { kind: 'overload' }
        : { kind: 'figure', value: p.mode === 'diode' ? 2 * random() : 5000 * random() };
    return { mode: p.mode, red: p.red, black: p.black, seen };
  });
  for (let k = 0; k <= readings.length; k++) {
    const sum = diagnoser.weigh(readings.slice(0, k)).reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(1, 9);
  }
});

test('a plan asks again only for a reading that much hangs on, never for what was set aside, and its best comes first', () => {
  const set = [{ mode: 'ohms', red: 'mid', black: 'out' }] as const;
  const healthy = diagnoser.plan(diagnoser.standing(read(1000)), 20, set);
  const keys = healthy.map((p) => pointKey(p.point));
  expect(keys).not.toContain(pointKey(read(1000)[0]!));
  expect(keys).not.toContain(pointKey(set[0]));
  const worth = healthy.map((p) => p.gainBits / p.seconds);
  expect(worth).toEqual([...worth].sort((a, b) => b - a));
  expect(healthy.every((p) => p.gainBits > 0 && !p.again)).toBe(true);
  const odd = diagnoser.plan(diagnoser.standing(read(null)), 20);
  expect(odd.filter((p) => p.again).map((p) => pointKey(p.point))).toEqual([pointKey(read(1000)[0]!)]);
  const often = diagnoser.plan(diagnoser.standing(read(null, null, null, null)), 20);
  expect(often.some((p) => p.again)).toBe(false);
});

test('a reading at an assumed place moves the suspects like any other', () => {
  const plate: Nameplate = { source: 'dc', inputRail: 'in', inputReturn: 'gnd' };
  const board = { ...boardOf('XJ1 in gnd CONN', 'XF1 in a FUSE', 'C1 a gnd 100u', 'R1 a gnd 10k'), nameplate: plate };
  const d = new Diagnoser(buildWholeDictionary(board, listHypotheses(board)));
  const reading = { mode: 'ohms', red: 'a', black: 'gnd', seen: { kind: 'figure', value: 10_000 } } as const;
  const sure = d.diagnose([reading]);
  const unsure = d.diagnose([{ ...reading, placeConfirmed: false }]);
  expect([...unsure.probabilities]).toEqual([...sure.probabilities]);
});

test.each([
  ['M1:short(d,s)', ['F1', 'RS1', 'RG1', 'U1', 'U1']],
  ['M1:short(d,s)+F1:open', ['RS1', 'RG1', 'U1', 'U1']],
  ['M1:short(d,s)+F1:open+RS1:open', ['RG1', 'U1', 'U1']],
  ['RV1:short', ['F1']],
  ['C1:short', ['F1']],
  ['R9:open', []],
  ['cracked joint at J1', []],
])('after %s was called: also check %p', (called, refs) => {
  const board = {
    ...boardOf(
      'XJ1 L N CONN',
      'XF1 L LF FUSE ir=2',
      'XRV1 LF N MOV',
      'XBD1 LF N P Q BRIDGE',
      'C1 P Q 100u vr=400 esr=0.3',
      'LT1 P D 1m',
      'M1 D G S MM',
      'RS1 S Q 0.5',
      'RG1 DRV G 22',
      'R8 S CS 470',
      'R9 P VCC 470k',
      'XU1 Q DRV CS VCC CTRL',
      '.model MM NMOS()',
    ),
    nameplate: { source: 'mains', inputRail: 'L', inputReturn: 'N' } as const,
  };
  const checks = alsoCheck(board, called);
  expect(checks.map((c) => c.ref)).toEqual(refs);
  for (const c of checks) {
    expect(netKey(c.point.red)).not.toBe(netKey(c.point.black));
    expect(c.words).not.toBe('');
  }
});

test('the electrolytics of the example boards are told from film and ceramic', () => {
  const lamp = boards.find(([f]) => f.startsWith('lamp'))![1];
  const is = lamp.parts.filter(isElectrolytic).map((p) => p.ref);
  expect(is).toEqual(expect.arrayContaining(['C1', 'C8']));
  for (const ref of ['CX1', 'C4']) expect(is).not.toContain(ref);
});
