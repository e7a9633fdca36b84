/*
 * Typical push-pull stages, bridges and inverters, and a solid-state relay. Generic values, nobody's boards.
 */

/** Push-pull step-up from a battery to a high-voltage rail. */
export const PUSH_PULL_TEXT = `Typical push-pull step-up from a battery
* --- connector
XJ1 BAT+ GND CONN mark="12V"
XJ2 HV+ HV- CONN mark="HV DC"
* --- protection
XF1 BAT+ VB FUSE ir=40 vr=32
D1 GND VB DSTD vr=100 ir=40
* --- bulk
C1 VB GND 2200uF vr=25 esr=0.01
C2 VB GND 2200uF vr=25 esr=0.01
* --- aux-supply
R1 VB VCC 10 pr=1
C3 VCC GND 100uF vr=25 esr=0.2
* --- controller
XU1 GND FB COMP RT CS DRA DRB VCC PWM8
R2 RT GND 15k pr=0.125
* --- feedback
R3 COMP CPX 22k pr=0.125
C4 CPX FB 10nF vr=50
* --- gate-drive
R4 DRA GA 10 pr=0.25
R5 DRB GB 10 pr=0.25
R6 GA GND 10k pr=0.125
R7 GB GND 10k pr=0.125
* --- switch
M1 DA GA SRC NLV vr=60 ir=80
M2 DB GB SRC NLV vr=60 ir=80
* --- current-sense
R8 SRC GND 0.002 pr=3
R9 SRC CS 1k pr=0.125
C5 CS GND 1nF vr=50
* --- transformer
LT1A VB DA 14uH dcr=0.001 pkg=T1
LT1B DB VB 14uH dcr=0.001 pkg=T1
LT1S SA SB 30mH dcr=0.4 pkg=T1
KT1A LT1A LT1S 0.99
KT1B LT1B LT1S 0.99
KT1C LT1A LT1B 0.99
* --- output-rectifier
D2 SA HVR DULTRA vr=600 ir=5
D3 SB HVR DULTRA vr=600 ir=5
D4 HV- SA DULTRA vr=600 ir=5
D5 HV- SB DULTRA vr=600 ir=5
* --- output-filter
LO1 HVR HV+ 1.5mH dcr=0.3 ir=3
C6 HV+ HV- 100uF vr=450 esr=0.4
* --- discharge
R10 HV+ HV- 330k pr=1 vr=500
* --- feedback
R11 HV+ OPH 100k pr=1 vr=350
XU2 OPA OPK FB GND OPTO ctr=1.0
R12 OPH OPA 100k pr=1 vr=350
DZ1 HV- OPK DZ12 pr=0.5 vr=12
`;

