'use client';
import { ToggleGroup } from 'radix-ui';

/** One of a few words side by side. label or labelledBy names the choice; figures: the words are figures. */
export function Segments<T extends string>({
  value,
  choices,
  onChoose,
  label,
  labelledBy,
  figures = false,
  disabled = [],
}: {
  value: string;
  choices: Readonly<Record<T, string>>;
  onChoose(value: T): void;
  label?: string;
  labelledBy?: string;
  figures?: boolean;
  /** Those that cannot be chosen now. */
  disabled?: readonly T[];
}) {
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      aria-label={label}
      aria-labelledby={labelledBy}
      onValueChange={(v) => v !== '' && onChoose(v as T)}
      className="flex rounded-sm border border-line"
    >
      {(Object.entries(choices) as [T, string][]).map(([key, words]) => (
        <ToggleGroup.Item
          key={key}
          value={key}
          disabled={disabled.includes(key)}
          className={`py-1.5 pointer-coarse:min-h-[44px] disabled:opacity-40 data-[state=on]:bg-slate data-[state=on]:text-ground ${figures ? 'figure px-2' : 'px-3'}`}
        >
          {words}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
