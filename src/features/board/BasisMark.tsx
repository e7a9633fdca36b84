import { Hint } from '@/ui/Hint';
import type { Basis } from '@/core/quantity';

const SIGNS: Readonly<Record<Basis, { readonly sign: string; readonly look: string; readonly words: string }>> = {
  assumed: { sign: '○', look: 'text-faint', words: 'assumed' },
  seen: { sign: '●', look: 'text-ink', words: 'seen on the part' },
  measured: { sign: '◉', look: 'text-verdigris', words: 'measured' },
  confirmed: { sign: '✓', look: 'text-verdigris', words: 'confirmed' },
};

/** How well a value is known: its own sign and word for each. */
export function BasisMark({
  basis,
  fitted = true,
  words = false,
}: {
  basis: Basis;
  fitted?: boolean;
  words?: boolean;
}) {
  const { sign, look, words: text } = fitted ? SIGNS[basis] : { sign: '–', look: 'text-faint', words: 'not fitted' };
  return (
    <Hint text={text}>
      <span className={look} tabIndex={words ? undefined : 0}>
        <span aria-hidden>{sign}</span>
        <span className={words ? 'ml-1' : 'sr-only'}>{text}</span>
      </span>
    </Hint>
  );
}
