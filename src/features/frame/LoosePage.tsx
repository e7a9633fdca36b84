import Link from 'next/link';
import type { ReactNode } from 'react';
import { FrameKeys } from './FrameKeys';
import { ThemeSwitch } from './ThemeSwitch';

/** A page outside of any job: the way to the bench, what it is, and the tools of every page. */
export function LoosePage({ title, children }: { title: ReactNode; children: ReactNode }) {
  return (
    <div className="mx-auto max-w-[1100px] px-6 py-5 max-sm:px-3">
      <header className="mb-5 flex items-center gap-5">
        <Link href="/" className="text-2xl font-bold text-brass">
          Rough Lantern
        </Link>
        <div className="flex-1 text-faint">{title}</div>
        <FrameKeys />
        <ThemeSwitch />
      </header>
      <main>{children}</main>
    </div>
  );
}
