import { lines } from '../stroke';

/** A triac: two thyristors face to face, the gate at the left. */
export const triac = () =>
  lines('M20 0V12M20 28V40M8 12H32M8 28H32', 'M9 28L14.5 12L20 28ZM20 12L25.5 28L31 12Z', 'M0 20H4L9 28');
