/** One word of a shorthand line: its text without quotes, where it stands and how long it is. */
export interface Token {
  readonly text: string;
  readonly quoted: boolean;
  readonly at: number;
  readonly length: number;
}

/** Splits a line at spaces; a quoted text is one word. Fails at a quote that is not closed. */
export function tokens(
  line: string,
): { readonly ok: true; readonly list: readonly Token[] } | { readonly ok: false; readonly at: number } {
  const list: Token[] = [];
  const shape = /"([^"]*)"|"|[^\s"]+/gu;
  for (const match of line.matchAll(shape)) {
    if (match[0] === '"') return { ok: false, at: match.index };
    const quoted = match[1] !== undefined;
    list.push({ text: quoted ? match[1]! : match[0], quoted, at: match.index, length: match[0].length });
  }
  return { ok: true, list };
}
