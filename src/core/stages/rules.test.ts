import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { recogniseStages } from '.';

/** Small pieces of circuit around one controller of a flyback: each pin's role by what surrounds it. */
function flyback(pins: string, ...more: string[]): Board {
  const lines = [
    't',
    'XJ1 A B CONN',
    'XF1 A C FUSE ir=2 vr=250',
    'XBD1 C B P N BRIDGE vr=600',
    'C1 P N 100u vr=400 esr=0.3',
    'LP P D 500u',
    'LS O S 30u',
    'LA N AX 12u',
    'KP LP LS 0.99',
    'KA LP LA 0.98',
    'KB LS LA 0.98',
    'M1 D G SR MM vr=650 ir=5',
    'RS SR N 0.5',
    'D2 S R DS vr=100 ir=5',
    'C2 R O 470u vr=25 esr=0.05',
    'XJ2 R O CONN',
    `XU1 ${pins} CHIP`,
    ...more,
    '.model MM NMOS()',
    '.model DS D(IS=3e-7 N=1.05 BV=100)',
    '.model DD D(IS=5e-9 N=1.75 BV=1000)',
    '.model LED D(IS=9.6e-18 N=2)',
  ];
  const read = readNetlist(lines.join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

test.each([
  ['GND', 'N', []],
  ['NC', 'NC', []],
  ['GATE', 'GT', ['RG GT G 22']],
  ['GATE', 'G', []],
  ['CS', 'SR', []],
  ['CS', 'CS', ['RF SR CS 470', 'CF CS N 330p']],
  ['VCC', 'V', ['DA AX V DD', 'CV V N 22u vr=35 esr=0.9', 'RH P V 470k']],
  ['HV', 'H', ['RH P H 47k']],
  ['FB', 'F', ['XO OA OK F N OPTO', 'RO R OA 1k', 'XR RF O OK SHUNTREF', 'R5 R RF 10k', 'R6 RF O 2.5k']],
  ['FB', 'F', ['R5 AX F 30k', 'R6 F N 5.1k']],
  ['COMP', 'K', ['RK K KX 22k', 'CK KX N 10n']],
  ['RT', 'T', ['RT1 T N 47k']],
  ['RT', 'T', ['CT T N 1n']],
  ['EN', 'E', ['XN E N NTC r25=47k', 'RE V E 10k', 'CV V N 22u vr=35 esr=0.9', 'DA AX V DD']],
])('a pin that is %s by what is around it (%s, %j)', (role, net, more) => {
  const board = flyback(`N ${net} NC NC`, ...more);
  const pin = recogniseStages(board).pins['U1']![1]!;
  expect([pin.role, pin.reasons.length]).toEqual([role, 1]);
});

test.each([
  ['clamp', 'R7', ['D7 D CL DD', 'R7 P CL 100k', 'C7 P CL 1n vr=1000']],
  ['clamp', 'C7', ['R7 D SN 47', 'C7 SN N 470p vr=1000']],
  ['surge', 'RV1', ['XRV1 C B MOV vr=300']],
  ['emi-filter', 'CX1', ['CX1 C B 100n vr=310 mark=X2']],
  ['emi-filter', 'R7', ['R7 C B 1MEG']],
  ['discharge', 'R7', ['R7 R O 1k']],
  ['indicator', 'R7', ['R7 R LA1 1k', 'D7 LA1 O LED']],
  ['output-filter', 'C7', ['C7 R O 100n vr=50']],
  ['protection', 'D7', ['D7 O R DZ pr=1', '.model DZ D(BV=15)']],
  ['barrier', 'CY1', ['CY1 N O 2.2n mark=Y1 vr=400']],
  ['output-rectifier', 'R7', ['R7 S SN 22', 'C7 SN R 470p']],
  ['startup', 'R7', ['R7 P V 470k', 'CV V N 22u vr=35 esr=0.9']],
  ['gate-drive', 'R7', ['R7 G SR 10k']],
  ['current-sense', 'RS', []],
  ['bulk', 'C1', []],
  ['mains-input', 'F1', []],
  ['regulator', 'U2', ['XU2 R O Q REG3', 'C7 Q O 10u']],
  ['aux-supply', 'D7', ['D7 AX V DD', 'CV V N 22u vr=35 esr=0.9']],
])('a part of the %s: %s in %j', (kind, ref, more) => {
  const board = flyback('N V G SR', ...more);
  const map = recogniseStages(board);
  expect(map.stages.find((s) => s.parts.includes(ref))?.kind).toBe(kind);
  expect(map.topology).toBe('flyback');
});

test.each([
  [
    'two chokes coupled one to one in the line',
    [
      'LCA C C2 10m',
      'LCB B B2 10m',
      'KC LCA LCB 0.99',
      'CX9 C B 100n vr=310',
      'XB2 C2 B2 P2 N2 BRIDGE',
      'C9 P2 N2 10u vr=400',
    ],
    'emi-filter',
    'LCA',
  ],
  [
    'a one to one transformer across the barrier',
    ['LTA P DX 1m', 'LTB O SX 1m', 'KT LTA LTB 0.99', 'M9 DX GX N MM', 'D9 SX RX DD', 'C9 RX O 10u vr=25'],
    'transformer',
    'LTA',
  ],
])('%s', (_what, more, kind, ref) => {
  const map = recogniseStages(flyback('N V G SR', ...more));
  expect(map.stages.find((s) => s.parts.includes(ref))?.kind).toBe(kind);
});

test('an isolator in the guise of an integrated circuit does not join its two sides', () => {
  const board = flyback('N V G SR', 'XU9 R O V N ISO', '.subckt ISO 1 2 3 4', 'D1 1 2 LED', 'R1 3 4 1k', '.ends');
  const islands = recogniseStages(board).islands;
  expect(islands.map((i) => netKey(i.reference)).sort()).toEqual(['n', 'o']);
});
