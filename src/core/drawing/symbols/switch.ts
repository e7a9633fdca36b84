import { lines } from '../stroke';

/** A switch, open as it stands. */
export const openSwitch = () =>
  lines('M0 10H10M30 10H40M12 9L29 1', 'M14 10a2 2 0 1 1 -4 0a2 2 0 1 1 4 0M30 10a2 2 0 1 1 -4 0a2 2 0 1 1 4 0');
