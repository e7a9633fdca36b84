export { Permit } from './judgePermit';
export type { PermitReading, PowerPermit, PresentReading } from './judgePermit';
export { ThreatReadings, threatSolver } from './threatReadings';
export { BARRIER_OHMS, LEAK_OHMS } from './threats';
export type { FedPath, Threat } from './threats';
