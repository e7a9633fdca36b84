import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** What a page asks for before it listens: JavaScript, gzip, kB. */
export interface FirstLoad {
  readonly page: string;
  readonly kB: number;
}

/** Where a build keeps what each page's first load consists of; every page is one folder. */
const MANIFEST = 'page_client-reference-manifest.js';

/** First-load JavaScript of every page of the built application; null where it is not built. */
export function firstLoads(root: string): readonly FirstLoad[] | null {
  const next = join(root, '.next');
  const shared = join(next, 'build-manifest.json');
  if (!existsSync(shared)) return null;
  const { rootMainFiles } = JSON.parse(readFileSync(shared, 'utf8')) as { rootMainFiles: readonly string[] };
  const sizes = new Map<string, number>();
  const size = (file: string): number => {
    const known = sizes.get(file);
    if (known !== undefined) return known;
    const made = gzipSync(readFileSync(join(next, file))).length;
    sizes.set(file, made);
    return made;
  };
  return pagesIn(join(next, 'server', 'app')).map(({ page, manifest }) => {
    const text = readFileSync(manifest, 'utf8');
    const entries = /"entryJSFiles":\s*(\{.*?\})\s*[,}]/su.exec(text)?.[1] ?? '{}';
    const own = Object.entries(JSON.parse(entries) as Record<string, readonly string[]>).filter(
      ([entry]) =>
        // A page with the layouts around it; what stands by for failures is not fetched.
        entry.endsWith('/page') || entry.endsWith('/layout'),
    );
    const files = new Set([...rootMainFiles, ...own.flatMap(([, list]) => list)]);
    return { page, kB: [...files].reduce((sum, file) => sum + size(file), 0) / 1000 };
  });
}

function pagesIn(folder: string, path = ''): readonly { readonly page: string; readonly manifest: string }[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.isDirectory()) {
      const inner = /^\(.*\)$/u.test(entry.name) ? path : `${path}/${entry.name}`;
      return pagesIn(join(folder, entry.name), inner);
    }
    if (entry.name !== MANIFEST) return [];
    return [{ page: path === '' ? '/' : path.replace(/\/page$/u, '') || '/', manifest: join(folder, entry.name) }];
  });
}
