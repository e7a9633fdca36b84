/*
 * Typical offline supplies. Generic values, nobody's boards; headings name the stage of the lines under them.
 */

/** Single-switch forward with reset winding, opto feedback, 12 V. */
export const FORWARD_TEXT = `Typical forward supply
* --- mains-input
XJ1 L N CONN mark="AC IN"
XF1 L LF FUSE ir=4 vr=250 mark="T4AH250V"
* --- surge
XRV1 LF N MOV vr=300 mark="10D471K"
* --- emi-filter
CX1 LF N 0.22uF vr=310 mark=".22uF X2 310~"
RX1 LF N 470k pr=0.5 vr=350
LCM1A LF LX 8mH dcr=0.2
LCM1B N NX 8mH dcr=0.2
KCM1 LCM1A LCM1B 0.99
* --- inrush
XRT1 LX LR NTC r25=5 ir=5 mark="5D-15"
* --- rectifier
XBD1 LR NX HV+ HV- BRIDGE vr=600 ir=6
* --- bulk
C1 HV+ HV- 220uF vr=400 esr=0.3 mark="220uF 400V"
* --- startup
R1 HV+ VCC 220k pr=1 vr=500
* --- controller
XU1 HV- FB RT CS VCC GATE PWM6
R2 RT HV- 12k pr=0.125
* --- gate-drive
R3 GATE G 15 pr=0.25
R4 G HV- 10k pr=0.125
* --- switch
M1 DRAIN G SRC NHV vr=800 ir=9
* --- current-sense
R5 SRC HV- 0.22 pr=2
R6 SRC CS 1k pr=0.125
C2 CS HV- 470pF vr=50
* --- clamp
D1 HV- RST DFAST vr=1000 ir=1
C3 DRAIN SNB 1nF vr=1000
R7 SNB HV- 47 pr=2
* --- transformer
LT1P HV+ DRAIN 4mH dcr=0.3 pkg=T1
LT1R RST HV+ 4mH dcr=0.6 pkg=T1
LT1S SEC OUT- 50uH dcr=0.01 pkg=T1
LT1A AUX HV- 12uH dcr=0.2 pkg=T1
KT1A LT1P LT1R 0.99
KT1B LT1P LT1S 0.99
KT1C LT1P LT1A 0.98
KT1D LT1S LT1A 0.98
KT1E LT1R LT1S 0.98
KT1F LT1R LT1A 0.98
* --- aux-supply
D2 AUX VCC DFAST vr=200 ir=1
C4 VCC HV- 47uF vr=35 esr=0.7
* --- output-rectifier
D3 SEC VR DSCH vr=100 ir=20
D4 OUT- VR DSCH vr=100 ir=20
* --- output-filter
LO1 VR OUT+ 30uH dcr=0.01 ir=15
C5 OUT+ OUT- 2200uF vr=16 esr=0.02
C6 OUT+ OUT- 2200uF vr=16 esr=0.02
* --- discharge
R8 OUT+ OUT- 220 pr=1
* --- feedback
R9 OUT+ OPA 470 pr=0.25
XU2 OPA OPK FB HV- OPTO ctr=1.0
XU3 REF OUT- OPK SHUNTREF vref=2.495
R10 OUT+ REF 9.53k pr=0.125
R11 REF OUT- 2.49k pr=0.125
C7 OPK REF 100nF vr=50
C8 FB HV- 1nF vr=50
* --- barrier
CY1 HV- OUT- 2.2nF vr=400 mark="222M Y1 400~"
* --- connector
XJ2 OUT+ OUT- CONN mark="12V OUT"
`;

