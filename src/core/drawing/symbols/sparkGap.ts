import { lines } from '../stroke';

/** A spark gap: two points that face each other. */
export const sparkGap = () => lines('M0 10H17M23 10H40M11 5L17 10L11 15M29 5L23 10L29 15');
