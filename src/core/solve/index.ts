export { buildNetwork } from './buildNetwork';
export type { JunctionStates } from './componentSystem';
export { DcSolver } from './dcSolver';
export type { LeadDrive, LeadSolution, NoConvergence } from './dcSolver';
export type { ElementFlow } from './elementFlows';
export { JUNCTION_GMIN, THERMAL_VOLTS } from './network';
export type { Network } from './network';
export { NOMINAL_DRAW, partSigma } from './partSpread';
export type { DrawnProperty, PartDraw } from './partSpread';
