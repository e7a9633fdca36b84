import { readFileSync } from 'node:fs';
import { join } from 'node:path';

let known: string | null = null;

/** The version of this application, from its package. */
export function version(): string {
  known ??= (JSON.parse(readFileSync(join(process.cwd(), 'package.json'), 'utf8')) as { version: string }).version;
  return known;
}
