import { findPart } from '../circuit';
import { readNetlist } from '../netlist';
import { judgeSubstitution } from '.';
import type { FittedPart } from '.';

const read = readNetlist(
  [
    't',
    'XF1 a b FUSE ir=3.15 vr=250 mark="T3.15AH250V"',
    'XF2 a b FUSE ir=0.5 vr=250 mark="F500mAL250V"',
    'CX1 a b 0.22u tol=10% vr=310 mark=".22uF X2 310~"',
    'CY1 a b 2.2n tol=20% vr=400 mark="222M Y1 400~"',
    'C1 a b 1000u tol=20% vr=35 esr=0.021 ir=2',
    'C2 a b 100n tol=10% vr=50',
    'R1 a b 4.7k tol=5% pr=0.25 vr=200',
    'R2 a b 0.22 tol=1% pr=1',
    'RF1 a b 4.7 pr=2 fusible=yes',
    'L1 a b 33u tol=20% ir=3',
    'D1 a b DD vr=60 ir=3',
    'M1 a b c MM vr=600 ir=8',
    'XRV1 a b MOV vr=300',
    'XRT1 a b NTC r25=5 ir=3',
    'XU1 a b c d OPTO vr=70',
    '.model DD D()',
    '.model MM NMOS()',
  ].join('\n'),
);
if (!read.ok) throw new Error('fixture');
const { board } = read.value;
const judge = (ref: string, fitted: Partial<FittedPart>) =>
  judgeSubstitution(findPart(board, ref)!, { source: 'new', samePart: false, ...fitted });

const fuse = { ratedAmps: 3.15, ratedVolts: 250, fuseSpeed: 'T', fuseBreaking: 'H' } as const;
const rail = { value: 1000e-6, ratedVolts: 35, lowEsr: true, celsius105: true } as const;

test.each([
  // A fuse: the same rating, time characteristic and breaking capacity, never larger.
  ['F1', fuse, 'fits'],
  ['F1', { ...fuse, ratedVolts: 500 }, 'fits'],
  ['F1', { ...fuse, ratedAmps: 4 }, 'refused'],
  ['F1', { ...fuse, ratedAmps: 3.15001 }, 'refused'],
  ['F1', { ...fuse, ratedAmps: 2 }, 'refused'],
  ['F1', { ...fuse, fuseSpeed: 'F' }, 'refused'],
  ['F1', { ...fuse, fuseSpeed: undefined }, 'refused'],
  ['F1', { ...fuse, fuseBreaking: 'L' }, 'refused'],
  ['F1', { ...fuse, ratedVolts: 125 }, 'refused'],
  ['F1', { ...fuse, source: 'salvaged' }, 'refused'],
  ['F2', { ratedAmps: 0.5, ratedVolts: 250, fuseSpeed: 'F', fuseBreaking: 'L' }, 'fits'],
  // X may be replaced by Y of the same voltage, never the reverse.
  ['CX1', { value: 0.22e-6, ratedVolts: 310, safetyClass: 'X2' }, 'fits'],
  ['CX1', { value: 0.22e-6, ratedVolts: 310, safetyClass: 'Y2' }, 'fits'],
  ['CX1', { value: 0.22e-6, ratedVolts: 275, safetyClass: 'X2' }, 'refused'],
  ['CX1', { value: 0.22e-6, ratedVolts: 630 }, 'refused'],
  ['CX1', { value: 0.33e-6, ratedVolts: 310, safetyClass: 'X2' }, 'refused'],
  ['CY1', { value: 2.2e-9, ratedVolts: 400, safetyClass: 'Y1' }, 'fits'],
  ['CY1', { value: 2.2e-9, ratedVolts: 400, safetyClass: 'X1' }, 'refused'],
  ['CY1', { value: 4.7e-9, ratedVolts: 400, safetyClass: 'Y1' }, 'refused'],
  // Electrolytics: voltage not lower, low ESR and 105 °C asked for.
  ['C1', rail, 'fits'],
  ['C1', { ...rail, ratedVolts: 50 }, 'fits'],
  ['C1', { ...rail, ratedVolts: 25 }, 'refused'],
  ['C1', { ...rail, lowEsr: false }, 'doubt'],
  ['C1', { ...rail, celsius105: false }, 'doubt'],
  ['C1', { ...rail, value: 1150e-6 }, 'fits'],
  ['C1', { ...rail, value: 1500e-6 }, 'doubt'],
  ['C1', { ...rail, source: 'salvaged' }, 'doubt'],
  ['C2', { value: 100e-9, ratedVolts: 50 }, 'fits'],
  ['C2', { value: 100e-9, ratedVolts: 25 }, 'refused'],
  // Resistors: value, watts, volts.
  ['R1', { value: 4700, ratedWatts: 0.25, ratedVolts: 200 }, 'fits'],
  ['R1', { value: 4900, ratedWatts: 0.5, ratedVolts: 350 }, 'fits'],
  ['R1', { value: 5100, ratedWatts: 0.25, ratedVolts: 200 }, 'doubt'],
  ['R1', { value: 4700, ratedWatts: 0.125, ratedVolts: 200 }, 'refused'],
  ['R1', { value: 4700, ratedWatts: 0.25, ratedVolts: 150 }, 'refused'],
  ['R1', { value: 4700, ratedWatts: 0.25 }, 'doubt'],
  ['R2', { value: 0.221, ratedWatts: 1 }, 'fits'],
  ['R2', { value: 0.25, ratedWatts: 1 }, 'doubt'],
  ['RF1', { value: 4.7, ratedWatts: 2, safetyClass: 'fusible' }, 'fits'],
  ['RF1', { value: 4.7, ratedWatts: 2 }, 'refused'],
  ['L1', { value: 33e-6, ratedAmps: 3 }, 'fits'],
  ['L1', { value: 33e-6, ratedAmps: 2 }, 'refused'],
  // Semiconductors: volts and amperes.
  ['D1', { ratedVolts: 100, ratedAmps: 5 }, 'fits'],
  ['D1', { ratedVolts: 40, ratedAmps: 5 }, 'refused'],
  ['M1', { ratedVolts: 650, ratedAmps: 10 }, 'fits'],
  ['M1', { ratedVolts: 600, ratedAmps: 6 }, 'refused'],
  ['M1', { samePart: true, source: 'salvaged' }, 'doubt'],
  // The other safety parts.
  ['RV1', { ratedVolts: 300, safetyClass: 'MOV 10D471K' }, 'fits'],
  ['RV1', { ratedVolts: 300 }, 'refused'],
  ['RT1', { ratedAmps: 3, safetyClass: 'NTC 5D-9' }, 'fits'],
  ['U1', { ratedVolts: 70, safetyClass: 'opto' }, 'fits'],
  ['U1', { ratedVolts: 70 }, 'refused'],
] as const)('%s with %j: %s', (ref, fitted, verdict) => {
  const judged = judge(ref, fitted as Partial<FittedPart>);
  expect([judged.verdict, judged.reasons]).toEqual([verdict, judged.reasons]);
  expect(judged.reasons.length).toBeGreaterThan(0);
  for (const reason of judged.reasons) expect(reason).toMatch(/[.]$/u);
});

test('every reason against a part is given, not only the first', () => {
  const { reasons } = judge('F1', { ratedAmps: 5, ratedVolts: 125, fuseSpeed: 'F', source: 'salvaged' });
  expect(reasons).toHaveLength(5);
});
