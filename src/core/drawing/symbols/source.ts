import { lines } from '../stroke';

const CIRCLE = 'M0 10H11M29 10H40M29 10a9 9 0 1 1 -18 0a9 9 0 1 1 18 0';

/** Supplies: volts with their plus at pin 1, amperes with their arrow. */
export const voltageSource = () => lines(CIRCLE, 'M14 10h5M16.5 7.5v5M22 10h4');
export const currentSource = () => lines(CIRCLE, 'M14 10h12m-4 -3l4 3l-4 3');
