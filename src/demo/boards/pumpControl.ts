/** Board of the pump control supply: a small buck module, our own. */
export const PUMP_CONTROL = `Tidewell PC-5 pump control supply, 24 V to 5 V 2 A
* Traced at Skerry Point. All markings are made up.
XJ1 VIN+ GND CONN mark="24V IN"
XF1 VIN+ VF FUSE ir=2.5 vr=125 mark="T2.5AL125V"
D1 VF VIN DSCH vr=60 ir=3 mark=SS36
DTV1 GND VIN DTVS vr=36 pr=5 mark=P6KE36A
C1 VIN GND 220uF tol=20% vr=50 esr=0.09 ir=0.8 mark="220uF 50V"
C2 VIN GND 4.7uF tol=10% vr=50 esr=0.004
R1 VIN EN 82k tol=1% pr=0.1 mark=8202
R2 EN GND 10k tol=1% pr=0.1 mark=1002
XU1 VIN EN FB GND SW BST TW60 mark=TW-60
C3 BST SW 100nF tol=10% vr=25
D2 GND SW DSCH vr=60 ir=3 mark=SS36
L1 SW OUT+ 33uH tol=20% dcr=0.05 ir=3 mark=330
C4 OUT+ GND 470uF tol=20% vr=10 esr=0.05 ir=1.1 mark="470uF 10V"
C5 OUT+ GND 10uF tol=10% vr=16 esr=0.004
R3 OUT+ FB 31.6k tol=1% pr=0.1 mark=3162
R4 FB GND 10k tol=1% pr=0.1 mark=1002
C6 OUT+ FB 47pF tol=5% vr=50
R5 OUT+ LEDA 1.5k tol=5% pr=0.1 mark=152
DLED1 LEDA GND DLED ir=0.02
XJ2 OUT+ GND CONN mark="5V OUT"
.subckt TW60 1 2 3 4 5 6
DEN 4 2 DIN
DFB 4 3 DIN
DBST 5 6 DIN
DBODY 5 1 DSWB
DVIN 4 1 DIN
RVIN 1 4 180k
RFB 3 4 700k
REN 2 4 1MEG
RBST 6 5 85k
.ends
.model DSCH D(IS=0.7u N=1.05 RS=0.03 BV=66 CJO=250p)
.model DTVS D(IS=2e-14 N=1.1 RS=0.1 BV=36 IBV=1m CJO=900p)
.model DLED D(IS=9.6e-18 N=2 RS=5 BV=5 CJO=20p)
.model DIN D(IS=1p N=1.3 RS=10)
.model DSWB D(IS=2n N=1.5 RS=0.1)
.end
`;
