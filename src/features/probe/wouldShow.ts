import { KIND_WORDS } from '@/core/diagnose';

/** What an instrument beside the meter shows of parts that diode test and ohms do not see, by the words of their kinds. */
const SHOWS = [
  { code: 'esr', mode: 'esr', words: 'ESR meter', article: 'an', kinds: [KIND_WORDS.electrolytic] },
  {
    code: 'capacitance',
    mode: 'cap',
    words: 'capacitance meter',
    article: 'a',
    kinds: [KIND_WORDS.electrolytic, KIND_WORDS['small-capacitor'], KIND_WORDS['safety-capacitor']],
  },
  { code: 'ring', mode: 'ring', words: 'ring tester', article: 'a', kinds: [KIND_WORDS.winding] },
] as const;

/**
 * What would show faults of these kinds, in one sentence: the instruments that are there, each for what it sees, power for all;
 * where none is, the one that would help most. What is not seen although readings are planned with its instrument has its
 * like beside it: a leg has to come up.
 *
 * owned    codes of the workshop's instruments; planned: modes of those that readings are planned with.
 */
export function wouldShow(kinds: readonly string[], owned: readonly string[], planned: readonly string[]): string {
  const seenBy = SHOWS.map((s) => ({ ...s, sees: kinds.filter((k) => s.kinds.some((own) => own === k)) })).filter(
    (s) => s.sees.length > 0,
  );
  const own = seenBy.filter((s) => owned.includes(s.code));
  const inUse = own.filter((s) => planned.includes(s.mode));
  const hidden = [...new Set(inUse.flatMap((s) => s.sees))];
  const told = [
    ...(hidden.length > 0 ? [`${hidden.join(' and ')} with their like beside them hide in circuit: lift a leg`] : []),
    ...own.filter((s) => !inUse.includes(s)).map((s) => `your ${s.words} would show ${s.sees.join(' and ')}`),
  ];
  if (told.length > 0) return `${told.join(', ')}; power shows all of it`;
  const [best] = seenBy;
  return best ? `power would show it, or ${best.article} ${best.words} if there were one` : 'power would show it';
}
