import type { ColdMode, UnpoweredMode } from '../meter';

/** A reading that may be taken. Nets are named as on the board. */
export interface ProbePoint {
  readonly mode: UnpoweredMode;
  readonly red: string;
  readonly black: string;
}

/** One that a steady current answers. */
export interface ColdPoint extends ProbePoint {
  readonly mode: ColdMode;
}
