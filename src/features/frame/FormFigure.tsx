'use client';
import { useController } from 'react-hook-form';
import type { Control, FieldPath, FieldValues } from 'react-hook-form';
import type { ComponentProps } from 'react';
import { FigureField } from './FigureField';

/** A figure of a form, kept as it was typed; what cannot be read is said at it. */
export function FormFigure<T extends FieldValues>({
  control,
  name,
  ...rest
}: { control: Control<T>; name: FieldPath<T> } & Omit<
  ComponentProps<typeof FigureField>,
  'value' | 'onChange' | 'name' | 'ref'
>) {
  const { field } = useController({ control, name });
  return <FigureField {...rest} value={field.value as string} onChange={field.onChange} onBlur={field.onBlur} />;
}
