export { SIGNAL_MODES, SIGNAL_UNITS, SignalReader } from './readSignal';
export type { SignalMode } from './readSignal';
export { SmallSignal, solveAt } from './smallSignal';
