import { lines } from '../stroke';

/** A crystal: its slice between two plates. */
export const crystal = () => lines('M0 10H12M28 10H40M12 4V16M28 4V16', 'M16 1H24V19H16Z');
