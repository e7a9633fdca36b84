export { CHANGE_NAMES } from './change';
export type { Change, ChangeKind } from './change';
export { findLoadPlaces, findLockPins } from './places';
export type { LoadPlace, LockPin } from './places';
export { withFacts } from './plan';
export type { CannotModify, Plan, PlanProblem } from './plan';
export { keptStress, planChange } from './planChange';
export { judgeSteps, stepExpectation } from './steps';
export type { ExpectedStep, StepReading, StepResult } from './steps';
