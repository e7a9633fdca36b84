import { readFileSync } from 'node:fs';
import { join } from 'node:path';

export const metadata = { title: 'Bench shorthand' };

/** The page of the bench shorthand, from the same file that the tests read. */
export default function ShorthandPage() {
  const text = readFileSync(join(process.cwd(), 'docs', 'SHORTHAND.md'), 'utf8');
  return (
    <main className="mx-auto max-w-3xl p-8">
      {text.split(/\n{2,}/u).map((block) => {
        if (block.startsWith('# '))
          return (
            <h1 key={block} className="mb-4 text-2xl font-bold">
              {block.slice(2)}
            </h1>
          );
        if (block.startsWith('## '))
          return (
            <h2 key={block} className="mt-6 mb-2 text-lg font-semibold">
              {block.slice(3)}
            </h2>
          );
        if (block.startsWith('```'))
          return (
            <pre key={block} className="figure mb-3 border border-line bg-raised p-3">
              {block.replace(/```/gu, '').trim()}
            </pre>
          );
        return (
          <p key={block} className="mb-3">
            {block.replace(/`/gu, '').replace(/\n/gu, ' ')}
          </p>
        );
      })}
    </main>
  );
}
