import type { Art } from '../stroke';

const BODY = 'M0 10H14M26 10H40M14 3V17L26 10Z';

const withBar = (bar: string, more = ''): Art => ({ strokes: [{ d: BODY }, { d: `${bar}${more}` }] });

/** Diodes: what their bar looks like tells which. Pin 1 is the anode, at the left. */
export const diode = () => withBar('M26 3V17');
export const schottky = () => withBar('M30 6V3H26V17H22V14');
export const zener = () => withBar('M22 3H26V17');
export const tvs = () => withBar('M22 3H26V17H30');
export const led = () => withBar('M26 3V17', 'M30 6l5 -4m-3.5 .5l3.5 -.5l-.5 3.5M32 10l5 -4m-3.5 .5l3.5 -.5l-.5 3.5');
