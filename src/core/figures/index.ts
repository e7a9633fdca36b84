export { boardFigures, figureOf, figuresFor, isPending } from './boardFigures';
export type { Figure } from './boardFigures';
export { suggestFigures } from './suggestFigures';
export { sumsForPart } from './sumsForPart';
export type { PartSum } from './sumsForPart';
