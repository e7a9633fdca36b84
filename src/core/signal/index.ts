export { withFaults } from './faultySignal';
export { SIGNAL_MODES, SIGNAL_UNITS, SignalReader } from './readSignal';
export type { SignalMode } from './readSignal';
export {
  coreAcross,
  countedCycles,
  cyclesSigma,
  isCoreKnown,
  leastCycles,
  ringAcross,
  shownCycles,
  swingMargin,
} from './ring';
export type { Ring } from './ring';
export { figureChange, figureOf, shownOf, signalSigma } from './shown';
export type { OneTone } from './shown';
export {
  CAP_LIMIT_OHMS,
  ESR_LIMIT_OHMS,
  GOOD_CYCLES,
  LEAST_CYCLES,
  LEAST_REACTIVE,
  RING_LIMIT,
  SIGNAL_HERTZ,
  SIGNAL_NOISE,
} from './tones';
export { SignalNetwork } from './signalNetwork';
export type { DrawEffect, SignalBoard } from './signalNetwork';
export { SmallSignal, solveAt } from './smallSignal';
