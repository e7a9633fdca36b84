import { seededRandom } from '@/core/quantity';
import type { Random } from '@/core/quantity';

/** Words that have broken readers before: names of the language itself, long ones, empty ones, figures beyond all bounds. */
export const ODD_WORDS = [
  'constructor',
  '__proto__',
  'toString',
  'hasOwnProperty',
  'NC',
  '0',
  '-5k',
  '1e308',
  '1e-320',
  `${'9'.repeat(400)}k9`,
  'A'.repeat(70),
  '"',
  '""',
  '" "',
  '=',
  '==',
  'tol=',
  '=5%',
  'vr=-3',
  'mark="a b"',
  '\u0000',
  '\ud800',
  '\u202e',
  '🦊',
  ';',
  '+',
  '*',
  '.subckt',
  '.ends',
  '.model',
  '.end',
  '500:VCC',
  '99999999:VCC',
  'R1.2',
  '--',
  '-/-',
  '-~-',
  '-4k7-',
  '-0.62V-',
  '-OL-',
] as const;
const NAMES = [
  'R1',
  'C2',
  'L3',
  'D4',
  'Q5',
  'M6',
  'XU7',
  'XF1',
  'K1',
  'V1',
  'I1',
  'XT1',
  'T1.S',
  'U9',
  'LED1',
] as const;
const NETS = ['A', 'B', 'GND', 'VCC', 'HV+', 'HV-', '0', 'NC'] as const;
/** Designator letters, nodes and what may stand after them. */
const SHAPES: readonly (readonly [string, number, readonly string[]])[] = [
  ['R', 2, ['1k', '4.7MEG tol=5%', '0', '1e15', '1e-12']],
  ['C', 2, ['100n vr=50', '470u esr=0.3 vr=400', '1p', '1 vr=2000']],
  ['L', 2, ['1m', '10u dcr=0.1', '0']],
  ['D', 2, ['DX']],
  ['Q', 3, ['QX']],
  ['M', 3, ['MX']],
  ['V', 2, ['5', '-12', '0']],
  ['XF', 2, ['FUSE', 'NTC r25=5', 'MOV', 'SWITCH']],
  ['XB', 4, ['BRIDGE', 'OPTO', 'RELAY rcoil=300']],
  ['XJ', 3, ['CONN', 'REG3', 'SHUNTREF', 'TRIAC']],
  ['XU', 2, ['KV51', 'KV52', 'KV99']],
];

export function pick<T>(random: Random, list: readonly T[]): T {
  return list[Math.floor(random() * list.length)]!;
}

/** Between nothing and `most` things, made one after another. */
function several(random: Random, most: number, make: () => string, by: string): string {
  return Array.from({ length: Math.floor(random() * (most + 1)) }, make).join(by);
}

function oddOr(random: Random, usual: readonly string[], share = 0.15): string {
  return random() < share ? pick(random, ODD_WORDS) : pick(random, usual);
}

/** A netlist that is mostly one: elements, models and insides, with odd words strewn in. */
export function hostileNetlist(seed: number): string {
  const random = seededRandom(seed);
  // Half of the files are nearly sound, so that what is read goes on to the rest of the engine.
  const odd = random() < 0.5 ? 0.004 : 0.12;
  let count = 0;
  const element = (): string => {
    const [letters, nodes, tails] = pick(random, SHAPES);
    const nets = Array.from({ length: random() < odd ? 7 : nodes }, () => oddOr(random, NETS, odd));
    return [random() < odd ? pick(random, NAMES) : `${letters}${++count}`, ...nets, oddOr(random, tails, odd)].join(
      ' ',
    );
  };
  const line = (): string => {
    switch (Math.floor(random() * 14)) {
      case 0:
        return `* ${pick(random, ODD_WORDS)}`;
      case 1:
        return random() < odd * 4 ? `+ ${pick(random, ODD_WORDS)}` : '+ tol=5%';
      case 2:
        return random() < odd * 4 ? `.model ${pick(random, ODD_WORDS)} D(IS=${pick(random, ODD_WORDS)})` : '* model';
      case 3: {
        if (random() > odd * 4) return element();
        const name = oddOr(random, ['KV51', 'KV52', 'KV53'], odd);
        const inner = several(
          random,
          3,
          () =>
            random() < 0.3
              ? `X${name}${Math.floor(random() * 9)} 1 2 ${oddOr(random, ['KV51', 'KV52', 'KV53'], 0)}`
              : element(),
          '\n',
        );
        return `.subckt ${name} 1 2\n${inner}\n${random() < 0.9 ? '.ends' : ''}`;
      }
      default:
        return element();
    }
  };
  const models =
    '.model DX D(IS=1n N=1.8)\n.model QX NPN(BF=100)\n.model MX NMOS(VTO=3)\n.subckt KV52 1 2\nC1 1 2 1u\n.ends';
  const title = random() < odd ? 'T'.repeat(400) : 'title';
  return `${title}\n${several(random, 14, line, random() < odd ? '\r' : '\n')}\n${models}`;
}

