import { artOf } from './art';
import type { DrawnSymbol, Side, Turn } from './drawing';
import { turned } from './form';
import type { Form } from './form';
import {
  bridgeForm,
  chokeForm,
  connectorForm,
  facingForm,
  icForm,
  icSides,
  regulatorForm,
  standingForm,
  transformerForm,
  twoPinForm,
} from './forms';
import { SYMBOLS } from './symbols';
import { readNetlist } from '../netlist';
import { recogniseStages } from '../stages';
import { testBoards } from '@/testing/boards';
import { symbolKind } from './kinds';
import { readDrawing } from './readDrawing';
import type { Part } from '../part';

/** A part of a kind, for its form alone. */
const part = (kind: string, pins: number, ref = 'A1'): Part =>
  ({
    kind,
    ref,
    nets: Array.from({ length: pins }, (_, i) => `N${i}`),
    keys: [],
    numbers: {},
    fitted: true,
    basis: 'seen',
  }) as unknown as Part;

/** The form that each kind of symbol is placed by. */
function formOf(kind: string): Form {
  switch (kind) {
    case 'npn':
    case 'pnp':
      return standingForm(part('bjt', 3), kind);
    case 'nmos':
    case 'pmos':
    case 'igbt':
      return standingForm(part('mosfet', 3), kind);
    case 'thyristor':
      return standingForm(part('triac', 3), kind);
    case 'triac':
    case 'shunt-reference':
      return standingForm(part(kind, 3), kind);
    case 'regulator':
      return regulatorForm(part(kind, 3));
    case 'opto':
    case 'relay':
      return facingForm(part(kind, 4), kind);
    case 'bridge':
      return bridgeForm(part(kind, 4));
    case 'connector':
      return connectorForm(part(kind, 3), false);
    case 'ic':
      return icForm(part(kind, 8), icSides(['VCC', 'GND', 'FB', 'CS', 'GATE', 'RT', 'UNKNOWN', 'NC']));
    case 'transformer':
      return transformerForm(
        [
          { part: part('inductor', 2, 'L1'), down: false },
          { part: part('inductor', 2, 'L2'), down: true },
        ],
        [{ part: part('inductor', 2, 'L3'), down: false }],
      );
    case 'common-mode-choke':
    case 'coupled-choke':
      return chokeForm([part('inductor', 2, 'L1'), part('inductor', 2, 'L2')], kind);
    default:
      return twoPinForm(part(kind, 2), kind);
  }
}

const placed = (form: Form, turn: Turn, flip: boolean): DrawnSymbol => {
  const { width, height, pins } = turned(form, turn, flip);
  return {
    refs: [...new Set(pins.map((p) => p.ref))],
    kind: form.kind,
    x: 200,
    y: 100,
    width: width * 10,
    height: height * 10,
    turn,
    flip,
    pins: pins.map((p) => ({
      ref: p.ref,
      pin: String(p.pin),
      label: String(p.pin),
      index: p.pin,
      net: `N${p.pin}`,
      x: 200 + p.x * 10,
      y: 100 + p.y * 10,
      side: p.side,
    })),
  };
};

/** Where the lines of a path begin, turn and end, on the sheet. */
function corners(d: string, matrix: string): readonly (readonly [number, number])[] {
  const [a, b, c, e, f, g] = matrix.match(/-?[\d.]+/gu)!.map(Number) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const list: [number, number][] = [];
  let [x, y, sx, sy] = [0, 0, 0, 0];
  for (const [, letter = '', rest = ''] of d.matchAll(/([MLHVZmlhvza])([^MLHVZmlhvza]*)/gu)) {
    const n = (rest.match(/-?(?:\d+\.?\d*|\.\d+)/gu) ?? []).map(Number);
    const step = { M: 2, L: 2, m: 2, l: 2, H: 1, V: 1, h: 1, v: 1, a: 7, Z: 0, z: 0 }[letter]!;
    if (step === 0) [x, y] = [sx, sy];
    for (let i = 0; step > 0 && i < n.length; i += step) {
      if (letter === 'M' || letter === 'L') [x, y] = [n[i]!, n[i + 1]!];
      if (letter === 'm' || letter === 'l') [x, y] = [x + n[i]!, y + n[i + 1]!];
      if (letter === 'H') x = n[i]!;
      if (letter === 'V') y = n[i]!;
      if (letter === 'h') x += n[i]!;
      if (letter === 'v') y += n[i]!;
      if (letter === 'a') [x, y] = [x + n[i + 5]!, y + n[i + 6]!];
      if (letter === 'M' || letter === 'm') [sx, sy] = [x, y];
      list.push([x, y]);
    }
  }
  return list.map(([px, py]) => [a * px + c * py + f, b * px + e * py + g] as const);
}

