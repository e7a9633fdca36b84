import { lines } from '../stroke';

/** A thyristor: a diode down the page with its gate at the cathode, at the left. */
export const thyristor = () => lines('M20 0V13M20 27V40M11 27H29', 'M11 13H29L20 27Z', 'M0 20H5L12 27');
