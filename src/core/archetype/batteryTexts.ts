/*
 * Typical circuits around batteries: traction stage, solar charge controller. Generic values, nobody's boards; headings
 * name the stage.
 */

/** Boost leg and three-phase bridge of the same transistors, precharge, bleeder. */
export const TRACTION_TEXT = `Typical traction stage
* --- inrush
XRY1 12V RC B1 B2 RELAY rcoil=90 ir=60 vr=400
R1 B1 B2 33 pr=10
Q1 RC RB GND QNPN
R13 RB IS 1k
D9 RC 12V DSIG
* --- bulk
C1 B2 GND 470u vr=250 esr=0.1
* --- controller
XU5 5V GND AH AL UH UL VH VL WH WL VBS IS MCU
* --- gate-drive
XU1 12V AH AL GND LA SWB HA VBA HALFDRV
D1 12V VBA DFAST
C3 VBA SWB 2.2u vr=25
R3 HA GA1 10
R4 LA GA2 10
R30 GA2 GND 10k
XU2 12V UH UL GND LU U HU VBU HALFDRV
D2 12V VBU DFAST
C4 VBU U 2.2u vr=25
R5 HU GU1 10
R6 LU GU2 10
XU3 12V VH VL GND LV V HV VBV HALFDRV
D3 12V VBV DFAST
C5 VBV V 2.2u vr=25
R7 HV GV1 10
R8 LV GV2 10
XU4 12V WH WL GND LW W HW VBW HALFDRV
D4 12V VBW DFAST
C6 VBW W 2.2u vr=25
R9 HW GW1 10
R10 LW GW2 10
* --- switch
L1 B2 SWB 220uH dcr=0.02 ir=80
M1 BUS GA1 SWB IG vr=650 ir=120
M2 SWB GA2 GND IG vr=650 ir=120
* --- aux-supply
C9 12V GND 220u vr=25 esr=0.2
* --- output-filter
C2 BUS GND 1000u vr=500 esr=0.05
* --- regulator
C8 5V GND 10u vr=16 esr=0.5
XU6 12V GND 5V REG3
* --- inverter-bridge
M3 BUS GU1 U IG vr=650 ir=120
M4 U GU2 GND IG vr=650 ir=120
M5 BUS GV1 V IG vr=650 ir=120
M6 V GV2 GND IG vr=650 ir=120
M7 BUS GW1 W IG vr=650 ir=120
M8 W GW2 GND IG vr=650 ir=120
* --- discharge
R2 BUS GND 47k pr=5
* --- sensing
R11 BUS VBS 470k
R12 VBS GND 5.1k
C7 VBS GND 100n
* --- protection
XF1 BAT+ B1 FUSE ir=60 vr=400
* --- connector
XJ1 BAT+ BAT- CONN mark="200V BATT"
R50 BAT- GND 0.0005
XJ2 U V W CONN mark=MOTOR
XJ3 12V GND CONN mark="12V AUX"
.model IG NMOS(VTO=5 KP=20 IGBT=1)
.subckt MCU 1 2 3 4 5 6 7 8 9 10 11 12
D1 2 1 DIN
D3 2 3 DIN
D4 2 4 DIN
D5 2 5 DIN
D6 2 6 DIN
D7 2 7 DIN
D8 2 8 DIN
D9 2 9 DIN
D10 2 10 DIN
D11 2 11 DIN
D12 2 12 DIN
RV 1 2 45k
.ends
`;

/** Synchronous buck from a panel to a battery, back-to-back switches, processor. */
export const SOLAR_CHARGER_TEXT = `Typical solar charge controller
* --- bulk
C1 VP GND 470u vr=100 esr=0.05
C2 VP GND 2.2u vr=100
* --- startup
R17 VDD TS 10k
* --- controller
C5 IO GND 100n
R16 BSN GND 4.7k
C7 BSN GND 100n
XU3 VDD GND HI LI VS BSN IO TS L1X L2X LCD1 LCD2 GDBX NC MCU14
C8 TS GND 100n
XU4 VP BST5 SWA GND FB5 EN5 BUCK6
R24 VP EN5 470k
R25 EN5 GND 47k
* --- gate-drive
XU1 V12 HI LI GND LO SW HO VB HALFDRV
D2 V12 VB DFAST
C3 VB SW 470n vr=25
R2 HO GH 10
R3 LO GL 10
R4 GL GND 10k
C10 BST5 SWA 100n
* --- switch
M2 VP GH SW NLV vr=100 ir=80
M3 SW GL GND NLV vr=100 ir=80
* --- output-rectifier
D4 GND SWA DSCH
* --- output-filter
L1 SW VL 47u ir=25
R5 VL VBO 0.002 pr=2
C4 VBO GND 470u vr=63 esr=0.05
D3 V12 VBB DFAST
C9 VBB VBO 1u vr=50
L2 SWA V12 100u
C11 V12 GND 100u vr=25 esr=0.2
* --- regulator
XU5 V12 GND VDD REG3
C12 VDD GND 10u vr=10 esr=0.5
C13 VDD GND 100n
* --- feedback
R22 V12 FB5 30k
R23 FB5 GND 3.3k
* --- sensing
XU2 IO IM IP GND VDD AMPC
R9 VL IP 1k
R10 VBO IM 1k
R11 IM IO 49.9k
R12 IP GND 49.9k
R13 VP VS 100k
R14 VS GND 4.7k
C6 VS GND 100n
XRT1 TS GND NTC r25=10k
* --- protection
XF1 PV+ P1 FUSE ir=20
DT1 PV- P1 DTVP vr=68
M1 VP GR P1 NLV vr=100 ir=80
R1 GR P1 100k
M4 VBO GB BS NLV vr=100 ir=80
M5 BAT GB BS NLV vr=100 ir=80
R6 GB BS 100k
R7 GDB GB 1k
XF2 BAT B1 FUSE ir=30
R15 BAT BSN 47k
Q1 QC GDBX GND QNPN
R20 QC GDB 10k
R21 VBB GDB 10k
* --- indicator
R18 L1X LA 470
DL1 LA GND DLED
R19 L2X LB 470
DL2 LB GND DLED
* --- connector
XJ1 PV+ PV- CONN mark="PV"
XJ2 B1 GND CONN mark="BATT 12/24V"
R8 PV- GND 0.002
XJ3 VDD LCD1 LCD2 GND CONN mark=LCD
.model DTVP D(IS=2e-14 N=1.1 RS=0.1 BV=75 IBV=1m CJO=400p)
.subckt AMPC 1 2 3 4 5
D1 4 1 DIN
D2 4 2 DIN
D3 4 3 DIN
D5 4 5 DIN
RV 5 4 45k
.ends
.subckt MCU14 1 2 3 4 5 6 7 8 9 10 11 12 13 14
D1 2 1 DIN
D3 2 3 DIN
D4 2 4 DIN
D5 2 5 DIN
D6 2 6 DIN
D7 2 7 DIN
D8 2 8 DIN
D9 2 9 DIN
D10 2 10 DIN
D11 2 11 DIN
D12 2 12 DIN
D13 2 13 DIN
RV 1 2 45k
.ends
.subckt BUCK6 1 2 3 4 5 6
D1 4 1 DIN
D2 4 2 DIN
D3 4 3 DIN
D5 4 5 DIN
D6 4 6 DIN
RV 1 4 45k
.ends
`;