/** Lines of the bench shorthand with odd words strewn in. */
export function hostileShorthand(seed: number): readonly string[] {
  const random = seededRandom(seed);
  const nets = (): string => several(random, 4, () => oddOr(random, NETS, 0.1), ' ');
  const marks = ['472', '104K', '"180uF 450V"', '4k7', '10t', 'KV51', '?', '9N65', 'is=4k7', 'vr=400'] as const;
  const line = (): string => {
    switch (Math.floor(random() * 9)) {
      case 0:
        return `${oddOr(random, ['R1.2', 'C2.1', 'VCC'])} ${oddOr(random, ['--', '-/-', '-~-', '-4k7-', '-0.62V-', '-OL-'])} ${oddOr(random, ['U9.1', 'GND'])}`;
      case 1:
        return `net ${oddOr(random, NETS)} is ${oddOr(random, NETS)}`;
      case 2:
        return `${pick(random, ['drop', 'empty', 'stage', 'split'])} ${oddOr(random, NAMES)} ${nets()}`;
      case 3:
        return `U9 ${oddOr(random, ['VCC', 'FB', 'CS'])} ${oddOr(random, ['on', 'ref', 'max'])} ${oddOr(random, ['16 V', '2.5 V'])}`;
      default:
        return `${oddOr(random, NAMES, 0.05)} ${oddOr(random, marks)} ${nets()}`;
    }
  };
  return Array.from({ length: 1 + Math.floor(random() * 10) }, line);
}

/** A table as text, with quotes, semicolons and formulas where none belong. */
export function hostileCsv(seed: number, header: string): string {
  const random = seededRandom(seed);
  const cell = (): string =>
    oddOr(random, ['1', '0.51', '4,7', 'diode', 'ohms', 'HV+', 'HV-', 'OL', 'R7', 'resistor'], 0.25);
  const by = pick(random, [',', ';', '\t']);
  const rows = several(random, 12, () => several(random, 8, cell, by), pick(random, ['\n', '\r\n', '\r']));
  return `${random() < 0.85 ? header : several(random, 5, cell, by)}\n${rows}`;
}

/** Board JSON that is mostly one: parts with too few nets, odd figures and odd names. */
export function hostileBoardJson(seed: number): unknown {
  const random = seededRandom(seed);
  const figure = (): unknown => pick(random, [1000, 1e-7, 0, -1, 1e300, null, 'much', 1e-300]);
  const sound = (): unknown => pick(random, [1000, 1e-7, 0, 4.7e-6]);
  const calm = random() < 0.5;
  const part = (i: number): unknown => {
    const kind = pick(random, [
      'resistor',
      'capacitor',
      'inductor',
      'diode',
      'mosfet',
      'bridge',
      'opto',
      'ic',
      'connector',
    ]);
    const pins = {
      resistor: 2,
      capacitor: 2,
      inductor: 2,
      diode: 2,
      mosfet: 3,
      bridge: 4,
      opto: 4,
      ic: 3,
      connector: 2,
    }[kind]!;
    const count = calm ? pins : Math.floor(random() * 5);
    return {
      kind,
      ref: calm ? `P${i}` : oddOr(random, NAMES, 0.2),
      nets: Array.from({ length: count }, () => oddOr(random, NETS, calm ? 0 : 0.1)),
      keys:
        random() < 0.3
          ? [{ key: calm ? 'mark' : oddOr(random, ['mark', 'vr'], 0.3), text: calm ? '104' : pick(random, ODD_WORDS) }]
          : [],
      numbers: random() < 0.3 ? { vr: calm ? 50 : figure() } : {},
      fitted: calm || random() < 0.9,
      basis: calm ? 'seen' : pick(random, ['seen', 'assumed', 'guessed']),
      ...(['resistor', 'capacitor', 'inductor'].includes(kind)
        ? { value: calm ? sound() : figure(), valueText: '1' }
        : {}),
      ...(['diode', 'mosfet'].includes(kind) ? { model: kind === 'diode' ? 'DX' : 'MX' } : {}),
      ...(kind === 'ic' ? { subcircuit: calm ? 'KV51' : oddOr(random, ['KV51'], 0.5) } : {}),
    };
  };
  return {
    format: 'rough-lantern-board',
    version: calm ? 1 : pick(random, [1, 1, 2]),
    title: calm ? 'a board' : pick(random, ODD_WORDS),
    parts: Array.from({ length: Math.floor(random() * 8) }, (_, i) => part(i)),
    couplings: [],
    models: [
      { name: 'DX', type: 'D', numbers: { is: 1e-9, n: 1.8 }, written: '' },
      { name: 'MX', type: 'NMOS', numbers: { vto: 3 }, written: '' },
    ],
    subcircuits: [],
    layout: [],
  };
}
