import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Markdown from 'react-markdown';
import remarkGfm from 'remark-gfm';
import { Hydrated } from '@/ui/Hydrated';

export const metadata = { title: 'Bench shorthand' };

/** The page of the bench shorthand, from the same file that the tests read. */
export default function ShorthandPage() {
  const text = readFileSync(join(process.cwd(), 'docs', 'SHORTHAND.md'), 'utf8');
  return (
    <main className="written mx-auto max-w-3xl p-8">
      <Hydrated />
      <Markdown remarkPlugins={[remarkGfm]}>{text}</Markdown>
    </main>
  );
}
