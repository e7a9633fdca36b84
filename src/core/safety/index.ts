export { PROOF_MINUTES, REGAIN_MINUTES, judgeHazard, secondsSince, storeName } from './hazard';
export type { Hazard, HazardState, Moment, ProofReading, SourceState, StoreState } from './hazard';
export { nameplateSanity } from './nameplateSanity';
export type { PlateFigures, PlateSanity } from './nameplateSanity';
export { METER_LIMIT_VOLTS, TOUCH_LIMIT_JOULES, TOUCH_LIMIT_VOLTS, UNTRACED, WET_TOUCH_LIMIT_VOLTS } from './limits';
export { energyStores, raisedTo, untracedStore, withPlate } from './stores';
export type { DischargePlan, EnergyStore } from './stores';
