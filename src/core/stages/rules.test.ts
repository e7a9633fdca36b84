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

/** Boards of other kinds, each with a trait that the example boards do not have. */
const OTHERS: Readonly<Record<string, string>> = {
  led: `offline low-side buck LED driver
XJ1 L N CONN
XF1 L LF FUSE ir=1 vr=250
XBD1 LF N HV+ HV- BRIDGE vr=600
C1 HV+ HV- 10u vr=400 esr=1
C2 HV+ LEDM 2.2u vr=100
XJ2 HV+ LEDM CONN
L1 LEDM SW 2.2m dcr=3 ir=0.5
D1 SW HV+ DF vr=600 ir=1
M1 SW G CS MM vr=600 ir=2
R1 CS HV- 1.5
R2 HV+ VCC 470k
C3 VCC HV- 4.7u vr=50 esr=2
XU1 HV- G VCC CS CHIP
.model DF D(IS=3e-8 N=1.8 BV=600)
.model MM NMOS()`,
  at: `at style half bridge
XJ1 L N CONN
XF1 L LF FUSE ir=5 vr=250
XBD1 LF N HV+ HV- BRIDGE vr=600
C1 HV+ MID 470u vr=200 esr=0.2
C2 MID HV- 470u vr=200 esr=0.2
R1 HV+ MID 100k
R2 MID HV- 100k
Q1 HV+ B1 SW QH vr=400 ir=12
Q2 SW B2 HV- QH vr=400 ir=12
R3 B1 G1 2.7
R4 B2 G2 2.7
R11 B1 SW 1k
R12 B2 HV- 1k
LT2A G1 SW 300u
LT2B G2 HV- 300u
LT2P PA CT 2m
LT2Q CT PB 2m
KA LT2A LT2B 0.98
KB LT2A LT2P 0.98
KC LT2A LT2Q 0.98
KD LT2B LT2P 0.98
KE LT2B LT2Q 0.98
KF LT2P LT2Q 0.99
C3 SW PX 1u vr=250
LT1P PX MID 4m
LT1A SA GND 60u
LT1B GND SB 60u
KG LT1P LT1A 0.99
KH LT1P LT1B 0.99
KI LT1A LT1B 0.99
D1 SA VR DS vr=60 ir=20
D2 SB VR DS vr=60 ir=20
L1 VR OUT 20u ir=20
C4 OUT GND 2200u vr=16 esr=0.02
Q3 PA BA GND QN vr=50 ir=0.5
Q4 PB BB GND QN vr=50 ir=0.5
R5 OA BA 1k
R6 OB BB 1k
R7 VCC CT 1.5k
C5 CT GND 1u vr=50
XU1 OA OB VCC GND FB COMP RT CT2 VREF PWM
R8 OUT FB 4.7k
R9 FB GND 4.7k
R10 RT GND 12k
C6 CT2 GND 1n
C7 VREF GND 100n
R13 OUT VCC 10
C8 VCC GND 47u vr=25 esr=0.6
XJ2 OUT GND CONN
.model QH NPN(BF=20)
.model QN NPN(BF=200)
.model DS D(IS=3e-7 N=1.05 BV=60)`,
  zener: `flyback with zener and opto
XJ1 L N CONN
XF1 L LF FUSE ir=2 vr=250
D1 LF HV+ DD
D2 N HV+ DD
D3 HV- LF DD
D4 HV- N DD
C1 HV+ HV- 22u vr=400 esr=1
XU1 HV- VCC FB HV- D D D D SWIC
LTP HV+ D 1m
LTS OUT- S 20u
LTA HV- AX 15u
K1 LTP LTS 0.98
K2 LTP LTA 0.98
K3 LTS LTA 0.98
D5 AX VCC DD
C2 VCC HV- 10u vr=50 esr=1
XU2 OA OK VCC FB OPTO
DZ1 OK2 OUT DZ pr=0.5
R1 OK2 OA 100
D6 S OUT DS vr=60 ir=3
C3 OUT OUT- 1000u vr=16 esr=0.03
R2 OUT OUT- 1k
CY1 HV- OUT- 1n mark=Y1
XJ2 OUT OUT- CONN
RX OK OUT- 10
.model DD D(IS=5n N=1.75 BV=1000)
.model DZ D(IS=1e-13 N=1.1 BV=11)
.model DS D(IS=3e-7 N=1.05 BV=60)`,
  pass: `linear with pass transistor
XJ1 A B CONN
XF1 A LF FUSE ir=1 vr=250
LT1 LF B 20 dcr=100
LT2 S1 S2 0.1
K1 LT1 LT2 0.99
XBD1 S1 S2 RAW GND BRIDGE
C1 RAW GND 2200u vr=35 esr=0.05
Q1 RAW B1 OUT QN vr=60 ir=3
R1 RAW B1 470
DZ1 GND B1 DZ pr=1 vr=13
C2 OUT GND 100u vr=25 esr=0.2
XJ2 OUT GND CONN
.model QN NPN()
.model DZ D(BV=13)`,
  ih: `induction single switch resonant
XJ1 L N CONN
XF1 L LF FUSE ir=12 vr=250
XBD1 LF N P HV- BRIDGE vr=600
L1 P HV+ 300u ir=12
C1 HV+ HV- 5u vr=400
XJ2 HV+ SW CONN mark=COIL
LC1 HV+ SW 80u
C2 HV+ SW 270n vr=1200
M1 SW G HV- IG vr=1200 ir=25
R1 DRV G 10
R2 G HV- 10k
XU1 HV- DRV VCC SNS CHIP
C3 VCC HV- 47u vr=25 esr=0.5
R3 P VCC 100k
R4 SW SNS 1MEG
R5 SNS HV- 10k
.model IG NMOS(IGBT=1)`,
  pchan: `buck p channel
XJ1 VIN GND CONN mark=24V
XF1 VIN VB FUSE
C1 VB GND 220u vr=50 esr=0.1
M1 SW G VB PP vr=60 ir=10
R1 VB G 1k
Q1 G BQ GND QN
R2 DRV BQ 1k
D1 GND SW DS vr=60 ir=5
L1 SW OUT 33u ir=5
C2 OUT GND 470u vr=16 esr=0.05
XU1 GND FB VB DRV RT CHIP
R3 OUT FB 10k
R4 FB GND 3.3k
R5 RT GND 10k
XJ2 OUT GND CONN
.model PP PMOS()
.model QN NPN()
.model DS D(IS=3e-7 N=1.05 BV=60)`,
};

