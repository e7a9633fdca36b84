export { expectReading } from './expectReading';
export type { ExpectedReading } from './expectReading';
export { decadeSlip, judge } from './judge';
export type { Outcome, SeenReading } from './judge';
export { judgePowered } from './judgePowered';
