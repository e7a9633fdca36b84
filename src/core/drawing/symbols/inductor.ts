import { lines } from '../stroke';

const COIL = 'M0 10H6a3.5 3.5 0 0 1 7 0a3.5 3.5 0 0 1 7 0a3.5 3.5 0 0 1 7 0a3.5 3.5 0 0 1 7 0H40';

/** A coil; on a core it has a line over it. */
export const inductor = () => lines(COIL);
export const coreInductor = () => lines(COIL, 'M6 3H34');
