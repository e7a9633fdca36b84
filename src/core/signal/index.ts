export { withFaults } from './faultySignal';
export { SIGNAL_MODES, SIGNAL_UNITS, SignalReader } from './readSignal';
export type { SignalMode } from './readSignal';
export { figureChange, figureOf, shownOf, signalSigma } from './shown';
export { CAP_LIMIT_OHMS, ESR_LIMIT_OHMS, LEAST_REACTIVE, SIGNAL_HERTZ, SIGNAL_NOISE } from './tones';
export { SignalNetwork } from './signalNetwork';
export type { DrawEffect, SignalBoard } from './signalNetwork';
export { SmallSignal, solveAt } from './smallSignal';
