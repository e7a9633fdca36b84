import { formatQuantity } from '../quantity';
import { partFigure } from '../part';
import type { Part } from '../part';

/** Width of a letter of a symbol's label and of a net's name, pixels: the widest of the face at their sizes. */
export const LABEL_PIXELS = 6.7;
export const STUB_PIXELS = 5.4;

/** The value beside a symbol, short. */
export function shortValue(part: Part): string {
  if (part.kind === 'resistor') return formatQuantity(part.value, 'ohm');
  if (part.kind === 'capacitor') return formatQuantity(part.value, 'F');
  if (part.kind === 'inductor') return formatQuantity(part.value, 'H');
  const amps = part.kind === 'fuse' ? partFigure(part, 'ratedAmps') : undefined;
  return amps === undefined ? '' : formatQuantity(amps, 'A');
}

/** Designator and value, as they stand above a symbol; room for a suspicion's figure is kept. */
export function labelOf(part: Part): string {
  return `${part.ref} ${shortValue(part)}`.trim();
}
