'use client';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { PRIMARY_LOOK } from './Button';
import { useLitFocus } from './useLitFocus';

/** The lit action of a screen where it leads on to another; it has focus as soon as it is there. */
export function PrimaryLink({ href, children }: { href: string; children: ReactNode }) {
  const ref = useLitFocus<HTMLAnchorElement>(true);
  return (
    <Link ref={ref} href={href} data-primary="yes" className={`${PRIMARY_LOOK} shrink-0`}>
      {children}
    </Link>
  );
}
