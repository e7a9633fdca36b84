'use client';
import { Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';

/** What the widgets need around them. */
export function Providers({ children }: { children: ReactNode }) {
  return <Tooltip.Provider>{children}</Tooltip.Provider>;
}
