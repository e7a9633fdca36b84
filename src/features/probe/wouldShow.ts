import { KIND_WORDS } from '@/core/diagnose';

/** What an instrument beside the meter shows of parts that diode test and ohms do not see, by the words of their kinds. */
const SHOWS = [
  { code: 'esr', words: 'ESR meter', article: 'an', kinds: [KIND_WORDS.electrolytic] },
  {
    code: 'capacitance',
    words: 'capacitance meter',
    article: 'a',
    kinds: [KIND_WORDS.electrolytic, KIND_WORDS['small-capacitor'], KIND_WORDS['safety-capacitor']],
  },
  { code: 'ring', words: 'ring tester', article: 'a', kinds: [KIND_WORDS.winding] },
] as const;

/**
 * What would show faults of these kinds, in one sentence: the instruments that are there, each for what it sees, power for all;
 * where none is, the one that would help most.
 */
export function wouldShow(kinds: readonly string[], owned: readonly string[]): string {
  const seenBy = SHOWS.map((s) => ({ ...s, sees: kinds.filter((k) => s.kinds.some((own) => own === k)) })).filter(
    (s) => s.sees.length > 0,
  );
  const own = seenBy.filter((s) => owned.includes(s.code));
  if (own.length > 0) {
    const told = own.map((s) => `your ${s.words} would show ${s.sees.join(' and ')}`);
    return `${told.join(', ')}; power shows all of it`;
  }
  const [best] = seenBy;
  return best ? `power would show it, or ${best.article} ${best.words} if there were one` : 'power would show it';
}
