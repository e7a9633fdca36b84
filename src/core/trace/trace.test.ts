import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { exampleBoard } from '../../../bench/exampleBoards';
import { touchesPerPin } from '../../../bench/touches';
import { findPart, netKey } from '../circuit';
import type { Board } from '../circuit';
import { readNetlist, writeNetlist } from '../netlist';
import { recogniseStages } from '../stages';
import { mayBeOneNet } from './referenceReadings';
import { ProbeSearch, deriveBoard, findTwins, kindOfRef, pinType, readShorthand, typicalAffinity } from '.';
import type { Fact, TracedBoard } from '.';

const EMPTY: Board = {
  title: 'traced',
  parts: [],
  couplings: [],
  models: new Map(),
  subcircuits: new Map(),
  layout: [],
};

function fact(line: string): Fact {
  const read = readShorthand(line);
  if (!read.ok || !read.value) throw new Error(`${line}: ${read.ok ? 'nothing' : read.problem.sentence}`);
  return read.value;
}

const trace = (...lines: string[]): TracedBoard =>
  deriveBoard(
    EMPTY,
    lines.map((l, i) => ({ id: `${i}`, fact: fact(l) })),
  );
const nets = (t: TracedBoard, ref: string): string => findPart(t.board, ref)!.nets.join(' ');
const wrongAt = (line: string): string => {
  const read = readShorthand(line);
  if (read.ok) throw new Error(`${line} was read`);
  const { at, length } = read.problem.details!;
  return line.slice(at, at + length);
};

