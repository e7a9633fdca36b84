/*
 * Typical low-voltage converters and linear supplies. Generic values, nobody's boards; headings name the stage.
 */

/** Synchronous buck with outside transistors. */
export const SYNCHRONOUS_BUCK_TEXT = `Typical synchronous buck module
* --- connector
XJ1 VIN GND CONN mark="DC IN"
XJ2 OUT GND CONN mark="DC OUT"
* --- bulk
C1 VIN GND 220uF vr=35 esr=0.08
C2 VIN GND 10uF vr=50 esr=0.004
* --- controller
XU1 VIN RT COMP FB GND LO VCC SW HO BST SYNC10
C3 VCC GND 2.2uF vr=16
R1 RT GND 51k pr=0.125
R2 COMP CPX 12k pr=0.125
C4 CPX GND 2.2nF vr=50
* --- gate-drive
D1 VCC BST DSCH vr=40 ir=1
C5 BST SW 100nF vr=50
R3 HO GH 2.2 pr=0.125
R4 LO GL 2.2 pr=0.125
* --- switch
M1 VIN GH SW NLV vr=40 ir=30
M2 SW GL GND NLV vr=40 ir=30
* --- output-filter
L1 SW OUT 4.7uH dcr=0.01 ir=12
C6 OUT GND 470uF vr=10 esr=0.02
C7 OUT GND 22uF vr=10 esr=0.003
* --- feedback
R5 OUT FB 10k pr=0.125
R6 FB GND 3.16k pr=0.125
C8 OUT FB 100pF vr=50
* --- indicator
R7 OUT LEDA 1k pr=0.125
DLED1 LEDA GND DLED
.subckt SYNC10 1 2 3 4 5 6 7 8 9 10
D1 5 1 DIN
D2 5 2 DIN
D3 5 3 DIN
D4 5 4 DIN
D6 5 6 DDRV
D6H 6 7 DDRV
D7 5 7 DIN
D7P 7 1 DIN
D8 5 8 DIN
D9 8 9 DDRV
D9H 9 10 DDRV
R1 1 5 200k
R7 7 5 45k
R10 10 8 90k
.ends
`;

/** Boost module with its switch inside. */
export const BOOST_TEXT = `Typical boost module
* --- connector
XJ1 VIN GND CONN mark="3.7V"
XJ2 OUT GND CONN mark="DC OUT"
* --- protection
XF1 VIN VB FUSE ir=3 vr=63
* --- bulk
C1 VB GND 22uF vr=10 esr=0.004
* --- switch
L1 VB SW 10uH dcr=0.05 ir=3
* --- controller
XU1 SW GND FB EN VB NC BOOST6
* --- sensing
R1 VB EN 100k pr=0.125
* --- output-rectifier
D1 SW OUT DSCH vr=40 ir=3
* --- output-filter
C2 OUT GND 22uF vr=25 esr=0.004
C3 OUT GND 100uF vr=25 esr=0.1
* --- feedback
R2 OUT FB 91k pr=0.125
R3 FB GND 10k pr=0.125
C4 OUT FB 22pF vr=50
* --- indicator
R4 OUT LEDA 4.7k pr=0.125
DLED1 LEDA GND DLED
`;

/** Inverting buck-boost. */
export const BUCK_BOOST_TEXT = `Typical inverting converter
* --- connector
XJ1 VIN GND CONN mark="12V"
XJ2 NEG GND CONN mark="-12V OUT"
* --- protection
XF1 VIN VF FUSE ir=2 vr=63
D1 VF VB DSCH vr=40 ir=3
* --- bulk
C1 VB GND 220uF vr=35 esr=0.1
* --- controller
XU1 GND FB RT VB GATE INV5
R1 RT GND 33k pr=0.125
* --- gate-drive
R2 GATE G 22 pr=0.125
R3 VB G 10k pr=0.125
* --- switch
M1 SW G VB PLV vr=60 ir=10
* --- output-rectifier
D2 NEG SW DSCH vr=100 ir=5
* --- output-filter
L1 SW GND 47uH dcr=0.05 ir=4
C2 GND NEG 470uF vr=25 esr=0.05
* --- feedback
R4 FB NEG 43k pr=0.125
R5 FB GND 5.1k pr=0.125
* --- discharge
R6 GND NEG 4.7k pr=0.25
.subckt INV5 1 2 3 4 5
D2 1 2 DIN
D3 1 3 DIN
D4 1 4 DIN
D5 1 5 DDRV
D5H 5 4 DDRV
R4 4 1 70k
.ends
.model PLV PMOS(VTO=-3 KP=10 RON=0.05 BODYIS=3n BODYN=1.6)
`;

/** Linear supply behind a mains transformer. */
export const LINEAR_TEXT = `Typical linear supply
* --- mains-input
XJ1 L N CONN mark="AC IN"
XF1 L LF FUSE ir=0.5 vr=250 mark="T500mAL250V"
* --- transformer
LT1P LF N 20 dcr=120 pkg=T1
LT1S AC1 AC2 0.1 dcr=0.6 pkg=T1
KT1 LT1P LT1S 0.99
* --- output-rectifier
XBD1 AC1 AC2 RAW GND BRIDGE vr=100 ir=2
* --- output-filter
C1 RAW GND 2200uF vr=35 esr=0.05
* --- regulator
XU1 RAW GND OUT REG3 vr=35 ir=1 mark=7812
C2 RAW GND 330nF vr=50
C3 OUT GND 100nF vr=50
C4 OUT GND 100uF vr=25 esr=0.2
* --- indicator
R1 OUT LEDA 2.2k pr=0.25
DLED1 LEDA GND DLED
* --- connector
XJ2 OUT GND CONN mark="12V OUT"
`;

/** Blocking oscillator that charges a pulse capacitor. */
export const BLOCKING_OSCILLATOR_TEXT = `Typical blocking oscillator for a flash capacitor
* --- connector
XJ1 BAT+ GND CONN mark="6V"
XJ2 HV+ GND CONN mark="FLASH"
* --- protection
XF1 BAT+ VB FUSE ir=3 vr=63
* --- bulk
C1 VB GND 220uF vr=16 esr=0.1
* --- startup
R1 VB BASE 2.2k pr=0.25
* --- gate-drive
R2 FBW FBX 100 pr=0.5
C2 FBX BASE 470nF vr=63
* --- switch
Q1 COL BASE GND QHV vr=80 ir=5
* --- transformer
LT1P VB COL 100uH dcr=0.1 pkg=T1
LT1F FBW GND 10uH dcr=0.1 pkg=T1
LT1S GND HVS 60mH dcr=120 pkg=T1
KT1A LT1P LT1F 0.97
KT1B LT1P LT1S 0.98
KT1C LT1F LT1S 0.96
* --- output-rectifier
D1 HVS HV+ DFAST vr=1000 ir=1
* --- bulk
C3 HV+ GND 100uF vr=350 esr=0.1
* --- indicator
R3 HV+ NEA 1.5MEG pr=0.5 vr=500
XNE1 NEA GND LAMP r=1MEG mark=NEON
`;
