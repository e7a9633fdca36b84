import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { Hydrated } from '@/ui/Hydrated';
import './globals.css';

export const metadata: Metadata = {
  title: 'Rough Lantern',
  description: 'A traced board is a model that computes: for technicians who repair supplies, chargers and inverters.',
};

/** Sets the remembered theme before the first paint; soot is the default. */
const THEME = `try{document.documentElement.dataset.theme=localStorage.getItem('theme')==='paper'?'paper':'soot'}catch{document.documentElement.dataset.theme='soot'}`;

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" data-theme="soot" suppressHydrationWarning>
      <body>
        <script dangerouslySetInnerHTML={{ __html: THEME }} />
        {children}
        <Hydrated />
      </body>
    </html>
  );
}
