'use client';
import { useController } from 'react-hook-form';
import type { Control, FieldPath, FieldValues } from 'react-hook-form';
import { Select } from '@/ui/Select';
import type { Option } from '@/ui/Select';

/** A choice of a form. */
export function FormSelect<T extends FieldValues>({
  control,
  name,
  onChosen,
  ...rest
}: {
  control: Control<T>;
  name: FieldPath<T>;
  label: string;
  className?: string;
  options: readonly (string | Option)[];
  /** What else follows from it. */
  onChosen?(value: string): void;
}) {
  const { field } = useController({ control, name });
  return (
    <Select
      {...rest}
      value={field.value as string}
      onChoose={(value) => {
        field.onChange(value);
        onChosen?.(value);
      }}
    />
  );
}
