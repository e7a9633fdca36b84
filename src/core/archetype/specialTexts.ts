/*
 * Typical circuits of the rarer kinds: high voltage, traction, ac switch, sensed at the primary. Generic values, nobody's
 * boards; headings name the stage.
 */

/** Offline flyback with an integrated switch, sensed at its auxiliary winding, its rectifier in the return. */
export const PRIMARY_SENSED_FLYBACK_TEXT = `Typical offline flyback sensed at its auxiliary winding
* --- mains-input
XJ1 L N CONN
R0 L N1 10 pr=2 fusible=yes
* --- rectifier
D1 N1 A1 DSTD
D2 A2 N1 DSTD
D3 N A1 DSTD
D4 A2 N DSTD
* --- bulk
C1 A1 A2 10u vr=400 esr=2
* --- startup
R2 A1 VC 2MEG
* --- controller
XU1 VC FB A2 DR CS DR SW6
* --- current-sense
R1 CS A2 1.5
* --- clamp
D6 DR K1N DFAST
R5 K1N A1 100k
C3 K1N A1 1n vr=1000
* --- transformer
LT1P A1 DR 2m
LT1S SN OUT 40u
LT1A A2 AX 160u
K1 LT1P LT1S 0.98
K2 LT1P LT1A 0.98
* --- aux-supply
D5 AX VC DSIG
C2 VC A2 10u vr=50 esr=1
* --- output-rectifier
D7 GND SN DSCH
* --- output-filter
C4 OUT GND 680u vr=10 esr=0.04
* --- discharge
R6 OUT GND 1k
* --- feedback
R3 AX FB 16.2k
R4 FB A2 5k
* --- connector
XJ2 OUT GND CONN
.subckt SW6 1 2 3 4 5 6
D1 3 1 DIN
D2 3 2 DIN
D4 3 4 DIN
D5 3 5 DIN
D6 3 6 DIN
RV 1 3 45k
.ends
`;

/** Half bridge into a voltage multiplier. */
export const HIGH_VOLTAGE_TEXT = `Typical high-voltage multiplier behind a half bridge
* --- mains-input
XJ1 L N CONN
XF1 L N1 FUSE ir=4 vr=250
* --- rectifier
XBD1 N1 N HV+ HV- BRIDGE vr=600
* --- bulk
C1 HV+ MID 220uF vr=200 esr=0.2
C2 MID HV- 220uF vr=200 esr=0.2
R1 HV+ MID 100k
R2 MID HV- 100k
* --- startup
R10 HV+ VCC 100k pr=2
* --- controller
XU2 VCC HV- HIN LIN RT FB PWM
R9 RT HV- 15k
* --- gate-drive
XU1 VCC HIN LIN HV- LO SW HO VB HALFDRV
D5 VCC VB DFAST vr=600
C7 VB SW 1u vr=25
R5 HO G1 22
R6 LO G2 22
R7 G1 SW 10k
R8 G2 HV- 10k
* --- switch
M1 HV+ G1 SW NHV vr=500 ir=10
M2 SW G2 HV- NHV vr=500 ir=10
* --- transformer
C9 SW PA 1u vr=400
LT1P PA MID 2mH
LT1S HA HG 800mH
KT1 LT1P LT1S 0.98
* --- aux-supply
LT1A AUX HV- 20u
KT2 LT1P LT1A 0.97
KT3 LT1S LT1A 0.96
D6 AUX VCC DFAST vr=200
C8 VCC HV- 47u vr=25 esr=0.5
* --- multiplier
C11 HA K1 2.2n vr=10000
D11 HG K1 DHV vr=12000
D12 K1 K2 DHV vr=12000
C12 HG K2 2.2n vr=10000
C13 K1 K3 2.2n vr=10000
D13 K2 K3 DHV vr=12000
D14 K3 OUT DHV vr=12000
C14 K2 OUT 2.2n vr=10000
* --- sensing
R20 OUT XX 100MEG
R21 XX HG 100k
R22 XX FBX 1k
XOK OA HG FB HV- OPTO
R23 OA FBX 1k
* --- connector
XJ2 OUT HG CONN
.model DHV D(IS=5n N=1.9 BV=12000)
.subckt PWM 1 2 3 4 5 6
D1 2 1 DIN
D3 2 3 DIN
D4 2 4 DIN
D5 2 5 DIN
D6 2 6 DIN
RV 1 2 45k
.ends
`;

/** Triac with a capacitive dropper and a processor. */
export const PHASE_CONTROL_TEXT = `Typical phase control of a motor
* --- mains-input
XJ1 L N CONN mark=MAINS
XF1 L LF FUSE ir=6 vr=250
XJ2 LOUT N CONN mark=MOTOR
* --- surge
XRV1 LF N MOV vr=300
* --- emi-filter
C1 LF N 100n vr=310 mark=X2
L1 LF T2 100u ir=6
* --- controller
XU2 VDD GND ZC POT TMP OUTT LEDX NC MCUPH8
C6 POT GND 100n
* --- gate-drive
XOK1 LDA LDK T2B G OPTO
R2 T2 T2B 180
R3 G LOUT 330
R10 VDD LDA 330
Q1 LDK QB GND QNPN
R11 OUTT QB 2.2k
* --- switch
XTR1 T2 LOUT G TRIAC rg=100 vr=600 ir=16
* --- clamp
R1 T2 SN 100
C2 SN LOUT 47n vr=400
* --- aux-supply
C3 LF DR 470n vr=310 mark=X2
R4 LF DR 470k
R5 DR DX 47 pr=1
DZ1 GND DX DZ12
D1 DX VDC DSIG
D3 ZC VDD DSIG
* --- regulator
C4 VDC GND 470u vr=25 esr=0.5
XU1 VDC GND VDD REG3
C5 VDD GND 47u vr=16 esr=0.6
* --- sensing
R7 LF ZCA 470k
R8 ZCA ZC 470k
D2 GND ZC DSIG
XRT1 TMP GND NTC r25=10k
R9 VDD TMP 10k
* --- indicator
R12 LEDX LE 1k
DL1 LE GND DLED
* --- connector
R6 N GND 0.01
XJ3 VDD POT GND CONN mark=POT
.subckt MCUPH8 1 2 3 4 5 6 7 8
D1 2 1 DIN
D3 2 3 DIN
D4 2 4 DIN
D5 2 5 DIN
D6 2 6 DIN
D7 2 7 DIN
RV 1 2 45k
.ends
`;
