import type { Art } from '../stroke';

/** A polarised capacitor: its positive plate hollow and marked. */
export const electrolytic = (): Art => ({
  strokes: [{ d: 'M0 10H14M26 10H40M14 2h4v16h-4zM5 4h5M7.5 1.5v5' }, { d: 'M22 2h4v16h-4z', filled: true }],
});
