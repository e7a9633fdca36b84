export { POWERED_MODES, POWERED_UNITS, PoweredReader, poweredPoints } from './readPowered';
export type { PoweredMode, PoweredPoint, PoweredReading } from './readPowered';
export { LOAD_SHARE } from './workBoard';
export type { OperatingCondition } from './workBoard';
export type { ConverterState, Operation } from './operate';
export { workPlan } from './workPlan';
