export { netsCsv, partsCsv, pinsCsv, readPartsCsv } from './partsCsv';
export type { PartsReading } from './partsCsv';
