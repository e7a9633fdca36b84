import { findPart } from '../circuit';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { withFigure } from '../part';
import type { PartFigure } from '../part';
import { PoweredReader } from '../work';
import { rateUnit, usableOutput } from '.';
import type { RatedStrain } from '.';

// A buck of 24 V to 12 V at 3 A, 100 kHz, 47 uH, an RC across its diode, a bleeder, a pull-up that a transistor pulls down.
const BUCK = `step-down for the winch brake
XJ1 VP GND CONN
XF1 VP VF FUSE ir=5 r=0.02
C1 VF GND 470uF vr=50 ir=2.5 esr=0.05
M1 SW G VF PSW vr=60 ir=20
XU1 VF G FB GND BK1
D1 GND SW DS vr=60 ir=8
R1 SW SN 10 pr=0.5
C2 SN GND 1nF vr=100
L1 SW OUT 47uH dcr=0.02 ir=6
C3 OUT GND 470uF vr=16 ir=1 esr=0.03
R2 OUT FB 38k pr=0.125
R3 FB GND 10k pr=0.125
R4 OUT GND 470 pr=1
R5 OUT C 1k pr=0.125
Q1 C B GND NQ vr=40 ir=0.1
R6 B GND 10k pr=0.125
R7 VF GND 10k
XJ2 OUT GND CONN
.model PSW PMOS(VTO=-3 KP=20 RON=0.02)
.model DS D(IS=1u N=1.1 RS=0.02)
.model NQ NPN(IS=1e-14 BF=100)
.end
`;

const read = readNetlist(BUCK);
if (!read.ok) throw new Error(JSON.stringify(read.problem));
const BOARD: Board = {
  ...read.value.board,
  nameplate: {
    source: 'dc',
    inputRail: 'VP',
    inputReturn: 'GND',
    inputMin: 20,
    inputNominal: 24,
    inputMax: 28,
    hertz: 0,
    outputs: [{ rail: 'OUT', return: 'GND', volts: 12, amps: 3, kind: 'dc' }],
  },
  facts: { U1: { fSwitch: 100e3, fbRef: 2.5, groundPin: 4 } } as unknown as NonNullable<Board['facts']>,
};

const withRating = (board: Board, ref: string, figure: PartFigure, value: number): Board => ({
  ...board,
  parts: board.parts.map((p) => (p.ref === ref ? withFigure(p, figure, value) : p)),
});

function row(rows: readonly RatedStrain[], ref: string, quantity: string): RatedStrain {
  const found = rows.find((r) => r.ref === ref && r.quantity === quantity);
  if (!found) throw new Error(`${ref} ${quantity}`);
  return found;
}

const rated = rateUnit(BOARD)!;

test('the buck runs in every corner', () => {
  expect(rated.missing).toEqual([]);
});

// Closed forms: D = 12.6/28.6 with the drops, ripple (V - Vo) D / (f L); load, bleeder and pull-up on top of 3 A.
const [VIN, VO, DROP, HERTZ, HENRY] = [28, 12, 0.45, 100e3, 47e-6];
const LOAD = 3 + VO / 470 + 12 / 48e3;
const DUTY = (VO + DROP + 0.06) / (VIN + DROP - 0.06);
const RIPPLE = ((VO + DROP) * (1 - DUTY)) / (HERTZ * HENRY);

test.each([
  ['L1', 'current', LOAD + RIPPLE / 2],
  ['M1', 'current', LOAD + RIPPLE / 2],
  ['D1', 'current', LOAD * (1 - DUTY)],
  ['M1', 'voltage', VIN + DROP],
  ['D1', 'peak-inverse', VIN],
  ['C1', 'voltage', VIN],
  ['C3', 'voltage', VO],
  ['C3', 'ripple-current', RIPPLE / Math.sqrt(12)],
  ['R1', 'power', 1e-9 * (VIN + DROP) ** 2 * HERTZ],
  ['R4', 'power', VO ** 2 / 470],
  ['R5', 'power', VO ** 2 / 1000],
  ['R7', 'power', VIN ** 2 / 10e3],
])('%s %s as the closed form has it', (ref, quantity, expected) => {
  expect(Math.abs(row(rated.rows, ref, quantity).stress / expected - 1)).toBeLessThan(0.06);
});

test('the worst corner: currents of the input at the lowest source, volts at the highest, ripple of the input near half on', () => {
  expect(row(rated.rows, 'F1', 'current').corner).toMatchObject({ source: 20, share: 1 });
  const amps = (LOAD * VO) / 20 / 0.95;
  expect(row(rated.rows, 'F1', 'current').stress).toBeGreaterThan(0.97 * amps);
  expect(row(rated.rows, 'F1', 'current').stress).toBeLessThan(1.1 * amps);
  expect(row(rated.rows, 'C1', 'voltage').corner.source).toBe(28);
  const swing = LOAD * Math.sqrt(DUTY * (1 - DUTY));
  expect(Math.abs(row(rated.rows, 'C1', 'ripple-current').stress / swing - 1)).toBeLessThan(0.1);
});

