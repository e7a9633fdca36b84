import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DOCK_MODULE } from '../../demo/boards/dockModule';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { DERATING, capacitorKind, judgeStress, railStress } from '.';
import type { StressRow } from '.';

function boardOf(text: string, nameplate?: Board['nameplate']): Board {
  const read = readNetlist(text);
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join(' '));
  return { ...read.value.board, ...(nameplate ? { nameplate } : {}) };
}
const dock = boardOf(DOCK_MODULE);
const at = (volts: number, board = dock, more: object = {}): ReadonlyMap<string, StressRow> =>
  new Map(railStress(board, { rail: 'OUT+', return: 'GND', volts, ...more }).map((r) => [`${r.ref} ${r.quantity}`, r]));

test.each([
  [5, 6.3, 0.8, 'ok'],
  [5.04, 6.3, 0.8, 'ok'],
  [5.05, 6.3, 0.8, 'tight'],
  [6.2, 6.3, 0.8, 'tight'],
  [6.3, 6.3, 0.8, 'tight'],
  [6.31, 6.3, 0.8, 'over'],
  [null, 6.3, 0.8, 'unknown'],
  [5, null, 0.8, 'unknown'],
] as const)('%p against %p used to %p is %s', (stress, rating, factor, verdict) =>
  expect(judgeStress(stress, rating, factor)).toBe(verdict),
);

test('the deratings are those of the workshop, each a share of the rating with its reason', () => {
  const wanted = { 'bulk-electrolytic': 0.95, 'output-electrolytic': 0.8, film: 0.8, ceramic: 0.7, tantalum: 0.5 };
  for (const [kind, factor] of Object.entries(wanted))
    expect(DERATING[kind as keyof typeof DERATING].factor).toBe(factor);
  expect([DERATING['resistor-power'].factor, DERATING['resistor-voltage'].factor]).toEqual([0.6, 0.9]);
  expect([DERATING.rectifier.factor, DERATING['transistor-voltage'].factor]).toEqual([0.8, 0.9]);
  expect([DERATING['semiconductor-current'].factor, DERATING.fuse.factor]).toEqual([0.7, 0.75]);
  for (const d of Object.values(DERATING)) expect(d.why.length).toBeGreaterThan(5);
});

test('the 6.3 V capacitor: ok at 5 V, tight at 6.2 V with its share of the rating, over at 7 V', () => {
  const cap = (volts: number): StressRow => at(volts).get('C4 voltage')!;
  expect(cap(5).verdict).toBe('ok');
  expect(cap(6.2)).toMatchObject({ verdict: 'tight', rating: 6.3 });
  expect(cap(6.2).limit).toBeCloseTo(5.04, 9);
  expect(cap(6.2).ratio).toBeCloseTo(6.2 / 6.3, 12);
  expect(cap(6.2).why).toContain('98 % of its 6.3');
  expect(cap(7).verdict).toBe('over');
});

test('the indicator’s resistor: the watts by hand', () => {
  // The LED's junction holds some 1.8 V at 13 mA; the rest of 6.2 V is over 330 ohm.
  const row = at(6.2).get('R5 power')!;
  const volts = Math.sqrt(row.stress! * 330);
  expect(volts).toBeGreaterThan(4.2);
  expect(volts).toBeLessThan(4.6);
  expect(row.verdict).toBe('ok');
  expect(at(7).get('R5 power')!.verdict).toBe('tight');
  expect(at(7).get('DLED1 current')).toMatchObject({ verdict: 'tight', rating: 0.02 });
  expect(at(7).get('DLED1 current')!.stress!).toBeCloseTo(Math.sqrt(at(7).get('R5 power')!.stress! / 330), 9);
});

test('the divider’s capacitor sees what is left above the tap', () => {
  // 46.4 k over 15 k: 5 V · 46.4 / 61.4.
  expect(at(5).get('C6 voltage')!.stress).toBeCloseTo((5 * 46.4) / 61.4, 6);
  expect(at(5).get('R4 power')!.stress).toBeCloseTo(((5 * 15e3) / 61.4e3) ** 2 / 15e3, 9);
});

