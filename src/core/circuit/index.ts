export {
  EMPTY_BOARD,
  NOT_CONNECTED,
  boardNets,
  findPart,
  isElectrolytic,
  netKey,
  parallelOhms,
  pinsOnNet,
  safetyClass,
} from './board';
export type { Board, Coupling, LayoutItem, Model, Nameplate, NameplateOutput, Subcircuit } from './board';
export { BOARD_LIMITS, DESIGNATOR } from './limits';
export { placesOnNet } from './places';
export type { Place } from './places';
export { BLOCK_KINDS, keyText, marking } from './part';
export type { BlockKind, BlockPart, IcPart, KeyText, ModelPart, Part, PartKind, PassivePart, SourcePart } from './part';
export { BLOCK_PINS, pinIndex, pinNames } from './pinNames';
