import { formatQuantity, parseQuantity } from '@/core/quantity';
import type { Unit } from '@/core/quantity';
import type { Settings } from '@/wire/settings';

/** The electrical safety tests before a unit is handed over. */
export const SAFETY_TESTS = [
  'Earth continuity',
  'Insulation resistance',
  'Touch or leakage current',
  'Function under load',
] as const;

interface Limit {
  readonly unit: Unit;
  readonly value: number;
  readonly most: boolean;
}

function limitOf(test: string, { earthOhms, insulationOhms, leakageAmps }: Settings['closeOut']): Limit | null {
  if (test === SAFETY_TESTS[0]) return { unit: 'ohm', value: earthOhms, most: true };
  if (test === SAFETY_TESTS[1]) return { unit: 'ohm', value: insulationOhms, most: false };
  return test === SAFETY_TESTS[2] ? { unit: 'A', value: leakageAmps, most: true } : null;
}

/** The workshop's limit of a test in words; null where it has none. */
export function limitWords(test: string, limits: Settings['closeOut']): string | null {
  const limit = limitOf(test, limits);
  return limit && `${limit.most ? 'at most' : 'at least'} ${formatQuantity(limit.value, limit.unit)}`;
}

/**
 * Whether a result, as it was written (`0.08 ohm, passed`), holds the workshop's limit; null where the test has none, or where
 * no figure of its unit stands in the words.
 */
export function holdsLimit(test: string, result: string, limits: Settings['closeOut']): boolean | null {
  const limit = limitOf(test, limits);
  if (!limit) return null;
  const words = result.replaceAll(/[;()]|,(?!\d)/gu, ' ').split(/\s+/u);
  for (const [i, word] of words.entries()) {
    if (!/\d/u.test(word)) continue;
    // The unit may stand by itself.
    for (const text of [`${word} ${words[i + 1] ?? ''}`, word]) {
      const read = parseQuantity(text.trim());
      if (!read.ok || read.value.unit !== limit.unit) continue;
      return limit.most ? read.value.value <= limit.value : read.value.value >= limit.value;
    }
  }
  return null;
}
