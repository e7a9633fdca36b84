import type { Model } from '../part';
import { decodeMarking } from '../marking';

/** Models for parts of which only the kind and the marking are known: middle values of the kind. */
const TEXTS: Readonly<Record<string, string>> = {
  DGENERAL: '.model DGENERAL D(IS=5n N=1.75 RS=0.05 BV=1000 CJO=30p)',
  DFASTGEN: '.model DFASTGEN D(IS=30n N=1.8 RS=0.1 BV=400 CJO=20p)',
  DSCHOTTKYGEN: '.model DSCHOTTKYGEN D(IS=300n N=1.05 RS=0.03 BV=60 CJO=250p)',
  DSIGNALGEN: '.model DSIGNALGEN D(IS=2.5n N=1.75 RS=0.6 BV=100 CJO=4p)',
  DLEDGEN: '.model DLEDGEN D(IS=9.6e-18 N=2 RS=5 BV=5 CJO=25p)',
  NGEN: '.model NGEN NMOS(VTO=3.5 KP=8 RON=0.5 BODYIS=1e-8 BODYN=1.7)',
  PGEN: '.model PGEN PMOS(VTO=-3.5 KP=5 RON=0.5 BODYIS=1e-8 BODYN=1.7)',
  IGBTGEN: '.model IGBTGEN NMOS(VTO=5 KP=10 RON=0.1 BODYIS=1e-8 BODYN=1.7 IGBT=1)',
  QNPNGEN: '.model QNPNGEN NPN(IS=2e-14 BF=150 BR=4)',
  QPNPGEN: '.model QPNPGEN PNP(IS=2e-14 BF=150 BR=4)',
};

/** Which generic model suits a diode or transistor by its marking and the kind word that was typed. */
export function genericModel(kind: 'diode' | 'bjt' | 'mosfet', mark: string | null, type: string | null): Model {
  if (kind === 'mosfet')
    return model(type === 'igbt' ? 'IGBTGEN' : type === 'p' || polarityOf(mark) === 'P' ? 'PGEN' : 'NGEN');
  if (kind === 'bjt') return model(type === 'pnp' ? 'QPNPGEN' : 'QNPNGEN');
  if (type === 'led') return model('DLEDGEN');
  const reading =
    mark === null ? undefined : decodeMarking(mark).find((r) => ['zener', 'tvs', 'schottky', 'diode'].includes(r.kind));
  if (reading?.kind === 'zener' || reading?.kind === 'tvs' || type === 'zener')
    return zenerModel(reading?.value ?? reading?.voltage ?? 12);
  if (reading?.kind === 'schottky') return model('DSCHOTTKYGEN');
  if (mark !== null && /^(1N4148|1N914|LL4148|BAV|BAS)/iu.test(mark)) return model('DSIGNALGEN');
  if (mark !== null && /^(UF|FR|HER|MUR|BYV|RS|ES|US)/iu.test(mark)) return model('DFASTGEN');
  return model('DGENERAL');
}

function polarityOf(mark: string | null): 'N' | 'P' | undefined {
  return mark === null ? undefined : decodeMarking(mark).find((r) => r.polarity !== undefined)?.polarity;
}

function zenerModel(volts: number): Model {
  const figure = String(Number(volts.toPrecision(3)));
  const name = `DZ${figure.replace('.', 'V')}GEN`;
  return fromText(name, `.model ${name} D(IS=1e-13 N=1.15 RS=6 BV=${figure} IBV=5m CJO=90p)`);
}

function model(name: string): Model {
  return fromText(name, TEXTS[name]!);
}

const FACTORS: Readonly<Record<string, number>> = { n: 1e-9, m: 1e-3, p: 1e-12, u: 1e-6, '': 1 };

function fromText(name: string, written: string): Model {
  const [, type = 'D', inside = ''] = /^\.model \S+ (\w+)\((.*)\)$/u.exec(written) ?? [];
  const numbers = Object.fromEntries(
    [...inside.matchAll(/(\w+)=(-?[\d.]+(?:e-?\d+)?)([nmpu]?)/gu)].map(([, key = '', figure = '', suffix = '']) => [
      key.toLowerCase(),
      Number(figure) * FACTORS[suffix]!,
    ]),
  );
  return { name, type: type as Model['type'], numbers, written };
}
