import type { Art } from '../stroke';

const BODY = 'M0 20H10M10 15L20 6V0M10 25L20 34V40';
const BASE = { d: 'M10 8V32', bold: true };

/** Bipolar transistors: collector on top, base at the left, the arrow on the emitter. */
export const npn = (): Art => ({ strokes: [{ d: BODY }, BASE, { d: 'M19.5 33.6l-6.4 -1.6l3.9 -4.4z', filled: true }] });
export const pnp = (): Art => ({ strokes: [{ d: BODY }, BASE, { d: 'M11 26l6.4 1.6l-3.9 4.4z', filled: true }] });
