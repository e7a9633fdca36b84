export { assumeAll, emptyPlace, emptyPosition, statePart, withKey } from './editPart';
export type { NoSuchPart, PartStatement } from './editPart';
export { BLOCK_NAMES, NUMERIC_KEYS } from './elementTable';
export { netlistNumber, netlistText } from './netlistNumber';
export type { NetlistProblem } from './problems';
export { readNetlist } from './readNetlist';
export type { NetlistReading } from './readNetlist';
export { partLine, writeNetlist } from './writeNetlist';
