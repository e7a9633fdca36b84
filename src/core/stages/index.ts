export { findPowerPath, inputPole, isFuse, shortsPower } from './powerPath';
export type { PowerPath } from './powerPath';