describe('the shorthand', () => {
  test.each([
    [
      'R7 4k7 VCC FB',
      {
        kind: 'part',
        ref: 'R7',
        partKind: 'resistor',
        mark: '4k7',
        pins: [
          { pin: 1, net: 'VCC' },
          { pin: 2, net: 'FB' },
        ],
      },
    ],
    ['C1 180uF 450V HV+ HV-', { mark: '180uF 450V', partKind: 'capacitor' }],
    ['C4 "10uF 35V" A B', { mark: '10uF 35V' }],
    ['R7 472', { mark: '472', pins: null }],
    ['R7 ? A B', { mark: null }],
    [
      'U1 KV51 HV- FB ? CS VCC GATE',
      { partKind: 'ic', mark: 'KV51', pins: expect.arrayContaining([{ pin: 3, net: '?' }]) },
    ],
    [
      'M1 9N65 d:DRAIN g:G s:SRC',
      {
        partKind: 'mosfet',
        pins: [
          { pin: 'd', net: 'DRAIN' },
          { pin: 'g', net: 'G' },
          { pin: 's', net: 'SRC' },
        ],
      },
    ],
    ['T1.P 420uH HV+ DRAIN', { ref: 'T1P', partKind: 'inductor', core: 'T1' }],
    ['Q5 igbt GT15 A B C', { partKind: 'mosfet', kindSaid: true }],
    ['D9 KBP206 A B C D', { partKind: 'bridge' }],
    [
      'R7.2 -- U1.5',
      {
        kind: 'joined',
        spots: [
          { kind: 'pin', ref: 'R7', pin: '2' },
          { kind: 'pin', ref: 'U1', pin: '5' },
        ],
      },
    ],
    ['A -- B -- C', { kind: 'joined', spots: [{ net: 'A' }, { net: 'B' }, { net: 'C' }] }],
    ['R7.2 -/- GND', { kind: 'not-joined' }],
    ['R7.2 -~- GND', { kind: 'low-path' }],
    ['HV+ -4k7- VCC', { kind: 'reads', ohms: 4700 }],
    ['net N3 is VCC', { kind: 'rename', from: 'N3', to: 'VCC' }],
    ['split VCC R3.2 C5.1 as VCC2', { kind: 'split', net: 'VCC', to: 'VCC2' }],
    ['drop R7', { kind: 'drop' }],
    ['empty R7', { kind: 'empty' }],
    ['stage R7 clamp', { kind: 'settled', key: 'stage', value: 'clamp' }],
    ['topology M1 flyback', { kind: 'settled', ref: 'M1', key: 'topology', value: 'flyback' }],
    ['core LT2P drive', { kind: 'settled', key: 'core', value: 'drive' }],
    ['pin U1.3 fb', { kind: 'settled', ref: 'U1', key: 'role3', value: 'FB' }],
    ['U1 VCC on 16 V off 9 V', { kind: 'datasheet', values: { vccStart: 16, vccStop: 9 } }],
    ['U1 switch at 65 kHz', { kind: 'datasheet', values: { fSwitch: 65000 } }],
    ['U3 FB ref 2.5', { kind: 'datasheet', values: { fbRef: 2.5 } }],
  ])('%s', (line, expected) => {
    expect(fact(line)).toMatchObject(expected);
  });

  test.each(['', '   ', '# a remark'])('“%s” says nothing', (line) => {
    expect(readShorthand(line)).toEqual({ ok: true, value: null });
  });

  test.each([
    ['R7 4k7 VCC', ' '],
    ['R7.2 -~4k7- GND', '-~4k7-'],
    ['R7.2 -xx- GND', '-xx-'],
    ['R7.2 -15V- GND', '-15V-'],
    ['R7.2 -3mA- GND', '-3mA-'],
    ['A -- B -/- C', '-/-'],
    ['drop', ' '],
    ['stage R7 spaceship', 'spaceship'],
    ['topology M1 perpetual', 'perpetual'],
    ['core L1 holy', 'holy'],
    ['pin U1 FB', 'U1'],
    ['pin U1.3 XY', 'XY'],
    ['U1 VCC on 16 V of 9 V', 'of'],
    ['C4 "10uF A B', '"10uF A B'],
    ['net N3 was VCC', 'was'],
    ['split VCC R3 as X', 'R3'],
    ['+5V 4k7 A B', '+5V'],
    ['R7 4k7 A.1 B', 'A.1'],
  ])('%s is wrong at “%s”', (line, at) => {
    expect(wrongAt(line).trim()).toBe(at.trim());
  });

  test('whatever is typed gives a fact or a place where it goes wrong, never a crash', () => {
    const bits = [
      'R7',
      'U1',
      '--',
      '-/-',
      '"',
      'VCC',
      '4k7',
      '.',
      ':',
      'd:X',
      'split',
      'as',
      'net',
      'is',
      '-4k7-',
      'stage',
      'on',
      '16',
      'V',
      '=',
      '?',
      'NC',
    ];
    let seed = 1;
    const next = (n: number): number => (seed = (seed * 48271) % 2147483647) % n;
    for (let i = 0; i < 4000; i++) {
      const line = Array.from({ length: 1 + next(7) }, () => bits[next(bits.length)]).join(' ');
      const read = readShorthand(line);
      if (read.ok) continue;
      expect(read.problem.details!.at).toBeLessThanOrEqual(line.length);
      expect(read.problem.remedy.length).toBeGreaterThan(5);
    }
  });

  test('designators as boards print them', () => {
    const kinds = ['R12', 'RT1', 'RV1', 'CN2', 'ZD3', 'LED1', 'BD1', 'TR1', 'F1', 'Q3', 'IC2', 'RL1', 'LCM1A'].map(
      kindOfRef,
    );
    expect(kinds).toEqual([
      'resistor',
      'ntc',
      'mov',
      'connector',
      'diode',
      'diode',
      'bridge',
      'triac',
      'fuse',
      'bjt',
      'ic',
      'relay',
      'inductor',
    ]);
    expect(kindOfRef('Z9')).toBeNull();
  });
});

