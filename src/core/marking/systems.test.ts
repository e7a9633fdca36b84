import { E_SERIES, seededRandom } from '../quantity';
import { MARK_KINDS, decodeMarking } from '.';
import type { MarkKind, RankedReading } from '.';
import {
  BAND_COLOURS,
  E96_MULTIPLIERS,
  RECTIFIER_LETTERS,
  TANTALUM_VOLTS,
  TOLERANCE_LETTERS,
  TWO_CHARACTER_FIGURES,
  VOLTAGE_LETTERS,
} from './tables';

/** The systems behind the cases: whatever they can say is read, not only what the reference happens to hold. */
const first = (mark: string, kind: MarkKind): RankedReading | undefined => decodeMarking(mark, kind)[0];
const close = (a: number | null | undefined, b: number): boolean =>
  a !== null && a !== undefined && Math.abs(a - b) <= 1e-9 * Math.abs(b);

test('every three- and four-digit code is its figures times its power of ten', () => {
  for (let figures = 10; figures < 100; figures++)
    for (let exponent = 0; exponent < 8; exponent++)
      expect([
        figures,
        exponent,
        close(first(`${figures}${exponent}`, 'resistor')?.value, figures * 10 ** exponent),
      ]).toEqual([figures, exponent, true]);
  for (let figures = 100; figures < 1000; figures += 7)
    expect(first(`${figures}2`, 'resistor')).toMatchObject({ value: figures * 100, tolerance: 0.01 });
});

test('every E96 place with every multiplier letter', () => {
  for (let place = 1; place <= 96; place++) {
    const figures = Math.round(100 * 10 ** ((place - 1) / 96));
    for (const [letter, exponent] of Object.entries(E96_MULTIPLIERS)) {
      const mark = `${String(place).padStart(2, '0')}${letter}`;
      const found = decodeMarking(mark, 'resistor').some(
        (r) => r.system === 'EIA-96' && close(r.value, figures * 10 ** exponent),
      );
      expect([mark, found]).toEqual([mark, true]);
    }
  }
  for (const mark of ['00A', '97A', '99Z', '01G'])
    expect(decodeMarking(mark, 'resistor').some((r) => r.system === 'EIA-96')).toBe(false);
});

test('a letter in place of the point, wherever it stands, with every tolerance letter', () => {
  for (const [letter, factor] of [
    ['R', 1],
    ['K', 1e3],
    ['M', 1e6],
    ['G', 1e9],
  ] as const)
    for (const [grade, tolerance] of Object.entries(TOLERANCE_LETTERS)) {
      expect(first(`4${letter}7${grade}`, 'resistor')).toMatchObject({
        value: expect.closeTo(4.7 * factor, 3),
        tolerance,
      });
      expect(close(first(`${letter}47${grade}`, 'resistor')?.value, 0.47 * factor)).toBe(true);
      expect(close(first(`470${letter}${grade}`, 'resistor')?.value, 470 * factor)).toBe(true);
    }
});

/** The bands of a value in E24 or E96 figures, as a maker would paint them. */
function bands(figures: string, exponent: number, grade: string): string {
  const colour = (f: string): string => Object.entries(BAND_COLOURS).find(([, b]) => b.figure === Number(f))![0];
  const multiplier = Object.entries(BAND_COLOURS).find(([, b]) => b.exponent === exponent)![0];
  return [...[...figures].map(colour), multiplier, grade].join(' ');
}

test('every E24 value in four bands and every E96 value in five is read left to right first', () => {
  for (const step of E_SERIES.E24)
    for (let exponent = -2; exponent < 7; exponent++) {
      const mark = bands(String(Math.round(step * 10)), exponent, 'gold');
      expect([mark, close(first(mark, 'resistor')?.value, Math.round(step * 10) * 10 ** exponent)]).toEqual([
        mark,
        true,
      ]);
    }
  for (const step of E_SERIES.E96) {
    const mark = bands(String(Math.round(step * 100)), 1, 'brown');
    expect([mark, close(first(mark, 'resistor')?.value, Math.round(step * 100) * 10)]).toEqual([mark, true]);
  }
});

test('bands read from the wrong end are turned round; an unknown colour is no band', () => {
  const turned = (mark: string): string => mark.split(' ').reverse().join(' ');
  for (const mark of ['brown black orange gold', 'yellow violet red silver', 'green blue black gold'])
    expect(decodeMarking(turned(mark), 'resistor')[0]?.value).toBe(decodeMarking(mark, 'resistor')[0]!.value);
  for (const mark of ['brown pink red gold', 'gold gold gold gold', 'black', 'brown black'])
    expect(decodeMarking(mark, 'inductor')).toEqual([]);
});

test('every capacitor code, plain, with its tolerance and with its voltage', () => {
  for (const figures of [10, 15, 22, 33, 47, 68, 82])
    for (let exponent = 0; exponent < 7; exponent++) {
      const farads = figures * 10 ** (exponent - 12);
      expect(decodeMarking(`${figures}${exponent}`, 'capacitor').some((r) => close(r.value, farads))).toBe(true);
      expect(
        decodeMarking(`${figures}${exponent}K`, 'capacitor').some((r) => close(r.value, farads) && r.tolerance === 0.1),
      ).toBe(true);
      for (const [letter, factor] of Object.entries(VOLTAGE_LETTERS)) {
        const [best] = decodeMarking(`2${letter}${figures}${exponent}J`, 'capacitor');
        expect(close(best?.value, farads) && close(best?.voltage, factor * 100)).toBe(true);
      }
    }
});

