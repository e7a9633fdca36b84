import { E_SERIES, withMark } from '../quantity';
import { markReading } from './markReading';
import type { MarkKind, MarkReading, MarkSystem } from './markReading';
import {
  BRIDGE_CODES,
  HER_GRADES,
  N5400_VOLTS,
  RECTIFIER_GRADES,
  RECTIFIER_LETTERS,
  REGULATOR_AMPS,
  REGULATOR_VOLTS,
} from './tables';

/** A rating read off a type number. */
function rated(
  kind: MarkKind,
  system: string,
  why: string,
  voltage: number | null,
  current: number | null,
  more: Partial<MarkReading> & { readonly weight?: number } = {},
): MarkReading {
  const { weight = 0.9, ...rest } = more;
  return markReading(kind, system, weight, why, { voltage, current, convention: true, ...rest });
}

/** Highest drain or collector voltage that such parts are made for, and the least current and volts of an IGBT. */
const MOST_SWITCH_VOLTS = 1700;
const IGBT_FROM = { amps: 15, volts: 600 } as const;

/** `<I>N<V/10>`, `<I>P<V/10>`: a habit of many makers. */
const switches: MarkSystem = (mark) => {
  const [, amps = '', letter, code = ''] = /^(\d{1,3})([NP])(\d{2,3})[A-Z]*$/u.exec(mark) ?? [];
  if (code === '') return [];
  const [current, voltage] = [Number(amps), Number(code) * 10];
  const polarity = letter as 'N' | 'P';
  const system = `<I>${polarity}<V/10>`;
  const out: MarkReading[] = [];
  const mosfet = (volts: number, weight: number): void => {
    if (current > 0 && volts > 0 && volts <= MOST_SWITCH_VOLTS)
      out.push(rated('mosfet', system, `${amps} A, ${volts} V by the figures`, volts, current, { polarity, weight }));
  };
  const igbt = polarity === 'N' && current >= IGBT_FROM.amps && voltage >= IGBT_FROM.volts;
  if (igbt && voltage <= MOST_SWITCH_VOLTS)
    out.push(rated('igbt', system, `${amps} A, ${voltage} V by the figures`, voltage, current, { weight: 0.6 }));
  // Low-voltage parts of large current are sold with their volts as they are.
  if (current >= 60 && Number(code) >= 55 && Number(code) <= 100) mosfet(Number(code), 0.8);
  mosfet(voltage, igbt ? 0.5 : 0.8);
  return out;
};

/** Type numbers that are registered and mean one part. */
const registered: MarkSystem = (mark) => {
  const number = /^1N(\d{2,4})([A-Z]?)$/u.exec(mark)?.[1];
  if (number === undefined) return [];
  const system = 'registered type number';
  const diode = (
    volts: number | null,
    amps: number | null,
    why: string,
    kind: MarkKind = 'diode',
  ): readonly MarkReading[] => [rated(kind, system, why, volts, amps, { convention: false, weight: 1 })];
  const n = Number(number);
  if (/^400[1-7]$/u.test(number)) return diode(RECTIFIER_GRADES[n - 4001]!, 1, 'grade by its last figure');
  if (/^540[0-8]$/u.test(number)) return diode(N5400_VOLTS[n - 5400]!, 3, 'grade by its last figure');
  if (/^581[789]$/u.test(number)) return diode(20 + 10 * (n - 5817), 1, 'grade by its last figure', 'schottky');
  if (/^582[012]$/u.test(number)) return diode(20 + 10 * (n - 5820), 3, 'grade by its last figure', 'schottky');
  if (number === '4148' || number === '914') return diode(100, null, 'small-signal diode');
  if (number === '60') return diode(null, null, 'a germanium detector diode');
  return [];
};

/** E24 from 3.3 V upwards, as the 1N4728 to 1N4764 go. */
const ZENER_VOLTS = [...E_SERIES.E24.filter((v) => v >= 3.3), ...E_SERIES.E24.map((v) => Number(`${v}e1`)), 100];

