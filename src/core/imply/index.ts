export { impliedValues } from './impliedValue';
export type { ImpliedValue } from './impliedValue';
export { readingsInPlace } from './readingsInPlace';
export type { PlacedReading } from './readingsInPlace';
