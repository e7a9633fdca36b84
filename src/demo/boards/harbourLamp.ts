/** Board of the harbour lamp supply; started from the example lamp supply, values changed. */
export const HARBOUR_LAMP = `Brightwater HL-24 harbour lamp supply, 24 V 2.5 A, offline flyback
* Traced at Skerry Point. All markings are made up.

* --- mains input, surge, EMI filter, inrush
XJ1 L N CONN mark="AC IN"
XF1 L LF FUSE ir=3.15 vr=250 mark="T3.15AL250V"
XRV1 LF N MOV vr=300 mark="10D471K"
CX1 LF N 0.22uF vr=310 tol=10% esr=0.05 mark=".22uF X2 310~"
RX1 LF XM 510k tol=5% pr=0.25 vr=200 mark=514
RX2 XM N 510k tol=5% pr=0.25 vr=200 mark=514
LCM1A LF LX 15mH dcr=0.22 ir=1.8
LCM1B N NX 15mH dcr=0.22 ir=1.8
KCM1 LCM1A LCM1B 0.99
CX2 LX NX 0.1uF vr=310 tol=10% esr=0.08 mark=".1uF X2 310~"
XRT1 LX LR NTC r25=5 ir=4 mark="5D-11"
* --- rectifier, bulk
XBD1 LR NX HV+ HV- BRIDGE vr=600 ir=4 mark=KBL406
C1 HV+ HV- 150uF tol=20% vr=450 esr=0.35 ir=1.25 mark="150uF 450V"
* --- start-up
R1 HV+ ST1 220k tol=5% pr=0.25 vr=200 mark=224
R2 ST1 ST2 220k tol=5% pr=0.25 vr=200 mark=224
R3 ST2 VCC 220k tol=5% pr=0.25 vr=200 mark=224
* --- controller
XU1 HV- FB RT CS VCC GATE QB40 mark=QB40
R4 RT HV- 100k tol=1% pr=0.1 mark=1003
C13 FB HV- 1nF vr=50 tol=10%
* --- gate drive
R5 GATE G 22 tol=5% pr=0.25 mark=220
D2 G GATE DSIG vr=100 ir=0.2 mark=1N4148
R6 G HV- 10k tol=5% pr=0.125 mark=103
* --- switch and current sense
M1 DRAIN G SRC NFET650 vr=650 ir=9 mark=9N65
R7 SRC HV- 0.62 tol=5% pr=1 mark="R62"
R8 SRC HV- 0.62 tol=5% pr=1 mark="R62"
R9 SRC CS 470 tol=5% pr=0.1 mark=471
C3 CS HV- 330pF vr=50 tol=10%
* --- clamp
D1 DRAIN CL DFAST vr=1000 ir=1 mark=FR107
R10 HV+ CL 22k tol=5% pr=3 vr=350
R11 HV+ CL 22k tol=5% pr=3 vr=350
C4 HV+ CL 10nF vr=1000 tol=10% esr=0.1 mark="103 1KV"
* --- transformer T1: primary 40 t, secondary 10 t, auxiliary 6 t
LT1P HV+ DRAIN 420uH tol=7% dcr=0.32 ir=3.2 rp=8.2k pkg=T1
LT1S OUT- SEC 26.25uH dcr=0.011 pkg=T1
LT1A HV- AUX 9.45uH dcr=0.12 pkg=T1
KT1A LT1P LT1S 0.993
KT1B LT1P LT1A 0.985
KT1C LT1S LT1A 0.985
* --- auxiliary supply
D3 AUX AUXR DFAST2 vr=200 ir=1 mark=UF4003
R12 AUXR VCC 10 tol=5% pr=0.25 mark=100
C5 VCC HV- 22uF tol=20% vr=35 esr=0.9 mark="22uF 35V"
C6 VCC HV- 100nF vr=50 tol=10%
DZ1 HV- VCC DZ22 vr=22 pr=1 mark=1N4748A
* --- output rectifier (one dual package, halves in parallel) with snubber
D4A SEC RAW+ DSCH200 vr=200 ir=10 mark=MBR20200 pkg=D4
D4B SEC RAW+ DSCH200 vr=200 ir=10 mark=MBR20200 pkg=D4
R13 SEC SN 22 tol=5% pr=1 mark=220
C7 SN RAW+ 470pF vr=500 tol=10%
* --- output filter
C8 RAW+ OUT- 820uF tol=20% vr=35 esr=0.024 ir=2.36 mark="820uF 35V"
C9 RAW+ OUT- 820uF tol=20% vr=35 esr=0.024 ir=2.36 mark="820uF 35V"
L2 RAW+ OUT+ 2.2uH dcr=0.008 ir=6
C10 OUT+ OUT- 470uF tol=20% vr=35 esr=0.045 ir=1.4 mark="470uF 35V"
C11 OUT+ OUT- 100nF vr=50 tol=10%
R14 OUT+ OUT- 4.7k tol=5% pr=0.5 mark=472
R15 OUT+ LEDA 6.8k tol=5% pr=0.25 mark=682
DLED1 LEDA OUT- LEDRED ir=0.02
* --- feedback
R16 RAW+ OPA 2.2k tol=5% pr=0.25 mark=222
XU2 OPA OPK FB HV- OPTO ctr=1.0
R17 OPA OPK 1k tol=5% pr=0.125 mark=102
XU3 REF OUT- OPK SHUNTREF vref=2.495 vr=36
R18 OUT+ REF 21.5k tol=1% pr=0.1 mark=2152
R19 REF OUT- 2.49k tol=1% pr=0.1 mark=2491
R20 REF CMP 10k tol=5% pr=0.1 mark=103
C12 CMP OPK 100nF vr=50 tol=10%
* --- barrier, output connector
CY1 HV- OUT- 2.2nF vr=400 tol=20% mark="222M Y1 400~"
XJ2 OUT+ OUT- CONN mark="24V OUT"

* --- cold inside of the controller: 1 GND, 2 FB, 3 RT, 4 CS, 5 VCC, 6 GATE
.subckt QB40 1 2 3 4 5 6
DVCC 1 5 DSUBBIG
DFB 1 2 DSUB
DRT 1 3 DSUB
DCS 1 4 DSUB
DGL 1 6 DDRV
DGH 6 5 DDRV
RVCC 5 1 68k
RFB V5 2 15k
RV5 V5 1 42k
DREG V5 5 DSUB
RCS 4 1 220k
RGL 6 1 110k
.ends
.model DBR D(IS=5n N=1.75 RS=0.04 BV=600 CJO=60p)
.model DFAST D(IS=33n N=1.8 RS=0.12 BV=1000 CJO=18p)
.model DFAST2 D(IS=30n N=1.8 RS=0.1 BV=200 CJO=25p)
.model DSIG D(IS=2.5n N=1.75 RS=0.6 BV=100 CJO=3p)
.model DSCH200 D(IS=0.1u N=1.05 RS=0.02 BV=200 CJO=350p)
.model DZ22 D(IS=1e-14 N=1.1 RS=3 BV=22 IBV=5m CJO=80p)
.model LEDRED D(IS=9.6e-18 N=2 RS=5 BV=5 CJO=20p)
.model NFET650 NMOS(VTO=3.6 KP=9 RON=0.75 BODYIS=1.1e-8 BODYN=1.7)
.model DSUB D(IS=1p N=1.3 RS=12)
.model DSUBBIG D(IS=8p N=1.3 RS=5)
.model DDRV D(IS=20p N=1.35 RS=6)
.end
`;
