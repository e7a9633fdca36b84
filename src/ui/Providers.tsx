'use client';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { ThemeProvider } from 'next-themes';
import { useState } from 'react';
import type { ReactNode } from 'react';

/** What the widgets need around them; nonce: the word that scripts of this page carry. */
export function Providers({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  // What is read of the server is asked for on this machine or beside it: whether there is an internet says nothing.
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } }),
  );
  return (
    <ThemeProvider
      attribute="data-theme"
      themes={['soot', 'paper']}
      value={{ soot: 'soot', paper: 'paper', dark: 'soot', light: 'paper' }}
      enableColorScheme={false}
      {...(nonce === undefined ? {} : { nonce })}
    >
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    </ThemeProvider>
  );
}
