import type { Nameplate } from '../circuit';
import type { KeyText, PartKind } from '../part';

/** A place in the shorthand: one pin of a part, or a net by its name. */
export type Spot =
  { readonly kind: 'pin'; readonly ref: string; readonly pin: string } | { readonly kind: 'net'; readonly net: string };

/**
 * One tracing fact, as it is written down; the board is derived from all that stand.
 *
 * part      a part with what is printed on it; `pins` null leaves its connections as they are.
 * joined    seen or measured as one net. low-path: a beep, which fuses and windings give as well.
 * reads     ohms between two places.
 * drops     a diode test, red lead on the first place, black on the second: volts, null for overload.
 */
export type Fact =
  | {
      readonly kind: 'part';
      readonly ref: string;
      readonly partKind: PartKind | null;
      /** The kind was said, not guessed from the designator. */
      readonly kindSaid: boolean;
      readonly mark: string | null;
      readonly keys: readonly KeyText[];
      readonly pins: readonly { readonly pin: string | number; readonly net: string }[] | null;
      readonly core: string | null;
    }
  | { readonly kind: 'joined'; readonly spots: readonly Spot[] }
  | { readonly kind: 'low-path'; readonly spots: readonly [Spot, Spot] }
  | { readonly kind: 'not-joined'; readonly spots: readonly [Spot, Spot] }
  | { readonly kind: 'reads'; readonly spots: readonly [Spot, Spot]; readonly ohms: number }
  | { readonly kind: 'drops'; readonly spots: readonly [Spot, Spot]; readonly volts: number | null }
  | { readonly kind: 'rename'; readonly from: string; readonly to: string }
  | { readonly kind: 'split'; readonly net: string; readonly pins: readonly Spot[]; readonly to: string }
  | { readonly kind: 'drop'; readonly ref: string }
  | { readonly kind: 'empty'; readonly ref: string }
  | { readonly kind: 'datasheet'; readonly ref: string; readonly values: Readonly<Record<string, number>> }
  /** What someone settled by hand of a part: its stage, its converter's topology, its core's purpose, a pin's role. */
  | { readonly kind: 'settled'; readonly ref: string; readonly key: string; readonly value: string }
  /** What is printed on the unit, corrected: the whole of it. It is no line of the shorthand. */
  | { readonly kind: 'plate'; readonly plate: Nameplate };

/** What a meter said between two places. */
export type Check = Extract<Fact, { kind: 'low-path' | 'not-joined' | 'reads' | 'drops' }>;

/** Whether a fact is what a meter said between two places. */
export function isCheck(fact: Fact): fact is Check {
  return ['low-path', 'not-joined', 'reads', 'drops'].includes(fact.kind);
}

/** A spot as it is written: `R7.2` or `VCC`. */
export function spotText(spot: Spot): string {
  return spot.kind === 'net' ? spot.net : `${spot.ref}.${spot.pin}`;
}
