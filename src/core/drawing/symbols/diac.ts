import { lines } from '../stroke';

/** A diac: two diodes face to face between two bars, no gate. */
export const diac = () => lines('M0 10H13M27 10H40M13 1V19M27 1V19', 'M13 2V10L27 6ZM27 10V18L13 14Z');
