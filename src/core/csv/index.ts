export { csvCell, csvRows } from './csvRows';
