export {
  PART_FIGURES,
  coldOhms,
  isElectrolytic,
  isFuse,
  isOpenSwitch,
  marking,
  parallelOhms,
  partFigure,
  partText,
  isRatedAlternating,
  safetyClass,
  valueTolerance,
  withFigure,
} from './figures';
export type { PartFigure } from './figures';
export {
  THERMAL_VOLTS,
  channelFigures,
  junctionFigures,
  junctionVolts,
  plainJunction,
  transistorFigures,
} from './model';
export type { ChannelFigures, JunctionFigures, Model, TransistorFigures } from './model';
export { BLOCK_KINDS } from './part';
export type { BlockKind, BlockPart, IcPart, KeyText, ModelPart, Part, PartKind, PassivePart, SourcePart } from './part';
export { SHEET_FACTS, heldPinVolts, sheetFact, sheetOf } from './sheet';
export type { SheetFact, Sheets } from './sheet';
export { shortValue } from './shortValue';
