import fc from 'fast-check';
import {
  benchText,
  engineeringParts,
  formatQuantity,
  formatVolts,
  gaussian,
  nearestPreferred,
  parseQuantity,
  seededRandom,
  setDecimalMark,
  splitFigures,
  weakestBasis,
} from '.';

const THIN = '\u2009';

test.each([
  ['4k7', 4700, null],
  ['2M2', 2.2e6, null],
  ['3R3', 3.3, null],
  ['0.47u', 0.47e-6, null],
  ['4.7 kΩ', 4700, 'ohm'],
  [`470${THIN}µF`, 470e-6, 'F'],
  ['470 \u03bcF', 470e-6, 'F'],
  ['5 mohm', 5e-3, 'ohm'],
  ['5 ohm', 5, 'ohm'],
  ['1M', 1e6, null],
  ['1m', 1e-3, null],
  ['5V1', 5.1, 'V'],
  ['-0.02', -0.02, null],
  ['1,5k', 1500, null],
  ['.1u', 1e-7, null],
  ['2e3', 2000, null],
])('reads %s', (text, value, unit) => {
  const read = parseQuantity(text);
  expect(read.ok && [read.value.value, read.value.unit]).toEqual([value, unit]);
});

test.each(['', 'abc', '4k7k', '1.2.3', '5 parsec', '--1', 'k'])('refuses %p', (text) => {
  const read = parseQuantity(text);
  expect(read.ok).toBe(false);
  if (!read.ok) expect(read.problem.code).toBe('unreadable-quantity');
});

test.each([
  [4700, 'ohm', `4.7${THIN}kΩ`],
  [325, 'V', `325${THIN}V`],
  [470e-6, 'F', `470${THIN}µF`],
  [999.9, 'ohm', `1${THIN}kΩ`],
  [0, 'V', `0${THIN}V`],
  [-0.0123, 'A', `-12.3${THIN}mA`],
  [2.2e6, 'ohm', `2.2${THIN}MΩ`],
] as const)('prints %p %s', (value, unit, text) => expect(formatQuantity(value, unit)).toBe(text));

test('a meter shows three decimals below ten volts', () => {
  expect(formatVolts(0.5124)).toBe(`0.512${THIN}V`);
  expect(formatVolts(12.34)).toBe(`12.3${THIN}V`);
});

test('printing and reading agree over fifteen decades', () => {
  const random = seededRandom(1);
  for (let k = 0; k < 500; k++) {
    const value = Number((10 ** (random() * 15 - 12)).toPrecision(3));
    const { figure, unit } = engineeringParts(value, 'ohm');
    const back = parseQuantity(`${figure} ${unit}`);
    expect(back.ok && Math.abs(back.value.value / value - 1)).toBeLessThan(1e-9);
  }
});

test.each([
  [4600, 'E12', 4700],
  [9.8, 'E12', 10],
  [1.49e-6, 'E24', 1.5e-6],
  [10470, 'E96', 10500],
] as const)('nearest to %p in %s is %p', (wanted, series, value) =>
  expect(nearestPreferred(wanted, series)).toBeCloseTo(value, 12),
);

test('a figure is only as well known as its least known part', () => {
  expect(weakestBasis(['confirmed', 'assumed', 'measured'])).toBe('assumed');
  expect(weakestBasis(['measured', 'confirmed'])).toBe('measured');
});

test('the seeded normal numbers have mean 0 and deviation 1', () => {
  const random = seededRandom(7);
  const drawn = Array.from({ length: 20_000 }, () => gaussian(random));
  const mean = drawn.reduce((a, b) => a + b, 0) / drawn.length;
  const deviation = Math.sqrt(drawn.reduce((a, b) => a + (b - mean) ** 2, 0) / drawn.length);
  // Standard error of the mean of 20,000 is 0.007.
  expect(Math.abs(mean)).toBeLessThan(0.03);
  expect(Math.abs(deviation - 1)).toBeLessThan(0.03);
});

test.each([
  [470e-6, '470u'],
  [2200, '2.2k'],
  [10e3, '10k'],
  [0, '0'],
  [0.2, '200m'],
  [1.22, '1.22'],
  [3.3e6, '3.3M'],
])('%p is typed as %p, and read back as it was', (value, text) => {
  expect(benchText(value)).toBe(text);
  const read = parseQuantity(text);
  expect(read.ok && read.value.value).toBeCloseTo(value, 12);
});

describe('decimals with a comma or a point', () => {
  afterEach(() => setDecimalMark('point'));

  test.each([
    ['4,7k', '4.7k'],
    ['0,512', '0.512'],
    ['4,7 kΩ', '4k7'],
    ['1,5e3', '1.5e3'],
  ])('%p and %p are one value', (comma, point) => {
    const [a, b] = [parseQuantity(comma), parseQuantity(point)];
    expect(a.ok && b.ok && a.value.value === b.value.value).toBe(true);
  });

  test('any figure is printed with the mark that is set, and read back as it was', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-12, max: 1e9, noNaN: true }),
        fc.constantFrom('point' as const, 'comma' as const),
        (value, mark) => {
          setDecimalMark(mark);
          const shown = formatQuantity(value, 'ohm', 5);
          expect(shown).not.toContain(mark === 'comma' ? '.' : ',');
          const read = parseQuantity(shown);
          expect(read.ok && read.value.unit).toBe('ohm');
          expect((read.ok ? read.value.value : NaN) / value).toBeCloseTo(1, 3);
          const typed = parseQuantity(benchText(value));
          expect((typed.ok ? typed.value.value : NaN) / value).toBeCloseTo(1, 3);
        },
      ),
    );
    setDecimalMark('comma');
    expect([formatVolts(0.5124), formatQuantity(4700, 'ohm'), formatQuantity(325, 'V')]).toEqual([
      '0,512\u2009V',
      '4,7\u2009kΩ',
      '325\u2009V',
    ]);
  });

  test.each([
    ['4k7, 3.3, 10', ['4k7', '3.3', '10']],
    ['4,7 3,3', ['4,7', '3,3']],
    ['4,7, 3,3', ['4,7', '3,3']],
    ['1,2,3', ['1', '2', '3']],
    ['4.7,3.3', ['4.7', '3.3']],
    ['470u;471u;  469u', ['470u', '471u', '469u']],
    ['', []],
  ])('several figures in %p are %p', (text, figures) => expect(splitFigures(text)).toEqual(figures));
});
