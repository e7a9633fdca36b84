/** Buffers for one component; their contents have no meaning between calls. */
export interface NearbyRoom {
  readonly columns: Float64Array[];
  readonly linear: Float64Array;
  readonly bent: Float64Array;
  readonly bentBefore: Float64Array;
}

export function nearbyRoom(size: number): NearbyRoom {
  const buffer = (): Float64Array => new Float64Array(size);
  return { columns: [], linear: buffer(), bent: buffer(), bentBefore: buffer() };
}
