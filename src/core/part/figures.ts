import { ownValue } from '../problem';
import type { Unit } from '../quantity';
import type { Part } from './part';

/**
 * The numeric keys of a part (`netlist.md` section 1): the name each has in code, its key in the file and its unit.
 * `tolerance` is a fraction. `ohms` is the resistance of a fuse, a contact or a cold lamp.
 */
export const PART_FIGURES = {
  tolerance: { key: 'tol', unit: '1' },
  ratedVolts: { key: 'vr', unit: 'V' },
  ratedWatts: { key: 'pr', unit: 'W' },
  ratedAmps: { key: 'ir', unit: 'A' },
  seriesOhms: { key: 'esr', unit: 'ohm' },
  windingOhms: { key: 'dcr', unit: 'ohm' },
  coreLossOhms: { key: 'rp', unit: 'ohm' },
  transferRatio: { key: 'ctr', unit: '1' },
  referenceVolts: { key: 'vref', unit: 'V' },
  ohms: { key: 'r', unit: 'ohm' },
  ohmsAt25: { key: 'r25', unit: 'ohm' },
  coilOhms: { key: 'rcoil', unit: 'ohm' },
  gateOhms: { key: 'rg', unit: 'ohm' },
  strikeVolts: { key: 'strike', unit: 'V' },
} as const satisfies Record<string, { readonly key: string; readonly unit: Unit }>;

export type PartFigure = keyof typeof PART_FIGURES;

/** A figure that is noted of a part, SI units (`tolerance` a fraction); undefined where nobody noted it. */
export function partFigure(part: Part, figure: PartFigure): number | undefined {
  return ownValue(part.numbers, PART_FIGURES[figure].key);
}

/** The part with another figure in place of what is noted; what is written of it stays. */
export function withFigure(part: Part, figure: PartFigure, value: number): Part {
  return { ...part, numbers: { ...part.numbers, [PART_FIGURES[figure].key]: value } };
}

/** The keys whose value is a text of the contract or of the trace. */
export type PartText =
  | 'mark'
  | 'state'
  | 'class'
  | 'stage'
  | 'topology'
  | 'core'
  | `role${number}`
  | 'pkg'
  | 'said'
  | 'type'
  | 'tol'
  | 'fusible'
  | 'flameproof';

/** The text of a key as written, or undefined. Keys are compared without case. */
export function partText(part: Part, key: PartText): string | undefined {
  return part.keys.find((k) => k.key.toLowerCase() === key)?.text;
}

/** What is printed on the part, or undefined. */
export function marking(part: Part): string | undefined {
  return partText(part, 'mark');
}

/** Whether a switch is noted as open. */
export function isOpenSwitch(part: Part): boolean {
  return part.kind === 'switch' && partText(part, 'state')?.toLowerCase() === 'open';
}

/** Whether a part is made to burn open: a fuse, or a resistor noted as fusible. */
export function isFuse(part: Part): boolean {
  return part.kind === 'fuse' || (part.kind === 'resistor' && partText(part, 'fusible') !== undefined);
}

/** What a part of the contract has where nothing is noted, ohm (`netlist.md` section 1). */
const COLD_OHMS = {
  fuse: ['ohms', 0.05],
  switch: ['ohms', 0.02],
  ntc: ['ohmsAt25', 10],
  lamp: ['ohms', 100],
  relay: ['coilOhms', 100],
  triac: ['gateOhms', 100],
} as const satisfies Record<string, readonly [PartFigure, number]>;

/**
 * Ohm that a reserved part shows on a cold board between its first two pins (a relay: its coil; a triac: gate to mt1).
 * An open switch included: its contact closed.
 */
export function coldOhms(part: Part, kind: keyof typeof COLD_OHMS): number {
  const [figure, ohms] = COLD_OHMS[kind];
  return partFigure(part, figure) ?? ohms;
}

/**
 * Whether a capacitor is an electrolytic, judged by what an electrolytic's paper and liquid give away:
 * a resistance-capacitance product above 3 µs. Film and ceramic parts stay below 1 µs.
 * Without a known ESR, 4.7 µF and more below 100 V, or 1 µF and more with its voltage on a µF mark, counts as one.
 */
export function isElectrolytic(part: Part): boolean {
  if (part.kind !== 'capacitor') return false;
  const esr = partFigure(part, 'seriesOhms');
  if (esr !== undefined) return part.value >= 0.47e-6 && esr * part.value > 3e-6;
  const print = marking(part) ?? '';
  if (/X[12]|Y[12]/iu.test(print)) return false;
  return part.value >= 4.7e-6 || (part.value >= 1e-6 && /uF|µF/u.test(print));
}

/** Safety class letter of a capacitor from its marking or its `class=` key: `X`, `Y` or null. */
export function safetyClass(part: Part): 'X' | 'Y' | null {
  if (part.kind !== 'capacitor') return null;
  const print = ` ${marking(part) ?? ''} ${partText(part, 'class') ?? ''} `;
  if (/(?:^|[^A-Z0-9])Y[12]?(?:[^A-Z]|$)/iu.test(print)) return 'Y';
  if (/(?:^|[^A-Z0-9])X[12]?(?:[^A-Z]|$)/iu.test(print)) return 'X';
  return null;
}

/** Whether the printed volts of a part are volts rms of the mains or the like: X, Y and AC capacitors. */
export function isRatedAlternating(part: Part): boolean {
  return safetyClass(part) !== null || /\bAC\b|~/iu.test(`${partText(part, 'class') ?? ''} ${marking(part) ?? ''}`);
}

/** Resistors in parallel as one, ohms; parts of other kinds carry nothing. */
export function parallelOhms(parts: readonly Part[]): number {
  return 1 / parts.reduce((sum, p) => sum + 1 / (p.kind === 'resistor' ? p.value : Infinity), 0);
}

/** Relative spread where no `tol=` is noted, two sigma (`netlist.md` section 3). */
function defaultTolerance(part: Part): number {
  if (part.kind === 'resistor') return 0.05;
  if (part.kind === 'capacitor') return isElectrolytic(part) ? 0.275 : 0.2;
  return 0.2;
}

/**
 * Two sigma of a part's value as a fraction: `tol=` where it is noted, else what the contract gives its kind.
 * An assumed resistor, capacitor or inductor is known to a factor of two.
 */
export function valueTolerance(part: Part): number {
  const known = tolerances.get(part);
  if (known !== undefined) return known;
  const made = findTolerance(part);
  tolerances.set(part, made);
  return made;
}

/** Parts never change; boards are flattened hundreds of times. */
const tolerances = new WeakMap<Part, number>();

function findTolerance(part: Part): number {
  if (part.basis === 'assumed' && ['resistor', 'capacitor', 'inductor'].includes(part.kind)) return Math.log(2);
  return partFigure(part, 'tolerance') ?? defaultTolerance(part);
}
