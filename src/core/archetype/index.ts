export { ARCHETYPES, archetypeBoard } from './archetypes';
export type { Archetype } from './archetypes';
export { likeliestFirst } from './likely';
export type { PrintedPlate } from './likely';