test('more volts never make a verdict milder', () => {
  const rank = { ok: 0, unknown: 0, tight: 1, over: 2 };
  const steps = [3, 4, 5, 5.5, 6.2, 7, 9, 12, 20, 60].map((v) => at(v));
  for (const key of steps[0]!.keys())
    for (let i = 1; i < steps.length; i++)
      expect([key, i, rank[steps[i]!.get(key)!.verdict] >= rank[steps[i - 1]!.get(key)!.verdict]]).toEqual([
        key,
        i,
        true,
      ]);
});

test('silence is refused: the load, parts without a rating and ICs on the rail are named as unknown', () => {
  expect(at(6.2).get('J2 limit')).toMatchObject({ verdict: 'unknown', stress: 6.2 });
  expect(at(6.2, dock, { loadVolts: 6.5 }).get('J2 limit')!.verdict).toBe('ok');
  expect(at(7, dock, { loadVolts: 6.5 }).get('J2 limit')!.verdict).toBe('over');
  const bare = boardOf(`t
XJ2 OUT+ GND CONN
C1 OUT+ GND 100uF
C2 OUT+ X 10n vr=50
R1 OUT+ GND 1k
XU2 OUT+ GND Y LATCH
XU3 OUT+ GND Z REG3
M1 OUT+ G GND MX
R2 OUT+ Y 10k pr=0.1
D9 GND OUT+ DR
.model DR D(IS=1n)
.model MX NMOS(VTO=2)
`);
  const rows = at(12, bare);
  for (const key of [
    'C1 voltage',
    'C2 voltage',
    'R1 power',
    'U2 limit',
    'U3 limit',
    'M1 voltage',
    'R2 power',
    'D9 voltage',
  ])
    expect([key, rows.get(key)?.verdict]).toEqual([key, 'unknown']);
  expect(rows.get('R1 power')!.stress).toBeCloseTo(0.144, 9);
  expect(rows.get('R2 power')!.why).toContain('U2');
  // Every fitted part with a pin on the rail is in the list.
  const named = new Set([...rows.values()].map((r) => r.ref));
  expect(bare.parts.filter((p) => p.nets.includes('OUT+') && !named.has(p.ref)).map((p) => p.ref)).toEqual([]);
});

test('clamps, freewheels and transistors across the rail', () => {
  const board = boardOf(`t
DZ1 GND OUT+ DZ vr=6.8 pr=0.5
D1 GND OUT+ DR vr=40
M1 OUT+ G GND MX vr=30
C1 OUT+ GND 100uF vr=25
.model DZ D(BV=6.8)
.model DR D(IS=1n)
.model MX NMOS(VTO=2)
`);
  expect(at(6, board).get('DZ1 voltage')!.verdict).toBe('ok');
  expect(at(6.5, board).get('DZ1 voltage')!.verdict).toBe('tight');
  expect(at(7, board).get('DZ1 voltage')!.verdict).toBe('over');
  expect(at(33, board).get('D1 voltage')!.verdict).toBe('tight');
  expect(at(28, board).get('M1 voltage')!.verdict).toBe('tight');
});

test('a shunt reference’s resistor is bounded by what its cathode holds at least', () => {
  const board = boardOf(`t
C1 OUT+ GND 100uF vr=25
R1 OUT+ A 1k pr=0.25
XU1 A K C E OPTO
XU2 REF GND K SHUNTREF vref=2.5
R2 OUT+ REF 38k pr=0.1
R3 REF GND 10k pr=0.1
`);
  const row = at(12, board).get('R1 power')!;
  // 12 V less 1.1 V of the LED and 2.5 V at the cathode: 8.4 mA at most.
  expect(row.stress).toBeCloseTo(8.4e-3 ** 2 * 1000, 6);
  expect(row.why).toContain('at most');
});

test('behind a choke the rail goes on; a switching node is no rail', () => {
  const board = boardOf(`t
C1 OUT+ GND 470uF vr=16
L1 OUT+ OUT2 2u
C2 OUT2 GND 100uF vr=10
L2 OUT+ SW 33u
D1 GND SW DR vr=40
C3 SW B 100n vr=10
.model DR D(IS=1n)
`);
  const rows = at(9, board);
  expect(rows.get('C2 voltage')).toMatchObject({ stress: 9, verdict: 'tight' });
  expect(rows.has('D1 voltage')).toBe(false);
  expect(rows.has('C3 voltage')).toBe(false);
});

