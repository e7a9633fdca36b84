/** A comma between figures and no point beside it: the decimals of one figure. */
const DECIMALS = /^[+-]?\d*,\d+[^,.]*$/u;

/**
 * Splits what was typed as several figures: at spaces, semicolons, and at commas that are not the decimal mark of a figure
 * (`4k7, 3.3`, `4,7 3,3`, `1,2,3`). Each can then be read by `parseQuantity`.
 */
export function splitFigures(text: string): readonly string[] {
  return text.split(/[\s;]+/u).flatMap((typed) => {
    const word = typed.replace(/^,+|,+$/gu, '');
    return DECIMALS.test(word) ? [word] : word.split(',').filter((w) => w !== '');
  });
}
