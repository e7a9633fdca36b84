'use client';
import { useTheme } from 'next-themes';
import { useInBrowser } from '@/features/job/kept';
import { Segments } from '@/ui/Segments';

const THEMES = { system: 'as the system', soot: 'dark: soot', paper: 'light: paper' };

/** What is set for this browser alone, and which version it looks at. */
export function BrowserPart({ version }: { version: string }) {
  const { theme, setTheme } = useTheme();
  // The server does not know what this browser keeps.
  const there = useInBrowser();
  return (
    <div className="flex flex-wrap items-center gap-6">
      <Segments label="Theme" value={there ? (theme ?? 'system') : ''} choices={THEMES} onChoose={setTheme} />
      <p className="text-sm text-faint">
        Rough Lantern <span className="figure">{version}</span>
      </p>
    </div>
  );
}
