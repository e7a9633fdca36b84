/** How the workshop writes the decimals of a figure. */
export type DecimalMark = 'point' | 'comma';

let mark: DecimalMark = 'point';

/** Sets how figures are printed from now on in this process, page or worker. What is read takes both always. */
export function setDecimalMark(wanted: DecimalMark): void {
  mark = wanted;
}

/** How figures are printed now. */
export const decimalMark = (): DecimalMark => mark;

/** A printed figure, decimals behind a point, with the mark of the workshop. */
export const withMark = (figure: string): string => (mark === 'comma' ? figure.replace('.', ',') : figure);
