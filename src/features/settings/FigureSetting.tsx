'use client';
import { useState } from 'react';
import { useController } from 'react-hook-form';
import type { Control, FieldPath } from 'react-hook-form';
import { formatQuantity } from '@/core/quantity';
import type { Unit } from '@/core/quantity';
import { FigureField } from '@/features/frame/FigureField';
import { typedFigure } from '@/features/frame/typedFigure';
import type { Settings } from '@/wire/settings';

/** A figure of the settings: typed as anywhere else (`50u`, `4,7k`), kept in its unit; what cannot be read is said here. */
export function FigureSetting({
  control,
  name,
  label,
  unit,
  scale = 1,
  className = '',
}: {
  control: Control<Settings>;
  name: FieldPath<Settings>;
  label: string;
  unit: Unit;
  /** What is shown is the figure times this: 100 for per cent. */
  scale?: number;
  className?: string;
}) {
  const { field, fieldState } = useController({ control, name });
  const value = field.value as number;
  const [typed, setTyped] = useState<{ readonly text: string; readonly gives: number } | null>(null);
  // A figure set from elsewhere, such as a learned one, is shown as it is.
  const text = typed && Object.is(typed.gives, value) ? typed.text : formatQuantity(value * scale, unit, 5);
  return (
    <FigureField
      label={label}
      unit={unit}
      zero
      className={className}
      value={text}
      error={fieldState.error?.message}
      onChange={(e) => {
        const read = typedFigure(e.target.value, unit, true);
        const gives = read === null ? NaN : read / scale;
        setTyped({ text: e.target.value, gives });
        field.onChange(gives);
      }}
    />
  );
}
