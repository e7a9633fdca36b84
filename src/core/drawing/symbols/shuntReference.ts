import { lines } from '../stroke';

/** A shunt reference: a zener that is told its voltage at the left; cathode on top. */
export const shuntReference = () => lines('M20 0V13M20 27V40M11 27H29L20 13Z', 'M10 17V13H30V9', 'M0 20H15.5');
