import { floats, ints } from '../linear';

/** The most conductances that may be added at once: with more of them a solve is quicker. */
export const MOST_BRANCHES = 6;

/** Buffers for one component; their contents have no meaning between calls. */
export interface NearbyRoom {
  /** Of each added branch its ends, and the volts that an ampere through it makes. */
  readonly ends: Int32Array;
  readonly columns: Float64Array[];
  readonly matrix: Float64Array;
  readonly pivots: Int32Array;
  readonly through: Float64Array;
  readonly linear: Float64Array;
  readonly bent: Float64Array;
  readonly bentBefore: Float64Array;
  /** Of an opened pin what it does to each node, what each node does to it, and the volts that an ampere of the first makes. */
  readonly into: Float64Array;
  readonly from: Float64Array;
  readonly column: Float64Array;
}

export function nearbyRoom(size: number): NearbyRoom {
  const buffer = (): Float64Array => floats(size);
  return {
    ends: ints(2 * MOST_BRANCHES),
    columns: [],
    matrix: floats(MOST_BRANCHES * MOST_BRANCHES),
    pivots: ints(MOST_BRANCHES),
    through: floats(MOST_BRANCHES),
    linear: buffer(),
    bent: buffer(),
    bentBefore: buffer(),
    into: buffer(),
    from: buffer(),
    column: buffer(),
  };
}
