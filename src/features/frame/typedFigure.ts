import { UNIT_SIGNS, parseQuantity } from '@/core/quantity';
import type { Unit } from '@/core/quantity';

/** A typed figure above zero (or zero where allowed) in a unit; null for what is none. */
export function typedFigure(text: string, unit: Unit, zero = false): number | null {
  const read = parseQuantity(text);
  if (!read.ok) return null;
  const { value, unit: written } = read.value;
  if (written !== null && written !== unit) return null;
  return value > 0 || (zero && value === 0) ? value : null;
}

/** What is wrong with a typed figure; undefined where nothing is, or nothing was typed. */
export function figureError(text: string, unit: Unit, zero = false): string | undefined {
  if (text.trim() === '' || typedFigure(text, unit, zero) !== null) return undefined;
  const read = parseQuantity(text);
  if (!read.ok) return `${read.problem.sentence} ${read.problem.remedy}`;
  const { unit: written, value } = read.value;
  if (written !== null && written !== unit)
    return unit === '1' ? 'This wants a bare figure.' : `This wants ${UNIT_SIGNS[unit]}, not ${UNIT_SIGNS[written]}.`;
  return value < 0 || !zero ? 'This wants a figure above nothing.' : undefined;
}
