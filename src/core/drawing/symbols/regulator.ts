import { lines } from '../stroke';

/** A three-terminal regulator: in at the left, out at the right, its return below. */
export const regulator = () => lines('M6 8H34V32H6ZM0 20H6M34 20H40M20 32V40', 'M11 24H17V16H29');