/** Two-switch forward with gate transformer, 24 V charger size. */
export const TWO_SWITCH_FORWARD_TEXT = `Typical two-switch forward supply
* --- mains-input
XJ1 L N CONN mark="AC IN"
XF1 L LF FUSE ir=6.3 vr=250 mark="T6.3AH250V"
* --- emi-filter
CX1 LF N 0.47uF vr=310 mark=".47uF X2 310~"
LCM1A LF LX 4mH dcr=0.08
LCM1B N NX 4mH dcr=0.08
KCM1 LCM1A LCM1B 0.99
* --- inrush
XRT1 LX LR NTC r25=5 ir=6
* --- rectifier
XBD1 LR NX HV+ HV- BRIDGE vr=600 ir=8
* --- bulk
C1 HV+ HV- 330uF vr=400 esr=0.2
* --- startup
R1 HV+ ST 150k pr=0.5 vr=350
R2 ST VCC 150k pr=0.5 vr=350
* --- controller
XU1 HV- FB RT CS VCC GATE PWM6
R3 RT HV- 10k pr=0.125
* --- gate-drive
C2 GATE GP 1uF vr=50
LT2P GP HV- 500uH dcr=0.3
LT2H GDH SWH 500uH dcr=0.3
LT2L GDL HV- 500uH dcr=0.3
KT2A LT2P LT2H 0.99
KT2B LT2P LT2L 0.99
KT2C LT2H LT2L 0.99
R4 GDH GH 10 pr=0.25
R5 GDL GL 10 pr=0.25
R6 GH SWH 10k pr=0.125
R7 GL SRC 10k pr=0.125
* --- switch
M1 HV+ GH SWH NHV vr=500 ir=14
M2 SWL GL SRC NHV vr=500 ir=14
* --- clamp
D1 HV- SWH DULTRA vr=600 ir=3
D2 SWL HV+ DULTRA vr=600 ir=3
* --- current-sense
R8 SRC HV- 0.1 pr=3
R9 SRC CS 1k pr=0.125
C3 CS HV- 470pF vr=50
* --- transformer
LT1P SWH SWL 3mH dcr=0.15 pkg=T1
LT1S SEC OUT- 210uH dcr=0.008 pkg=T1
LT1A AUX HV- 10uH dcr=0.2 pkg=T1
KT1A LT1P LT1S 0.99
KT1B LT1P LT1A 0.98
KT1C LT1S LT1A 0.98
* --- aux-supply
D3 AUX VCC DFAST vr=200 ir=1
C4 VCC HV- 47uF vr=35 esr=0.7
* --- output-rectifier
D4 SEC VR DULTRA vr=200 ir=30
D5 OUT- VR DULTRA vr=200 ir=30
R10 SEC SN 10 pr=2
C5 SN OUT- 2.2nF vr=500
* --- output-filter
LO1 VR OUT+ 60uH dcr=0.01 ir=15
C6 OUT+ OUT- 2200uF vr=35 esr=0.02
* --- discharge
R11 OUT+ OUT- 1k pr=2
* --- feedback
R12 OUT+ OPA 2.2k pr=0.25
XU2 OPA OPK FB HV- OPTO ctr=1.0
XU3 REF OUT- OPK SHUNTREF vref=2.495
R13 OUT+ REF 26.1k pr=0.125
R14 REF OUT- 2.49k pr=0.125
C7 OPK REF 100nF vr=50
* --- barrier
CY1 HV- OUT- 2.2nF vr=400 mark="222M Y1 400~"
* --- connector
XJ2 OUT+ OUT- CONN mark="28V OUT"
`;

