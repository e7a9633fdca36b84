'use client';
import { ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import type { ReactNode } from 'react';

/** Words that open what lies behind them. */
export function Reveal({
  words,
  children,
  open = false,
  className = '',
  look = 'text-sm text-slate',
}: {
  words: ReactNode;
  children: ReactNode;
  /** How it stands at first. */
  open?: boolean;
  className?: string;
  /** Of the words. */
  look?: string;
}) {
  return (
    <Collapsible.Root defaultOpen={open} className={className}>
      <Collapsible.Trigger className={`group flex items-center gap-1 text-left pointer-coarse:min-h-[44px] ${look}`}>
        <ChevronRight
          aria-hidden
          className="size-4 shrink-0 transition-transform group-data-[state=open]:rotate-90 motion-reduce:transition-none"
        />
        {words}
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