/** Zeners and transient suppressors. */
const breakdown: MarkSystem = (mark) => {
  const zener = (system: string, value: number, tolerance: number | null, why: string): readonly MarkReading[] => [
    markReading('zener', system, 0.9, why, { value, unit: 'V', tolerance }),
  ];
  const [, number, letter] = /^1N(47\d\d)(A?)$/u.exec(mark) ?? [];
  const step = ZENER_VOLTS[Number(number) - 4728];
  if (number !== undefined && step !== undefined && Number(number) <= 4764)
    return zener(
      '1N47xx table',
      step,
      letter === 'A' ? 0.05 : 0.1,
      `step ${Number(number) - 4727} of E24 from ${withMark('3.3')} V, 1 W`,
    );
  const [, grade, whole = '', part] = /^(?:BZ[A-Z]\d{2}-?)?([BC])(\d{1,3})(?:V(\d))?$/u.exec(mark) ?? [];
  const full = /^BZ/u.test(mark);
  if (grade !== undefined && (full || part !== undefined))
    return zener(
      'zener voltage code',
      Number(`${whole}.${part ?? 0}`),
      grade === 'C' ? 0.05 : 0.02,
      `V stands for the point`,
    );
  const [, volts, tenth] = /^(\d{1,2})V(\d)$/u.exec(mark) ?? [];
  if (volts !== undefined)
    return zener('zener voltage code', Number(`${volts}.${tenth}`), null, 'V stands for the point');
  const [, value, suffix] = /^P6KE(\d+(?:\.\d+)?)(CA|A)?$/u.exec(mark) ?? [];
  if (value === undefined) return [];
  const why = `nominal breakdown ${value} V, ${suffix === 'CA' ? 'bidirectional' : 'unidirectional'}`;
  const tolerance = suffix === undefined ? 0.1 : 0.05;
  return [markReading('tvs', 'P6KE<V>', 0.9, why, { value: Number(value), unit: 'V', tolerance })];
};

const TENS: Readonly<Record<string, number>> = { '10': 1, '15': 1.5, '20': 2, '30': 3 };

/** Families whose last figure is a grade. */
const graded: MarkSystem = (mark) => {
  const system = 'graded family';
  const uf = /^UF400([1-7])$/u.exec(mark)?.[1];
  if (uf !== undefined) return [rated('diode', system, `grade ${uf}`, RECTIFIER_GRADES[Number(uf) - 1]!, 1)];
  const [, family, tens = '', grade] = /^(FR|HER)(10|15|20|30)([1-8])$/u.exec(mark) ?? [];
  if (family === undefined) return [];
  const volts = (family === 'HER' ? HER_GRADES : RECTIFIER_GRADES)[Number(grade) - 1];
  return volts === undefined ? [] : [rated('diode', system, `grade ${grade} of its family`, volts, TENS[tens]!)];
};

/** Codes on small SMD diodes. */
const smd: MarkSystem = (mark) => {
  const grade = /^[MA]([1-7])$/u.exec(mark)?.[1];
  if (grade !== undefined)
    return [
      rated('diode', 'SMD code', `1 A rectifier, grade ${grade}`, RECTIFIER_GRADES[Number(grade) - 1]!, 1, {
        weight: 0.5,
      }),
    ];
  if (mark === 'T4')
    return [rated('diode', 'SMD code', 'small-signal diode of the 1N4148 type', null, null, { weight: 0.5 })];
  const [, amps, letter = ''] = /^(?:S|US|ES|RS)(\d)([A-Z])$/u.exec(mark) ?? [];
  const volts = RECTIFIER_LETTERS[letter];
  return amps === undefined || volts === undefined
    ? []
    : [rated('diode', 'letter-graded SMD rectifier', `${letter} is ${volts} V`, volts, Number(amps))];
};

