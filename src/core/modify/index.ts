export { CHANGE_NAMES } from './change';
export type { Change, ChangeKind } from './change';
export { findDividers, findLoadPlaces, findLockPins } from './places';
export type { Divider, LoadPlace, LockPin } from './places';
export { withFacts } from './plan';
export type { CannotModify, Plan, PlanProblem } from './plan';
export { keptStress, planChange } from './planChange';
export { judgeSteps, stepExpectation } from './steps';
export type { ExpectedStep, StepReading, StepResult } from './steps';
