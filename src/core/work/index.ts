export { POWERED_MODES, POWERED_UNITS, PoweredReader, poweredPoints } from './readPowered';
export type { Derived, DerivationStep } from './derive';
export type { PoweredMode, PoweredPoint, PoweredReading, Waveform } from './readPowered';
export { LOADS } from './workBoard';
export type { OperatingCondition } from './workBoard';
export type { ConverterState, Operation } from './operate';
export { workPlan } from './workPlan';
export { alivePoint, alivePoints } from './alivePoints';
export type { AlivePoint } from './alivePoints';
