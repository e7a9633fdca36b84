import { BLOCK_PINS } from '../circuit';
import type { PartKind } from '../part';

/** Which kind of part a designator's letters stand for, longest first. Boards print many. */
const PREFIXES: readonly (readonly [RegExp, PartKind])[] = [
  [/^(RT|RTH|TH|NTC|NT)\d/iu, 'ntc'],
  [/^(RV|MOV|VDR|VR)\d/iu, 'mov'],
  [/^(RL|RY|RLY)\d/iu, 'relay'],
  [/^R(?:\w*)$/iu, 'resistor'],
  [/^(CN|CON)\d/iu, 'connector'],
  [/^C(?:\w*)$/iu, 'capacitor'],
  [/^(BD|BR|DB)\d/iu, 'bridge'],
  [/^(LED|ZD|DZ|TVS)\w*$/iu, 'diode'],
  [/^(LA|LP|NE)\d/iu, 'lamp'],
  [/^L(?:\w*)$/iu, 'inductor'],
  [/^D(?:\w*)$/iu, 'diode'],
  [/^Q(?:\w*)$/iu, 'bjt'],
  [/^M(?:\w*)$/iu, 'mosfet'],
  [/^(PC|OC|OK|OPT|ISO)\d/iu, 'opto'],
  [/^(U|IC)\w*$/iu, 'ic'],
  [/^(FU?)\d/iu, 'fuse'],
  [/^(SW|S)\d/iu, 'switch'],
  [/^(TR|TY|SCR)\d/iu, 'triac'],
  [/^(J|P|X|T)\w*$/iu, 'connector'],
];

/** The kind that a designator suggests; null when its letters say nothing. */
export function kindOfRef(ref: string): PartKind | null {
  return PREFIXES.find(([shape]) => shape.test(ref))?.[1] ?? null;
}

/** Words that name a kind outright in the shorthand. */
export const KIND_WORDS: Readonly<Record<string, PartKind>> = {
  resistor: 'resistor',
  capacitor: 'capacitor',
  choke: 'inductor',
  winding: 'inductor',
  diode: 'diode',
  zener: 'diode',
  led: 'diode',
  npn: 'bjt',
  pnp: 'bjt',
  mosfet: 'mosfet',
  igbt: 'mosfet',
  fuse: 'fuse',
  switch: 'switch',
  ntc: 'ntc',
  mov: 'mov',
  bridge: 'bridge',
  opto: 'opto',
  reference: 'shunt-reference',
  regulator: 'regulator',
  relay: 'relay',
  lamp: 'lamp',
  triac: 'triac',
  connector: 'connector',
  ic: 'ic',
};

/** How many pins a kind has; null where it varies. */
export function pinCount(kind: PartKind): number | null {
  switch (kind) {
    case 'resistor':
    case 'capacitor':
    case 'inductor':
    case 'voltage-source':
    case 'current-source':
    case 'diode':
      return 2;
    case 'bjt':
    case 'mosfet':
      return 3;
    case 'ic':
    case 'connector':
      return null;
    default:
      return BLOCK_PINS[kind].length;
  }
}
