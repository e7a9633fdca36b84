import type { Art } from '../stroke';

const CHANNEL = 'M0 20H7M7 10V30M12 11H20V0M12 29H20V40M12 20H20V29M20 6H30V16M30 24V34H20';
const BARS = { d: 'M12 7V14M12 17V23M12 26V33', bold: true };

/** Field-effect transistors with their body diode: drain on top, gate at the left. */
export const nmos = (): Art => ({
  strokes: [{ d: CHANNEL }, BARS, { d: 'M12.5 20l6 -3v6z', filled: true }, { d: 'M25 24H35L30 16ZM25 16H35' }],
});
export const pmos = (): Art => ({
  strokes: [{ d: CHANNEL }, BARS, { d: 'M19.5 20l-6 -3v6z', filled: true }, { d: 'M25 16H35L30 24ZM25 24H35' }],
});
