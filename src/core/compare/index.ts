export { compareBoards } from './compareBoards';
export type { Difference } from './compareBoards';
