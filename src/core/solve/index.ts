export type { JunctionStates } from './componentSystem';
export { DcSolver } from './dcSolver';
export type { LeadSolution, NoConvergence } from './dcSolver';
export type { DeviceFlow } from './deviceFlows';
export type { FactoredSolution } from './nearby';
export type { MainDraws } from './readingSpread';
export { buildNetwork, coldNetwork } from './network';
export type { Network } from './network';
export type { LeadDrive, Stimulus } from './stimulus';
