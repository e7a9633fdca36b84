import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DOCK_MODULE } from '../../demo/boards/dockModule';
import { ARCHETYPES, archetypeBoard } from '../archetype';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { SUMS } from '../sums';
import { boardFigures, figureOf, figuresFor, suggestFigures, sumsForPart } from '.';

function boardOf(text: string, more: Partial<Board> = {}): Board {
  const read = readNetlist(text);
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join(' '));
  return { ...read.value.board, ...more };
}
const fixtures = join(__dirname, '../../../fixtures/boards');
const lamp = boardOf(readFileSync(join(fixtures, 'lamp-supply-24v.cir'), 'utf8'), {
  nameplate: (JSON.parse(readFileSync(join(fixtures, 'lamp-supply-24v.labels.json'), 'utf8')) as Board).nameplate!,
});
const dock = boardOf(DOCK_MODULE, {
  nameplate: { source: 'dc', inputMax: 15, outputs: [{ rail: 'OUT+', return: 'GND', volts: 5, amps: 2, kind: 'dc' }] },
  facts: { U1: { fbRef: 1.22, strange: 3 } },
});

test('a part’s value and ratings, a fact, the nameplate and what a store may hold', () => {
  expect(figureOf(dock, 'C4.value')).toMatchObject({ unit: 'F', value: 470e-6, ref: 'C4', basis: 'seen' });
  expect(figureOf(dock, 'c4.VR')).toMatchObject({ unit: 'V', value: 6.3 });
  expect(figureOf(dock, 'R5.pr')).toMatchObject({ unit: 'W', value: 0.1 });
  expect(figureOf(dock, 'U1.fbRef')).toMatchObject({ unit: 'V', value: 1.22, basis: 'confirmed' });
  expect(figureOf(dock, 'U1.strange')).toBeUndefined();
  expect(figureOf(dock, 'OUT+.volts')).toMatchObject({ value: 5, net: 'OUT+' });
  expect(figureOf(dock, 'OUT+.watts')!.value).toBeCloseTo(10, 9);
  expect(figureOf(dock, 'input.max')!.value).toBe(15);
  // 264 V rms make 373 V on the bulk capacitor; its 450 V are the highest credible.
  const bulk = boardFigures(lamp).find((f) => f.key.endsWith('.store') && f.unit === 'V')!;
  expect(bulk.value).toBe(450);
});

test('a diode’s drop is its model’s at 1 mA', () => {
  // IS 0.9 µA, N 1.05: 1.05 · 25.86 mV · ln(1 mA / 0.9 µA).
  expect(figureOf(dock, 'D2.drop')!.value).toBeCloseTo(1.05 * 0.0258649 * Math.log(1e-3 / 0.9e-6), 4);
});

test('turns follow from the inductances of coupled windings', () => {
  const turns = boardFigures(lamp).filter((f) => f.key.endsWith('.turns'));
  expect(turns.length).toBeGreaterThan(0);
  for (const f of turns) {
    const [a, b] = f.key.replace('.turns', '').split('/');
    const value = (ref: string): number =>
      (lamp.parts.find((p) => p.ref === ref) as unknown as { value: number }).value;
    expect(f.value ** 2).toBeCloseTo(value(a!) / value(b!), 6);
  }
});

test('the large capacitors and the stores come first among their unit', () => {
  // 220 µF at 35 V hold more than 470 µF at 6.3 V.
  expect(
    figuresFor(dock, 'F')
      .map((f) => f.key)
      .filter((k) => /^C[14]\.value/u.test(k)),
  ).toEqual(['C1.value', 'C4.value']);
  expect(figuresFor(lamp, 'F')[0]!.key).toBe('C1.value');
  expect(figuresFor(lamp, 'V')[0]!.key).toMatch(/\.store$/u);
});

test('what is picked narrows it', () => {
  expect(figuresFor(dock, 'ohm', { ref: 'r3' }).map((f) => f.key)).toEqual(['R3.value']);
  expect(figuresFor(dock, 'V', { net: 'out+' }).map((f) => f.key)).toContain('OUT+.volts');
  expect(figuresFor(dock, 'H', { ref: 'R3' })).toEqual([]);
});

