'use client';
import { RadioGroup } from 'radix-ui';
import { useId } from 'react';
import type { ReactNode } from 'react';

/** One of several with its words beside it; stands in a Radix radio group. */
export function Radio({
  value,
  children,
  label,
  className = '',
}: {
  value: string;
  children: ReactNode;
  /** For a screen reader, in place of the words. */
  label?: string;
  className?: string;
}) {
  const id = useId();
  return (
    <div className={`flex items-start gap-2 pointer-coarse:min-h-[44px] ${className}`}>
      <RadioGroup.Item
        id={id}
        value={value}
        {...(label ? { 'aria-label': label } : {})}
        className="mt-1 grid size-4 shrink-0 place-items-center rounded-full border border-faint bg-ground data-[state=checked]:border-brass pointer-coarse:size-6"
      >
        <RadioGroup.Indicator className="size-2 rounded-full bg-brass pointer-coarse:size-3" />
      </RadioGroup.Item>
      {label ? <div>{children}</div> : <label htmlFor={id}>{children}</label>}
    </div>
  );
}