describe('from facts to a board', () => {
  test('markings are decoded, values are seen, what has none is assumed', () => {
    const { board } = trace(
      'R1 204 A B',
      'C1 103 A B',
      'R2 ? A C',
      'D1 1N5822 A B',
      'Q1 9N65 A B C',
      'F1 T3.15AL250V A B',
    );
    expect(findPart(board, 'R1')).toMatchObject({ value: 200e3, basis: 'seen' });
    expect(findPart(board, 'C1')).toMatchObject({ value: 10e-9 });
    expect(findPart(board, 'R2')).toMatchObject({ basis: 'assumed' });
    expect(findPart(board, 'Q1')).toMatchObject({ kind: 'mosfet', numbers: { vr: 650 } });
    expect(findPart(board, 'F1')).toMatchObject({ kind: 'fuse', numbers: { ir: 3.15, vr: 250 } });
    expect(findPart(board, 'D1')).toMatchObject({ model: 'DSCHOTTKYGEN', numbers: { vr: 40 } });
  });

  test("pins joined one by one become nets; a name is taken on, a net nobody named has its first pin's name", () => {
    const t = trace('R1 1k ? ?', 'R2 2k ? ?', 'C1 1u ? ?', 'R1.2 -- R2.1', 'R2.1 -- C1.1', 'R2.2 -- GND');
    expect(nets(t, 'R1')).toBe('R1.1 R1.2');
    expect(nets(t, 'R2')).toBe('R1.2 GND');
    expect(nets(t, 'C1')).toBe('R1.2 C1.2');
    const named = trace('R1 1k ? ?', 'R2 2k ? ?', 'R1.2 -- R2.1', 'net R1.2 is MID');
    expect(nets(named, 'R2')).toBe('MID R2.2');
  });

  test('rename, merge, split, drop, empty, again', () => {
    expect(nets(trace('R1 1k A B', 'net A is VCC'), 'R1')).toBe('VCC B');
    expect(nets(trace('R1 1k A B', 'R2 1k C D', 'A -- C'), 'R2')).toBe('A D');
    const split = trace('R1 1k A B', 'R2 1k A C', 'R3 1k A D', 'split A R2.1 as A2');
    expect([nets(split, 'R1'), nets(split, 'R2'), nets(split, 'R3')]).toEqual(['A B', 'A2 C', 'A D']);
    expect(findPart(trace('R1 1k A B', 'drop R1').board, 'R1')).toBeUndefined();
    expect(findPart(trace('R1 1k A B', 'empty R1').board, 'R1')).toMatchObject({ fitted: false, basis: 'seen' });
    expect(nets(trace('R1 1k A B', 'R1 1k A C'), 'R1')).toBe('A C');
    expect(nets(trace('U1 X1 A NC B', 'U2 X1 NC NC C'), 'U1')).toBe('A NC B');
  });

  test('windings of one core are coupled, with the square of their turns', () => {
    const { board } = trace('T1.P 40t HV D', 'T1.S 10t O S', 'T1.A 5t G A');
    expect(board.couplings).toHaveLength(3);
    const henries = ['T1P', 'T1S', 'T1A'].map((r) => (findPart(board, r) as { value: number }).value);
    expect(henries[0]! / henries[1]!).toBeCloseTo(16);
    expect(henries[1]! / henries[2]!).toBeCloseTo(4);
  });

  test('data-sheet facts and stages set by hand are carried by the board', () => {
    const { board } = trace('U1 KV51 A B C', 'U1 VCC on 16 V off 9 V', 'R1 1k A B', 'stage R1 startup');
    expect(board.facts).toEqual({ U1: { vccStart: 16, vccStop: 9 } });
    expect(recogniseStages(board).stages.find((s) => s.parts.includes('R1'))).toMatchObject({
      kind: 'startup',
      confidence: 1,
    });
  });

  test('a fact about what is not there is a misfit with its reason, the rest goes on', () => {
    const t = trace('R1 1k A B', 'R9.1 -- A', 'drop R8', 'R1.7 -- A', 'R2 2k A C');
    expect(t.misfits.map((m) => m.id)).toEqual(['1', '2', '3']);
    expect(nets(t, 'R2')).toBe('A C');
  });

  test('leaving any fact out gives the board that was never told of it', () => {
    const lines = [
      'R1 1k A B',
      'R2 2k C D',
      'A -- C',
      'net B is OUT',
      'split A R2.1 as Z',
      'C1 1u OUT Z',
      'stage R1 feedback',
    ];
    lines.forEach((_, i) => {
      const told = deriveBoard(
        EMPTY,
        lines.map((l, j) => ({ id: `${j}`, fact: fact(l) })).filter((e) => e.id !== `${i}`),
      );
      const never = trace(...lines.filter((_l, j) => j !== i));
      expect(told.board.parts).toEqual(never.board.parts);
    });
  });

  test('the board goes out as a netlist and comes back the same', () => {
    const { board } = trace(
      'R1 4k7 VCC FB',
      'ZD1 zener A B',
      'LED1 led A B',
      'T1.P 420uH HV+ D',
      'T1.S 30uH O S',
      'TR1 BT136 A B G',
      'Q1 npn C945 A B C',
      'U1 KV51 A B C',
      'F1 T2A A B',
    );
    const read = readNetlist(writeNetlist(board));
    if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
    const told = (b: Board): unknown =>
      b.parts.map((p) => [p.ref, p.kind, p.nets, p.basis, 'value' in p ? p.value : null]);
    expect(told(read.value.board)).toEqual(told(board));
    expect(read.value.board.couplings).toHaveLength(1);
  });
});

