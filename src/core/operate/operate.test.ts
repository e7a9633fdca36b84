import { boardNets, netKey } from '../circuit';
import type { Board, Nameplate } from '../circuit';
import { figureOf } from '../figures';
import { inferredValues } from '../infer';
import { readNetlist } from '../netlist';
import { findThreats } from '../permit/threats';
import { formatQuantity } from '../quantity';
import { energyStores } from '../safety';
import { rails } from '../stages';
import { railStress } from '../stress';
import { testBoards } from '@/testing/boards';
import { findDividers, operatingPoint, printedOutputs, supplyOf } from '.';

function boardOf(lines: readonly string[], nameplate?: Nameplate, facts?: Board['facts']): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return { ...read.value.board, ...(nameplate ? { nameplate } : {}), ...(facts ? { facts } : {}) };
}

/** A text with plain spaces between figures and units. */
const plain = (text: string): string => text.replace(/\s/gu, ' ');

const ALL = testBoards().map((t) => [t.name, t.board] as const);

describe.each(ALL)('%s: no two rooms disagree about a rail', (_name, board) => {
  const point = operatingPoint(board);

  test('its stores hold what the operating point says, and no less than stands there at work', () => {
    for (const store of energyStores(board)) {
      if ([store.plus, store.minus].some((n) => !boardNets(board).some((net) => netKey(net) === netKey(n)))) continue;
      const there = point.across(store.plus, store.minus);
      expect(store.volts.nominal).toBe(point.highest(store.plus, store.minus).volts);
      expect(there.highest).toBeGreaterThanOrEqual(store.volts.nominal);
      if (there.high !== null) expect(there.highest).toBeGreaterThanOrEqual(there.high);
    }
  });

  test('what a divider holds, what the nameplate prints and what figures offer agree within their bands', () => {
    for (const output of printedOutputs(board)) {
      if (output.rail === null || output.return === null || output.volts <= 0) continue;
      const there = point.across(output.rail, output.return);
      expect(there.low! <= output.volts * 1.05 && there.high! >= output.volts * 0.95).toBe(true);
      const figure = figureOf(board, `${output.name}.volts`);
      if (figure) expect(Math.abs(figure.value - there.nominal!)).toBeLessThanOrEqual(there.high! - there.low!);
    }
    for (const a of point.statements)
      for (const b of point.statements) {
        const [from] = a.plus;
        const [to] = a.minus;
        if (!b.plus.has(from!) || !b.minus.has(to!)) continue;
        expect(a.low <= b.high && b.low <= a.high).toBe(true);
      }
  });

  test('a changed output is laid out and stressed with the same bus and the same rail', () => {
    const { peak } = supplyOf(board);
    for (const d of findDividers(board)) {
      const rows = railStress(board, { rail: d.rail, return: d.return, volts: 10 });
      for (const row of rows) {
        if (!row.why.includes(' in reverse') || !row.why.includes(' / ')) continue;
        expect(row.why).toContain(formatQuantity(peak!, 'V'));
      }
      for (const capacitor of board.parts) {
        if (capacitor.kind !== 'capacitor' || !capacitor.fitted) continue;
        const keys = capacitor.nets.map(netKey);
        if (!keys.some((n) => rails(board).same(n, d.rail)) || !keys.includes(netKey(d.return))) continue;
        expect(rows.find((r) => r.ref === capacitor.ref)?.stress).toBe(10);
      }
    }
  });

  test('a leak on its way in is judged by the source’s peak', () => {
    const { peak } = supplyOf(board);
    const path = findThreats(board);
    const bus = path.poles.filter((p) => p.kind !== 'rail');
    for (const t of path.threats) {
      const both = [t.red, t.black].every((n) => bus.some((p) => p.nets.has(netKey(n))));
      if (t.kind === 'path' && both) expect(t.volts).toBe(peak);
    }
  });

  test('volts turn round with the places, add up round a loop, and are one over a rail', () => {
    const nets = boardNets(board).filter((n) =>
      point.statements.some((s) => s.plus.has(netKey(n)) || s.minus.has(netKey(n))),
    );
    for (const a of nets) {
      for (const b of nets) {
        const there = point.across(a, b);
        const back = point.across(b, a);
        expect(back.nominal === null).toBe(there.nominal === null);
        expect(back.highest).toBe(there.highest);
        if (there.nominal === null) continue;
        expect(there.low! <= there.nominal && there.nominal <= there.high!).toBe(true);
        if (!there.alternating) expect(back.nominal! + there.nominal).toBeCloseTo(0, 9);
        if (rails(board).same(a, b)) expect(there.nominal).toBe(0);
      }
    }
  });
});

