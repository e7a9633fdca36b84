/**
 * A cell for CSV: quoted where it must be, and with an apostrophe before what a table program would take for a formula.
 * Plain negative figures stay as they are.
 */
export function csvCell(given: string): string {
  const formula = /^[=+\-@\t\r]/u.test(given) && !/^[+-]?\d[\d.,]*(?:e[+-]?\d+)?$/iu.test(given);
  const text = formula ? `'${given}` : given;
  return /[",;\n\r]/u.test(text) ? `"${text.replace(/"/gu, '""')}"` : text;
}
