import type { FailureKind } from './faultModes';

/**
 * Weight of each kind of part per 100 dead supplies, shared by all parts of the kind on the board.
 *
 * Sharing by kind keeps thirty small resistors from outvoting one electrolytic. Edit here; each row has its reason.
 * Source: engine.md section 7, "to start from, per 100 dead offline supplies".
 */
export const KIND_WEIGHTS = {
  electrolytic: { weight: 28, why: 'dried electrolytics lead every count' },
  'small-capacitor': { weight: 2, why: 'cracked ceramics' },
  'safety-capacitor': { weight: 1.5, why: 'X and Y films, after surges' },
  'high-resistor': { weight: 9, why: 'start-up and other high-ohm resistors on high voltage' },
  'low-resistor': { weight: 3, why: 'burnt sense and series resistors' },
  winding: { weight: 3, why: 'joints of chokes and transformers; shorted turns are rare' },
  'power-rectifier': { weight: 6, why: 'output rectifiers short' },
  'small-diode': { weight: 2, why: 'clamp, auxiliary and signal diodes' },
  zener: { weight: 1.5, why: 'protection zeners and TVS that did their duty' },
  led: { weight: 0.3, why: 'indicators' },
  bjt: { weight: 2, why: 'small transistors' },
  'switch-transistor': { weight: 18, why: 'switch shorted, with what it takes along' },
  bridge: { weight: 4, why: 'bridge legs' },
  fuse: { weight: 3, why: 'the fuse alone' },
  ntc: { weight: 2, why: 'inrush limiters crack' },
  mov: { weight: 2, why: 'varistors after surges' },
  'opto-or-reference': { weight: 3, why: 'optocouplers and shunt references' },
  regulator: { weight: 2, why: 'three-terminal regulators' },
  relay: { weight: 2, why: 'contacts and coils' },
  contact: { weight: 6, why: 'switches, links and joints' },
  triac: { weight: 2, why: 'thyristors and triacs' },
  ic: { weight: 6, why: 'controllers' },
} as const satisfies Record<FailureKind, { readonly weight: number; readonly why: string }>;

/** Weight of "nothing on this board is broken" before any reading. */
export const NONE_WEIGHT = 3;

/** Symptoms of the contract. */
export const SYMPTOMS = [
  'dead',
  'fuse-blows',
  'hiccup',
  'low-output',
  'high-output',
  'unstable',
  'sags',
  'ok-unloaded',
  'noisy',
  'hot',
  'smells',
  'status-light',
] as const;
export type Symptom = (typeof SYMPTOMS)[number];

/** How a symptom multiplies the weight of kinds. Kinds not named keep theirs. `powerShort` acts on mains-path shorts. */
export const SYMPTOM_FACTORS: Readonly<
  Record<Symptom, Partial<Record<FailureKind | 'powerShort' | 'fuseOpen', number>>>
> = {
  dead: { fuseOpen: 2, fuse: 2, 'high-resistor': 1.5, powerShort: 1.5 },
  'fuse-blows': { powerShort: 8, fuseOpen: 3 },
  hiccup: {
    electrolytic: 1.5,
    'power-rectifier': 2,
    'opto-or-reference': 2,
    zener: 1.5,
    powerShort: 0.1,
    fuseOpen: 0.05,
  },
  'low-output': { electrolytic: 2, powerShort: 0.1, fuseOpen: 0.05 },
  'high-output': { 'opto-or-reference': 5, 'low-resistor': 2, powerShort: 0.1, fuseOpen: 0.05 },
  unstable: { electrolytic: 2, powerShort: 0.1, fuseOpen: 0.05 },
  sags: { electrolytic: 2, powerShort: 0.1, fuseOpen: 0.05 },
  'ok-unloaded': { electrolytic: 2, powerShort: 0.1, fuseOpen: 0.05 },
  noisy: { electrolytic: 1.5, winding: 1.5, powerShort: 0.2, fuseOpen: 0.1 },
  hot: { electrolytic: 1.5, powerShort: 0.3, fuseOpen: 0.1 },
  smells: { powerShort: 2, 'low-resistor': 2 },
  'status-light': {},
};
