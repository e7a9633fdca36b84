import { lines } from '../stroke';

/** A fuse: its wire runs through the box. */
export const fuse = () => lines('M0 10H40', 'M8 5h24v10h-24z');