test('parts that are not fitted have no figures; keys are unique and values finite on every typical circuit', () => {
  const gone = boardOf('t\nR1 a b 1k fit=no\nR2 a b 2k\n');
  expect(boardFigures(gone).map((f) => f.key)).toEqual(['R2.value']);
  for (const { name } of ARCHETYPES) {
    const figures = boardFigures(archetypeBoard(name)!);
    expect(new Set(figures.map((f) => f.key.toLowerCase())).size).toBe(figures.length);
    // Only the reference of an inverting controller lies below its ground.
    const below = figures.filter((f) => !Number.isFinite(f.value) || f.value <= 0);
    expect(below.map((f) => f.key)).toEqual(name === 'buck-boost' ? ['U1.fbRef'] : []);
  }
});

describe('what a sum takes from the board in one touch', () => {
  const value = (board: Board, sum: string): Readonly<Record<string, number>> =>
    Object.fromEntries(Object.entries(suggestFigures(board, sum)).map(([k, key]) => [k, figureOf(board, key)!.value]));

  test('the bulk capacitor and what may stand on it', () => {
    expect(suggestFigures(lamp, 'discharge-time')).toEqual({ c: 'C1.value', vStart: 'C1.store' });
    expect(value(lamp, 'bulk-ripple')).toMatchObject({ vac: 230, f: 50 });
  });
  test('the divider with its reference; not a leg of several parts', () => {
    expect(value(dock, 'divider-retarget')).toEqual({ vRef: 1.22, rTop: 46.4e3, rBottom: 15e3 });
    const twice = { ...dock, parts: [...dock.parts, { ...dock.parts.find((p) => p.ref === 'R4')!, ref: 'R9' }] };
    expect(suggestFigures(twice, 'divider-retarget')['rBottom']).toBeUndefined();
  });
  test('the indicator with its diode, the flyback with its turns', () => {
    expect(value(dock, 'resistor-heat')).toMatchObject({ vIn: 5, r: 330, pRated: 0.1 });
    expect(value(lamp, 'flyback-stress')['n']).toBeCloseTo(4, 6);
    expect(value(lamp, 'flyback-stress')).toMatchObject({ vOut: 24 });
  });
  test('every suggestion is an input of its sum, of its unit, on every typical circuit', () => {
    for (const { name } of ARCHETYPES) {
      const board = archetypeBoard(name)!;
      for (const sum of SUMS)
        for (const [key, figure] of Object.entries(suggestFigures(board, sum.name)))
          expect([name, sum.name, key, figureOf(board, figure)?.unit]).toEqual([
            name,
            sum.name,
            key,
            sum.inputs.find((i) => i.key === key)?.unit,
          ]);
    }
  });
});

describe('the sums that a part asks for', () => {
  const part = (ref: string) => dock.parts.find((p) => p.ref === ref)!;
  test('a capacitor its discharge, from what may stand on it', () => {
    const [discharge] = sumsForPart(
      lamp,
      lamp.parts.find((p) => p.ref === 'C1')!,
    );
    expect(discharge).toEqual({ sum: 'discharge-time', figures: { c: 'C1.value', vStart: 'C1.store' } });
    // Of another capacitor's volts it takes nothing.
    expect(sumsForPart(dock, part('C6'))[0]!.figures).toEqual({ c: 'C6.value' });
  });
  test('a resistor its heat, with its own rating', () => {
    expect(sumsForPart(dock, part('R5'))[0]).toMatchObject({
      sum: 'resistor-heat',
      figures: { r: 'R5.value', pRated: 'R5.pr' },
    });
  });
  test('other parts, and what is not fitted, none', () => {
    expect(sumsForPart(dock, part('D2'))).toEqual([]);
    expect(sumsForPart(dock, { ...part('C4'), fitted: false })).toEqual([]);
  });
  test('each is a sum, its inputs are of the figure’s unit', () => {
    for (const p of [...dock.parts, ...lamp.parts])
      for (const { sum, figures } of sumsForPart(dock.parts.includes(p) ? dock : lamp, p)) {
        const known = SUMS.find((s) => s.name === sum)!;
        for (const [input, key] of Object.entries(figures))
          expect(figureOf(dock.parts.includes(p) ? dock : lamp, key)!.unit).toBe(
            known.inputs.find((i) => i.key === input)!.unit,
          );
      }
  });
});
