'use client';
import { ScrollArea } from 'radix-ui';
import type { KeyboardEvent, ReactNode, Ref } from 'react';

/**
 * What may be longer than its place: it scrolls by wheel, touch and, once it has focus, by keys. `look` says how high it may be.
 * ref: the element that scrolls, for what draws only what is in sight.
 */
export function Scroll({
  label,
  look = '',
  most,
  ref,
  onKey,
  role = 'group',
  children,
}: {
  label: string;
  look?: string;
  /** Highest, pixels. */
  most?: number;
  ref?: Ref<HTMLDivElement>;
  onKey?: (event: KeyboardEvent) => void;
  role?: 'group' | 'region';
  children: ReactNode;
}) {
  return (
    <ScrollArea.Root
      type="auto"
      className={`flex min-w-0 flex-col overflow-hidden ${look}`}
      style={most === undefined ? {} : { maxHeight: most }}
    >
      <ScrollArea.Viewport
        ref={ref}
        tabIndex={0}
        role={role}
        aria-label={label}
        {...(onKey ? { onKeyDown: onKey } : {})}
        className="min-h-0 w-full flex-1 [&>div]:!block"
      >
        {children}
      </ScrollArea.Viewport>
      <Bar way="vertical" look="w-2" />
      <Bar way="horizontal" look="h-2" />
    </ScrollArea.Root>
  );
}

function Bar({ way, look }: { way: 'vertical' | 'horizontal'; look: string }) {
  return (
    <ScrollArea.Scrollbar orientation={way} className={`flex touch-none p-px select-none ${look}`}>
      <ScrollArea.Thumb className="flex-1 rounded-full bg-line" />
    </ScrollArea.Scrollbar>
  );
}
