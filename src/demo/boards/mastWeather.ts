/** Board of the weather station supply; started from the example weather module, values changed. */
export const MAST_WEATHER = `Mastwright WS-5 weather station supply, 12 V to 5 V, and radio 12 V from a cell
* Traced at Skerry Point. All markings are made up.
*
* --- buck input: fuse, series reverse-protection diode, surge clamp, input capacitors
XJ1 VIN+ GND CONN mark=9-30V
XF1 VIN+ VF FUSE ir=4 vr=125 mark=F4A
D1 VF VIN DSCH60 vr=60 ir=5 mark=SS56
DTV1 GND VIN DTVS36 pr=5 vr=36 mark=P6KE36A
C1 VIN GND 100uF tol=20% vr=50 esr=0.16 ir=0.6
C2 VIN GND 10uF tol=10% vr=50 esr=0.004
C3 VIN GND 10uF tol=10% vr=50 esr=0.004
R1 VIN EN 100k tol=1% pr=0.1 mark=1003
R2 EN GND 18k tol=1% pr=0.1 mark=1802
* --- buck controller
XU1 VIN EN SS RT COMP FB GND LO VCC SW HO BST NR21 mark=NR21
C4 VCC GND 2.2uF tol=10% vr=10 esr=0.01
D2 VCC BST DSCHS vr=40 ir=1 mark=SS14
C5 BST SW 100nF tol=10% vr=25
C6 SS GND 22nF tol=10% vr=25
R3 RT GND 51k tol=1% pr=0.1 mark=5102
R4 COMP CPX 15k tol=1% pr=0.1 mark=1502
C7 CPX GND 2.2nF tol=10% vr=50
C8 COMP GND 47pF tol=5% vr=50
* --- buck power stage
R5 HO GH 4.7 tol=5% pr=0.1 mark=4R7
R6 LO GL 2.2 tol=5% pr=0.1 mark=2R2
M1 VIN GH SW MLV vr=60 ir=12
M2 SW GL GND MLV vr=60 ir=12
R7 SW SNB 2.2 tol=5% pr=0.25 mark=2R2
C9 SNB GND 330pF tol=10% vr=50
L1 SW 5V 10uH dcr=0.025 ir=5 mark=100
C10 5V GND 270uF tol=20% vr=10 esr=0.045 ir=1.5 mark=277A
C11 5V GND 22uF tol=20% vr=10 esr=0.003
C12 5V GND 22uF tol=20% vr=10 esr=0.003
R8 5V FB 10.5k tol=1% pr=0.1 mark=1052
R9 FB GND 2k tol=1% pr=0.1 mark=2001
C13 5V FB 100pF tol=5% vr=50
R10 5V LEDA 1k tol=5% pr=0.1 mark=102
DLED1 LEDA GND DLEDB
XJ2 5V GND CONN mark=5V
*
* --- boost module: lithium cell in, 12 V for the radio
XJ3 CELL+ GND CONN mark=3.7V
XF2 CELL+ VB FUSE ir=2 vr=63 mark=F2A
C14 VB GND 22uF tol=20% vr=10 esr=0.003
L2 VB SW2 4.7uH dcr=0.055 ir=3 mark=4R7
XU2 SW2 GND FB2 EN2 VB NC FT07 mark=FT07
D3 SW2 12V DSCHS vr=40 ir=2 mark=SS24
C15 12V GND 10uF tol=10% vr=25 esr=0.004
C16 12V GND 22uF tol=10% vr=25 esr=0.2 ir=0.6 mark=226E
R11 12V FB2 86.6k tol=1% pr=0.1 mark=8662
R12 FB2 GND 10k tol=1% pr=0.1 mark=1002
C17 12V FB2 22pF tol=5% vr=50
R13 12V LEDB 4.7k tol=5% pr=0.1 mark=472
DLED2 LEDB GND DLEDR
XJ4 12V GND CONN mark=12V
* --- under-voltage lockout: Q1 off below 3.3 V, then Q2 holds EN2 low; R18 gives 0.3 V of hysteresis
R14 VB UVB 150k tol=1% pr=0.1 mark=1503
R15 UVB GND 30k tol=1% pr=0.1 mark=3002
C18 UVB GND 100nF tol=10% vr=25
Q1 UVC UVB GND QNPN vr=45 ir=0.1
R16 VB UVC 220k tol=5% pr=0.1 mark=224
Q2 EN2 UVC GND QNPN vr=45 ir=0.1
R17 VB EN2 47k tol=5% pr=0.1 mark=473
R18 EN2 UVB 1.5MEG tol=5% pr=0.1 mark=155
*
.subckt NR21 1 2 3 4 5 6 7 8 9 10 11 12
D1 7 1 DSUB
D2 7 2 DSUB
D3 7 3 DSUB
D4 7 4 DSUB
D5 7 5 DSUB
D6 7 6 DSUB
D7 7 9 DSUB
D8 9 1 DPASS
D9 7 8 DOUT
D10 8 9 DOUT
D11 10 11 DOUT
D12 11 12 DOUT
D13 7 10 DSUBW
D14 10 12 DSUB
R1 9 7 42k
R2 1 7 310k
R3 12 10 90k
R4 3 9 600k
.ends
.subckt FT07 1 2 3 4 5 6
M1 1 g 2 MINT
R1 g 2 60k
D1 2 3 DSUB
D2 2 4 DSUB
D3 2 5 DSUB
D4 4 5 DSUB2
R2 5 2 75k
.ends
.model DSCH60 D(IS=900n N=1.06 RS=0.012 BV=66 CJO=500p)
.model DSCHS D(IS=300n N=1.05 RS=0.04 BV=44 CJO=150p)
.model DTVS36 D(IS=2e-14 N=1.1 RS=0.1 BV=36 IBV=1m CJO=900p)
.model DLEDB D(IS=2.8e-18 N=3 RS=8 CJO=30p)
.model DLEDR D(IS=9.6e-18 N=2 RS=4 CJO=25p)
.model DSUB D(IS=1e-12 N=1.3 RS=5)
.model DSUB2 D(IS=3e-13 N=1.35 RS=20)
.model DSUBW D(IS=5e-12 N=1.4 RS=2)
.model DPASS D(IS=2e-12 N=1.3 RS=2)
.model DOUT D(IS=2e-11 N=1.35 RS=1)
.model MLV NMOS(VTO=1.9 KP=40 RON=0.014 BODYIS=2n BODYN=1.45)
.model MINT NMOS(VTO=1.2 KP=10 RON=0.09 BODYIS=1n BODYN=1.4)
.model QNPN NPN(IS=1e-14 BF=250 BR=5)
.end
`;
