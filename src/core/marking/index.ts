export { decodeMarking } from './decodeMarking';
export type { RankedReading } from './decodeMarking';
export { MARK_KINDS } from './markReading';
export type { MarkKind, MarkReading } from './markReading';
