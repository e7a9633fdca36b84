import type { ColdMode } from '../meter';

/** A reading that may be taken. Nets are named as on the board. */
export interface ProbePoint {
  readonly mode: ColdMode;
  readonly red: string;
  readonly black: string;
}
