import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { SettingsProvider } from '@/features/job/SettingsContext';
import { Providers } from '@/ui/Providers';
import { settingsNow } from './settingsNow';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Rough Lantern', template: '%s · Rough Lantern' },
  description: 'A traced board is a model that computes: for technicians who repair supplies, chargers and inverters.',
};

/** Every page is made when it is asked for: its scripts carry a word that only this answer knows. */
export const dynamic = 'force-dynamic';

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  const settings = await settingsNow();
  return (
    <html lang="en" data-theme="soot" suppressHydrationWarning>
      <body>
        <Providers nonce={nonce}>
          <SettingsProvider settings={settings}>{children}</SettingsProvider>
        </Providers>
      </body>
    </html>
  );
}
