export { draw } from './draw';
export type { Drawn } from './draw';
export type { Standing } from './remembered';
export { GRID } from './drawing';
export type {
  DrawnName,
  DrawnPin,
  DrawnRail,
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
export { artOf } from './art';
export type { PlacedArt } from './art';
export { joints } from './joints';
export { around } from './bands';
export { WORDS_SIZE, wordsOnWires } from './onWires';
export type { WantedWords } from './onWires';
export { PAPERS, drawingOnPaper } from './paper';
export type { Paper, SheetTitle } from './paper';
export { drawingSvg, onBarrier, restsOn, signPath, titleLines } from './svg';
export { stageWords } from './words';
