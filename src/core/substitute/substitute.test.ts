import { findPart } from '../circuit';
import { readNetlist } from '../netlist';
import { judgeSubstitution, safetyKind } from '.';
import type { FittedPart } from '.';

const read = readNetlist(
  [
    't',
    'XF1 a b FUSE ir=3.15 vr=250 mark="T3.15AL250V"',
    'CX1 a b 0.22u vr=310 mark=".22uF X2 310~"',
    'CY1 a b 2.2n vr=400 mark="222M Y1 400~"',
    'XRV1 a b MOV vr=300',
    'RF1 a b 4.7 pr=2 fusible=yes',
    'XRT1 a b NTC r25=5',
    'XU2 a b c d OPTO',
    'LT1P a b 1m pkg=T1',
    'C8 a b 1000u tol=20% vr=35 esr=0.021 ir=2',
    'R1 a b 4.7k tol=5% pr=0.25 vr=200',
    'D4 a b DD vr=200 ir=10',
    '.model DD D()',
  ].join('\n'),
);
if (!read.ok) throw new Error('fixture');
const { board } = read.value;
const judge = (ref: string, fitted: Partial<FittedPart>) =>
  judgeSubstitution(findPart(board, ref)!, { source: 'new', samePart: false, ...fitted }).verdict;

test.each([
  ['F1', 'fuse'],
  ['CX1', 'X capacitor'],
  ['CY1', 'Y capacitor'],
  ['RV1', 'varistor'],
  ['RF1', 'fusible resistor'],
  ['RT1', 'inrush NTC'],
  ['U2', 'optocoupler'],
  ['LT1P', 'transformer'],
  ['R1', null],
])('%s is a %s', (ref, kind) => expect(safetyKind(findPart(board, ref)!)).toBe(kind));

test.each(['F1', 'CX1', 'CY1', 'RV1', 'RF1', 'RT1', 'U2', 'LT1P'])(
  '%s is never fitted salvaged, even the same part',
  (ref) => {
    expect(judge(ref, { source: 'salvaged', samePart: true })).toBe('refused');
    expect(judge(ref, { source: 'new', samePart: true })).toBe('fits');
  },
);

const fuse = { ratedAmps: 3.15, ratedVolts: 250, fuseSpeed: 'T', fuseBreaking: 'L' } as const;
test.each([
  ['the same fuse', fuse, 'fits'],
  ['a larger one', { ...fuse, ratedAmps: 5 }, 'refused'],
  ['a smaller one', { ...fuse, ratedAmps: 2 }, 'refused'],
  ['a fast one', { ...fuse, fuseSpeed: 'F' }, 'refused'],
  ['another breaking capacity', { ...fuse, fuseBreaking: 'H' }, 'refused'],
  ['for a lower voltage', { ...fuse, ratedVolts: 125 }, 'refused'],
  ['nothing stated', {}, 'refused'],
] as const)('a fuse may be: %s', (_name, fitted, verdict) => expect(judge('F1', fitted)).toBe(verdict));

const film = { value: 0.22e-6, ratedVolts: 310 };
test.each([
  ['CX1', { ...film, safetyClass: 'X2' }, 'fits'],
  ['CX1', { ...film, safetyClass: 'Y2' }, 'fits'],
  ['CX1', film, 'refused'],
  ['CX1', { ...film, ratedVolts: 250, safetyClass: 'X2' }, 'refused'],
  ['CY1', { value: 2.2e-9, ratedVolts: 400, safetyClass: 'Y1' }, 'fits'],
  ['CY1', { value: 2.2e-9, ratedVolts: 400, safetyClass: 'X1' }, 'refused'],
  ['RV1', { ratedVolts: 300 }, 'refused'],
  ['RF1', { value: 4.7, ratedWatts: 2, safetyClass: 'fusible' }, 'fits'],
] as const)('safety class of %s with %p: %s', (ref, fitted, verdict) => expect(judge(ref, fitted)).toBe(verdict));

const can = { value: 1000e-6, ratedVolts: 35, lowEsr: true, celsius105: true };
test.each([
  ['C8', can, 'fits'],
  ['C8', { ...can, ratedVolts: 25 }, 'refused'],
  ['C8', { ...can, value: 470e-6 }, 'doubt'],
  ['C8', { ...can, celsius105: false }, 'doubt'],
  ['C8', { ...can, lowEsr: undefined }, 'doubt'],
  ['C8', { ...can, source: 'salvaged' }, 'doubt'],
  ['R1', { value: 4700, ratedVolts: 200, ratedWatts: 0.5 }, 'fits'],
  ['R1', { value: 4700, ratedVolts: 200, ratedWatts: 0.125 }, 'refused'],
  ['D4', { ratedVolts: 200, ratedAmps: 16 }, 'fits'],
  ['D4', { ratedVolts: 100, ratedAmps: 16 }, 'refused'],
] as const)('%s replaced with %p: %s', (ref, fitted, verdict) => expect(judge(ref, fitted)).toBe(verdict));
