/** How a part is named that is only supposed to be there: no traced part is called so. */
export const SUPPOSED = 'not traced ';

/** Whether a part is only supposed. */
export function isSupposed(ref: string): boolean {
  return ref.startsWith(SUPPOSED);
}
