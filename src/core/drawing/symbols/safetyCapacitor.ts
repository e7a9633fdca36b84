import type { Art } from '../stroke';

/** A capacitor of a safety class: plates with a bar over its leads. */
export const safetyCapacitor = (): Art => ({
  strokes: [{ d: 'M0 10H17M23 10H40M17 2V18M23 2V18' }, { d: 'M11 5V15M29 5V15' }],
});