/** Schottky and fast rectifiers named by current and voltage. */
const named: MarkSystem = (mark) => {
  const [, ss, tens] = /^SS(\d)(\d{1,2})$/u.exec(mark) ?? [];
  if (ss !== undefined && Number(tens) > 0)
    return [rated('schottky', 'SS<I><V/10>', `${ss} A, ${tens}0 V`, Number(tens) * 10, Number(ss))];
  const [, family, amps, volts] = /^(SR|SB)(\d)(\d{2,3})$/u.exec(mark) ?? [];
  if (family !== undefined)
    return [rated('schottky', `${family}<I><V>`, `${amps} A, ${volts} V`, Number(volts), Number(amps))];
  const [, maker, figures = ''] = /^(MBR|MUR)(\d{3,5})[A-Z]*$/u.exec(mark) ?? [];
  if (maker === undefined) return [];
  const wide = figures.length >= 4 ? 2 : 1;
  const [i, v] = [Number(figures.slice(0, wide)), Number(figures.slice(wide))];
  return maker === 'MBR'
    ? [rated('schottky', 'MBR<I><V>', `${i} A, ${v} V`, v, i)]
    : [rated('diode', 'MUR<I><V/10>', `${i} A, ${v * 10} V`, v * 10, i)];
};

/** Bridges: letters, current, then a code, a grade or a letter for the volts. */
const bridges: MarkSystem = (mark) => {
  const system = 'bridge family';
  const bridge = (volts: number, amps: number | null, why: string, weight = 0.9): MarkReading =>
    rated('bridge', system, why, volts, amps, { weight });
  const [, db = '', last] = /^DB(10|15)([1-7])$/u.exec(mark) ?? [];
  if (last !== undefined) return [bridge(RECTIFIER_GRADES[Number(last) - 1]!, TENS[db]!, `grade ${last}`)];
  const hundreds = /^MB(\d{1,2})[SFM]$/u.exec(mark)?.[1];
  if (hundreds !== undefined)
    return [{ ...bridge(Number(hundreds) * 100, null, `${hundreds} hundred volts`), system: 'MB<V/100>S' }];
  const [, amps, letter = ''] = /^(?:KB[A-Z]{1,2}|GB[A-Z]{1,2})(\d{1,2})([A-Z])$/u.exec(mark) ?? [];
  if (amps !== undefined && RECTIFIER_LETTERS[letter] !== undefined)
    return [bridge(RECTIFIER_LETTERS[letter], Number(amps), `${letter} is ${RECTIFIER_LETTERS[letter]} V`)];
  const [, family = '', current = '', code = ''] =
    /^(KB[A-Z]{1,2}|GB[A-Z]{1,2})(\d{1,2}?)(005|0[1-8]|10)$/u.exec(mark) ?? [];
  if (code === '') return [];
  const out: MarkReading[] = [];
  const volts = BRIDGE_CODES[code];
  if (volts !== undefined) out.push(bridge(volts, Number(current), `${code} is ${volts} V`));
  const grade = family === 'KBP' ? RECTIFIER_GRADES[Number(code) - 1] : undefined;
  if (grade !== undefined && code.startsWith('0') && grade !== volts)
    out.push(bridge(grade, Number(current), `sold graded as well: ${code} is ${grade} V`, 0.6));
  return out;
};

/** Three-terminal regulators. */
const regulators: MarkSystem = (mark) => {
  const [, sign, letter = '', volts] = /^(?:LM|MC|UA|KA|L)?(78|79)([LM]?)(\d\d)[A-Z]*$/u.exec(mark) ?? [];
  if (volts === undefined || !(REGULATOR_VOLTS as readonly number[]).includes(Number(volts))) return [];
  const value = sign === '79' ? -Number(volts) : Number(volts);
  const why = `${sign === '79' ? 'negative' : 'positive'} regulator, ${value} V`;
  return [markReading('regulator', '78/79 series', 0.9, why, { value, unit: 'V', current: REGULATOR_AMPS[letter]! })];
};

/** Readers of semiconductor type numbers; they get the marking in capitals without spaces. */
export const SEMICONDUCTOR_SYSTEMS: readonly MarkSystem[] = [
  switches,
  registered,
  breakdown,
  graded,
  smd,
  named,
  bridges,
  regulators,
];
