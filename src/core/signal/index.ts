export { withFaults } from './faultySignal';
export {
  ESR_LIMIT_OHMS,
  LEAST_REACTIVE,
  SIGNAL_HERTZ,
  SIGNAL_MODES,
  SIGNAL_NOISE,
  SIGNAL_UNITS,
  SignalReader,
} from './readSignal';
export type { SignalMode } from './readSignal';
export { figureChange, figureOf } from './shown';
export { SignalNetwork } from './signalNetwork';
export type { DrawEffect, SignalBoard } from './signalNetwork';
export { SmallSignal, solveAt } from './smallSignal';