const WANTED: Readonly<Record<string, { topology: string; stages: Readonly<Record<string, string>>; pins?: string }>> =
  {
    // The switch at ground, the load between supply and choke.
    led: {
      topology: 'buck',
      stages: { L1: 'output-filter', D1: 'output-rectifier', R1: 'current-sense', R2: 'startup' },
      pins: 'GND GATE VCC CS',
    },
    // Bipolar switches, a driver transformer with a tapped primary and two small transistors.
    at: {
      topology: 'half-bridge',
      stages: { Q1: 'switch', Q3: 'gate-drive', LT2P: 'gate-drive', C3: 'transformer', R8: 'feedback' },
      // The last has a capacitor and nothing else: compensation, for this controller has no other.
      pins: 'GATE GATE VCC GND FB NC RT RT COMP',
    },
    // Zener and opto without a reference, four diodes, the opto between supply and feedback pin.
    zener: {
      topology: 'flyback',
      stages: { DZ1: 'feedback', C2: 'aux-supply', D5: 'aux-supply', CY1: 'barrier' },
      pins: 'GND VCC FB GND DRAIN DRAIN DRAIN DRAIN',
    },
    // A regulator of single parts behind a mains transformer.
    pass: { topology: 'linear', stages: { Q1: 'regulator', DZ1: 'regulator', J1: 'mains-input', LT1: 'transformer' } },
    // One switch on a resonant coil: no topology of the list.
    ih: { topology: 'unknown', stages: { C2: 'tank', M1: 'switch', L1: 'emi-filter', R3: 'startup' } },
    // A P-channel switch with a level shifter.
    pchan: {
      topology: 'buck',
      stages: { M1: 'switch', Q1: 'gate-drive', R1: 'gate-drive', D1: 'output-rectifier', R3: 'feedback' },
      pins: 'GND FB VIN GATE RT',
    },
  };

test.each(Object.keys(WANTED))('a board of another kind: %s', (name) => {
  const read = readNetlist(OTHERS[name]!);
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  const map = recogniseStages(read.value.board);
  const wanted = WANTED[name]!;
  expect(map.topology).toBe(wanted.topology);
  const found = Object.fromEntries(map.stages.flatMap((s) => s.parts.map((p) => [p, s.kind])));
  expect(Object.fromEntries(Object.keys(wanted.stages).map((ref) => [ref, found[ref]]))).toEqual(wanted.stages);
  if (wanted.pins !== undefined) expect(map.pins['U1']!.map((p) => p.role).join(' ')).toBe(wanted.pins);
});
