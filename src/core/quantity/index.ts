export { E_SERIES, nearestPreferred } from './eSeries';
export type { SeriesName } from './eSeries';
export { UNIT_SIGNS, engineeringParts, formatQuantity, formatVolts } from './formatQuantity';
export { parseQuantity } from './parseQuantity';
export type { ParsedQuantity, UnreadableQuantity } from './parseQuantity';
export type { Unit } from './prefixes';
export { BASES, banded, weakestBasis } from './quantity';
export type { Basis, Quantity } from './quantity';
