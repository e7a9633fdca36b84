'use client';
import type { ComponentProps } from 'react';
import type { Unit } from '@/core/quantity';
import { TextField } from '@/ui/Field';
import { figureError } from './typedFigure';

/** A field for a figure: what cannot be read is said here, as it is typed, and never dropped. */
export function FigureField({
  unit,
  zero = false,
  value,
  error,
  ...rest
}: Omit<ComponentProps<typeof TextField>, 'value'> & {
  readonly unit: Unit;
  /** Zero is a figure too. */
  readonly zero?: boolean;
  readonly value: string;
}) {
  return <TextField inputMode="decimal" value={value} error={error ?? figureError(value, unit, zero)} {...rest} />;
}
