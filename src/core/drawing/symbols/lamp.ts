import { lines } from '../stroke';

/** A lamp: a cross in a circle. */
export const lamp = () =>
  lines('M0 10H11M29 10H40M29 10a9 9 0 1 1 -18 0a9 9 0 1 1 18 0', 'M13.6 3.6L26.4 16.4M26.4 3.6L13.6 16.4');
