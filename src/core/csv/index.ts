export { csvCell } from './csvCell';
