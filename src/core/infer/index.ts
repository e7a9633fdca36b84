export { inferredValues } from './inferredValue';
export type { InferredValue } from './inferredValue';
export { readingsInPlace } from './readingsInPlace';
export type { PlacedReading } from './readingsInPlace';