test('a flyback’s output diode and switch feel a higher output', () => {
  const fixtures = join(__dirname, '../../../fixtures/boards');
  const labels = JSON.parse(readFileSync(join(fixtures, 'lamp-supply-24v.labels.json'), 'utf8')) as Pick<
    Board,
    'nameplate'
  >;
  const lamp = boardOf(readFileSync(join(fixtures, 'lamp-supply-24v.cir'), 'utf8'), labels.nameplate);
  const rows = (volts: number) => railStress(lamp, { rail: 'OUT+', return: 'OUT-', volts });
  const of = (volts: number, ref: string): StressRow =>
    rows(volts).find((r) => r.ref === ref && r.quantity === 'voltage')!;
  // 264 V make 373 V, and the windings are 4 to 1.
  expect(of(24, 'D4A').stress).toBeCloseTo(24 + (Math.SQRT2 * 264) / 4, 6);
  expect(of(24, 'D4A').verdict).toBe('ok');
  expect(of(24, 'M1').verdict).toBe('unknown');
  expect(of(80, 'M1').verdict).toBe('over');
  const keys = rows(24).map((r) => `${r.ref} ${r.quantity}`);
  expect(new Set(keys).size).toBe(keys.length);
});

test('a flyback’s other rails rise with the one that is set: the supply of its controller too', () => {
  const fixtures = join(__dirname, '../../../fixtures/boards');
  const labels = JSON.parse(readFileSync(join(fixtures, 'lamp-supply-24v.labels.json'), 'utf8')) as Pick<
    Board,
    'nameplate'
  >;
  const lamp = boardOf(readFileSync(join(fixtures, 'lamp-supply-24v.cir'), 'utf8'), labels.nameplate);
  const supply = (volts: number): number => {
    const row = railStress(lamp, { rail: 'OUT+', return: 'OUT-', volts }).find(
      (r) => r.ref === 'U1' && r.why.includes('on VCC'),
    )!;
    expect(row.verdict).toBe('unknown');
    expect(row.why).toContain('look its highest supply up');
    return row.stress!;
  };
  // 0.6 of the output's turns: 24 V make some 14 V, and a quarter more makes a quarter more.
  expect(supply(24)).toBeGreaterThan(13);
  expect(supply(24)).toBeLessThan(14.5);
  expect(supply(30) - supply(24)).toBeCloseTo(0.6 * 6, 6);
  const c5 = (volts: number): string =>
    railStress(lamp, { rail: 'OUT+', return: 'OUT-', volts }).find((r) => r.ref === 'C5')!.verdict;
  // C5 holds 35 V, used to 28 V.
  expect([c5(24), c5(50), c5(62)]).toEqual(['ok', 'tight', 'over']);
});

test('a bulk bus is held to the bulk derating, a relay’s contact is not vouched for', () => {
  const bus = boardOf(`t
C1 OUT+ GND 220uF vr=450
XRL1 A GND OUT+ B RELAY rcoil=300 vr=250
XRL2 OUT+ GND C D RELAY rcoil=300 vr=250
`);
  const rows = at(420, bus);
  expect(rows.get('C1 voltage')!.verdict).toBe('ok');
  expect(rows.get('RL1 limit')!.verdict).toBe('unknown');
  expect(rows.get('RL2 limit')!.why).toContain('coil');
});

test.each([
  ['C1 a b 100uF vr=400', true, 'bulk-electrolytic'],
  ['C1 a b 100uF vr=25', false, 'output-electrolytic'],
  ['C1 a b 100n vr=25', false, 'ceramic'],
  ['C1 a b 100n vr=400', false, 'film'],
  ['C1 a b 100n mark="X2 275~"', false, 'safety-capacitor'],
  ['C1 a b 22uF vr=10 mark=226E', false, 'tantalum'],
  ['C1 a b 1u vr=63 mark=MKT', false, 'film'],
] as const)('%s is held to %s (bulk %p)', (line, bulk, kind) => {
  expect(capacitorKind(boardOf(`t\n${line}\n`).parts[0]!, bulk)).toBe(kind);
});

test('other deratings may be given', () => {
  const strict = { ...DERATING, 'output-electrolytic': { factor: 1, words: 'electrolytic', why: 'as printed' } };
  expect(at(6.2, dock, { derating: strict }).get('C4 voltage')!.verdict).toBe('ok');
});
