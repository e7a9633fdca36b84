import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** A core folder imports only from lower-numbered tiers. To move a folder, change this table in the same commit. */
const TIERS: Readonly<Record<string, number>> = {
  problem: 0,
  graph: 0,
  csv: 0,
  registration: 0,
  quantity: 1,
  linear: 1,
  part: 2,
  marking: 2,
  sums: 2,
  circuit: 3,
  substitute: 3,
  sweep: 3,
  netlist: 4,
  compare: 4,
  fault: 5,
  archetype: 5,
  device: 6,
  stages: 6,
  operate: 7,
  solve: 7,
  signal: 7,
  work: 8,
  trace: 7,
  safety: 8,
  drawing: 8,
  stress: 8,
  meter: 8,
  tables: 8,
  infer: 8,
  modify: 9,
  rate: 9,
  expect: 9,
  diagnose: 9,
  figures: 10,
  permit: 10,
  ledger: 10,
  job: 11,
};

const core = __dirname;
const folders = readdirSync(core).filter((f) => statSync(join(core, f)).isDirectory());
const files = folders.flatMap((folder) =>
  readdirSync(join(core, folder))
    .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts'))
    .map((f) => ({ folder, name: `${folder}/${f}`, file: join(core, folder, f) })),
);

test('every core folder has a tier', () => {
  expect(folders.filter((f) => TIERS[f] === undefined)).toEqual([]);
});

test('imports go down the tiers, through an index, and never out of the core', () => {
  const wrong: string[] = [];
  for (const { folder, file } of files) {
    for (const [, from = ''] of readFileSync(file, 'utf8').matchAll(/from '([^']+)'/gu)) {
      if (from.startsWith('./')) continue;
      const sibling = /^\.\.\/([^/]+)$/u.exec(from)?.[1];
      if (sibling === undefined || !(TIERS[sibling]! < TIERS[folder]!)) wrong.push(`${folder}: ${from}`);
    }
  }
  expect(wrong).toEqual([]);
});

test('nothing in the core asks the clock or draws at random', () => {
  const wrong = files.filter(({ file }) => /Math\.random|Date\.now|new Date\(\)/u.test(readFileSync(file, 'utf8')));
  expect(wrong).toEqual([]);
});

/** Who reads a part's raw keys: the readers and writers of texts, and `part`, which gives every figure its name. */
const RAW_READERS = /^(?:part|netlist)\/|^trace\/(?:makePart|deriveBoard)\.ts$/u;

test('only core/part reads the figures and texts of a part by their keys', () => {
  const wrong = files
    .filter(({ name }) => !RAW_READERS.test(name))
    .filter(({ file }) =>
      /numbers\['|\b(?:part|model|known|p|q)!?\.numbers\b|\bpart\.keys\b|facts\?\.\[/u.test(readFileSync(file, 'utf8')),
    );
  expect(wrong.map(({ name }) => name)).toEqual([]);
});

/** Who reads volts off the nameplate: `operate` for every other room; the typical circuits, which write them; intake's own check. */
const PLATE_READERS = /^(?:operate|circuit|archetype)\/|^safety\/nameplateSanity\.ts$/u;

test('only core/operate asks the nameplate for volts', () => {
  const wrong = files
    .filter(({ name }) => !PLATE_READERS.test(name))
    .filter(({ file }) => {
      const text = readFileSync(file, 'utf8');
      return (
        /\binput(?:Min|Nominal|Max)\b/u.test(text) || /nameplate\?*\.(?:outputs|auxInputs)[^;]*\.volts/u.test(text)
      );
    });
  expect(wrong.map(({ name }) => name)).toEqual([]);
});

test('no file imports itself round a circle', () => {
  const source = join(core, '..');
  const all = new Set<string>();
  const walk = (folder: string): void => {
    for (const name of readdirSync(folder)) {
      const path = join(folder, name);
      if (statSync(path).isDirectory()) walk(path);
      else if (/\.tsx?$/u.test(name) && !name.includes('.test.')) all.add(path);
    }
  };
  walk(source);
  const target = (from: string, name: string): string | undefined => {
    const base = name.startsWith('@/')
      ? join(source, name.slice(2))
      : name.startsWith('.')
        ? join(from, '..', name)
        : '';
    return [`${base}.ts`, `${base}.tsx`, join(base, 'index.ts')].find((path) => all.has(path));
  };
  const imports = new Map(
    [...all].map((file) => {
      const names = [...readFileSync(file, 'utf8').matchAll(/from '([^']+)'/gu)].map(([, name = '']) => name);
      return [file, names.flatMap((name) => target(file, name) ?? [])] as const;
    }),
  );
  // What imports nothing that is left goes, until nothing goes any more: what stays stands in a circle or above one.
  const left = new Set(all);
  for (let gone = true; gone;) {
    gone = false;
    for (const file of left) {
      if (imports.get(file)!.some((f) => left.has(f) && f !== file)) continue;
      left.delete(file);
      gone = true;
    }
  }
  expect([...left].map((file) => file.slice(source.length + 1))).toEqual([]);
});
