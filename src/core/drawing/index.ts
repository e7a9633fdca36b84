export { draw, drawPlaced } from './draw';
export { GRID } from './drawing';
export type {
  DrawnName,
  DrawnPin,
  DrawnStage,
  DrawnSymbol,
  DrawnText,
  DrawnWire,
  Drawing,
  Side,
  Turn,
} from './drawing';
export { measureDrawing } from './measure';
export type { DrawingFigures } from './measure';