describe('the continuity ledger', () => {
  test('a beep with nothing to carry it is a joint', () => {
    const t = trace('R1 10k ? ?', 'R2 10k ? ?', 'R1.2 -~- R2.1');
    expect(nets(t, 'R2')).toBe('R1.2 R2.2');
    expect(t.questions).toEqual([]);
  });

  test('a beep that a fuse may carry is asked; once the fuse is placed across, nothing follows', () => {
    const open = trace('R1 10k ? ?', 'R2 10k ? ?', 'F1 T2A ? ?', 'R1.2 -~- R2.1');
    expect(open.questions).toMatchObject([{ fact: '3', parts: ['F1'] }]);
    expect(nets(open, 'R2')).toBe('R2.1 R2.2');
    const across = trace('R1 10k ? ?', 'R2 10k ? ?', 'F1 T2A ? ?', 'R1.2 -~- R2.1', 'F1.1 -- R1.2', 'F1.2 -- R2.1');
    expect(across.questions).toEqual([]);
    expect(nets(across, 'R2')).not.toBe(nets(across, 'R1'));
    const elsewhere = trace('R1 10k A B', 'R2 10k C D', 'F1 T2A A D', 'B -~- C');
    expect(nets(elsewhere, 'R2')).toBe('B D');
  });

  test('ohms of the shorted leads join, kilohms do not, and a shunt of milliohms may carry them', () => {
    expect(nets(trace('R1 10k A B', 'R2 10k C D', 'B -0.1- C'), 'R2')).toBe('B D');
    expect(nets(trace('R1 10k A B', 'R2 10k C D', 'B -4k7- C'), 'R2')).toBe('C D');
    expect(trace('R1 10k A B', 'R2 10k C D', 'R3 R010 B C', 'B -0.1- C').questions).toEqual([]);
  });

  test('facts that disagree are named with the chain between them', () => {
    const t = trace('R1 1k A B', 'R2 1k C D', 'R3 1k E F', 'A -- C', 'C -- E', 'A -/- E');
    expect(t.contradictions).toEqual([{ facts: ['5', '3', '4'], sentence: expect.stringContaining('not joined') }]);
    expect(trace('R1 1k A B', 'R2 1k C D', 'A -- C', 'A -470- C').contradictions).toMatchObject([
      { facts: ['3', '2'] },
    ]);
    expect(trace('R1 1k A B', 'A -/- B').contradictions).toEqual([]);
  });

  test('touches are counted', () => {
    expect(trace('R1 1k A B', 'A -/- B', 'A -- C', 'A -~- C', 'A -5- C').touches).toBe(4);
  });
});

