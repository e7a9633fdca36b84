import { parseQuantity } from '@/core/quantity';
import type { Unit } from '@/core/quantity';

/** A typed figure above zero (or zero where allowed) in a unit; null for what is none. */
export function typedFigure(text: string, unit: Unit, zero = false): number | null {
  const read = parseQuantity(text);
  if (!read.ok) return null;
  const { value, unit: written } = read.value;
  if (written !== null && written !== unit) return null;
  return value > 0 || (zero && value === 0) ? value : null;
}