/** Half-bridge with capacitor midpoint and gate transformer. */
export const HALF_BRIDGE_TEXT = `Typical half-bridge supply
* --- mains-input
XJ1 L N CONN mark="AC IN"
XF1 L LF FUSE ir=5 vr=250 mark="T5AH250V"
* --- emi-filter
CX1 LF N 0.22uF vr=310 mark=".22uF X2 310~"
LCM1A LF LX 5mH dcr=0.1
LCM1B N NX 5mH dcr=0.1
KCM1 LCM1A LCM1B 0.99
* --- inrush
XRT1 LX LR NTC r25=5 ir=6
* --- rectifier
XBD1 LR NX HV+ HV- BRIDGE vr=600 ir=8
* --- bulk
C1 HV+ MID 470uF vr=200 esr=0.2
C2 MID HV- 470uF vr=200 esr=0.2
R1 HV+ MID 150k pr=0.5 vr=350
R2 MID HV- 150k pr=0.5 vr=350
* --- startup
R3 HV+ VCC 180k pr=1 vr=500
* --- controller
XU1 HV- FB COMP RT CS DRA DRB VCC PWM8
R4 RT HV- 15k pr=0.125
* --- gate-drive
C3 DRA GP 1uF vr=63
LT2P GP DRB 600uH dcr=0.3
LT2H GDH SW 600uH dcr=0.3
LT2L HV- GDL 600uH dcr=0.3
KT2A LT2P LT2H 0.99
KT2B LT2P LT2L 0.99
KT2C LT2H LT2L 0.99
R5 GDH GH 15 pr=0.25
R6 GDL GL 15 pr=0.25
R7 GH SW 10k pr=0.125
R8 GL SRC 10k pr=0.125
* --- switch
M1 HV+ GH SW NHV vr=500 ir=14
M2 SW GL SRC NHV vr=500 ir=14
* --- current-sense
R9 SRC HV- 0.1 pr=2
R10 SRC CS 1k pr=0.125
C4 CS HV- 470pF vr=50
* --- transformer
C5 PB MID 1uF vr=250
LT1P SW PB 3mH dcr=0.2 pkg=T1
LT1A SA OUT- 60uH dcr=0.005 pkg=T1
LT1B OUT- SB 60uH dcr=0.005 pkg=T1
LT1X AUX HV- 40uH dcr=0.3 pkg=T1
KT1A LT1P LT1A 0.99
KT1B LT1P LT1B 0.99
KT1C LT1A LT1B 0.99
KT1D LT1P LT1X 0.98
KT1E LT1A LT1X 0.98
KT1F LT1B LT1X 0.98
* --- aux-supply
D3 AUX VCC DFAST vr=200 ir=1
C6 VCC HV- 100uF vr=35 esr=0.5
* --- clamp
R11 SW SNP 100 pr=3
C7 SNP PB 1nF vr=1000
* --- output-rectifier
D1 SA VR DSCH vr=100 ir=20
D2 SB VR DSCH vr=100 ir=20
* --- output-filter
LO1 VR OUT+ 25uH dcr=0.005 ir=20
C8 OUT+ OUT- 3300uF vr=25 esr=0.02
* --- discharge
R12 OUT+ OUT- 220 pr=2
* --- feedback
R13 OUT+ OPA 1k pr=0.25
XU2 OPA OPK FB HV- OPTO ctr=1.0
XU3 REF OUT- OPK SHUNTREF vref=2.495
R14 OUT+ REF 11.3k pr=0.125
R15 REF OUT- 2.49k pr=0.125
C9 OPK REF 100nF vr=50
R16 COMP CPX 22k pr=0.125
C10 CPX HV- 10nF vr=50
* --- barrier
CY1 HV- OUT- 2.2nF vr=400 mark="222M Y1 400~"
* --- connector
XJ2 OUT+ OUT- CONN mark="13.8V OUT"
`;

/** Boost power-factor front end. */
export const BOOST_PFC_TEXT = `Typical boost power-factor front end
* --- mains-input
XJ1 L N CONN mark="AC IN"
XF1 L LF FUSE ir=6.3 vr=250 mark="T6.3AH250V"
* --- surge
XRV1 LF N MOV vr=300 mark="14D471K"
* --- emi-filter
CX1 LF N 0.47uF vr=310 mark=".47uF X2 310~"
LCM1A LF LX 3mH dcr=0.05
LCM1B N NX 3mH dcr=0.05
KCM1 LCM1A LCM1B 0.99
* --- inrush
XRT1 LX LR NTC r25=5 ir=8
* --- rectifier
XBD1 LR NX BR+ HV- BRIDGE vr=600 ir=8
* --- pfc
C1 BR+ HV- 1uF vr=450
L1 BR+ SW 700uH dcr=0.1 ir=8
D1 SW HV+ DULTRA vr=600 ir=8
M1 SW G SRC NHV vr=650 ir=20
* --- current-sense
R1 SRC HV- 0.1 pr=3
R2 SRC CS 470 pr=0.125
C2 CS HV- 470pF vr=50
* --- controller
XU1 HV- FB COMP RT CS GATE DRB VCC PWM8
R3 RT HV- 22k pr=0.125
R4 COMP CMP 22k pr=0.125
C3 CMP HV- 470nF vr=25
* --- gate-drive
R5 GATE G 10 pr=0.25
R6 G SRC 10k pr=0.125
* --- aux-supply
XJ3 VCC HV- CONN mark="15V AUX"
C4 VCC HV- 47uF vr=35 esr=0.6
* --- feedback
R8 HV+ FBM 820k pr=0.25 vr=350
R9 FBM FB 732k pr=0.25 vr=350
R10 FB HV- 10k pr=0.125
* --- bulk
C5 HV+ HV- 330uF vr=450 esr=0.25
* --- discharge
R11 HV+ HV- 220k pr=2 vr=500
* --- connector
XJ2 HV+ HV- CONN mark="DC BUS"
`;