describe('next to probe', () => {
  const pinsOf = (board: Board) =>
    board.parts.flatMap((part, index) =>
      part.nets.map((net, i) => ({
        net,
        part: index,
        type: pinType(board, part, i),
        twoPin: part.nets.length === 2,
        ohms: part.kind === 'resistor' ? part.value : null,
      })),
    );

  test('what was found apart stays apart when groups grow, and the two ends of a part are never proposed', () => {
    const pins = pinsOf(exampleBoard('fence-energiser')).slice(0, 40);
    const search = new ProbeSearch(pins, typicalAffinity());
    const other = new ProbeSearch(pins, typicalAffinity());
    other.take(0, 5, 'apart');
    other.take(5, 9, 'joined');
    other.take(0, 12, 'joined');
    expect(other.isApart(12, 9)).toBe(true);
    const asked = new Set<string>();
    for (let p = search.next(); p; p = search.next()) {
      const key = [search.group(p.a), search.group(p.b)].sort().join(' ');
      expect(asked.has(key)).toBe(false);
      asked.add(key);
      expect(pins[p.a]!.part === pins[p.b]!.part && pins[p.a]!.twoPin).toBe(false);
      search.take(p.a, p.b, netKey(pins[p.a]!.net) === netKey(pins[p.b]!.net) ? 'joined' : 'apart');
    }
    // With no limit everything is settled: groups are the true nets.
    const groups = new Map(pins.map((p, i) => [netKey(p.net), search.group(i)]));
    pins.forEach((p, i) => expect(search.group(i)).toBe(groups.get(netKey(p.net))));
  });

  test('the first proposals hit: of the first forty at least ten join, where one in twenty would by chance', () => {
    const board = exampleBoard('lamp-supply-24v');
    const pins = pinsOf(board);
    const search = new ProbeSearch(pins, typicalAffinity());
    let hits = 0;
    for (let i = 0; i < 40; i++) {
      const p = search.next()!;
      const same = netKey(pins[p.a]!.net) === netKey(pins[p.b]!.net);
      if (same) hits++;
      search.take(p.a, p.b, same ? 'joined' : 'apart');
    }
    expect(hits).toBeGreaterThanOrEqual(10);
  });

  test('resistors are found by their ohms, unless too many have them', () => {
    const { board } = trace('R1 22R ? ?', 'R2 47R ? ?', 'R3 47R ? ?', 'U1 KV51 A B', 'M1 9N65 C D E');
    const pins = pinsOf(board);
    const search = new ProbeSearch(pins, typicalAffinity());
    expect(search.resistorsBetween(6, 9, 22.1)).toEqual([[0, 1]]);
    expect(search.resistorsBetween(6, 9, 47)).toEqual([
      [2, 3],
      [4, 5],
    ]);
    expect(search.resistorsBetween(6, 9, 47, 1)).toEqual([]);
    expect(search.resistorsBetween(6, 9, 33)).toEqual([]);
    search.take(0, 6, 'apart');
    expect(search.resistorsBetween(6, 9, 22)).toEqual([[1, 0]]);
  });

  test.each(['lamp-supply-24v', 'shelf-lamp-led', 'kiln-relay-25a'])(
    'tracing %s: under half the touches of one representative a net, and no net is left in two pieces',
    (name) => {
      const count = touchesPerPin(exampleBoard(name), [1]);
      expect(count.ours / count.representatives).toBeLessThanOrEqual(0.5);
      expect(count.ours).toBeLessThan(count.guesswork / 2 + 1);
      expect(count.missed).toBe(0);
    },
  );

  test('what reads differently from one reference is two nets, whatever grows of it; what reads alike may be one', () => {
    const { board } = trace('R1 22R ? ?', 'R2 47R ? ?', 'R3 47R ? ?', 'U1 KV51 ? ?', 'M1 9N65 ? ? ?');
    const search = new ProbeSearch(pinsOf(board), typicalAffinity());
    const reference = { pin: 6, red: true };
    [
      [0, 0.55],
      [2, 0.556],
      [4, 0.71],
      [8, Infinity],
      [9, Infinity],
      [10, NaN],
    ].forEach(([pin, volts]) => search.read(reference, pin!, volts!));
    expect(search.isApart(0, 2)).toBe(false);
    expect(search.isApart(0, 4)).toBe(true);
    expect(search.isApart(0, 8)).toBe(true);
    expect(search.isApart(8, 9)).toBe(false);
    expect(search.isApart(6, 8)).toBe(true);
    expect(search.isApart(10, 4)).toBe(false);
    // What one of two had read holds for both once they are joined.
    search.take(5, 2, 'joined');
    expect(search.isApart(5, 4)).toBe(true);
    expect(search.isApart(5, 0)).toBe(false);
    // The other way round the same pins may read anything.
    search.read({ pin: 6, red: false }, 5, 0.62);
    search.read({ pin: 6, red: false }, 0, 1.1);
    expect(search.isApart(5, 0)).toBe(true);
  });

  test.each([
    [0.55, 0.556, true],
    [0.55, 0.58, false],
    [Infinity, Infinity, true],
    [2.45, Infinity, true],
    [1.9, Infinity, false],
    [NaN, 0.4, true],
  ])('%s V and %s V may be read twice on one net: %s', (a, b, may) => {
    expect(mayBeOneNet(a, b)).toBe(may);
    expect(mayBeOneNet(b, a)).toBe(may);
  });

  test('readings come to an end where two references turn out to be one net', () => {
    const board = exampleBoard('kiln-relay-25a');
    const pins = pinsOf(board);
    const search = new ProbeSearch(pins, typicalAffinity());
    const first = search.nextReading()!;
    const mate = pins.findIndex((p, i) => i !== first.reference.pin && p.part !== pins[first.reference.pin]!.part);
    search.read({ pin: mate, red: true }, first.pin, 0.4);
    search.take(mate, first.reference.pin, 'joined');
    let readings = 0;
    for (let next = search.nextReading(); next; next = search.nextReading()) {
      search.read(next.reference, next.pin, Infinity);
      if (++readings > 10 * pins.length) throw new Error('no end');
    }
    expect(readings).toBeGreaterThan(pins.length / 2);
  });
});

