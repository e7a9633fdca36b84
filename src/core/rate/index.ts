export { cornerKey } from './corners';
export type { Corner, KnownCorners } from './corners';
export { STRAIN_UNITS } from './partStrain';
export type { StrainQuantity } from './partStrain';
export { quantityWords } from './quantityWords';
export { cornerWords, rateUnit } from './rateUnit';
export type { RateOptions, RatedStrain, RatedUnit } from './rateUnit';
export { usableOutput } from './usable';
export type { UsableOutput } from './usable';