test('a divider is worked out by hand: 2.5 V x (1 + 21.5 / 2.49) over a 1 % pair and a 2 % reference', () => {
  const lines = [
    'R1 OUT FB 21.5k tol=1%',
    'R2 FB GND 2.49k tol=1%',
    'XU1 FB GND K SHUNTREF vref=2.5',
    'C1 OUT GND 470u vr=35',
  ];
  const plate: Nameplate = { outputs: [{ rail: 'OUT', return: 'GND', volts: 24, amps: 2, kind: 'dc' }] };
  const there = operatingPoint(boardOf(lines, plate)).across('OUT', 'GND');
  expect(there).toMatchObject({ source: 'regulated', nominal: expect.closeTo(24.0863, 3), highest: 35 });
  expect(there.low).toBeCloseTo(2.45 * (1 + (21.5 * 0.99) / (2.49 * 1.01)), 3);
  expect(there.high).toBeCloseTo(2.55 * (1 + (21.5 * 1.01) / (2.49 * 0.99)), 3);
  expect(plain(there.why)).toContain('24.1 V = 2.5 V x (1 + 21.5 kΩ / 2.49 kΩ), R1 over R2');
  // Without a reference only the print is known, and it is said so.
  const bare = [...lines.slice(0, 2), 'XU1 FB GND K SHUNTREF', lines[3]!];
  expect(operatingPoint(boardOf(bare, plate)).across('OUT', 'GND')).toMatchObject({ source: 'nameplate', nominal: 24 });
  expect(operatingPoint(boardOf(bare)).across('OUT', 'GND')).toMatchObject({
    source: 'rating',
    nominal: null,
    highest: 35,
  });
});

const MAINS = [
  'XJ1 L N CONN',
  'XF1 L LF FUSE ir=2',
  'XBD1 LF N P M BRIDGE vr=600',
  'C1 P M 100u vr=400',
  'L1 P Q 1m',
  'C2 Q M 10u vr=450',
  'XU1 Q OUT SW M CHIP',
  'R1 OUT M 1k',
];
const FED: Nameplate = {
  source: 'mains',
  inputRail: 'L',
  inputReturn: 'N',
  inputMin: 198,
  inputNominal: 230,
  inputMax: 264,
  hertz: 50,
};

test('mains, its peak behind the rectifier, and what a fuse or a choke parts', () => {
  const board = boardOf(MAINS, FED);
  const point = operatingPoint(board);
  expect(point.across('L', 'N')).toMatchObject({
    nominal: 230,
    low: 198,
    high: 264,
    alternating: true,
    source: 'nameplate',
  });
  expect(point.across('LF', 'N').highest).toBeGreaterThanOrEqual(264 * Math.SQRT2);
  expect(point.across('Q', 'M').nominal).toBeCloseTo(325.27, 1);
  expect(point.across('P', 'M').highest).toBe(400);
  expect(point.across('Q', 'M').highest).toBe(450);
  expect(point.busPeak).toBeCloseTo(373.35, 1);
  // The fuse drops nothing while it is whole; blown it bears the line.
  expect(point.across('L', 'LF')).toMatchObject({ nominal: 0, source: 'computed' });
  expect(point.across('L', 'LF').why).toContain('F1');
  expect(point.across('L', 'LF').highest).toBeGreaterThan(370);
  expect(point.across('P', 'Q')).toMatchObject({ nominal: 0, highest: 0 });
  expect(point.part('C2')!.nominal).toBeCloseTo(325.27, 1);
  expect(point.part('BD1')!.nominal).toBeCloseTo(325.27, 1);
  expect(point.net('Q')!.nominal).toBeCloseTo(325.27, 1);
  expect(point.net('OUT')!.nominal).toBe(null);
});

test('a condition fixes the source and a reading beats everything, but never the worst that may stand there', () => {
  const board = boardOf(MAINS, FED);
  const low = operatingPoint(board, { source: 100 });
  expect(low.across('P', 'M')).toMatchObject({
    nominal: expect.closeTo(141.42, 1),
    high: expect.closeTo(141.42, 1),
    highest: 400,
  });
  expect(low.busPeak).toBeCloseTo(141.42, 1);
  const read = operatingPoint(board, { measured: [{ red: 'Q', black: 'M', volts: 301 }] });
  expect(read.across('P', 'M')).toMatchObject({ source: 'measured', basis: 'measured', nominal: 301, highest: 400 });
  expect(read.across('M', 'Q').nominal).toBe(-301);
});

