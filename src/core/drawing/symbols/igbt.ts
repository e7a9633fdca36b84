import type { Art } from '../stroke';

/** An insulated-gate bipolar transistor: collector on top, gate at the left. */
export const igbt = (): Art => ({
  strokes: [
    { d: 'M0 20H6M6 10V30M11 15L20 6V0M11 25L20 34V40' },
    { d: 'M11 8V32', bold: true },
    { d: 'M19.5 33.6l-6.4 -1.6l3.9 -4.4z', filled: true },
  ],
});
