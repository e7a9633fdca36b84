/** A wait in seconds, in minutes where it is long. */
export function waitWords(seconds: number): string {
  return seconds < 100 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;
}
