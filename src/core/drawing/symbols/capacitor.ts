import { lines } from '../stroke';

/** A capacitor: two plates. */
export const capacitor = () => lines('M0 10H17M23 10H40M17 2V18M23 2V18');
