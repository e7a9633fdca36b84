/**
 * How the outcomes of an experiment are laid out, for whoever weighs them and need not know what was measured.
 *
 * kind     figures as they are, or by the logarithm of figure plus one, both in this unit (1 where none is said).
 * span     width of the scale in its coordinate over which a reading that means nothing may fall.
 * limit    from here on, in the coordinate, there is no figure but overload.
 * noise    one sigma of the instrument: share of the figure plus a floor that holds up to a figure.
 */
export interface OutcomeScale {
  readonly kind: 'linear' | 'logarithmic';
  readonly unit?: number;
  readonly span: number;
  readonly limit: number;
  readonly noise: { readonly share: number; readonly floor: number; readonly floorTo: number };
}

/** Where a figure lies on a scale. */
export function placeOn({ kind, unit = 1 }: Pick<OutcomeScale, 'kind' | 'unit'>, figure: number): number {
  return kind === 'linear' ? figure : Math.log(Math.max(figure / unit, -0.5) + 1);
}

/** One sigma of what the instrument adds to a figure. */
export function noiseOf({ noise }: OutcomeScale, figure: number): number {
  return Math.abs(figure) * noise.share + (Math.abs(figure) <= noise.floorTo ? noise.floor : 0);
}