test('tantalum letters before or after the code, from a tenth of a microfarad', () => {
  for (const [letter, volts] of Object.entries(TANTALUM_VOLTS)) {
    for (const mark of [`476${letter}`, `${letter}476`])
      expect(decodeMarking(mark, 'capacitor').some((r) => close(r.value, 47e-6) && r.voltage === volts)).toBe(true);
    expect(decodeMarking(`103${letter}`, 'capacitor').every((r) => r.voltage === null)).toBe(true);
  }
});

test('two characters on a chip: every letter', () => {
  for (const [letter, figures] of Object.entries(TWO_CHARACTER_FIGURES))
    expect(decodeMarking(`${letter}3`, 'capacitor').some((r) => close(r.value, figures * 1e-9))).toBe(true);
});

test.each([
  ['p', 1e-12],
  ['n', 1e-9],
  ['u', 1e-6],
  ['µ', 1e-6],
])('the prefix %s stands for the point of a capacitor', (prefix, factor) => {
  expect(close(first(`4${prefix}7`, 'capacitor')?.value, 4.7 * factor)).toBe(true);
  expect(close(first(`${prefix}47`, 'capacitor')?.value, 0.47 * factor)).toBe(true);
  expect(close(first(`470${prefix}`, 'capacitor')?.value, 470 * factor)).toBe(true);
});

test('safety text in any order says the same', () => {
  const tokens = ['X2', '104K', '275V~'];
  for (const order of [
    [0, 1, 2],
    [0, 2, 1],
    [1, 0, 2],
    [1, 2, 0],
    [2, 0, 1],
    [2, 1, 0],
  ]) {
    const [best] = decodeMarking(order.map((i) => tokens[i]!).join(' '));
    expect(best).toMatchObject({ kind: 'capacitor', safetyClass: 'X2', voltage: 275, tolerance: 0.1 });
    expect(close(best?.value, 1e-7)).toBe(true);
  }
});

test('rectifiers by letter, zeners by step, regulators by figure, over their whole range', () => {
  for (const [letter, volts] of Object.entries(RECTIFIER_LETTERS)) {
    for (const family of ['S', 'US', 'ES', 'RS'])
      expect(first(`${family}2${letter}`, 'diode')).toMatchObject({ voltage: volts, current: 2 });
    expect(first(`GBU10${letter}`, 'bridge')).toMatchObject({ voltage: volts, current: 10 });
  }
  let last = 0;
  for (let n = 4728; n <= 4764; n++) {
    const zener = first(`1N${n}A`, 'zener')!;
    expect(zener.value!).toBeGreaterThan(last);
    last = zener.value!;
  }
  expect(last).toBe(100);
  expect(decodeMarking('1N4765A', 'zener')).toEqual([]);
  for (const volts of ['05', '12', '15', '24']) {
    expect(first(`LM78${volts}CT`, 'regulator')?.value).toBe(Number(volts));
    expect(first(`79L${volts}`, 'regulator')).toMatchObject({ value: -Number(volts), current: 0.1 });
  }
});

test('switches: amperes and tenths of volts; an IGBT only where one is made', () => {
  for (const [amps, code] of [
    [5, 60],
    [12, 50],
    [20, 65],
    [40, 120],
    [100, 4],
  ] as const) {
    const mark = `${amps}N${String(code).padStart(2, '0')}`;
    const kinds = decodeMarking(mark).filter((r) => r.voltage === code * 10 && r.current === amps);
    expect(kinds.some((r) => r.kind === 'mosfet')).toBe(true);
    expect(kinds.some((r) => r.kind === 'igbt')).toBe(amps >= 15 && code >= 60);
  }
});

test('whatever is typed: never a throw, never more than eight, shares that add up to one, and the hint is kept', () => {
  const random = seededRandom(12);
  const letters = 'ABCDEFGHJKLMNPRSTUVWXYZ0123456789.,-/~ µnpuk';
  for (let k = 0; k < 4000; k++) {
    const mark = Array.from(
      { length: 1 + Math.floor(random() * 9) },
      () => letters[Math.floor(random() * letters.length)],
    ).join('');
    const kind = random() < 0.5 ? null : MARK_KINDS[Math.floor(random() * MARK_KINDS.length)]!;
    const readings = decodeMarking(mark, kind);
    expect(readings.length).toBeLessThanOrEqual(8);
    if (readings.length > 0) expect(readings.reduce((sum, r) => sum + r.likelihood, 0)).toBeCloseTo(1, 9);
    for (const r of readings) {
      if (kind !== null) expect(r.kind).toBe(kind);
      expect(r.why).not.toMatch(/undefined|NaN/u);
      for (const figure of [r.value, r.voltage, r.current, r.tolerance])
        expect([mark, figure === null || Number.isFinite(figure)]).toEqual([mark, true]);
    }
  }
  expect(decodeMarking('x'.repeat(500))).toEqual([]);
});
