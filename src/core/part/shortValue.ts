import { formatQuantity } from '../quantity';
import { partFigure } from './figures';
import type { Part } from './part';

/** The value of a part, short, as it stands beside its symbol; empty where it has none. */
export function shortValue(part: Part): string {
  if (part.kind === 'resistor') return formatQuantity(part.value, 'ohm');
  if (part.kind === 'capacitor') return formatQuantity(part.value, 'F');
  if (part.kind === 'inductor') return formatQuantity(part.value, 'H');
  const amps = part.kind === 'fuse' ? partFigure(part, 'ratedAmps') : undefined;
  return amps === undefined ? '' : formatQuantity(amps, 'A');
}
