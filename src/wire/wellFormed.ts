/** Whether every text in a body, names included, is one that can be kept: no null character, no half of a pair. */
export function wellFormed(value: unknown): boolean {
  if (typeof value === 'string') return value.isWellFormed() && !value.includes('\0');
  if (Array.isArray(value)) return value.every(wellFormed);
  if (value === null || typeof value !== 'object') return true;
  return Object.entries(value).every(([key, inner]) => wellFormed(key) && wellFormed(inner));
}
