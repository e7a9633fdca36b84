import type { Branch } from './partGraph';

/** A full-wave rectifier, block or of single diodes, and what feeds it. */
export interface Rectifier {
  readonly branches: readonly Branch[];
  readonly ac: readonly string[];
  readonly plus: string;
  readonly minus: string;
}

/**
 * What a core is for, by what its windings can carry. `common-mode`: one winding in each conductor of a line;
 * `output-choke`: each winding smooths what a rectifier gives; `current`: a winding of few turns in a conductor, its
 * current turned into volts by a burden across the other; `drive`: set by hand, carries drive to gates; `transformer`:
 * everything else.
 */
export const CORE_PURPOSES = ['common-mode', 'output-choke', 'current', 'drive', 'transformer'] as const;
export type CorePurpose = (typeof CORE_PURPOSES)[number];

/** Windings on one core. */
export interface Core {
  readonly windings: readonly Branch[];
  readonly purpose: CorePurpose;
}
