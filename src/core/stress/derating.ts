import { isElectrolytic, marking, partText, safetyClass, partFigure } from '../part';
import type { Part } from '../part';

/** Kinds of stress that a rating is derated for. */
export type StressKind = keyof typeof DERATING;

/**
 * How much of a printed rating is used, by kind, and why. Defaults; a caller may give its own.
 * Source: workshop practice as set down in our engine notes, section 6; `clamp` is ours.
 */
export const DERATING = {
  'bulk-electrolytic': {
    factor: 0.95,
    words: 'bulk electrolytic',
    why: 'at high line; the line hardly surges past it',
  },
  'output-electrolytic': { factor: 0.8, words: 'electrolytic', why: 'life and leakage near the rating' },
  film: { factor: 0.8, words: 'film capacitor', why: 'pulses and heat' },
  'safety-capacitor': { factor: 1, words: 'X or Y capacitor', why: 'its class holds the margin' },
  ceramic: { factor: 0.7, words: 'ceramic capacitor', why: 'loses capacitance with volts' },
  tantalum: { factor: 0.5, words: 'tantalum', why: 'fails short when surged' },
  'resistor-power': { factor: 0.6, words: 'resistor', why: 'heat on a crowded board' },
  'resistor-voltage': { factor: 0.9, words: 'resistor', why: 'its film creeps' },
  rectifier: { factor: 0.8, words: 'rectifier', why: 'ringing on top' },
  'transistor-voltage': { factor: 0.9, words: 'transistor', why: 'spikes on top' },
  'semiconductor-current': { factor: 0.7, words: 'semiconductor', why: 'junction temperature' },
  fuse: { factor: 0.75, words: 'fuse', why: 'ages when it runs warm' },
  clamp: { factor: 0.9, words: 'zener or surge clamp', why: 'leaks before it clamps, and 5 % tolerance' },
  'transistor-power': { factor: 0.6, words: 'semiconductor', why: 'junction temperature on a crowded board' },
  ripple: { factor: 1, words: 'ripple current', why: 'printed at its highest temperature' },
  saturation: { factor: 1, words: 'choke or winding', why: 'printed where it saturates or grows hot' },
  contact: { factor: 1, words: 'contact', why: 'as printed' },
  limit: { factor: 1, words: 'stated limit', why: 'as stated' },
} as const;

export type Derating = Readonly<
  Record<StressKind, { readonly factor: number; readonly words: string; readonly why: string }>
>;

let own: Derating = DERATING;

/** The workshop's deratings; the defaults until others are set. */
export const workshopDerating = (): Derating => own;

/** Sets the factors by which ratings are derated here; kinds that are not named keep theirs. */
export function setWorkshopDerating(factors: Readonly<Partial<Record<StressKind, number>>>): void {
  const kinds = Object.keys(DERATING) as StressKind[];
  own = Object.fromEntries(
    kinds.map((kind) => [kind, { ...DERATING[kind], factor: factors[kind] ?? DERATING[kind].factor }]),
  ) as Record<StressKind, Derating[StressKind]>;
}

export type Verdict = 'ok' | 'tight' | 'over' | 'unknown';

/**
 * Stress against rating: `ok` up to the derated limit, `tight` up to the rating, `over` beyond, `unknown` where either
 * is not known. SI units, both of one unit.
 */
export function judgeStress(stress: number | null, rating: number | null, factor: number): Verdict {
  if (stress === null || rating === null) return 'unknown';
  const allow = 1 + 1e-9;
  if (stress <= rating * factor * allow) return 'ok';
  return stress <= rating * allow ? 'tight' : 'over';
}

/** Which derating a capacitor is held to. bulk: it stands behind the mains rectifier. */
export function capacitorKind(part: Part, bulk: boolean): StressKind {
  if (safetyClass(part)) return 'safety-capacitor';
  const told = `${marking(part) ?? ''} ${partText(part, 'type') ?? ''}`;
  if (/tant|\bTA\b|^\d{3}[A-Z]$/iu.test(told.trim())) return 'tantalum';
  if (isElectrolytic(part)) return bulk ? 'bulk-electrolytic' : 'output-electrolytic';
  if (/MK[PTS]|film|poly/iu.test(told)) return 'film';
  const farads = part.kind === 'capacitor' ? part.value : 0;
  return (partFigure(part, 'ratedVolts') ?? 0) >= 160 && farads >= 10e-9 ? 'film' : 'ceramic';
}
