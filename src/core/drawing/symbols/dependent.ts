import type { Art } from '../stroke';

const BODY = 'M0 10H8M32 10H40M8 5h24v10h-24z';
const SLANT = 'M7 19h5L33 1';

/** Resistors that depend on something: on how warm they are, on their voltage. */
export const ntc = (): Art => ({
  strokes: [{ d: BODY }, { d: SLANT }],
  marks: [{ text: 't', x: 4, y: 16, anchor: 'middle' }],
});
export const mov = (): Art => ({
  strokes: [{ d: BODY }, { d: SLANT }],
  marks: [{ text: 'U', x: 4, y: 16, anchor: 'middle' }],
});