test('verdicts: limit is the rating as far as it is used, unknown without a rating, the remedy bears the stress', () => {
  const diode = row(rated.rows, 'D1', 'peak-inverse');
  expect([diode.rating, diode.limit]).toEqual([60, 48]);
  expect(diode.verdict).toBe('ok');
  const tight = row(rateUnit(withRating(BOARD, 'D1', 'ratedVolts', 30))!.rows, 'D1', 'peak-inverse');
  expect(tight.verdict).toBe('tight');
  expect(tight.why).toContain('rectifier: ringing on top');
  const over = row(rateUnit(withRating(BOARD, 'D1', 'ratedVolts', 20))!.rows, 'D1', 'peak-inverse');
  expect(over.verdict).toBe('over');
  expect(over.remedy).toBe('fit one for 35\u2009V');
  const unknown = row(rated.rows, 'R7', 'power');
  expect([unknown.verdict, unknown.rating, unknown.ratio]).toEqual(['unknown', null, null]);
  expect(unknown.remedy).toContain('measure its body');
});

test('the order: what is over first, then by the share of the limit', () => {
  const { rows } = rateUnit(withRating(BOARD, 'C3', 'ratedVolts', 6.3))!;
  expect(rows[0]).toMatchObject({ ref: 'C3', quantity: 'voltage', verdict: 'over' });
  const shares = rows.filter((r) => r.verdict === 'ok').map((r) => r.stress / r.limit!);
  expect(shares).toEqual([...shares].sort((a, b) => b - a));
});

test('a pull-up burns what it burns while its transistor is on', () => {
  expect(row(rated.rows, 'R5', 'power')).toMatchObject({ verdict: 'over' });
  expect(row(rated.rows, 'R5', 'power').why).toContain('while Q1 is on');
});

test('one source alone when it is asked for', () => {
  const { rows } = rateUnit(BOARD, { source: 24 })!;
  expect(new Set(rows.map((r) => r.corner.source))).toEqual(new Set([24]));
  expect(row(rows, 'D1', 'peak-inverse').stress).toBeLessThan(25);
});

test('nothing is judged where nothing tells what feeds it; a caller may stop it', () => {
  expect(rateUnit({ ...BOARD, nameplate: {} })).toBeNull();
  const seen: number[] = [];
  expect(rateUnit(BOARD, { onProgress: (d) => (seen.push(d), seen.length < 2) })).toBeNull();
  expect(seen).toHaveLength(2);
});

describe('usable output', () => {
  // The pull-up apart, which no load changes.
  const board = withRating(BOARD, 'R5', 'ratedWatts', 0.5);

  test('at the load that it says the part that limits stands at its limit', () => {
    const small = withRating(board, 'F1', 'ratedAmps', 2.5);
    const usable = usableOutput(small, rateUnit(small)!)!;
    expect(usable.claim).toBe('over-claimed');
    expect(usable.limiting?.ref).toBe('F1');
    const reader = PoweredReader.at(small, { source: 20, load: 'full', share: usable.share }, []);
    const { unit, volts } = reader.operation;
    const amps = Math.abs(volts[unit.node('VP')]! - volts[unit.node('VF')]!) / 0.02;
    expect(amps * 1.045).toBeGreaterThan(0.97 * 1.875);
    expect(amps * 1.045).toBeLessThan(1.03 * 1.875);
    expect(usable.sentence).toContain('F1 is the first at its limit');
  });

  test('with stronger parts it stands what is printed, and more', () => {
    const usable = usableOutput(board, rateUnit(board)!)!;
    expect(usable.claim).toBe('fair');
    expect(usable.share).toBeGreaterThan(1);
  });

  test('a stress that the load does not change never limits: it is told beside', () => {
    const weak = withRating(board, 'C1', 'ratedVolts', 25);
    const usable = usableOutput(weak, rateUnit(weak)!)!;
    expect(usable.standing.map((r) => r.ref)).toContain('C1');
    expect(usable.claim).toBe('fair');
  });

  test('without the ratings that decide it the claim is not known', () => {
    const bare: Board = {
      ...board,
      parts: board.parts.map((p) => ({
        ...p,
        numbers: Object.fromEntries(Object.entries(p.numbers).filter(([k]) => !['ir', 'pr'].includes(k))),
      })),
    };
    const usable = usableOutput(bare, rateUnit(bare)!)!;
    expect(usable.claim).toBe('unknown');
    expect(usable.sentence).toMatch(/not known yet: .*M1/u);
    expect(findPart(bare, 'M1')).toBeDefined();
  });

  test('a unit that does not run as it is known is not judged by its load', () => {
    const dead: Board = { ...board, parts: board.parts.filter((p) => p.ref !== 'F1') };
    const usable = usableOutput(dead, rateUnit(dead)!)!;
    expect(usable.claim).toBe('unknown');
    expect(usable.sentence).toContain('does not run');
  });
});
