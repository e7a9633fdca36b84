export { EMPTY_BOARD, NOT_CONNECTED, boardNets, findPart, netKey, netPairKey, pinsOnNet } from './board';
export type { Board, Coupling, LayoutItem, Nameplate, NameplateOutput, Subcircuit } from './board';
export { BOARD_LIMITS, DESIGNATOR } from './limits';
export { easiestPlace, placesOnNet } from './places';
export type { Place } from './places';
export { BLOCK_PINS, pinIndex, pinNames } from './pinNames';
