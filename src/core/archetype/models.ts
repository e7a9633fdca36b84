/** Generic device models that the typical circuits share. Nobody's data: middle values of the kind. */
export const MODELS = `.model DSTD D(IS=5n N=1.75 RS=0.05 BV=1000 CJO=30p)
.model DBR D(IS=5n N=1.75 RS=0.05 BV=700 CJO=60p)
.model DFAST D(IS=33n N=1.8 RS=0.12 BV=1000 CJO=18p)
.model DULTRA D(IS=21n N=1.65 RS=0.05 BV=600 CJO=100p)
.model DSIG D(IS=2.5n N=1.75 RS=0.6 BV=100 CJO=3p)
.model DSCH D(IS=0.3u N=1.05 RS=0.02 BV=100 CJO=350p)
.model DLED D(IS=9.6e-18 N=2 RS=5 BV=5 CJO=20p)
.model DZ12 D(IS=1e-13 N=1.15 RS=6 BV=12 IBV=5m CJO=90p)
.model DZ18 D(IS=1e-13 N=1.15 RS=6 BV=18 IBV=5m CJO=90p)
.model DTVS D(IS=2e-14 N=1.1 RS=0.1 BV=33 IBV=1m CJO=900p)
.model DIN D(IS=2p N=1.3 RS=10)
.model DDRV D(IS=20p N=1.35 RS=6)
.model NHV NMOS(VTO=3.6 KP=9 RON=0.5 BODYIS=1e-8 BODYN=1.7)
.model NLV NMOS(VTO=2.5 KP=40 RON=0.01 BODYIS=3n BODYN=1.5)
.model QHV NPN(IS=1e-13 BF=20 BR=1)
.model QNPN NPN(IS=2e-14 BF=200 BR=4)
.model QPNP PNP(IS=2e-14 BF=150 BR=4)
`;

/** The cold inside of a generic controller: supply clamp, input diodes to ground, driver to both rails. */
export const CONTROLLERS = `.subckt PWM6 1 2 3 4 5 6
DVCC 1 5 DIN
DFB 1 2 DIN
DRT 1 3 DIN
DCS 1 4 DIN
DGL 1 6 DDRV
DGH 6 5 DDRV
RVCC 5 1 60k
RFB 2 5 60k
.ends
.subckt PWM8 1 2 3 4 5 6 7 8
DVCC 1 8 DIN
DFB 1 2 DIN
DCOMP 1 3 DIN
DRT 1 4 DIN
DCS 1 5 DIN
DAL 1 6 DDRV
DAH 6 8 DDRV
DBL 1 7 DDRV
DBH 7 8 DDRV
RVCC 8 1 50k
.ends
.subckt HALFDRV 1 2 3 4 5 6 7 8
DVCC 4 1 DIN
DHI 4 2 DIN
DLI 4 3 DIN
DLL 4 5 DDRV
DLH 5 1 DDRV
DHL 6 7 DDRV
DHH 7 8 DDRV
DSUB 4 6 DIN
RVCC 1 4 80k
RBST 8 6 120k
.ends
.subckt BOOST6 1 2 3 4 5 6
MSW 1 G 2 NLV
RG G 2 60k
DFB 2 3 DIN
DEN 2 4 DIN
DVIN 2 5 DIN
RVIN 5 2 80k
.ends
.subckt MCU8 1 2 3 4 5 6 7 8
DVCC 8 1 DIN
D2 8 2 DIN
D3 8 3 DIN
D4 8 4 DIN
D5 8 5 DIN
D6 8 6 DIN
D7 8 7 DIN
RVCC 1 8 40k
.ends
.subckt OPTRIAC 1 2 3 4
DLED 1 2 DOPT
RIN 3 4 1G
.ends
.subckt DIAC 1 2
D1 m 1 DDIAC
D2 m 2 DDIAC
.ends
.model DOPT D(IS=1e-12 N=2)
.model DDIAC D(IS=1e-13 N=1.4 RS=5 BV=31 IBV=50u CJO=15p)
`;
