/** Whether nobody holds two probes for so many seconds. */
export const isLongWait = (seconds: number): boolean => seconds >= 100;

/** A wait in seconds, in minutes where it is long. */
export function waitWords(seconds: number): string {
  return !isLongWait(seconds) ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;
}
