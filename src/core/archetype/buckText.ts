/**
 * Typical buck module with an integrated switch and a Schottky diode, 7 to 30 V in, 5 V out. Generic values.
 */
export const BUCK_TEXT = `Typical buck module
XJ1 VIN+ GND CONN mark="DC IN"
XF1 VIN+ VF FUSE ir=3 vr=63 mark="F3A"
D1 VF VIN DSCH vr=40 ir=3
DTV1 GND VIN DTVS pr=5 vr=33
C1 VIN GND 100uF vr=50 esr=0.15 mark="100uF 50V"
C2 VIN GND 10uF vr=50 esr=0.004
R1 VIN EN 100k pr=0.125
R2 EN GND 18k pr=0.125
XU1 VIN EN FB GND SW BST BUCK6
C3 BST SW 100nF vr=25
D2 GND SW DSCH vr=40 ir=3
L1 SW OUT+ 22uH dcr=0.04 ir=3
C4 OUT+ GND 470uF vr=10 esr=0.05 mark="470uF 10V"
C5 OUT+ GND 10uF vr=16 esr=0.004
R3 OUT+ FB 10.5k pr=0.125
R4 FB GND 2k pr=0.125
C6 OUT+ FB 100pF vr=50
R5 OUT+ LEDA 1k pr=0.125
DLED1 LEDA GND DLED
XJ2 OUT+ GND CONN mark="DC OUT"
.subckt BUCK6 1 2 3 4 5 6
DEN 4 2 DIN
DFB 4 3 DIN
DBST 5 6 DIN
DBODY 5 1 DSWB
DVIN 4 1 DIN
RVIN 1 4 200k
RFB 3 4 900k
REN 2 4 1MEG
RBST 6 5 90k
.ends
.model DSCH D(IS=0.8u N=1.05 RS=0.03 BV=44 CJO=250p)
.model DTVS D(IS=2e-14 N=1.1 RS=0.1 BV=33 IBV=1m CJO=900p)
.model DLED D(IS=9.6e-18 N=2 RS=5 BV=5 CJO=20p)
.model DIN D(IS=1p N=1.3 RS=10)
.model DSWB D(IS=2n N=1.5 RS=0.1)
.end
`;
