import { lines } from '../stroke';

/** A resistor: a box in its leads. */
export const resistor = () => lines('M0 10H8M32 10H40M8 5h24v10h-24z');
