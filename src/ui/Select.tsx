'use client';
import { Check, ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';
import { useId } from 'react';
import type { ReactNode } from 'react';

/** One of the words to choose from. */
export interface Option<T extends string = string> {
  readonly value: T;
  readonly words: ReactNode;
}

const LOOKS = {
  boxed: 'border-line py-1.5',
  slim: 'border-line py-0.5',
  bare: 'border-transparent py-0 hover:border-line',
} as const;

/** Radix takes an empty value for nothing chosen: ours may be a choice like any other. */
const EMPTY = '\u0000';
const outer = (value: string): string => (value === EMPTY ? '' : value);
const inner = (value: string): string => (value === '' ? EMPTY : value);

/**
 * A choice among a few words. The label stands above it, or beside it where it stands in a line; `hidden`: for a screen reader
 * alone.
 */
export function Select<T extends string>({
  label,
  place = 'above',
  value,
  options,
  onChoose,
  className = '',
  box = '',
  look = 'boxed',
  disabled,
  id: given,
  describedBy,
}: {
  label: ReactNode;
  place?: 'above' | 'beside' | 'hidden';
  value: T;
  options: readonly (NoInfer<T> | Option<NoInfer<T>>)[];
  onChoose(value: NoInfer<T>): void;
  className?: string;
  /** Further looks of the box itself. */
  box?: string;
  /** slim: in a strip; bare: in running text, its frame shown when it is pointed at. */
  look?: keyof typeof LOOKS;
  disabled?: boolean;
  id?: string;
  describedBy?: string;
}) {
  const own = useId();
  const id = given ?? own;
  const words =
    place === 'hidden' ? (
      <span id={`${id}-label`} className="sr-only">
        {label}
      </span>
    ) : (
      <label id={`${id}-label`} htmlFor={id} className={`text-sm text-faint ${place === 'above' ? 'mb-1 block' : ''}`}>
        {label}
      </label>
    );
  return (
    <div className={`shrink-0 ${place === 'beside' ? 'flex items-center gap-2' : ''} ${className}`}>
      {words}
      <Radix.Root
        value={inner(value)}
        onValueChange={(v) => onChoose(outer(v) as T)}
        {...(disabled ? { disabled } : {})}
      >
        <Radix.Trigger
          id={id}
          aria-labelledby={`${id}-label`}
          {...(describedBy ? { 'aria-describedby': describedBy } : {})}
          className={`flex items-center justify-between gap-2 rounded-sm border bg-ground px-2 text-left text-ink disabled:opacity-50 pointer-coarse:min-h-[44px] ${LOOKS[look]} ${place === 'above' ? 'w-full' : ''} ${box}`}
        >
          <span className="truncate">
            <Radix.Value />
          </span>
          <Radix.Icon>
            <ChevronDown aria-hidden className="size-4 shrink-0 text-faint" />
          </Radix.Icon>
        </Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            position="popper"
            sideOffset={2}
            className="z-50 max-h-[min(22rem,var(--radix-select-content-available-height))] min-w-(--radix-select-trigger-width) overflow-hidden rounded-sm border border-line bg-raised text-ink shadow-lg"
          >
            <Radix.Viewport className="p-1">
              {options.map((o) => {
                const option = typeof o === 'string' ? { value: o, words: o === '' ? '–' : o } : o;
                return (
                  <Radix.Item
                    key={option.value}
                    value={inner(option.value)}
                    className="relative flex cursor-pointer items-center rounded-sm py-1 pr-3 pl-7 outline-none select-none data-highlighted:bg-slate data-highlighted:text-ground pointer-coarse:min-h-[44px]"
                  >
                    <Radix.ItemIndicator className="absolute left-1.5">
                      <Check aria-hidden className="size-4" />
                    </Radix.ItemIndicator>
                    <Radix.ItemText>{option.words}</Radix.ItemText>
                  </Radix.Item>
                );
              })}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </div>
  );
}
