/**
 * A cell for CSV: quoted where it must be, and with an apostrophe before what a table program would take for a formula.
 * Plain negative figures stay as they are.
 */
export function csvCell(given: string): string {
  const formula = /^[=+\-@\t\r]/u.test(given) && !/^[+-]?\d[\d.,]*(?:e[+-]?\d+)?$/iu.test(given);
  const text = formula ? `'${given}` : given;
  return /[",;\n\r]/u.test(text) ? `"${text.replace(/"/gu, '""')}"` : text;
}

/**
 * Rows and cells of a CSV text; quotes after RFC 4180. A leading byte order mark is left out.
 *
 * separators  characters that part cells, comma and semicolon unless told.
 */
export function csvRows(given: string, separators = ',;'): string[][] {
  const text = given.replace(/^\uFEFF/u, '');
  // Without a quote no cell hides a separator: the text's own splitting is many times faster.
  if (!text.includes('"') && separators.length === 1) return text.split(/\r?\n/u).map((line) => line.split(separators));
  const rows: string[][] = [[]];
  let cellText = '';
  let quoted = false;
  const end = (): void => {
    rows.at(-1)!.push(cellText);
    cellText = '';
  };
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (quoted) {
      if (c === '"' && text[i + 1] === '"') {
        cellText += '"';
        i++;
      } else if (c === '"') quoted = false;
      else cellText += c;
    } else if (c === '"') quoted = true;
    else if (separators.includes(c)) end();
    else if (c === '\n') {
      end();
      rows.push([]);
    } else if (c !== '\r') cellText += c;
  }
  end();
  return rows;
}
