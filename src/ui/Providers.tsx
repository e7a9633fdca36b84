'use client';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';

/** What the widgets need around them; nonce: the word that scripts of this page carry. */
export function Providers({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  return (
    <ThemeProvider
      attribute="data-theme"
      themes={['soot', 'paper']}
      value={{ soot: 'soot', paper: 'paper', dark: 'soot', light: 'paper' }}
      enableColorScheme={false}
      {...(nonce === undefined ? {} : { nonce })}
    >
      {children}
    </ThemeProvider>
  );
}
