export { netsCsv, partsCsv, pinsCsv, readPartsTable } from './partsCsv';
export type { PartsReading } from './partsCsv';
