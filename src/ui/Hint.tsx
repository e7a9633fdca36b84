'use client';
import { Tooltip } from 'radix-ui';
import { useState } from 'react';
import type { ReactNode } from 'react';

/**
 * Words that show when its child is pointed at, has focus or is touched. The child takes a ref and is reached by Tab; what acts
 * when it is touched (`acts`) does not show them by touch.
 */
export function Hint({ text, children, acts = false }: { text: ReactNode; children: ReactNode; acts?: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <Tooltip.Provider delayDuration={400}>
      <Tooltip.Root open={open} onOpenChange={setOpen}>
        <Tooltip.Trigger
          asChild
          onClick={(event) => {
            if (acts) return;
            // Touched: nothing points or has focus before.
            event.preventDefault();
            setOpen(true);
          }}
        >
          {children}
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            side="top"
            sideOffset={4}
            collisionPadding={8}
            className="z-50 max-w-96 rounded-sm border border-line bg-raised px-3 py-1.5 text-sm text-ink shadow-lg"
          >
            {text}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
