export { expectReading } from './expectReading';
export type { ExpectedReading } from './expectReading';
export { decadeSlip, judge } from './judge';
export type { Outcome, SeenReading } from './judge';
export { judgePowered } from './judgePowered';
export { movedPoints } from './moved';
export type { Moved } from './moved';
export { parseSupposition, supposed } from './suppose';
export type { BadSupposition, Supposition } from './suppose';
