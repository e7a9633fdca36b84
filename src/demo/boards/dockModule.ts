/** Board of the dock's radio cradle module: a 12 V to 5 V buck that is to give 6.2 V, our own. */
export const DOCK_MODULE = `Brightwater DM-5 cradle module, 12 V to 5 V 2 A
* Traced at Skerry Point. All markings are made up.
XJ1 VIN+ GND CONN mark="12V IN"
XF1 VIN+ VF FUSE ir=3.15 vr=63 mark="T3.15AL63V"
D1 VF VIN DSCH vr=40 ir=5 mark=SS54
DTV1 GND VIN DTVS vr=24 pr=5 mark=P6KE24A
C1 VIN GND 220uF tol=20% vr=35 esr=0.08 ir=0.9 mark="220uF 35V"
C2 VIN GND 10uF tol=10% vr=35 esr=0.004
R1 VIN EN 68k tol=1% pr=0.1 mark=6802
R2 EN GND 10k tol=1% pr=0.1 mark=1002
XU1 VIN EN FB GND SW BST HM52 mark=HM-52
C3 BST SW 100nF tol=10% vr=25
D2 GND SW DSCH vr=40 ir=5 mark=SS54
L1 SW OUT+ 22uH tol=20% dcr=0.04 ir=4 mark=220
C4 OUT+ GND 470uF tol=20% vr=6.3 esr=0.04 ir=1.2 mark="470uF 6.3V"
C5 OUT+ GND 22uF tol=10% vr=16 esr=0.003
R3 OUT+ FB 46.4k tol=1% pr=0.1 mark=4642
R4 FB GND 15k tol=1% pr=0.1 mark=1502
C6 OUT+ FB 22pF tol=5% vr=50
R5 OUT+ LEDA 330 tol=5% pr=0.1 mark=331
DLED1 LEDA GND DLED ir=0.02
XJ2 OUT+ GND CONN mark="5V OUT"
.subckt HM52 1 2 3 4 5 6
DEN 4 2 DIN
DFB 4 3 DIN
DBST 5 6 DIN
DBODY 5 1 DSWB
DVIN 4 1 DIN
RVIN 1 4 210k
RFB 3 4 800k
REN 2 4 1.1MEG
RBST 6 5 90k
.ends
.model DSCH D(IS=0.9u N=1.05 RS=0.02 BV=44 CJO=300p)
.model DTVS D(IS=2e-14 N=1.1 RS=0.1 BV=24 IBV=1m CJO=900p)
.model DLED D(IS=9.6e-18 N=2 RS=5 BV=5 CJO=20p)
.model DIN D(IS=1p N=1.3 RS=10)
.model DSWB D(IS=2n N=1.5 RS=0.1)
.end
`;
