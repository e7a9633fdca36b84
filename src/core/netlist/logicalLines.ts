/** One element, comment or command of a netlist, its `+` continuations joined. */
export interface LogicalLine {
  /** Line number of its first physical line, from 1. */
  readonly line: number;
  /** What is to be read: no inline comment, continuations joined with a space. */
  readonly text: string;
  /** All its physical lines as written, joined with a newline. */
  readonly written: string;
}

/** Cuts an inline comment off, unless the `;` stands inside double quotes. */
function withoutComment(text: string): string {
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '"') quoted = !quoted;
    if (text[i] === ';' && !quoted) return text.slice(0, i);
  }
  return text;
}

/**
 * Splits netlist text into its title (line 1) and logical lines.
 *
 * A `+` line continues the last line that was not a comment; comments between are kept as lines of their own.
 */
export function logicalLines(source: string): { readonly title: string; readonly lines: readonly LogicalLine[] } {
  const physical = source.replace(/\r\n?/gu, '\n').replace(/\n$/u, '').split('\n');
  const lines: { line: number; texts: string[]; written: string[] }[] = [];
  // The last line that was an element or a command: continuations belong to it. Found once, not searched for each.
  let owner = -1;
  for (let i = 1; i < physical.length; i++) {
    const raw = physical[i]!;
    const trimmed = raw.trim();
    if (trimmed.startsWith('+') && lines.length > 0) {
      const target = lines[Math.max(owner, 0)]!;
      target.texts.push(withoutComment(trimmed.slice(1)).trim());
      target.written.push(raw);
      continue;
    }
    const text = trimmed.startsWith('*') ? trimmed : withoutComment(trimmed).trim();
    lines.push({ line: i + 1, texts: [text], written: [raw] });
    if (text !== '' && !text.startsWith('*')) owner = lines.length - 1;
  }
  const joined = lines.map(({ line, texts, written }) => ({
    line,
    text: texts.join(' '),
    written: written.join('\n'),
  }));
  return { title: physical[0] ?? '', lines: joined };
}

const BLANK = /\s/u;

/**
 * Splits on white space, double-quoted stretches kept whole (quotes stay); `key = value` is the same as `key=value`.
 * Null when a quote is not closed. One pass, however long the text.
 */
export function words(text: string): readonly string[] | null {
  const found: string[] = [];
  let word = '';
  let joins = false;
  let i = 0;
  while (i < text.length) {
    const c = text[i]!;
    if (c === '"') {
      const end = text.indexOf('"', i + 1);
      if (end < 0) return null;
      if (word === '' && joins) word = found.pop() ?? '';
      joins = false;
      word += text.slice(i, end + 1);
      i = end + 1;
    } else if (BLANK.test(c)) {
      if (word !== '') found.push(word);
      word = '';
      i++;
    } else {
      // An equals sign takes the word before it and the one after it along.
      if (word === '' && (joins || c === '=') && found.length > 0) word = found.pop()!;
      word += c;
      joins = c === '=';
      i++;
    }
  }
  if (word !== '') found.push(word);
  return found;
}
