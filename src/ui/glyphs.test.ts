import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** What a screen may show: markup and words of the screens, and words that the core makes. */
const ROOMS = ['src/ui', 'src/features', 'src/app', 'src/core'];

/** A phone draws these as coloured pictures, whatever the text around them looks like. */
const COLOURED = /(?![0-9#*])\p{Emoji}/u;

function filesIn(folder: string): readonly string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesIn(path) : /\.tsx?$/u.test(entry.name) ? [path] : [];
  });
}

test('no screen shows a glyph that a phone draws in colour', () => {
  const files = ROOMS.flatMap(filesIn);
  expect(files.length).toBeGreaterThan(300);
  const found = files.flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((line, i) => (COLOURED.test(line) ? [`${file}:${i + 1} ${line.trim()}`] : [])),
  );
  expect(found).toEqual([]);
});
