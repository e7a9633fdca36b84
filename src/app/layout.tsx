import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Hydrated } from '@/ui/Hydrated';
import { Providers } from '@/ui/Providers';
import './globals.css';

export const metadata: Metadata = {
  title: 'Rough Lantern',
  description: 'A traced board is a model that computes: for technicians who repair supplies, chargers and inverters.',
};

/** Sets the remembered theme before the first paint; soot is the default. */
const THEME = `try{document.documentElement.dataset.theme=localStorage.getItem('theme')==='paper'?'paper':'soot'}catch{document.documentElement.dataset.theme='soot'}`;

/** Every page is made when it is asked for: its scripts carry a word that only this answer knows. */
export const dynamic = 'force-dynamic';

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" data-theme="soot" suppressHydrationWarning>
      <body>
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: THEME }} />
        <Providers>{children}</Providers>
        <Hydrated />
      </body>
    </html>
  );
}
