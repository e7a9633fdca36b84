import type { Branch } from './partGraph';

/** A full-wave rectifier, block or of single diodes, and what feeds it. */
export interface Rectifier {
  readonly branches: readonly Branch[];
  readonly ac: readonly string[];
  readonly plus: string;
  readonly minus: string;
}

/** Windings on one core. `choke`: its windings lie in series in a line, one per conductor (common-mode choke). */
export interface Core {
  readonly windings: readonly Branch[];
  readonly choke: boolean;
}
