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
  const lines: { line: number; text: string; written: string }[] = [];
  for (let i = 1; i < physical.length; i++) {
    const raw = physical[i]!;
    const trimmed = raw.trim();
    const last = lines.at(-1);
    if (trimmed.startsWith('+') && last) {
      let owner = lines.length - 1;
      while (owner > 0 && (lines[owner]!.text === '' || lines[owner]!.text.startsWith('*'))) owner--;
      const target = lines[owner]!;
      target.text += ` ${withoutComment(trimmed.slice(1)).trim()}`;
      target.written += `\n${raw}`;
      continue;
    }
    const text = trimmed.startsWith('*') ? trimmed : withoutComment(trimmed).trim();
    lines.push({ line: i + 1, text, written: raw });
  }
  return { title: physical[0] ?? '', lines };
}

/** Splits on white space, double-quoted stretches kept whole (quotes stay). Null when a quote is not closed. */
export function words(text: string): readonly string[] | null {
  const found = text.match(/(?:[^\s"]|"[^"]*"?)+/gu) ?? [];
  if (found.some((word) => (word.match(/"/gu)?.length ?? 0) % 2 === 1)) return null;
  // `key = value` is the same as `key=value`.
  return (
    found
      .join(' ')
      .replace(/\s*=\s*/gu, '=')
      .match(/(?:[^\s"]|"[^"]*")+/gu) ?? []
  );
}