describe.each(Object.keys(SYMBOLS))('%s', (kind) => {
  const form = formOf(kind);

  test('has its pins on the grid, on the edge of its box, looking outwards', () => {
    expect(form.kind).toBe(kind);
    const out: Readonly<Record<Side, (x: number, y: number) => boolean>> = {
      left: (x) => x === 0,
      right: (x) => x === form.width,
      up: (_, y) => y === 0,
      down: (_, y) => y === form.height,
    };
    for (const p of form.pins) {
      expect([p.x, p.y].every(Number.isInteger)).toBe(true);
      expect([p.pin, out[p.side](p.x, p.y)]).toEqual([p.pin, true]);
    }
    expect(new Set(form.pins.map((p) => `${p.x} ${p.y}`)).size).toBe(form.pins.length);
  });

  test('a line comes to every pin, however it is turned, and none leaves its box', () => {
    for (const turn of [0, 1, 2, 3] as const)
      for (const flip of [false, true]) {
        const symbol = placed(form, turn, flip);
        const art = artOf(symbol);
        const points = art.strokes.flatMap((s) => corners(s.d, art.transform));
        if (kind !== 'ic')
          for (const p of symbol.pins)
            expect([turn, flip, p.index, points.some(([x, y]) => Math.hypot(x - p.x, y - p.y) < 0.01)]).toEqual([
              turn,
              flip,
              p.index,
              true,
            ]);
        for (const [x, y] of points)
          expect(x > 197 && y > 97 && x < 203 + symbol.width && y < 103 + symbol.height).toBe(true);
      }
  });

  test('what is written in it stays upright and inside', () => {
    const symbol = placed(form, 0, true);
    for (const m of artOf(symbol).marks) {
      expect(m.x >= 200 && m.x <= 200 + symbol.width && m.y >= 100 && m.y <= 100 + symbol.height).toBe(true);
    }
  });
});

test('a diode points where its current goes: its bar is at the cathode', () => {
  const art = artOf(placed(formOf('diode'), 0, false));
  const bar = corners(art.strokes[1]!.d, art.transform);
  expect(bar.every(([x]) => x > 220)).toBe(true);
  const other = artOf(placed(formOf('diode'), 2, false));
  expect(corners(other.strokes[1]!.d, other.transform).every(([x]) => x < 220)).toBe(true);
});

test('every part of every board has a symbol, and every symbol but a few is met on one', () => {
  const met = new Set<string>();
  for (const { board } of testBoards())
    for (const { ref, kind } of board.parts.map((p) => ({ ref: p.ref, kind: symbolKind(board, p) }))) {
      expect([ref, kind, SYMBOLS[kind] !== undefined]).toEqual([ref, kind, true]);
      met.add(kind);
    }
  for (const { board } of testBoards())
    for (const s of readDrawing(board, recogniseStages(board)).symbols) s.members.forEach((m) => met.add(m.kind));
  expect(Object.keys(SYMBOLS).filter((kind) => !met.has(kind))).toEqual([
    'fan',
    'crystal',
    'spark-gap',
    'voltage-source',
    'current-source',
  ]);
});

test('what has two pins of its own is drawn as what it is called, or as what is in it', () => {
  const kinds = (...lines: string[]): Record<string, string> => {
    const read = readNetlist(['t', ...lines].join('\n'));
    if (!read.ok) throw new Error('netlist');
    const { board } = read.value;
    return Object.fromEntries(board.parts.map((p) => [p.ref, symbolKind(board, p)]));
  };
  const inside = ['.subckt SLICE XIN XOUT', 'C1 XIN XOUT 7p', '.ends'];
  expect(
    kinds(
      'XY1 a b SLICE mark=XTAL8M',
      'XFN1 a b SLICE mark=FAN12V',
      'XG1 a b SLICE mark=GDT350',
      'XU1 a b SLICE',
      'XZ1 a b PAIR',
      'XT1 a b g TRIAC rg=50',
      'XT2 b a h TRIAC rg=50',
      'XT3 c b h TRIAC rg=50',
      ...inside,
      '.subckt PAIR 1 2',
      'D1 m 1 DB',
      'D2 m 2 DB',
      '.ends',
      '.model DB D(BV=32)',
    ),
  ).toEqual({
    Y1: 'crystal',
    FN1: 'fan',
    G1: 'spark-gap',
    U1: 'ic',
    Z1: 'diac',
    T1: 'thyristor',
    T2: 'thyristor',
    T3: 'triac',
  });
});