test('places on different rails by what is known in between', () => {
  const plate: Nameplate = {
    source: 'battery',
    inputRail: 'BAT',
    inputReturn: 'GND',
    inputNominal: 12,
    outputs: [
      { rail: 'V5', return: 'GND', volts: 5, amps: 1, kind: 'dc' },
      { rail: 'GND', return: 'NEG', volts: 9, amps: 1, kind: 'dc' },
    ],
  };
  const point = operatingPoint(
    boardOf(['C1 BAT GND 10u vr=25', 'C2 V5 GND 10u vr=10', 'C3 NEG GND 10u vr=16', 'R1 V5 NEG 1k'], plate),
  );
  expect(point.across('V5', 'NEG')).toMatchObject({
    nominal: 14,
    low: expect.closeTo(13.3, 6),
    high: expect.closeTo(14.7, 6),
  });
  expect(point.across('BAT', 'V5').nominal).toBe(7);
  // No highest input is printed: a battery on charge stands a fifth higher.
  expect(point.across('BAT', 'GND').high).toBeCloseTo(14.4, 6);
  expect(plain(point.part('R1')!.why)).toBe('5 V by the nameplate; and 9 V by the nameplate');
});

test.each([
  [{ source: 'mains', inputNominal: 230 }, 253 * Math.SQRT2, 'assumed'],
  [{ source: 'mains', inputNominal: 230, inputMax: 264 }, 264 * Math.SQRT2, 'seen'],
  [{ source: 'dc', inputNominal: 24, inputMax: 30 }, 30, 'seen'],
  [{ inputMax: 264 }, 264 * Math.SQRT2, 'seen'],
  [{ inputMin: 90 }, null, 'assumed'],
  [{}, null, 'assumed'],
] as const)('the highest of %j is %p', (plate, peak, basis) => {
  const supply = supplyOf(boardOf(['R1 A B 1'], plate));
  if (peak === null) expect(supply.peak).toBe(null);
  else expect(supply.peak).toBeCloseTo(peak, 6);
  expect(supply.highestBasis).toBe(basis);
});

test('what nothing is known of is taken at the worst', () => {
  const point = operatingPoint(boardOf(['C1 A B 10u', 'C2 C B 10n', 'R1 A C 1k']));
  expect(point.highest('A', 'B')).toMatchObject({ volts: 450, basis: 'assumed' });
  expect(point.highest('C', 'B').volts).toBe(400);
  expect(point.highest('A', 'C').volts).toBe(450);
});

test('regulators, references and controllers hold what their data sheets say', () => {
  const lines = [
    'XU1 IN GND O5 REG3',
    'XU2 K GND K SHUNTREF vref=2.5',
    'R1 O5 K 1k',
    'C1 O5 GND 1u vr=10',
    'C2 IN GND 10u vr=25',
  ];
  const point = operatingPoint(boardOf(lines, undefined, { U1: { vOut: 5 } }));
  expect(point.across('O5', 'GND')).toMatchObject({
    nominal: 5,
    low: 4.8,
    high: 5.2,
    source: 'regulated',
    basis: 'confirmed',
  });
  expect(point.across('K', 'GND').nominal).toBe(2.5);
  expect(point.part('R1')!.nominal).toBe(2.5);
  expect(point.net('O5')!.nominal).toBe(5);
  expect(operatingPoint(boardOf(lines)).across('O5', 'GND').nominal).toBe(null);
});

test.each(ALL)('%s: a divider resistor inferred from the print holds the printed volts', (_name, board) => {
  for (const d of findDividers(board)) {
    const printed = printedOutputs(board).find((o) => o.rail !== null && netKey(o.rail) === netKey(d.rail));
    const [top, ...others] = d.top;
    if (!printed || !top || others.length > 0 || d.implied) continue;
    for (const { value, why } of inferredValues(board, top.ref).filter((v) => v.why.includes('V /'))) {
      const parts = board.parts.map((p) => (p === top ? { ...p, value } : p)) as Board['parts'];
      const there = operatingPoint({ ...board, parts }).across(d.rail, d.return);
      expect(`${why}: ${Math.abs(there.nominal! / printed.volts - 1) < 0.02}`).toBe(`${why}: true`);
    }
  }
});
