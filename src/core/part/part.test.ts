import { readNetlist } from '../netlist';
import { coldOhms, isElectrolytic, isFuse, isOpenSwitch, isRatedAlternating, marking, parallelOhms } from '.';
import { partFigure, partText, safetyClass, valueTolerance, withFigure } from '.';
import type { Part } from '.';

/** The parts of a board's lines, in their order. */
function parts(...lines: readonly string[]): readonly Part[] {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board.parts;
}
const part = (line: string): Part => parts(line, 'R99 a b 1k')[0]!;

test.each([
  // By its resistance times capacitance: liquid loses what film and ceramic do not.
  ['C1 a b 100u esr=0.3', true],
  ['C1 a b 1000u esr=0.02', true],
  ['C1 a b 10u esr=0.005', false],
  ['C1 a b 0.47u esr=0.1', false],
  ['C1 a b 100n esr=50', false],
  // Without it by size, and by what is printed.
  ['C1 a b 10u', true],
  ['C1 a b 4.7u', true],
  ['C1 a b 1u', false],
  ['C1 a b 1u mark="1uF 50V"', true],
  ['C1 a b 2.2u mark=225', false],
  ['C1 a b 4.7u mark="4.7uF X2"', false],
  ['C1 a b 100n mark="0.1uF 63"', false],
  ['R1 a b 10u', false],
] as const)('%s is an electrolytic: %p', (line, wanted) => expect(isElectrolytic(part(line))).toBe(wanted));

test.each([
  ['C1 a b 2.2n mark="222M Y1 400~"', 'Y', true],
  ['C1 a b 2.2n class=Y2', 'Y', true],
  ['C1 a b 0.22u mark=".22uF X2 310~"', 'X', true],
  ['C1 a b 0.22u class=X1', 'X', true],
  ['C1 a b 1u mark="1uF 250VAC"', null, false],
  ['C1 a b 1u mark="1uF 250V AC"', null, true],
  ['C1 a b 100u mark="100uF 25V"', null, false],
  ['R1 a b 1k mark=X2', null, false],
] as const)('%s has the class %p, volts rms: %p', (line, safety, alternating) => {
  expect(safetyClass(part(line))).toBe(safety);
  expect(isRatedAlternating(part(line))).toBe(alternating);
});

test.each([
  ['XF1 a b FUSE', 0.05],
  ['XF1 a b FUSE r=0.3', 0.3],
  ['XS1 a b SWITCH', 0.02],
  ['XRT1 a b NTC r25=5', 5],
  ['XLA1 a b LAMP r=12', 12],
] as const)('%s shows %p ohm cold', (line, ohms) => {
  const one = part(line);
  expect(coldOhms(one, one.kind as Parameters<typeof coldOhms>[1])).toBe(ohms);
});

test('what is made to burn open: fuses, and resistors noted as fusible', () => {
  expect(isFuse(part('XF1 a b FUSE'))).toBe(true);
  expect(isFuse(part('R1 a b 10 fusible=yes'))).toBe(true);
  expect(isFuse(part('R1 a b 10'))).toBe(false);
  expect(isFuse(part('XRT1 a b NTC r25=5'))).toBe(false);
});

test('a switch is open only where that is noted', () => {
  expect(isOpenSwitch(part('XS1 a b SWITCH state=open'))).toBe(true);
  expect(isOpenSwitch(part('XS1 a b SWITCH state=OPEN'))).toBe(true);
  expect(isOpenSwitch(part('XS1 a b SWITCH state=closed'))).toBe(false);
  expect(isOpenSwitch(part('XS1 a b SWITCH'))).toBe(false);
});

test.each([
  // Two sigma: noted, by kind, of an electrolytic, and of what nobody could read.
  ['R1 a b 1k tol=1%', 0.01],
  ['R1 a b 1k tol=0.02', 0.02],
  ['R1 a b 1k', 0.05],
  ['C1 a b 100n', 0.2],
  ['C1 a b 100u', 0.275],
  ['L1 a b 100u', 0.2],
] as const)('%s spreads by %p', (line, wanted) => {
  expect(valueTolerance(part(line))).toBeCloseTo(wanted, 12);
  expect(valueTolerance({ ...part(line), basis: 'assumed' })).toBeCloseTo(Math.log(2), 12);
});

test('figures and texts: read by their names, replaced beside what is written, none made up', () => {
  const fuse = part('XF1 a b FUSE ir=2 vr=250 mark=T2AL250V');
  expect([partFigure(fuse, 'ratedAmps'), partFigure(fuse, 'ratedVolts')]).toEqual([2, 250]);
  expect(partFigure(fuse, 'ohms')).toBeUndefined();
  // No key of every object is one of a part.
  expect(partFigure({ ...fuse, numbers: {} }, 'ratedAmps')).toBeUndefined();
  expect([marking(fuse), partText(fuse, 'class')]).toEqual(['T2AL250V', undefined]);
  const other = withFigure(fuse, 'ratedAmps', 3.15);
  expect([partFigure(other, 'ratedAmps'), partFigure(other, 'ratedVolts'), marking(other)]).toEqual([
    3.15,
    250,
    'T2AL250V',
  ]);
  expect(partFigure(fuse, 'ratedAmps')).toBe(2);
});

test('resistors side by side carry as one; a capacitor beside them carries nothing', () => {
  expect(parallelOhms(parts('R1 a b 1k', 'R2 a b 1k'))).toBeCloseTo(500, 9);
  expect(parallelOhms(parts('R1 a b 1k', 'R2 a b 3k', 'C1 a b 1u'))).toBeCloseTo(750, 9);
  expect(parallelOhms(parts('C1 a b 1u'))).toBe(Infinity);
});
