import { lines } from '../stroke';

/** A fan: three blades in a circle. */
export const fan = () =>
  lines(
    'M0 10H11M29 10H40M29 10a9 9 0 1 1 -18 0a9 9 0 1 1 18 0',
    'M20 10a3.5 3.5 0 0 1 0 -7ZM20 10a3.5 3.5 0 0 1 6 3.5ZM20 10a3.5 3.5 0 0 1 -6 3.5Z',
  );
