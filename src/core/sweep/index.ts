export { COLUMN_KEYS, DERIVED_COLUMNS, DERIVED_KEYS, EMPTY_ROW, SWEEP_COLUMNS, deriveRow, lightestRow } from './sweep';
export type { DerivedRow, SweepColumn, SweepRow, SweepSetup } from './sweep';
export { MOST_ROWS, cellValue, readSweepTable, thinRows, writeSweepCsv } from './sweepCsv';
export type { CellTable, SweepReading, SweepTrouble } from './sweepCsv';
export { judgeSweep } from './verdicts';
export type { SweepVerdict } from './verdicts';
