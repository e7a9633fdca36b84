export { ARCHETYPES, archetypeBoard } from './archetypes';
export type { Archetype } from './archetypes';