/** Full-bridge converter from a high-voltage bus, with two bridge drivers. */
export const FULL_BRIDGE_TEXT = `Typical full-bridge converter from a DC bus
* --- connector
XJ1 BUS+ HV- CONN mark="360V DC"
XJ2 OUT+ OUT- CONN mark="48V OUT"
* --- protection
XF1 BUS+ HV+ FUSE ir=6.3 vr=500
* --- bulk
C1 HV+ HV- 220uF vr=450 esr=0.25
* --- startup
R1 HV+ VCC 150k pr=1 vr=500
* --- aux-supply
D1 AUX VCC DFAST vr=200 ir=1
C2 VCC HV- 47uF vr=35 esr=0.6
* --- controller
XU1 HV- FB COMP RT CS PA PB VCC PWM8
R2 RT HV- 12k pr=0.125
R3 COMP CPX 22k pr=0.125
C3 CPX HV- 10nF vr=50
* --- gate-drive
XU2 VCC PA PB HV- LOA SWA HOA BSTA HALFDRV
XU3 VCC PB PA HV- LOB SWB HOB BSTB HALFDRV
D2 VCC BSTA DFAST vr=600 ir=1
D3 VCC BSTB DFAST vr=600 ir=1
C4 BSTA SWA 1uF vr=25
C5 BSTB SWB 1uF vr=25
R4 HOA GHA 15 pr=0.25
R5 LOA GLA 15 pr=0.25
R6 HOB GHB 15 pr=0.25
R7 LOB GLB 15 pr=0.25
* --- switch
M1 HV+ GHA SWA NHV vr=500 ir=14
M2 SWA GLA BRN NHV vr=500 ir=14
M3 HV+ GHB SWB NHV vr=500 ir=14
M4 SWB GLB BRN NHV vr=500 ir=14
* --- current-sense
R8 BRN HV- 0.05 pr=3
R9 BRN CS 1k pr=0.125
C6 CS HV- 470pF vr=50
* --- transformer
C7 SWA PBK 2.2uF vr=250
LT1P PBK SWB 4mH dcr=0.15 pkg=T1
LT1A SA OUT- 120uH dcr=0.01 pkg=T1
LT1B OUT- SB 120uH dcr=0.01 pkg=T1
LT1X AUX HV- 8uH dcr=0.3 pkg=T1
KT1A LT1P LT1A 0.99
KT1B LT1P LT1B 0.99
KT1C LT1A LT1B 0.99
KT1D LT1P LT1X 0.98
KT1E LT1A LT1X 0.98
KT1F LT1B LT1X 0.98
* --- output-rectifier
D4 SA VR DULTRA vr=200 ir=30
D5 SB VR DULTRA vr=200 ir=30
* --- output-filter
LO1 VR OUT+ 40uH dcr=0.01 ir=15
C8 OUT+ OUT- 1000uF vr=63 esr=0.03
* --- discharge
R10 OUT+ OUT- 3.3k pr=2
* --- feedback
R11 OUT+ OPA 4.7k pr=0.5
XU4 OPA OPK FB HV- OPTO ctr=1.0
XU5 REF OUT- OPK SHUNTREF vref=2.495
R12 OUT+ REF 45.3k pr=0.125
R13 REF OUT- 2.49k pr=0.125
C9 OPK REF 100nF vr=50
* --- barrier
CY1 HV- OUT- 2.2nF vr=400 mark="222M Y1 400~"
`;

/** Self-oscillating resonant push-pull. */
export const ROYER_TEXT = `Typical resonant push-pull oscillator
* --- connector
XJ1 VIN GND CONN mark="12V"
XJ2 HVO GND CONN mark="TUBE"
* --- protection
XF1 VIN VB FUSE ir=3 vr=63
* --- bulk
C1 VB GND 220uF vr=25 esr=0.1
* --- emi-filter
L1 VB CT 100uH dcr=0.1 ir=3
* --- startup
R1 VB BA 1k pr=0.25
R2 VB BB 1k pr=0.25
* --- switch
Q1 CA BA GND QHV vr=60 ir=5
Q2 CB BB GND QHV vr=60 ir=5
* --- tank
C2 CA CB 220nF vr=250
* --- transformer
LT1A CT CA 20uH dcr=0.05 pkg=T1
LT1B CB CT 20uH dcr=0.05 pkg=T1
LT1F BA BB 1uH dcr=0.05 pkg=T1
LT1S HVA GND 200mH dcr=200 pkg=T1
KT1A LT1A LT1B 0.99
KT1B LT1A LT1F 0.97
KT1C LT1A LT1S 0.97
KT1D LT1B LT1F 0.97
KT1E LT1B LT1S 0.97
KT1F LT1F LT1S 0.96
* --- output-filter
C3 HVA HVO 33pF vr=3000
`;

