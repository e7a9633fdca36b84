'use client';
import { Check } from 'lucide-react';
import { Checkbox } from 'radix-ui';
import { useId } from 'react';
import type { ReactNode } from 'react';
import { useLitFocus } from './useLitFocus';

/** A box to tick with its words beside it. */
export function Tick({
  label,
  checked,
  onTick,
  className = '',
  disabled = false,
  autoFocus,
}: {
  label: ReactNode;
  checked: boolean;
  onTick(checked: boolean): void;
  className?: string;
  disabled?: boolean;
  autoFocus?: boolean;
}) {
  const id = useId();
  const ref = useLitFocus<HTMLButtonElement>(autoFocus);
  return (
    <div className={`flex items-center gap-2 pointer-coarse:min-h-[44px] ${className}`}>
      <Checkbox.Root
        id={id}
        ref={ref}
        checked={checked}
        disabled={disabled}
        onCheckedChange={(now) => onTick(now === true)}
        className="grid size-4.5 shrink-0 place-items-center rounded-xs border border-faint bg-ground disabled:opacity-50 data-[state=checked]:border-brass data-[state=checked]:bg-brass data-[state=checked]:text-on-brass pointer-coarse:size-6"
      >
        <Checkbox.Indicator>
          <Check aria-hidden strokeWidth={3} className="size-4" />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="cursor-pointer">
        {label}
      </label>
    </div>
  );
}