test('a diode test: overload and volts part, next to nothing is a beep, and disagreement is named', () => {
  expect(fact('HV- -0.55V- U1.3')).toMatchObject({ kind: 'drops', volts: 0.55 });
  expect(fact('HV- -550mV- U1.3')).toMatchObject({ kind: 'drops', volts: 0.55 });
  expect(fact('HV- -ol- U1.3')).toMatchObject({ kind: 'drops', volts: null });
  const parts = ['R1 22k A ?', 'R2 47k B ?'];
  expect(nets(trace(...parts, 'R1.2 -0.001V- R2.2'), 'R2')).toBe('B R1.2');
  expect(trace(...parts, 'F2 T2A ? ?', 'R1.2 -0.001V- R2.2').questions).toHaveLength(1);
  expect(nets(trace(...parts, 'R1.2 -0.62V- R2.2'), 'R2')).toBe('B R2.2');
  const { contradictions } = trace(...parts, 'R1.2 -- R2.2', 'R1.2 -OL- R2.2');
  expect(contradictions).toHaveLength(1);
  expect(contradictions[0]!.sentence).toMatch(/read OL by diode test, yet/u);
  expect(trace(...parts, 'R1.2 -- R2.2', 'R1.2 -0.4V- R2.2').contradictions[0]!.sentence).toMatch(/read 0.4 V/u);
});

test('the page of the shorthand shows lines that can be read', () => {
  const page = readFileSync(join(process.env['LANTERN_ROOT'] ?? process.cwd(), 'docs/SHORTHAND.md'), 'utf8');
  const lines = [...page.matchAll(/```\n([\s\S]*?)```/gu)].flatMap((m) => m[1]!.trim().split('\n'));
  expect(lines.length).toBeGreaterThan(25);
  for (const line of lines) expect([line, readShorthand(line).ok]).toEqual([line, true]);
});

describe('twins', () => {
  const setsOf = (board: Board): string[] => findTwins(board).map((t) => [...t.refs].sort().join(' '));

  test('legs, banks and halves are found on the example boards', () => {
    const galley = setsOf(exampleBoard('galley-inverter-600'));
    expect(galley).toEqual(expect.arrayContaining(['M5 M7', 'M6 M8', 'R18 R20', 'U2 U3']));
    expect(galley.some((s) => s.includes('M1') && s.includes('M2'))).toBe(true);
    expect(setsOf(exampleBoard('ups-frontend-pfc'))).toEqual(expect.arrayContaining(['M1 M2', 'CB1 CB2']));
    expect(setsOf(exampleBoard('pump-aux-buck'))).toEqual(expect.arrayContaining(['Q1 Q2 Q3']));
    expect(setsOf(exampleBoard('bench-supply-13v8'))).toEqual(expect.arrayContaining(['D1 D2']));
  });

  test('parts of equal value in different places are no twins', () => {
    const { board } = trace('R1 1k A B', 'R2 1k B C', 'C1 1u B C', 'D1 1N4007 A C');
    expect(setsOf(board)).toEqual([]);
  });

  test('half a board will do: two gate resistors to the same pins', () => {
    const { board } = trace('M1 9N65 P G1 S', 'M2 9N65 P G2 S', 'R1 10R DRV G1', 'R2 10R DRV G2');
    expect(setsOf(board)).toEqual(expect.arrayContaining(['M1 M2', 'R1 R2']));
  });
});