/** Battery inverter with a line-frequency transformer. */
export const LINE_FREQUENCY_INVERTER_TEXT = `Typical inverter with a line-frequency transformer
* --- connector
XJ1 BAT+ GND CONN mark="24V"
XJ2 ACO ACN CONN mark="230V~"
* --- protection
XF1 BAT+ VB FUSE ir=40 vr=32
XF2 ACL ACO FUSE ir=3 vr=250
* --- bulk
C1 VB GND 4700uF vr=50 esr=0.01
* --- aux-supply
R1 VB VCC 47 pr=1
DZ1 GND VCC DZ12 pr=1.3 vr=12
C2 VCC GND 100uF vr=25 esr=0.2
* --- controller
XU1 VCC SNS RT NC NC DRA DRB GND MCU8
R2 RT GND 18k pr=0.125
* --- gate-drive
R3 DRA GA 22 pr=0.25
R4 DRB GB 22 pr=0.25
R5 GA GND 10k pr=0.125
R6 GB GND 10k pr=0.125
* --- switch
M1 DA GA GND NLV vr=100 ir=60
M2 DB GB GND NLV vr=100 ir=60
* --- sensing
R7 VB SNS 33k pr=0.125
R8 SNS GND 4.7k pr=0.125
* --- transformer
LT1A VB DA 5mH dcr=0.01 pkg=T1
LT1B DB VB 5mH dcr=0.01 pkg=T1
LT1S ACL ACN 0.8 dcr=1.5 pkg=T1
KT1A LT1A LT1S 0.99
KT1B LT1B LT1S 0.99
KT1C LT1A LT1B 0.99
`;

/** Three-phase bridge for a pump motor. */
export const THREE_PHASE_TEXT = `Typical three-phase bridge for a motor
* --- connector
XJ1 DC+ GND CONN mark="48V"
XJ2 U V W CONN mark="MOTOR"
* --- protection
XF1 DC+ VB FUSE ir=30 vr=80
* --- bulk
C1 VB GND 1000uF vr=63 esr=0.03
* --- aux-supply
R1 VB VCC 1k pr=3
DZ1 GND VCC DZ12 pr=1.3 vr=12
C2 VCC GND 100uF vr=25 esr=0.2
* --- controller
XU4 VCC CS H1 H2 H3 L1 L2 GND MCU8
* --- gate-drive
XU1 VCC H1 L1 GND LOU U HOU BSU HALFDRV
XU2 VCC H2 L2 GND LOV V HOV BSV HALFDRV
XU3 VCC H3 L1 GND LOW W HOW BSW HALFDRV
D1 VCC BSU DFAST vr=200 ir=1
D2 VCC BSV DFAST vr=200 ir=1
D3 VCC BSW DFAST vr=200 ir=1
C3 BSU U 1uF vr=25
C4 BSV V 1uF vr=25
C5 BSW W 1uF vr=25
R2 HOU GHU 22 pr=0.25
R3 LOU GLU 22 pr=0.25
R4 HOV GHV 22 pr=0.25
R5 LOV GLV 22 pr=0.25
R6 HOW GHW 22 pr=0.25
R7 LOW GLW 22 pr=0.25
* --- inverter-bridge
M1 VB GHU U NLV vr=100 ir=60
M2 U GLU BRN NLV vr=100 ir=60
M3 VB GHV V NLV vr=100 ir=60
M4 V GLV BRN NLV vr=100 ir=60
M5 VB GHW W NLV vr=100 ir=60
M6 W GLW BRN NLV vr=100 ir=60
* --- current-sense
R8 BRN GND 0.005 pr=3
R9 BRN CS 1k pr=0.125
C6 CS GND 1nF vr=50
`;

/** Solid-state relay with an opto-fired triac. */
export const SOLID_STATE_RELAY_TEXT = `Typical solid-state relay
* --- connector
XJ1 IN+ IN- CONN mark="4-32V DC"
XJ2 L LOAD CONN mark="LOAD 240~"
* --- controller
R1 IN+ OPA 1k pr=0.5
D1 IN- OPA DSIG vr=100 ir=0.2
XU1 OPA IN- TA TB OPTRIAC
* --- gate-drive
R2 L TA 180 pr=0.5
R3 TB LOAD 330 pr=0.25
* --- switch
XTR1 L LOAD TB TRIAC rg=100 vr=600 ir=25
* --- clamp
R4 L SNB 39 pr=2
C1 SNB LOAD 47nF vr=310
* --- surge
XRV1 L LOAD MOV vr=275 mark="10D431K"
`;
