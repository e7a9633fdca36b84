import { parseArgs } from 'node:util';

/** Command-line arguments: what stands alone, and options with their values (all of them, in order). */
export interface Arguments {
  readonly plain: readonly string[];
  readonly options: ReadonlyMap<string, readonly string[]>;
}

const FLAGS: readonly string[] = ['json', 'list', 'help', 'powered'];

/** Thrown when arguments cannot be used; exit status 2. */
export class UnusableArguments extends Error {}

/** Splits arguments; every option but the flags takes the next word (or what follows `=`) as its value. */
export function readArguments(words: readonly string[], known: readonly string[]): Arguments {
  const options = Object.fromEntries([
    ...known.map((name) => [name, { type: 'string' as const, multiple: true }]),
    ...FLAGS.map((name) => [name, { type: 'boolean' as const, multiple: true }]),
  ]) as Record<string, { type: 'string' | 'boolean'; multiple: true }>;
  // Read without its own judgement, so that what is wrong is said in our words and a value may begin with a minus.
  const { tokens } = parseArgs({ args: [...words], options, strict: false, allowPositionals: true, tokens: true });
  const read = new Map<string, string[]>();
  const plain: string[] = [];
  let seen = -1;
  for (const token of tokens) {
    if (token.kind === 'positional') plain.push(token.value);
    if (token.kind !== 'option') continue;
    const { name, rawName, value, index } = token;
    // A net may be called -12V: a single dash begins no option here.
    if (!rawName.startsWith('--')) {
      if (seen !== index) plain.push(words[index]!);
      seen = index;
      continue;
    }
    const kind = options[name]?.type;
    if (kind === undefined) throw new UnusableArguments(`There is no option ${rawName}.`);
    if (kind === 'string' && value === undefined) throw new UnusableArguments(`--${name} needs a value.`);
    read.set(name, [...(read.get(name) ?? []), kind === 'boolean' ? 'yes' : value!]);
  }
  return { plain, options: read };
}

/** The last value of an option, or undefined. */
export function option(args: Arguments, name: string): string | undefined {
  return args.options.get(name)?.at(-1);
}

/** The value of an option that must be there. */
export function required(args: Arguments, name: string): string {
  const value = option(args, name);
  if (value === undefined) throw new UnusableArguments(`--${name} is missing.`);
  return value;
}
