export { channelCurrent, isCutOff } from './channel';
export { isCapacitor } from './circuit';
export type { Circuit, Device, Dormant } from './circuit';
export { NOMINAL_DRAW, partSigma } from './draw';
export type { DrawnProperty, PartDraw } from './draw';
export { roomFor } from './evaluation';
export type { DeviceKind, DeviceModel, Evaluation } from './evaluation';
export { flatten } from './flatten';
export {
  BREAKDOWN,
  JUNCTION_GMIN,
  SATURATION,
  SLOPE,
  criticalVolts,
  junctionAt,
  limitJunction,
  wrightOmega,
} from './junction';
export { RESISTOR, windings } from './passives';
export { transportAt } from './transistor';
