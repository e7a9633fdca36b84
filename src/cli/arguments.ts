/** Command-line arguments: what stands alone, and options with their values (all of them, in order). */
export interface Arguments {
  readonly plain: readonly string[];
  readonly options: ReadonlyMap<string, readonly string[]>;
}

const FLAGS = new Set(['json', 'list', 'help', 'powered']);

/** Thrown when arguments cannot be used; exit status 2. */
export class UnusableArguments extends Error {}

/** Splits arguments; every option but the flags takes the next word (or what follows `=`) as its value. */
export function readArguments(words: readonly string[], known: readonly string[]): Arguments {
  const plain: string[] = [];
  const options = new Map<string, string[]>();
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    if (!word.startsWith('--')) {
      plain.push(word);
      continue;
    }
    const [name = '', inline] = word.slice(2).split(/=(.*)/su);
    if (!known.includes(name) && !FLAGS.has(name)) throw new UnusableArguments(`There is no option --${name}.`);
    const value = FLAGS.has(name) ? 'yes' : (inline ?? words[++i]);
    if (value === undefined) throw new UnusableArguments(`--${name} needs a value.`);
    options.set(name, [...(options.get(name) ?? []), value]);
  }
  return { plain, options };
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
